using System.Globalization;
using System.Text;
using Pyrometron.Application.Bench;
using Pyrometron.Core.Readings;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Logs;
using Pyrometron.Formats.Tables;
using Pyrometron.Storage;

namespace Pyrometron.Application.Imports;

/// <summary>What a log comes to for one machine.</summary>
/// <param name="Parts">Names of its parts, in the order of a window's temperatures.</param>
/// <param name="Loaded">Windows under load.</param>
public sealed record MachineLog(string Tag, IReadOnlyList<string> Parts, CondensedLog Log, IReadOnlyList<OperatingWindow> Loaded);

/// <summary>What became of a sensor log, or would become in a dry run.</summary>
/// <param name="Accepted">Windows stored as readings.</param>
/// <param name="Duplicates">Windows that are known.</param>
/// <param name="Conflicts">Windows of which the instant is known with other values: the first stay.</param>
public sealed record LogTaken(
    SensorLogRead Read,
    IReadOnlyList<MachineLog> Machines,
    long Accepted,
    long Duplicates,
    IReadOnlyList<RefusedLine> Conflicts
);

/// <summary>How a log is to be taken.</summary>
/// <param name="Tag">The machine it was written on; null where the log says so itself.</param>
/// <param name="TimeZone">Of times without an offset; null for UTC.</param>
/// <param name="Headers">Field of each header that somebody settles now.</param>
/// <param name="Words">Meaning of each header of dates that somebody settles now.</param>
/// <param name="DryRun">Whether nothing is stored.</param>
public sealed record LogOrder(
    string? Tag,
    string? TimeZone,
    IReadOnlyDictionary<string, string> Headers,
    IReadOnlyDictionary<string, string> Words,
    bool DryRun
);

/// <summary>Sensor logs coming in: condensed into operating windows, of which those under load become readings.</summary>
public sealed class LogUseCases(Database database, FleetStore fleet, TimeProvider clock)
{
    /// <summary>Takes a log, or shows what it would bring.</summary>
    /// <param name="open">Goes to its start.</param>
    /// <param name="progress">Told of bytes read.</param>
    /// <exception cref="NotThereException">There is no such machine.</exception>
    /// <exception cref="Formats.RefusedInputException">It is no sensor log of a machine of the fleet.</exception>
    public async Task<LogTaken> TakeAsync(
        Actor actor,
        LogOrder order,
        Func<Stream> open,
        Action<long> progress,
        CancellationToken cancellation
    )
    {
        actor.Allowed(Right.Work);
        var partsOf = PartsOf(order.Tag);
        var now = clock.GetUtcNow();
        var settings = new LogSettings(
            partsOf,
            order.Tag,
            order.TimeZone,
            With(TableMeaningStore.LogHeader, order.Headers),
            With(TableMeaningStore.LogWord, order.Words)
        );
        var read = SensorLog.Read(open, settings, now.AddDays(1).ToUnixTimeMilliseconds(), progress, cancellation);
        if (read.Problem is { } problem && !order.DryRun)
            throw new Formats.RefusedInputException(problem);
        MachineLog[] machines =
        [
            .. read.Machines.Select(m => new MachineLog(
                m.Tag,
                partsOf[m.Tag],
                m.Log,
                [.. m.Log.Windows.Where(w => w.Activity != Activity.Idle)]
            )),
        ];
        if (order.DryRun)
            return new LogTaken(read, machines, 0, 0, []);
        if (order.Headers.Count + order.Words.Count > 0)
            database.Write(
                actor,
                now,
                t =>
                {
                    TableMeaningStore.Keep(t, TableMeaningStore.LogHeader, Keys(order.Headers));
                    TableMeaningStore.Keep(t, TableMeaningStore.LogWord, Keys(order.Words));
                }
            );
        if (machines.All(m => m.Loaded.Count == 0))
            return new LogTaken(read, machines, 0, 0, []);
        using var readings = new MemoryStream(Encoding.UTF8.GetBytes(ReadingsOf(machines)));
        var answer = await new ReadingsImport(database, actor, now, 100).RunAsync(readings, (_, _) => { }, cancellation);
        return new LogTaken(read, machines, answer.Accepted, answer.Duplicates, answer.Rejected);
    }

    /// <summary>
    /// The parts of every machine: where one is asked for, the others must be known too, or their samples would pass for its own.
    /// </summary>
    private Dictionary<string, IReadOnlyList<string>> PartsOf(string? asked)
    {
        var parts = fleet
            .All()
            .ToDictionary(m => m.Asset.Tag, m => (IReadOnlyList<string>)[.. m.Asset.Parts.Select(p => p.Name)]);
        return asked is null || parts.ContainsKey(asked) ? parts : throw Missing.Machine(asked);
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
    private static string ReadingsOf(IReadOnlyList<MachineLog> machines)
    {
        string[] parts = [.. machines.SelectMany(m => m.Parts).Distinct()];
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
                "samples",
                "spread_k",
                .. parts.Select(p => p + "_c"),
            ])
        );
        static string? Number(double value) => double.IsNaN(value) ? null : value.ToString("0.##", CultureInfo.InvariantCulture);
        foreach (var machine in machines)
        {
            int[] at = [.. parts.Select(p => machine.Parts.ToList().IndexOf(p))];
            foreach (var w in machine.Loaded)
                csv.Append(
                    CsvWriter.Record([
                        DateTimeOffset
                            .FromUnixTimeMilliseconds(w.UnixMilliseconds)
                            .ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture),
                        machine.Tag,
                        Number(w.AmbientC),
                        Number(w.PowerW),
                        Number(w.ClockMhz),
                        Number(w.FanRpm),
                        Number(w.FanPct),
                        w.Throttled ? "1" : "0",
                        w.Activity == Activity.FullLoad ? "full load" : "part load",
                        Number(w.Samples),
                        Number(w.SpreadKelvin),
                        .. at.Select(i => i < 0 ? null : Number(w.PartsC[i])),
                    ])
                );
        }
        return csv.ToString();
    }
}
