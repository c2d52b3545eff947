using System.CommandLine;
using System.Net;
using System.Net.Sockets;
using Microsoft.Extensions.Logging.Abstractions;
using Pyrometron.Server.Access;
using Pyrometron.Server.Backups;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;
using Pyrometron.Storage.Backups;

namespace Pyrometron.Server.Commands;

/// <summary>Looks at what a house stands on, and says of each thing that is wrong what to do. Changes nothing.</summary>
internal static class Doctor
{
    /// <summary>Room beside the database for its next copy and for uploads, bytes.</summary>
    private const long LeastRoom = 1L << 30;

    /// <summary>A clock that is further behind than this makes entries that nobody believes.</summary>
    private static readonly TimeSpan ClockTolerance = TimeSpan.FromMinutes(5);

    private static readonly TimeSpan CertificateAhead = TimeSpan.FromDays(14);

    /// <summary>The command.</summary>
    /// <param name="data">The option that names the folder with the database.</param>
    /// <param name="json">The option for answers in JSON.</param>
    public static Command Command(Option<string> data, Option<bool> json)
    {
        var port = new Option<int>("--port")
        {
            Description = "The port that the server is to listen on.",
            DefaultValueFactory = _ => 5117,
        };
        var certificate = new Option<string?>("--certificate") { Description = "The house's own certificate, PEM or PFX." };
        var key = new Option<string?>("--certificate-key") { Description = "Its key, where it is in a file of its own." };
        var command = new Command("doctor", "Looks at folder, disk, database, clock, port, certificate and backups.")
        {
            data,
            port,
            certificate,
            key,
            json,
        };
        command.SetAction(parsed =>
            CommandLine.Told(
                parsed,
                (report, settings) =>
                {
                    var examined = new Examination(report);
                    var folder = parsed.GetValue(data)!;
                    examined.Look("folder", folder, () => Folder(folder));
                    examined.Look("disk", folder, () => Disk(folder));
                    examined.Look("database", folder, () => DatabaseIn(folder));
                    examined.Look("port", $"{parsed.GetValue(port)}", () => Port(folder, parsed.GetValue(port)));
                    examined.Look(
                        "certificate",
                        parsed.GetValue(certificate) ?? "made here",
                        () => Certificate(folder, parsed.GetValue(certificate), parsed.GetValue(key), settings)
                    );
                    examined.Look("backups", folder, () => Backups(folder, settings));
                    return examined.IsWell;
                }
            )
        );
        return command;
    }

    /// <summary>What was found: well or not, and a line on it.</summary>
    private sealed record Finding(bool IsWell, string Says)
    {
        public static Finding Well(string says) => new(true, says);

        public static Finding Ill(string says) => new(false, says);
    }

    private sealed class Examination(Report report)
    {
        public bool IsWell { get; private set; } = true;

        public void Look(string what, string which, Func<Finding> look)
        {
            Finding found;
            try
            {
                found = look();
            }
            catch (Exception error)
                when (error is IOException or UnauthorizedAccessException or InvalidDataException
                    || StorageFailure.Of(error) is not null
                )
            {
                found = Finding.Ill(StorageFailure.Of(error)?.ToString() ?? error.Message);
            }
            IsWell &= found.IsWell;
            report.Line(what, which, found.Says);
        }
    }

    private static Finding Folder(string folder)
    {
        if (!Directory.Exists(folder))
            return Finding.Ill("is not there. Name it with --data, or let the server make it.");
        var trial = Path.Combine(folder, $".doctor-{Guid.NewGuid():N}");
        File.WriteAllBytes(trial, []);
        File.Delete(trial);
        var keys = new DirectoryInfo(Path.Combine(folder, "keys"));
        const UnixFileMode others = UnixFileMode.GroupRead | UnixFileMode.OtherRead | UnixFileMode.OtherExecute;
        if (keys.Exists && (keys.UnixFileMode & others) != 0)
            return Finding.Ill($"others may read {keys.FullName}: chmod 700 it, since it holds the keys of cookies.");
        return Finding.Well("can be written");
    }

