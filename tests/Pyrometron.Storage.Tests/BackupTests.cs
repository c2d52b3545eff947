using System.Security.Cryptography;
using CsCheck;
using Microsoft.Data.Sqlite;
using Pyrometron.Core.Messages;
using Pyrometron.Storage.Backups;

namespace Pyrometron.Storage.Tests;

/// <summary>Backups: whole, sealed, cut short, of another house, of a newer version; laid back.</summary>
public sealed class BackupTests : IDisposable
{
    private static readonly DateTimeOffset Now = new(2026, 12, 1, 18, 0, 0, TimeSpan.Zero);

    private readonly TemporaryDatabase _house = new();
    private readonly BackupFolder _folder;
    private readonly Restore _restore;

    public BackupTests()
    {
        _folder = new BackupFolder(Path.Combine(_house.Folder, "backups"));
        _restore = new Restore(_house.Path, _folder);
    }

    public void Dispose() => _house.Dispose();

    private Backup Make(string? passphrase = null, int minutes = 0) =>
        _folder.Make(_house.Path, passphrase, Now.AddMinutes(minutes), CancellationToken.None);

    private void ChangeSomething() => _house.Database.Write(Actor.Program, Now, t => Log(t, "changed"));

    private static void Log(Transaction t, string says) => t.Log(new Change("change", Message.Verbatim(says)));

    private string File(Backup backup) => Path.Combine(_folder.Path, backup.Name);

    private static void Change(string file, Action<FileStream> change)
    {
        using var stream = new FileStream(file, FileMode.Open, FileAccess.ReadWrite);
        change(stream);
    }

    [Fact]
    public void A_backup_is_an_ordinary_database_and_says_what_it_holds()
    {
        var backup = Make();
        using var copy = Database.Open(File(backup));
        Assert.Equal(_house.Fleet.All().Select(a => a.Asset.Tag), new FleetStore(copy).All().Select(a => a.Asset.Tag));
        var contents = backup.Manifest!.Contents;
        Assert.Equal(
            (_house.Fleet.All().Count, new ChangeStore(_house.Database).Last()),
            ((int)contents.Machines, contents.Changes)
        );
        Assert.Equal([backup], _folder.All());
        Assert.Equal(2, Directory.EnumerateFiles(_folder.Path).Count(f => !f.EndsWith("-wal") && !f.EndsWith("-shm")));
    }

    /// <summary>Writers go on while it is made, and each copy holds whole use cases only.</summary>
    [Fact]
    public async Task It_is_made_while_others_write()
    {
        using var stop = new CancellationTokenSource();
        var writing = Task.Run(() =>
        {
            while (!stop.IsCancellationRequested)
                _house.Database.Write(
                    Actor.Program,
                    Now,
                    t =>
                    {
                        Log(t, "one");
                        Log(t, "two");
                    }
                );
        });
        var before = new ChangeStore(_house.Database).Last();
        for (var i = 0; i < 5; i++)
        {
            using var copy = Database.Open(File(Make(minutes: i)));
            Assert.Equal(0, (new ChangeStore(copy).Last() - before) % 2);
            Assert.Null(new AuditStore(copy).Follow(CancellationToken.None).FirstBroken);
        }
        await stop.CancelAsync();
        await writing;
    }

    [Fact]
    public void What_was_written_since_is_gone_after_a_restore_and_lies_aside()
    {
        var backup = Make();
        ChangeSomething();
        var last = new ChangeStore(_house.Database).Last();
        var preview = _restore.Preview(backup.Name, null);
        Assert.Equal((last, last - 1, false), (preview.Now!.Changes, preview.Then.Changes, preview.OtherHouse));
        _house.Database.Dispose();
        var aside = _restore.Run(backup.Name, null, fromOtherHouse: false, Now);
        using (var now = Database.Open(_house.Path))
            Assert.Equal(last - 1, new ChangeStore(now).Last());
        using (var then = Database.Open(aside!))
            Assert.Equal(last, new ChangeStore(then).Last());
    }

