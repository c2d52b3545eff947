using System.Text.Json;
using System.Text.Json.Serialization;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Units;
using Pyrometron.Formats;

namespace Pyrometron.Server.Proof;

/// <summary>The fan during a run.</summary>
public sealed record RunFanDto(FanMode? Mode, double? Percent, double? Rpm);

/// <summary>One part in a run.</summary>
/// <param name="MaximumCelsius">The hottest sample, where it was read; never what is compared.</param>
public sealed record RunPartDto(string? Part, double? Celsius, double? ResolutionKelvin, double? MaximumCelsius = null);

/// <summary>A run as it is sent. Omitted members equal null; <see cref="RunAnswer"/> is one that was kept.</summary>
/// <param name="AmbientSpreadKelvin">Half-width of a guessed ambient.</param>
/// <param name="Position">How it stood: in its rack, flat, propped.</param>
/// <param name="FailedAfterMinutes">When it switched off or crashed.</param>
/// <param name="Source">Where the figures come from; typed when omitted.</param>
/// <param name="Settled">Whether the temperatures had settled, where somebody knows.</param>
/// <param name="ShareOfRise">The share of its rise that it had reached at the end, 0 to 1.</param>
/// <param name="StartCelsius">The temperature it started from.</param>
/// <param name="SlopeKelvinPerMinute">How fast the fastest part still rose at the end.</param>
/// <param name="FanRamp">Fan speed at the end over that in the middle of the run, minus 1.</param>
/// <param name="ScoreUnit">What the score counts: frames, hashes, points.</param>
public sealed record RunDto(
    string? Workload,
    double? Minutes,
    double? AmbientCelsius,
    double? AmbientSpreadKelvin,
    RunFanDto? Fan,
    string? Settings,
    double? PowerWatts,
    double? ClockMhz,
    double? Score,
    bool? Throttled,
    IReadOnlyList<RunPartDto>? Parts,
    string? Position = null,
    double? FailedAfterMinutes = null,
    RunSource? Source = null,
    bool? Settled = null,
    double? ShareOfRise = null,
    double? StartCelsius = null,
    double? SlopeKelvinPerMinute = null,
    double? FanRamp = null,
    string? ScoreUnit = null
)
{
    /// <summary>Checks the run and makes it a Core run.</summary>
    /// <param name="pointer">Where it stands in the body, for the problems.</param>
    /// <returns>Null when there are problems.</returns>
    internal Run? ToRun(string pointer, List<InputProblem> problems)
    {
        var count = problems.Count;
        void Wrong(string at, Message message) => problems.Add(new InputProblem(message, Pointer: $"{pointer}/{at}"));
        void Within(string at, double? value, double low, double high, string unit)
        {
            if (value is { } v && !(v >= low && v <= high))
                Wrong(at, $"{at} must lie between {low} and {high} {unit}");
        }
        if (string.IsNullOrWhiteSpace(Workload) || Workload.Length > 200)
            Wrong("workload", "workload is needed: the name of the load, 200 characters at most");
        if (Minutes is not > 0 or > 100_000)
            Wrong("minutes", "minutes is needed: how long the load ran, more than 0");
        if (string.IsNullOrWhiteSpace(Settings) || Settings.Length > 200)
            Wrong("settings", "settings is needed: their name, such as stock, 200 characters at most");
        if (Fan?.Mode is null)
            Wrong("fan/mode", "fan.mode is needed: fixed or auto");
        Within("ambientCelsius", AmbientCelsius, -60, 100, "°C");
        Within("ambientSpreadKelvin", AmbientSpreadKelvin, 0, 30, "K");
        Within("fan/percent", Fan?.Percent, 0, 100, "%");
        Within("fan/rpm", Fan?.Rpm, 0, 100_000, "rpm");
        Within("powerWatts", PowerWatts, 0, 1e6, "W");
        Within("clockMhz", ClockMhz, 0, 1e6, "MHz");
        Within("shareOfRise", ShareOfRise, 0, 1, "");
        Within("startCelsius", StartCelsius, -60, Reading.HottestC, "°C");
        Within("failedAfterMinutes", FailedAfterMinutes, 0, 100_000, "minutes");
        Within("slopeKelvinPerMinute", SlopeKelvinPerMinute, -1000, 1000, "K a minute");
        Within("fanRamp", FanRamp, -1, 100, "");
        if (ScoreUnit?.Length > 40)
            Wrong("scoreUnit", "scoreUnit is 40 characters at most");
        if (Position?.Length > 200)
            Wrong("position", "position is 200 characters at most");
        Within("score", Score, 0, 1e12, "points");
        if (Parts is not { Count: > 0 and <= 32 })
            Wrong("parts", "parts is needed: at least one part with its temperature, 32 at most");
        for (var i = 0; i < Parts?.Count && i < 32; i++)
        {
            if (Parts[i] is not { Part.Length: > 0 and <= 40 })
                Wrong($"parts/{i}/part", "part is needed: its name, such as memory");
            else if (Parts.Take(i).Any(p => p?.Part == Parts[i].Part))
                Wrong($"parts/{i}/part", $"'{Parts[i].Part}' stands in this run twice");
            if (Parts[i]?.Celsius is not (>= -273.15 and <= Reading.HottestC))
                Wrong($"parts/{i}/celsius", "celsius is needed: a temperature from −273.15 to 1000 °C");
            Within($"parts/{i}/resolutionKelvin", Parts[i]?.ResolutionKelvin, 0, 20, "K");
            Within($"parts/{i}/maximumCelsius", Parts[i]?.MaximumCelsius, -273.15, Reading.HottestC, "°C");
        }
        return problems.Count > count
            ? null
            : new Run(
                Workload!,
                Minutes!.Value,
                AmbientCelsius is { } c ? new Celsius(c) : null,
                new RunFan(Fan!.Mode!.Value, Fan.Percent, Fan.Rpm),
                Settings!,
                PowerWatts,
                ClockMhz,
                Score,
                Throttled ?? false,
                [
                    .. Parts!.Select(p => new RunPart(
                        p.Part!,
                        new Celsius(p.Celsius!.Value),
                        p.ResolutionKelvin ?? 1,
                        p.MaximumCelsius is { } hottest ? new Celsius(hottest) : null
                    )),
                ]
            )
            {
                AmbientSpread = AmbientSpreadKelvin ?? 0,
                Position = Position,
                FailedAfterMinutes = FailedAfterMinutes,
                Source = Source ?? RunSource.Typed,
                Settled = Settled,
                ShareOfRise = ShareOfRise,
                Start = StartCelsius is { } start ? new Celsius(start) : null,
                SlopeAtEnd = SlopeKelvinPerMinute,
                FanRamp = FanRamp,
                ScoreUnit = string.IsNullOrWhiteSpace(ScoreUnit) ? null : ScoreUnit.Trim(),
            };
    }
}

/// <summary>Runs inside other bodies are spoken and checked like runs of their own.</summary>
internal sealed class RunConverter : JsonConverter<Run>
{
    /// <inheritdoc/>
    public override Run Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        var problems = new List<InputProblem>();
        return JsonSerializer.Deserialize<RunDto>(ref reader, options)?.ToRun("/run", problems)
            ?? throw new RefusedInputException(problems);
    }

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, Run value, JsonSerializerOptions options) =>
        JsonSerializer.Serialize(writer, RunAnswer.From(value), options);
}

/// <summary>Two runs to compare.</summary>
public sealed record VerdictRequest(ServiceLevel? Service, RunDto? Before, RunDto? After);
