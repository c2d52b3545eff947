using System.Globalization;
using System.Text;
using Pyrometron.Application.Bench;
using Pyrometron.Core.Readings;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Logs;
using Pyrometron.Formats.Tables;
using Pyrometron.Storage;

namespace Pyrometron.Application.Imports;

/// <summary>What became of a sensor log, or would become in a dry run.</summary>
/// <param name="Accepted">Windows stored as readings.</param>
/// <param name="Duplicates">Windows that are known.</param>
/// <param name="Loaded">Windows under load.</param>
/// <param name="Conflicts">Windows of which the instant is known with other values: the first stay.</param>
public sealed record LogTaken(
    SensorLogRead Read,
    IReadOnlyList<OperatingWindow> Loaded,
    long Accepted,
    long Duplicates,
    IReadOnlyList<RefusedLine> Conflicts
);

/// <summary>Sensor logs coming in: condensed into operating windows, of which those under load become readings.</summary>
public sealed class LogUseCases(Database database, FleetStore fleet, TimeProvider clock)
{
    /// <summary>Takes the log of one machine, or shows what it would bring.</summary>
    /// <param name="headers">Field of each header that somebody settles now.</param>
    /// <param name="words">Meaning of each header of dates that somebody settles now.</param>
    /// <exception cref="NotThereException">There is no such machine.</exception>
    /// <exception cref="Formats.RefusedInputException">It is no sensor log of this machine.</exception>
    public async Task<LogTaken> TakeAsync(
        Actor actor,
        string tag,
        Func<Stream> open,
        string? timeZone,
        IReadOnlyDictionary<string, string> headers,
        IReadOnlyDictionary<string, string> words,
        bool dryRun,
        CancellationToken cancellation
    )
    {
        var stored = fleet.Find(tag) ?? throw Missing.Machine(tag);
        string[] parts = [.. stored.Asset.Parts.Select(p => p.Name)];
        var now = clock.GetUtcNow();
        var settings = new LogSettings(
            parts,
            timeZone,
            With(TableMeaningStore.LogHeader, headers),
            With(TableMeaningStore.LogWord, words)
        );
        var read = SensorLog.Read(open, settings, now.AddDays(1).ToUnixTimeMilliseconds(), null, cancellation);
        if (read.Problem is { } problem && !dryRun)
            throw new Formats.RefusedInputException(problem);
        OperatingWindow[] loaded = [.. read.Log.Windows.Where(w => w.Activity != Activity.Idle)];
        if (dryRun)
            return new LogTaken(read, loaded, 0, 0, []);
        if (headers.Count + words.Count > 0)
            database.Write(
                actor,
                now,
                t =>
                {
                    TableMeaningStore.Keep(t, TableMeaningStore.LogHeader, Keys(headers));
                    TableMeaningStore.Keep(t, TableMeaningStore.LogWord, Keys(words));
                }
            );
        if (loaded.Length == 0)
            return new LogTaken(read, loaded, 0, 0, []);
        using var readings = new MemoryStream(Encoding.UTF8.GetBytes(ReadingsOf(tag, parts, loaded)));
        var answer = await new ReadingsImport(database, actor, now, 100).RunAsync(readings, (_, _) => { }, cancellation);
        return new LogTaken(read, loaded, answer.Accepted, answer.Duplicates, answer.Rejected);
    }

    private Dictionary<string, string> With(string about, IReadOnlyDictionary<string, string> now)
    {
        var all = TableMeaningStore.Of(database, about).ToDictionary();
        foreach (var (text, meaning) in now)
            all[TableMeanings.KeyOf(text)] = meaning;
        return all;
    }

    private static Dictionary<string, string> Keys(IReadOnlyDictionary<string, string> said) =>
        said.ToDictionary(s => TableMeanings.KeyOf(s.Key), s => s.Value);

    /// <summary>The windows in the readings' own form: they are checked, stored and undone like any others.</summary>
    private static string ReadingsOf(string tag, string[] parts, IReadOnlyList<OperatingWindow> windows)
    {
        var csv = new StringBuilder(
            CsvWriter.Record([
                "time",
                "asset",
                "ambient_c",
                "power_w",
                "clock_mhz",
                "fan_rpm",
                "fan_pct",
                "throttled",
                "workload",
                .. parts.Select(p => p + "_c"),
            ])
        );
        static string? Number(double value) => double.IsNaN(value) ? null : value.ToString("0.##", CultureInfo.InvariantCulture);
        foreach (var w in windows)
            csv.Append(
                CsvWriter.Record([
                    DateTimeOffset
                        .FromUnixTimeMilliseconds(w.UnixMilliseconds)
                        .ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture),
                    tag,
                    Number(w.AmbientC),
                    Number(w.PowerW),
                    Number(w.ClockMhz),
                    Number(w.FanRpm),
                    Number(w.FanPct),
                    w.Throttled ? "1" : "0",
                    w.Activity == Activity.FullLoad ? "full load" : "part load",
                    .. w.PartsC.Select(Number),
                ])
            );
        return csv.ToString();
    }
}