    [Fact]
    public void A_damaged_house_is_laid_back()
    {
        var backup = Make();
        _house.Database.Dispose();
        SqliteConnection.ClearAllPools();
        System.IO.File.WriteAllText(_house.Path, "no database at all, but long enough to be read as one by mistake");
        var error = Assert.Throws<InvalidDataException>(() => Database.Open(_house.Path));
        Assert.True(DatabaseCheck.IsDamage(error));
        Assert.Null(_restore.Preview(backup.Name, null).Now);
        _restore.Run(backup.Name, null, fromOtherHouse: false, Now);
        using var again = Database.Open(_house.Path);
        Assert.NotEmpty(new FleetStore(again).All());
    }

    [Fact]
    public void A_sealed_one_opens_with_its_passphrase_alone()
    {
        var backup = Make("a long word of the house");
        Assert.True(backup.Manifest!.Encrypted);
        Assert.DoesNotContain("SQLite format", System.IO.File.ReadAllText(File(backup)));
        Assert.Equal(_house.Fleet.All().Count, (int)_restore.Preview(backup.Name, "a long word of the house").Then.Machines);
        Assert.Contains(
            "passphrase",
            Assert.Throws<InvalidDataException>(() => _restore.Preview(backup.Name, "another")).Message
        );
        Assert.Contains("needed", Assert.Throws<InvalidDataException>(() => _restore.Preview(backup.Name, null)).Message);
    }

    [Fact]
    public void One_cut_short_or_changed_is_told_and_not_laid_back()
    {
        var backup = Make();
        Change(File(backup), s => s.SetLength(s.Length - 4096));
        Assert.Contains("cut short", _folder.All()[0].Damage);
        Assert.Throws<InvalidDataException>(() => _restore.Run(backup.Name, null, false, Now));

        var other = Make(minutes: 1);
        Change(
            File(other),
            s =>
            {
                s.Position = s.Length / 2;
                var octet = s.ReadByte();
                s.Position--;
                s.WriteByte((byte)(octet ^ 1));
            }
        );
        Assert.Null(_folder.Find(other.Name)!.Damage);
        Assert.Contains("checksum", Assert.Throws<InvalidDataException>(() => _restore.Preview(other.Name, null)).Message);

        var alone = Make(minutes: 2);
        System.IO.File.Delete(File(alone) + ".json");
        Assert.Contains("not finished", _folder.Find(alone.Name)!.Damage);
        Assert.Throws<InvalidDataException>(() => _restore.Preview(alone.Name, null));
    }

    [Fact]
    public void One_of_another_house_is_laid_back_only_when_that_is_wanted()
    {
        using var neighbour = new TemporaryDatabase();
        var theirs = new BackupFolder(_folder.Path).Make(neighbour.Path, null, Now, CancellationToken.None);
        Assert.True(_restore.Preview(theirs.Name, null).OtherHouse);
        _house.Database.Dispose();
        var error = Assert.Throws<InvalidDataException>(() => _restore.Run(theirs.Name, null, fromOtherHouse: false, Now));
        Assert.Contains("another house", error.Message);
        _restore.Run(theirs.Name, null, fromOtherHouse: true, Now);
    }

    [Fact]
    public void One_of_a_newer_version_is_refused()
    {
        using (var connection = _house.Database.Connect())
        using (var command = connection.CreateCommand())
        {
            command.CommandText = "PRAGMA user_version = 9999";
            command.ExecuteNonQuery();
        }
        var error = Assert.Throws<InvalidDataException>(() => _restore.Preview(Make().Name, null));
        Assert.Contains("newer", error.Message);
    }

