using System.CommandLine;
using System.Text;
using Pyrometron.Application.Fleet;
using Pyrometron.Application.HouseFiles;
using Pyrometron.Application.Imports;
using Pyrometron.Formats;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Fleet;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;
using Pyrometron.Storage.HouseFiles;

namespace Pyrometron.Server.Commands;

/// <summary>Files taken in and given out without a browser, also while the server is at work.</summary>
internal static class TransferCommands
{
    /// <summary>Refused lines that are listed, of each file.</summary>
    private const int MostListed = 20;

    /// <summary>Takes files in.</summary>
    /// <param name="data">The option that names the folder with the database.</param>
    /// <param name="json">The option for answers in JSON.</param>
    public static Command Import(Option<string> data, Option<bool> json)
    {
        var files = new Argument<string[]>("file")
        {
            Description =
                "Fleet documents (JSON), readings or services (CSV), also packed with gzip; or one house file (ZIP), which the command export makes, into an empty folder.",
            Arity = ArgumentArity.OneOrMore,
        };
        var command = new Command("import", "Takes files in, in the order in which they are named.") { files, data, json };
        command.SetAction(
            (parsed, cancellation) =>
                CommandLine.ToldAsync(parsed, (report, _) => ImportAll(report, parsed, files, data, cancellation))
        );
        return command;
    }

    /// <summary>Takes all that the house knows along.</summary>
    public static Command Export(Option<string> data, Option<bool> json)
    {
        var file = new Argument<string>("file") { Description = "The house file to make, such as house.zip." };
        var command = new Command(
            "export",
            "Writes all that the house knows into one ZIP file of open formats: JSON lines, CSV, photos. What lets somebody in stays out."
        )
        {
            file,
            data,
            json,
        };
        command.SetAction(
            (parsed, cancellation) =>
                CommandLine.ToldAsync(
                    parsed,
                    (report, _) =>
                        Task.Run(() =>
                            ExportTo(report, parsed.GetValue(file)!, CommandLine.Open(parsed.GetValue(data)!), cancellation)
                        )
                )
        );
        return command;
    }

    private static async Task<bool> ImportAll(
        Report report,
        ParseResult parsed,
        Argument<string[]> files,
        Option<string> data,
        CancellationToken cancellation
    )
    {
        var all = parsed.GetValue(files)!;
        foreach (var missing in all.Where(f => !File.Exists(f)))
            throw new InvalidDataException($"There is no file {missing}. Nothing was taken in.");
        if (all.FirstOrDefault(IsZip) is { } house)
        {
            if (all.Length > 1)
                throw new InvalidDataException($"{house} is a house file: it is taken in alone, into an empty folder.");
            Lay(report, house, parsed.GetValue(data)!, cancellation);
            return true;
        }
        using var database = CommandLine.Open(parsed.GetValue(data)!);
        var whole = true;
        foreach (var file in all)
            whole &= await ImportOne(report, file, database, cancellation);
        return whole;
    }

    private static void Lay(Report report, string file, string data, CancellationToken cancellation)
    {
        using var held = DataFolder.Take(data);
        var path = Path.Combine(held.Path, ServerOptions.DatabaseFile);
        var manifest = HouseReader.Lay(file, path, report.Progress, cancellation);
        // An older house is brought up to date at once.
        using (Database.Open(path, tell: report.Progress)) { }
        report.Line(
            "laid",
            file,
            FormattableString.Invariant(
                $"a house of {manifest.MadeAt.UtcDateTime:u}; accounts choose new passwords: the command user reset makes their links"
            )
        );
    }

