using System.CommandLine;
using System.Runtime.InteropServices;
using Pyrometron.Application;
using Pyrometron.Formats;
using Pyrometron.Server.Backups;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;
using Pyrometron.Storage.Backups;

namespace Pyrometron.Server.Commands;

/// <summary>
/// What is done without a browser: the server started, files taken in and given out, the order of work told, backups made and
/// laid back, a house looked through, people and programs let in. Exit codes: 0 done, 1 not done, 2 asked wrongly.
/// </summary>
internal static class CommandLine
{
    private static readonly Option<string> Data = new("--data")
    {
        Description = "The folder with the database.",
        DefaultValueFactory = _ => Path.Combine("data", "own"),
    };

    private static readonly Option<string?> To = new("--folder")
    {
        Description = "The folder with the backups; by default the folder backups within that of the database.",
    };

    private static readonly Option<bool> Json = new("--json") { Description = "Answers in JSON." };

    /// <summary>Whether arguments are for a command: the server takes none but options.</summary>
    public static bool IsFor(string[] arguments) =>
        arguments.Length > 0 && (!arguments[0].StartsWith('-') || arguments[0] is "-h" or "--help" or "-?" or "--version");

    /// <summary>Does it.</summary>
    /// <param name="start">Starts the server with options, and ends when it does.</param>
    /// <param name="output">Where answers go; the console's where null.</param>
    /// <param name="error">Where it goes why something was not done.</param>
    /// <returns>The exit code.</returns>
    public static int Run(string[] arguments, Func<string[], int> start, TextWriter? output = null, TextWriter? error = null)
    {
        var parsed = Root(start).Parse(arguments);
        // Ctrl-C has a command take away what it had not finished.
        using var stop = new CancellationTokenSource();
        using var signal = PosixSignalRegistration.Create(
            PosixSignal.SIGINT,
            context =>
            {
                context.Cancel = true;
                stop.Cancel();
            }
        );
        var code = parsed
            .InvokeAsync(
                new InvocationConfiguration
                {
                    Output = output ?? Console.Out,
                    Error = error ?? Console.Error,
                    ProcessTerminationTimeout = null,
                },
                stop.Token
            )
            .GetAwaiter()
            .GetResult();
        return parsed.Errors.Count > 0 ? 2 : code;
    }

    private static RootCommand Root(Func<string[], int> start)
    {
        var root = new RootCommand(
            "Pyrometron: tells which machine needs cleaning, repasting or repadding next. Without a command it starts the server."
        );
        var backup = Of("backup", "Makes a backup, also while the server is at work, and checks it.", Backup);
        var list = Of("backups", "Lists the backups.", List);
        var verify = Of("verify", "Looks through the database, its change log and every backup; changes nothing.", Verify);
        var name = new Argument<string>("name") { Description = "Of the backup, as the command backups lists it." };
        var dryRun = new Option<bool>("--dry-run") { Description = "Tells what it would change, and changes nothing." };
        var other = new Option<bool>("--other-house") { Description = "Lays back even a backup of another house." };
        var restore = new Command("restore", "Lays a backup back; the server must be stopped. What stands there is copied aside.")
        {
            name,
            dryRun,
            other,
            Data,
            To,
            Json,
        };
        restore.SetAction(parsed =>
            Told(parsed, at => RestoreOne(at, parsed.GetValue(name)!, parsed.GetValue(dryRun), parsed.GetValue(other)))
        );
        foreach (
            var command in (Command[])
                [
                    ServeCommand.Command(Data, start),
                    QueueCommands.Queue(Data, Json),
                    QueueCommands.Judge(Data, Json),
                    TransferCommands.Import(Data, Json),
                    TransferCommands.Export(Data, Json),
                    backup,
                    list,
                    restore,
                    verify,
                    UserCommands.Command(Data, Json),
                    KeyCommands.Command(Data, Json),
                    Doctor.Command(Data, Json),
                    Manual.Page(),
                    Manual.Completion(),
                ]
        )
            root.Add(command);
        return root;
    }

    private static Command Of(string name, string description, Func<At, bool> work)
    {
        var command = new Command(name, description) { Data, To, Json };
        command.SetAction(parsed => Told(parsed, work));
        return command;
    }

    /// <summary>Where a command is at work.</summary>
    private sealed record At(string Database, BackupFolder Folder, BackupSettings Settings, Report Report);

    private static int Told(ParseResult parsed, Func<At, bool> work) =>
        Told(
            parsed,
            (report, configuration) =>
            {
                var data = parsed.GetValue(Data)!;
                var settings = BackupSettings.From(configuration, new ServerOptions(data, 0, Demo: false));
                var folder = new BackupFolder(parsed.GetValue(To) ?? settings.Folder);
                return work(new At(Path.Combine(data, ServerOptions.DatabaseFile), folder, settings, report));
            }
        );

    /// <summary>Runs a command and says why it was not done.</summary>
    /// <param name="work">Gets where its answer goes, and the settings of the environment; false for not done.</param>
    /// <returns>The exit code.</returns>
    public static int Told(ParseResult parsed, Func<Report, IConfiguration, bool> work) =>
        ToldAsync(parsed, (report, settings) => Task.FromResult(work(report, settings))).GetAwaiter().GetResult();