    [Fact]
    public void What_is_asked_for_is_laid_back_once_and_what_goes_wrong_is_told()
    {
        var backup = Make();
        ChangeSomething();
        var last = new ChangeStore(_house.Database).Last();
        _restore.AskFor(backup.Name);
        Assert.Equal(backup.Name, _restore.AskedFor);
        _house.Database.Dispose();
        var told = new List<string>();
        _restore.RunAskedFor(null, Now, told.Add);
        Assert.Contains("laid back", Assert.Single(told));
        Assert.Null(_restore.AskedFor);
        using (var now = Database.Open(_house.Path))
            Assert.Equal(last - 1, new ChangeStore(now).Last());
        _restore.AskFor("pyrometron-20000101-000000.db");
        _restore.RunAskedFor(null, Now, told.Add);
        Assert.Contains("nothing was changed", told[^1]);
    }

    [Theory]
    [InlineData("../pyrometron.db")]
    [InlineData("pyrometron-../../secret.db")]
    [InlineData("pyrometron-1.db.json")]
    [InlineData("/etc/passwd")]
    [InlineData("")]
    public void No_other_file_is_reached_by_a_name(string name)
    {
        Make();
        Assert.Null(_folder.Find(name));
    }

    [Fact]
    public void What_fails_leaves_no_half_backup()
    {
        // The place of the folder is a file.
        var taken = Path.Combine(_house.Folder, "taken");
        System.IO.File.WriteAllText(taken, "");
        Assert.ThrowsAny<IOException>(() => new BackupFolder(taken).Make(_house.Path, null, Now, CancellationToken.None));
        using var stopped = new CancellationTokenSource();
        stopped.Cancel();
        Assert.Throws<OperationCanceledException>(() => _folder.Make(_house.Path, null, Now, stopped.Token));
        Assert.Empty(_folder.All());
        Assert.Empty(Directory.EnumerateFiles(_folder.Path, "*.unfinished*"));
    }

    /// <summary>Any bytes come back, and any octet changed, left out or cut off is found out.</summary>
    [Fact]
    public void Sealed_bytes_come_back_or_not_at_all() =>
        Gen.Select(Gen.Int[0, 3 << 20], Gen.Double.Unit, Gen.Int[1, 255])
            .Sample(
                (length, where, change) =>
                {
                    var plain = RandomNumberGenerator.GetBytes(length);
                    using var box = new MemoryStream();
                    SealedFile.Seal(new MemoryStream(plain), box, "word", CancellationToken.None);
                    var octets = box.ToArray();
                    using var open = new MemoryStream();
                    SealedFile.Open(new MemoryStream(octets), open, "word");
                    Assert.Equal(plain, open.ToArray());
                    var at = (int)(where * (octets.Length - 1));
                    Assert.Throws<InvalidDataException>(() =>
                        SealedFile.Open(new MemoryStream(octets[..at]), Stream.Null, "word")
                    );
                    // The number of iterations is bound by a limit of its own; another one takes long to find out.
                    if (at is >= 24 and < 28)
                        return;
                    octets[at] ^= (byte)change;
                    Assert.Throws<InvalidDataException>(() => SealedFile.Open(new MemoryStream(octets), Stream.Null, "word"));
                },
                iter: 6
            );

    /// <summary>Reckoned by hand: two days, one week more, one month more; the newest is always kept.</summary>
    [Fact]
    public void The_newest_of_days_weeks_and_months_are_kept()
    {
        DateTimeOffset On(int month, int day, int hour = 6) => new(2026, month, day, hour, 0, 0, TimeSpan.Zero);
        DateTimeOffset[] made = [On(12, 1), On(12, 1, 5), On(11, 30), On(11, 27), On(11, 20), On(10, 31), On(9, 30)];
        Assert.Equal(
            [On(12, 1), On(11, 30), On(11, 27), On(10, 31)],
            new Retention(Days: 2, Weeks: 2, Months: 3).Kept(made).OrderDescending()
        );
        Assert.Equal([On(12, 1)], new Retention(0, 0, 0).Kept(made));
        Make();
        Make(minutes: 1);
        Assert.Single(_folder.Prune(new Retention(1, 1, 1)));
        Assert.Single(_folder.All());
    }
}
