using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Pyrometron.Application.Imports;
using Pyrometron.Core.Readings;
using Pyrometron.Formats;
using Pyrometron.Formats.Logs;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Imports;

/// <summary>What a column of a log was taken for.</summary>
/// <param name="Field">A part's name, or <c>time</c>, <c>ambient</c>, <c>fanRpm</c> … or <c>ignore</c>.</param>
/// <param name="Unit">°C, °F, K, W, MHz, GHz, rpm or %; null where it has none.</param>
public sealed record LogColumnAnswer(string Header, string Field, string? Unit, bool Guessed);

/// <summary>What a log comes to for one machine; the members as in the whole answer.</summary>
public sealed record MachineLogAnswer(
    string Asset,
    long Samples,
    int Windows,
    int Idle,
    int Gaps,
    int Throttled,
    DateTimeOffset? From,
    DateTimeOffset? To
);

/// <summary>Half an hour of a log that becomes a reading.</summary>
/// <param name="Samples">That went into it.</param>
/// <param name="SpreadKelvin">Largest standard deviation of a part within it.</param>
public sealed record WindowAnswer(
    string Asset,
    DateTimeOffset At,
    Activity Activity,
    bool Throttled,
    int Samples,
    double SpreadKelvin,
    IReadOnlyDictionary<string, double?> Parts,
    double? AmbientCelsius,
    double? PowerWatts
);

/// <summary>What became of a sensor log, or would become in a dry run.</summary>
/// <param name="Windows">Steady half hours found, idle ones too.</param>
/// <param name="Accepted">Windows under load stored as readings.</param>
/// <param name="Idle">Windows without load; they do not become readings.</param>
/// <param name="Gaps">Pauses in which nothing was logged.</param>
/// <param name="Throttled">Windows in which it throttled.</param>
/// <param name="Rejected">Lines that could not be used, the first hundred of <paramref name="RejectedCount"/>.</param>
/// <param name="FirstLines">The log's first lines as they stand, to be seen beside the columns.</param>
/// <param name="Preview">The first windows under load.</param>
/// <param name="From">Its first sample, by the times as they were read.</param>
/// <param name="To">Its last sample.</param>
/// <param name="Machines">The same for each machine, where a log holds several.</param>
public sealed record SensorLogAnswer(
    IReadOnlyList<LogColumnAnswer> Columns,
    long Samples,
    int Windows,
    long Accepted,
    long Duplicates,
    int Idle,
    int Gaps,
    int Throttled,
    IReadOnlyList<RefusedLine> Rejected,
    int RejectedCount,
    IReadOnlyList<InputQuestion> Questions,
    IReadOnlyList<string[]> FirstLines,
    IReadOnlyList<WindowAnswer> Preview,
    DateTimeOffset? From,
    DateTimeOffset? To,
    IReadOnlyList<MachineLogAnswer> Machines
);

/// <summary>Sensor logs.</summary>
internal static class LogEndpoints
{
    private const int Previewed = 8;

    public static void MapLogs(this RouteGroupBuilder api) =>
        api.MapPost("/logs", Post).WithTags("Imports").WithMetadata(Bodies.Spreadsheets).ForKeys(KeyScope.Readings);

    /// <summary>Takes in the log of a sensor program, CSV or XLSX, as runs or readings; what is not clear is asked.</summary>
    /// <param name="asset">
    /// The machine's tag; it may be left out where a column or the headers of the log name the machines.
    /// </param>
    /// <param name="timeZone">Of times without an offset, such as Europe/Lisbon; UTC where nothing is said.</param>
    /// <param name="map">HEADER:field, repeatable: settles a header.</param>
    /// <param name="means">HEADER:meaning, repeatable: settles the order of a header's dates.</param>
    internal static async Task<Results<Ok<SensorLogAnswer>, ProblemHttpResult>> Post(
        Caller caller,
        HttpRequest request,
        DataFolder folder,
        LogUseCases logs,
        FleetStore fleet,
        ImportProgress progress,
        [FromHeader(Name = "Import-Id")] Guid? importId,
        string? asset,
        string? timeZone,
        bool? dryRun,
        [FromQuery] string[]? map,
        [FromQuery] string[]? means,
        CancellationToken cancellation
    )
    {
        var (headers, words) = (new Dictionary<string, string>(), new Dictionary<string, string>());
        string[] parts =
            map is null or [] ? []
            : asset is null ? [.. fleet.All().SelectMany(m => m.Asset.Parts).Select(p => p.Name).Distinct()]
            : [.. fleet.Find(asset)?.Asset.Parts.Select(p => p.Name) ?? []];
        foreach (var pair in map ?? [])
            if (TableEndpoints.Split(pair) is (var header, var name) && IsField(name, parts))
                headers[header] = name;
            else
                return Problems.Input("/map", $"'{pair}' settles nothing: write HEADER:field, with one of {Fields(parts)}.");
        foreach (var pair in means ?? [])
            if (TableEndpoints.Split(pair) is (var word, var meaning))
                words[word] = meaning;
            else
                return Problems.Input("/means", $"'{pair}' settles nothing: write HEADER:meaning, as a question offers it.");
        using var spool = await GzipSpool.TakeAsync(request.Body, folder.Uploads, cancellation);
        try
        {
            return TypedResults.Ok(
                Answer(
                    await logs.TakeAsync(
                        caller.Actor,
                        new LogOrder(asset, timeZone, headers, words, dryRun == true),
                        spool.Open,
                        bytes => progress.Report(importId, new ImportState(bytes, spool.PlainLength, 0)),
                        cancellation
                    )
                )
            );
        }
        finally
        {
            progress.End(importId);
        }
    }