    /// <summary>The same for work that takes long, and that Ctrl-C breaks off.</summary>
    public static async Task<int> ToldAsync(ParseResult parsed, Func<Report, IConfiguration, Task<bool>> work)
    {
        try
        {
            return await work(
                new Report(parsed.InvocationConfiguration.Output, parsed.GetValue(Json)),
                new ConfigurationBuilder().AddEnvironmentVariables().Build()
            )
                ? 0
                : 1;
        }
        catch (Exception error) when (error is NotPossibleException or NotThereException)
        {
            await parsed.InvocationConfiguration.Error.WriteLineAsync(error.Message);
            return 1;
        }
        catch (OperationCanceledException)
        {
            await parsed.InvocationConfiguration.Error.WriteLineAsync("Broken off.");
            return 1;
        }
        catch (RefusedInputException refused)
        {
            foreach (var problem in refused.Problems)
                await parsed.InvocationConfiguration.Error.WriteLineAsync(
                    $"{(problem.Line is { } line ? FormattableString.Invariant($"line {line}: ") : "")}{problem.Says}"
                );
            return 1;
        }
        catch (Exception error)
            when (error is InvalidDataException or IOException or UnauthorizedAccessException
                || StorageFailure.Of(error) is not null
            )
        {
            parsed.InvocationConfiguration.Error.WriteLine(StorageFailure.Of(error)?.ToString() ?? error.Message);
            return 1;
        }
    }

    private static bool Backup(At at)
    {
        CheckThere(at.Database);
        var made = at.Folder.Make(at.Database, at.Settings.Passphrase, DateTimeOffset.UtcNow, CancellationToken.None);
        at.Folder.Prune(at.Settings.Retention);
        at.Report.One("made", Path.Combine(at.Folder.Path, made.Name), made.Manifest!);
        return true;
    }

    private static bool List(At at)
    {
        at.Report.All(at.Folder.All());
        return true;
    }

    private static bool RestoreOne(At at, string name, bool dryRun, bool fromOtherHouse)
    {
        var restore = new Restore(at.Database, at.Folder);
        if (dryRun)
        {
            var preview = restore.Preview(name, at.Settings.Passphrase);
            at.Report.Preview(preview);
            return !preview.OtherHouse || fromOtherHouse;
        }
        using var held = DataFolder.Take(Path.GetDirectoryName(Path.GetFullPath(at.Database))!);
        var aside = restore.Run(name, at.Settings.Passphrase, fromOtherHouse, DateTimeOffset.UtcNow);
        at.Report.Line("restored", name, aside is null ? "there was no database before" : $"the database as it was: {aside}");
        return true;
    }

    private static bool Verify(At at)
    {
        CheckThere(at.Database);
        // A copy is looked through, so that a house at work is not held up and an older one is not migrated.
        var trial = new BackupFolder(Directory.CreateTempSubdirectory("pyrometron-verify-").FullName);
        try
        {
            var whole = IsWhole(at, trial);
            foreach (var backup in at.Folder.All())
            {
                var damage = DamageOf(at, trial, backup);
                whole &= damage is null;
                at.Report.Line("backup", backup.Name, damage ?? "whole");
            }
            return whole;
        }
        finally
        {
            Directory.Delete(trial.Path, recursive: true);
        }
    }

    private static bool IsWhole(At at, BackupFolder trial)
    {
        string copy;
        try
        {
            copy = trial.Make(at.Database, null, DateTimeOffset.UtcNow, CancellationToken.None).Name;
        }
        catch (InvalidDataException error)
        {
            at.Report.Line("database", at.Database, error.Message);
            return false;
        }
        at.Report.Line("database", at.Database, "whole");
        using var database = Database.Open(Path.Combine(trial.Path, copy));
        var chain = new AuditStore(database).Follow(CancellationToken.None);
        at.Report.Line(
            "change log",
            FormattableString.Invariant($"{chain.Lines} lines"),
            chain.FirstBroken is { } line ? FormattableString.Invariant($"line {line} is not as it was written") : "as written"
        );
        return chain.FirstBroken is null;
    }

    private static string? DamageOf(At at, BackupFolder trial, Backup backup)
    {
        try
        {
            at.Folder.Unpack(backup, Path.Combine(trial.Path, "backup"), at.Settings.Passphrase);
            return null;
        }
        catch (InvalidDataException error)
        {
            return error.Message;
        }
    }

    /// <summary>Opens the database of a folder.</summary>
    /// <exception cref="InvalidDataException">There is none.</exception>
    public static Database Open(string folder)
    {
        var path = Path.Combine(folder, ServerOptions.DatabaseFile);
        CheckThere(path);
        return Database.Open(path);
    }

    /// <exception cref="InvalidDataException">It is not.</exception>
    public static void CheckThere(string database)
    {
        if (!File.Exists(database))
            throw new InvalidDataException($"There is no database {Path.GetFullPath(database)}. Name its folder with --data.");
    }
}
