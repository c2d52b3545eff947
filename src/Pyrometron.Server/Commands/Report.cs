using System.Globalization;
using System.Text.Json;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage.Backups;

namespace Pyrometron.Server.Commands;

/// <summary>What a command answers: lines for people, or one JSON object a line for programs.</summary>
internal sealed class Report(TextWriter output, bool json)
{
    /// <summary>One thing that was looked at or done.</summary>
    public void Line(string what, string which, string how)
    {
        if (json)
            Write(
                new
                {
                    what,
                    which,
                    how,
                }
            );
        else
            output.WriteLine($"{what, -10}  {which}: {how}");
    }

    /// <summary>A record: whole for programs, a line for people.</summary>
    public void Row<T>(T record, string told)
    {
        if (json)
            Write(record);
        else
            output.WriteLine(told);
    }

    /// <summary>What a person is told where there is nothing to list; programs see that nothing is.</summary>
    public void Note(string words)
    {
        if (!json)
            output.WriteLine(words);
    }

    /// <summary>How far long work is; only to a person who looks on.</summary>
    public void Progress(string how)
    {
        if (!json && ReferenceEquals(output, Console.Out) && !Console.IsErrorRedirected)
            Console.Error.WriteLine(how);
    }

    /// <summary>One backup.</summary>
    public void One(string what, string path, BackupManifest manifest)
    {
        if (json)
            Write(
                new
                {
                    what,
                    which = path,
                    manifest,
                }
            );
        else
            output.WriteLine($"{what, -10}  {path}: {Size(manifest.Bytes)}, {Told(manifest.Contents)}");
    }

    /// <summary>All backups.</summary>
    public void All(IReadOnlyList<Backup> backups)
    {
        if (backups.Count == 0)
            Note("There are no backups yet; the command backup makes one.");
        foreach (var b in backups)
            if (json)
                Write(
                    new
                    {
                        what = "backup",
                        which = b.Name,
                        b.Manifest,
                        b.Damage,
                    }
                );
            else
                output.WriteLine(
                    b.Manifest is { } m
                        ? $"{b.Name}  {Size(m.Bytes)}{(m.Encrypted ? ", sealed" : "")}, {Told(m.Contents)}{(b.Damage is null ? "" : $"; {b.Damage}")}"
                        : $"{b.Name}  {b.Damage}"
                );
    }

    /// <summary>What laying a backup back would change.</summary>
    public void Preview(RestorePreview preview)
    {
        if (json)
        {
            Write(
                new
                {
                    what = "restore",
                    which = preview.Backup.Name,
                    preview.Now,
                    preview.Then,
                    preview.OtherHouse,
                }
            );
            return;
        }
        output.WriteLine(preview.Now is { } now ? $"now   {Told(now)}" : "now   no database, or one that cannot be read");
        output.WriteLine($"then  {Told(preview.Then)}");
        if (preview.OtherHouse)
            output.WriteLine("It is of another house: --other-house lays it back all the same.");
    }

    private static string Told(DatabaseContents c) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{c.Machines} machines, {c.Readings} readings, {c.Jobs} jobs, {c.Photos} photos, {(c.LastChange is { } at ? $"last changed {at:yyyy-MM-dd HH:mm} UTC" : "never changed")}"
        );

    private static string Size(long bytes) => string.Create(CultureInfo.InvariantCulture, $"{bytes / 1048576.0:0.0} MB");

    private void Write<T>(T line) => output.WriteLine(JsonSerializer.Serialize(line, ApiJson.Options));
}