    private static Finding Disk(string folder)
    {
        var room = new DriveInfo(Path.GetFullPath(folder)).AvailableFreeSpace;
        var file = new FileInfo(Path.Combine(folder, ServerOptions.DatabaseFile));
        var needed = Math.Max(LeastRoom, file.Exists ? 2 * file.Length : 0);
        var says = FormattableString.Invariant($"{room / 1e9:0.0} GB free");
        return room >= needed
            ? Finding.Well(says)
            : Finding.Ill(FormattableString.Invariant($"{says}; {needed / 1e9:0.0} GB are needed for a copy. Make room."));
    }

    /// <summary>A copy is looked through, so that a house at work is not held up and an older one is not migrated.</summary>
    private static Finding DatabaseIn(string folder)
    {
        var path = Path.Combine(folder, ServerOptions.DatabaseFile);
        CommandLine.CheckThere(path);
        var trial = Directory.CreateTempSubdirectory("pyrometron-doctor-").FullName;
        try
        {
            var copy = new BackupFolder(trial).Make(path, null, DateTimeOffset.UtcNow, CancellationToken.None);
            using var database = Database.Open(Path.Combine(trial, copy.Name));
            var changes = new ChangeStore(database);
            if (
                changes.After(Math.Max(0, changes.Last() - 1), 1) is [{ StoredAt: var last }]
                && last > DateTimeOffset.UtcNow + ClockTolerance
            )
                return Finding.Ill(
                    FormattableString.Invariant(
                        $"its last change was stored {last:u}, which is ahead of this machine's clock. Set the clock, or wait until then."
                    )
                );
            return Finding.Well("whole, and the clock is not behind it");
        }
        finally
        {
            Directory.Delete(trial, recursive: true);
        }
    }

    private static Finding Port(string folder, int port)
    {
        if (DataFolder.IsTaken(folder))
            return Finding.Well("a server is at work on this folder");
        using var listener = new TcpListener(IPAddress.Loopback, port);
        try
        {
            listener.Start();
            return Finding.Well("free");
        }
        catch (SocketException)
        {
            return Finding.Ill("another program listens there. Stop it, or name another port with --port.");
        }
    }

    private static Finding Certificate(string folder, string? file, string? key, IConfiguration settings)
    {
        var made = Path.Combine(folder, "certificates");
        if (file is null && !Directory.Exists(made))
            return Finding.Well("none is needed without accounts; one is made at the first start with --house");
        var door = Door.From(
            new ConfigurationBuilder()
                .AddInMemoryCollection(
                    new Dictionary<string, string?>
                    {
                        ["solo"] = "false",
                        ["certificate"] = file,
                        ["certificate-key"] = key,
                        ["CertificatePassword"] = settings["CertificatePassword"],
                    }
                )
                .Build()
        );
        if (file is null)
            return Finding.Well("made here, and made anew by the server in time");
        using var certificates = new Certificates(door, made, TimeProvider.System, NullLogger<Certificates>.Instance);
        var until = certificates.Current.NotAfter.ToUniversalTime();
        var says = FormattableString.Invariant($"counts until {until:u}");
        return until - DateTime.UtcNow > CertificateAhead ? Finding.Well(says) : Finding.Ill($"{says}: renew it.");
    }

    private static Finding Backups(string folder, IConfiguration settings)
    {
        var of = BackupSettings.From(settings, new ServerOptions(folder, 0, Demo: false));
        if (of.Hours == 0)
            return Finding.Ill("none is made by itself: Backup__Hours is 0.");
        var last = new BackupFolder(of.Folder).All().FirstOrDefault(b => b.Damage is null)?.Manifest?.MadeAt;
        if (last is null)
            return Finding.Ill($"there is none in {of.Folder}; the command backup makes one.");
        var says = FormattableString.Invariant($"the last whole one is of {last.Value.UtcDateTime:u}");
        return DateTimeOffset.UtcNow - last.Value < TimeSpan.FromHours(2 * of.Hours)
            ? Finding.Well(says)
            : Finding.Ill($"{says}: the server has not made one since. Look into its log.");
    }
}