    private static bool IsField(string name, string[] parts) =>
        LogField.Of(name) is { Role: not LogRole.Part } || parts.Contains(name);

    private static string Fields(string[] parts) =>
        string.Join(
            ", ",
            parts.Concat(Enum.GetValues<LogRole>().Where(r => r != LogRole.Part).Select(r => new LogField(r).Name))
        );

    private static SensorLogAnswer Answer(LogTaken t) =>
        new(
            [.. t.Read.Columns.Select(c => new LogColumnAnswer(c.Header, c.Field.Name, UnitOf(c.Unit), c.Guessed))],
            t.Machines.Sum(m => m.Log.Samples),
            t.Machines.Sum(m => m.Log.Windows.Count),
            t.Accepted,
            t.Duplicates,
            t.Machines.Sum(m => m.Log.Windows.Count - m.Loaded.Count),
            t.Machines.Sum(m => m.Log.Gaps),
            t.Machines.Sum(m => m.Loaded.Count(w => w.Throttled)),
            [.. t.Read.Rejected.Select(RefusedLine.Of), .. t.Conflicts],
            t.Read.RejectedCount + t.Conflicts.Count,
            t.Read.Questions,
            t.Read.FirstLines,
            [.. t.Machines.SelectMany(m => m.Loaded.Select(w => Of(w, m))).Take(Previewed)],
            Instant(t.Machines.Min(m => m.Log.FirstMs)),
            Instant(t.Machines.Max(m => m.Log.LastMs)),
            [
                .. t.Machines.Select(m => new MachineLogAnswer(
                    m.Tag,
                    m.Log.Samples,
                    m.Log.Windows.Count,
                    m.Log.Windows.Count - m.Loaded.Count,
                    m.Log.Gaps,
                    m.Loaded.Count(w => w.Throttled),
                    Instant(m.Log.FirstMs),
                    Instant(m.Log.LastMs)
                )),
            ]
        );

    private static DateTimeOffset? Instant(long? at) => at is { } ms ? DateTimeOffset.FromUnixTimeMilliseconds(ms) : null;

    private static WindowAnswer Of(OperatingWindow w, MachineLog machine)
    {
        static double? OrNull(double value) => double.IsNaN(value) ? null : Math.Round(value, 1);
        return new WindowAnswer(
            machine.Tag,
            DateTimeOffset.FromUnixTimeMilliseconds(w.UnixMilliseconds),
            w.Activity,
            w.Throttled,
            w.Samples,
            Math.Round(w.SpreadKelvin, 2),
            machine.Parts.Zip(w.PartsC).ToDictionary(p => p.First, p => OrNull(p.Second)),
            OrNull(w.AmbientC),
            OrNull(w.PowerW)
        );
    }

    private static string? UnitOf(LogUnit unit) =>
        unit switch
        {
            LogUnit.Celsius => "°C",
            LogUnit.Fahrenheit => "°F",
            LogUnit.Kelvin => "K",
            LogUnit.Watt => "W",
            LogUnit.Megahertz => "MHz",
            LogUnit.Gigahertz => "GHz",
            LogUnit.Rpm => "rpm",
            LogUnit.Percent => "%",
            _ => null,
        };
}
