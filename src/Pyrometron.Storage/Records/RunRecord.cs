using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Storage.Records;

/// <summary>A run as stored, form 1.</summary>
internal sealed record RunRecord(
    string Workload,
    double Minutes,
    double? AmbientCelsius,
    double? AmbientSpreadKelvin,
    RunFanRecord Fan,
    string Settings,
    double? PowerWatts,
    double? ClockMhz,
    double? Score,
    bool? Throttled,
    IReadOnlyList<RunPartRecord> Parts,
    string? Position = null,
    double? FailedAfterMinutes = null,
    string? Source = null,
    bool? Settled = null,
    double? ShareOfRise = null,
    double? StartCelsius = null,
    double? SlopeKelvinPerMinute = null,
    double? FanRamp = null,
    string? ScoreUnit = null
)
{
    public static RunRecord Of(Run run) =>
        new(
            run.Workload,
            run.Minutes,
            run.Ambient?.Value,
            run.AmbientSpread > 0 ? run.AmbientSpread : null,
            new RunFanRecord(Words.Of(run.Fan.Mode), run.Fan.Percent, run.Fan.Rpm),
            run.Settings,
            run.PowerWatts,
            run.ClockMhz,
            run.Score,
            run.Throttled,
            [.. run.Parts.Select(p => new RunPartRecord(p.Part, p.Celsius.Value, p.ResolutionKelvin, p.Maximum?.Value))],
            run.Position,
            run.FailedAfterMinutes,
            run.Source == RunSource.Typed ? null : Words.Of(run.Source),
            run.Settled,
            run.ShareOfRise,
            run.Start?.Value,
            run.SlopeAtEnd,
            run.FanRamp,
            run.ScoreUnit
        );

    public Run ToRun() =>
        new(
            Workload,
            Minutes,
            AmbientCelsius is { } air ? new Celsius(air) : null,
            new RunFan(StoredWords.Read<FanMode>(Fan.Mode), Fan.Percent, Fan.Rpm),
            Settings,
            PowerWatts,
            ClockMhz,
            Score,
            Throttled ?? false,
            [
                .. Parts.Select(p => new RunPart(
                    p.Part,
                    new Celsius(p.Celsius),
                    p.ResolutionKelvin ?? 1,
                    p.MaximumCelsius is { } hottest ? new Celsius(hottest) : null
                )),
            ]
        )
        {
            AmbientSpread = AmbientSpreadKelvin ?? 0,
            Position = Position,
            FailedAfterMinutes = FailedAfterMinutes,
            Source = Source is null ? RunSource.Typed : StoredWords.Read<RunSource>(Source),
            Settled = Settled,
            ShareOfRise = ShareOfRise,
            Start = StartCelsius is { } start ? new Celsius(start) : null,
            SlopeAtEnd = SlopeKelvinPerMinute,
            FanRamp = FanRamp,
            ScoreUnit = ScoreUnit,
        };
}

/// <summary>The fan of a stored run.</summary>
internal sealed record RunFanRecord(string Mode, double? Percent, double? Rpm);

/// <summary>A part of a stored run.</summary>
internal sealed record RunPartRecord(string Part, double Celsius, double? ResolutionKelvin, double? MaximumCelsius = null);

/// <summary>Reads the words of stored records.</summary>
internal static class StoredWords
{
    /// <exception cref="InvalidDataException">It is none of the words.</exception>
    public static T Read<T>(string? word)
        where T : struct, Enum =>
        Words.TryRead<T>(word, out var value)
            ? value
            : throw new InvalidDataException($"The database holds '{word}', which is no {typeof(T).Name}.");
}