    private static async Task<bool> ImportOne(Report report, string file, Database database, CancellationToken cancellation)
    {
        await using var stream = File.OpenRead(file);
        var uploads = Directory.CreateTempSubdirectory("pyrometron-import-");
        try
        {
            using var spool = await GzipSpool.TakeAsync(stream, uploads.FullName, cancellation);
            var clock = TimeProvider.System;
            var fleet = new FleetUseCases(database, clock);
            switch (KindOf(spool.Open()))
            {
                case FileKind.Fleet:
                    var today = DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);
                    var (register, warnings) = FleetDocument.Read(spool.ReadAll(FleetDocument.LongestBytes), today);
                    var change = fleet.Import(Actor.Program, register, cancellation);
                    report.Line(
                        "fleet",
                        file,
                        $"{change.Created} machines created, {change.Updated} updated, {change.Unchanged} unchanged"
                    );
                    foreach (var warning in warnings)
                        report.Line("warning", file, warning.ToString());
                    return true;
                case FileKind.Services:
                    return Told(
                        report,
                        "services",
                        file,
                        new ServicesImport(new FleetStore(database), fleet, clock).Run(
                            Actor.Program,
                            spool.Open(),
                            MostListed,
                            CsvDelimiter.Comma,
                            cancellation
                        )
                    );
                default:
                    var import = new ReadingsImport(database, Actor.Program, clock.GetUtcNow(), MostListed);
                    return Told(
                        report,
                        "readings",
                        file,
                        await import.RunAsync(
                            spool.Open(),
                            (bytes, lines) =>
                                report.Progress(
                                    FormattableString.Invariant(
                                        $"{lines:N0} lines, {100 * bytes / Math.Max(1, spool.PlainLength)} %"
                                    )
                                ),
                            cancellation
                        )
                    );
            }
        }
        finally
        {
            uploads.Delete(recursive: true);
        }
    }

    private static bool Told(Report report, string what, string file, ImportAnswer answer)
    {
        report.Line(
            what,
            file,
            $"{answer.Accepted} taken, {answer.Duplicates} known already, {answer.RejectedCount} lines refused"
        );
        foreach (var warning in answer.Warnings)
            report.Line("warning", file, warning);
        foreach (var refused in answer.Rejected)
            report.Line("refused", $"{file}, line {refused.Line}", refused.Message);
        if (answer.RejectedCount > answer.Rejected.Count)
            report.Line("refused", file, $"and {answer.RejectedCount - answer.Rejected.Count} more lines");
        return answer.RejectedCount == 0;
    }

    private enum FileKind
    {
        Fleet,
        Readings,
        Services,
    }

    /// <summary>By its first line: a document begins with a brace, services have a level.</summary>
    private static FileKind KindOf(Stream content)
    {
        using var reader = new StreamReader(content, Encoding.UTF8, true, 4096, leaveOpen: true);
        var head = new char[4096];
        var begin = new string(head, 0, reader.ReadBlock(head)).TrimStart();
        if (begin.StartsWith('{'))
            return FileKind.Fleet;
        var names = begin.Split('\n')[0].Split(',').Select(n => n.Trim().Trim('"').ToLowerInvariant()).ToArray();
        return names.Contains("level") && !names.Contains("time") ? FileKind.Services : FileKind.Readings;
    }

    private static bool IsZip(string file)
    {
        using var stream = File.OpenRead(file);
        return stream.ReadByte() == 'P' && stream.ReadByte() == 'K';
    }

    private static bool ExportTo(Report report, string file, Database database, CancellationToken cancellation)
    {
        using (database)
        {
            var unfinished = file + ".unfinished";
            try
            {
                HouseManifest manifest;
                using (var stream = new FileStream(unfinished, FileMode.Create, FileAccess.ReadWrite))
                {
                    var export = new HouseFileUseCases(
                        database,
                        new FleetStore(database),
                        new ReadingStore(database),
                        TimeProvider.System
                    );
                    manifest = export.Export(Actor.Program, stream, report.Progress, cancellation);
                    stream.Flush(flushToDisk: true);
                }
                File.Move(unfinished, file, overwrite: true);
                var rows = manifest.Parts.Sum(p => p.Rows ?? 0);
                report.Line(
                    "made",
                    Path.GetFullPath(file),
                    FormattableString.Invariant($"{rows} rows of {manifest.Parts.Count} files")
                );
                return true;
            }
            finally
            {
                File.Delete(unfinished);
            }
        }
    }
}
