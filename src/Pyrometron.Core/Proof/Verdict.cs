using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>One part before and after.</summary>
/// <param name="ChangeKelvin">Difference of rises over ambient at equal conditions; negative is cooler.</param>
/// <param name="UncertaintyKelvin">Expanded, k = 2.</param>
/// <param name="RawChangeCelsius">Difference of the temperatures as read.</param>
public sealed record PartVerdict(
    string Part,
    VerdictOutcome Outcome,
    double ChangeKelvin,
    double UncertaintyKelvin,
    double RawChangeCelsius
)
{
    /// <summary>As read before and after, °C; of several pairs those of none.</summary>
    public PartReadings? Read { get; init; }

    /// <summary>What leads from the temperatures as read to the change; those that change nothing are left out.</summary>
    public IReadOnlyList<Correction> Corrections { get; init; } = [];

    /// <summary>Least and most change over the pairs, K; null where there is one pair only.</summary>
    public KelvinRange? OverPairs { get; init; }

    /// <summary>The same to hundredths, as it is told and kept.</summary>
    public PartVerdict Rounded() =>
        this with
        {
            ChangeKelvin = Math.Round(ChangeKelvin, 2),
            UncertaintyKelvin = Math.Round(UncertaintyKelvin, 2),
            RawChangeCelsius = Math.Round(RawChangeCelsius, 2),
            Read = Read is { } r ? new(Math.Round(r.Before, 2), Math.Round(r.After, 2)) : null,
            Corrections = [.. Corrections.Select(c => c with { Kelvin = Math.Round(c.Kelvin, 2) })],
            OverPairs = OverPairs is { } o ? new(Math.Round(o.Low, 2), Math.Round(o.High, 2)) : null,
        };
}

/// <summary>A part's settled temperatures as read, °C.</summary>
public sealed record PartReadings(double Before, double After);

/// <summary>A range of differences, K.</summary>
public sealed record KelvinRange(double Low, double High);

/// <summary>What is not alike in two runs and is taken out of their difference.</summary>
public enum CorrectionFor
{
    /// <summary>The intake air.</summary>
    Air,

    /// <summary>The heat, to which the rise is proportional.</summary>
    Power,

    /// <summary>The speed of the fan.</summary>
    Fan,
}

/// <summary>One line of the way from the temperatures as read to the change.</summary>
/// <param name="Kelvin">Added to the difference as read, K.</param>
public sealed record Correction(CorrectionFor What, double Kelvin);

/// <summary>How much quieter or louder the fan became by itself.</summary>
/// <param name="SpeedShare">Speed after over speed before, minus 1.</param>
/// <param name="Decibel">Change of the sound power level, dB; negative is quieter.</param>
/// <param name="UncertaintyDecibel">Expanded, k = 2.</param>
public sealed record NoiseChange(double SpeedShare, double Decibel, double UncertaintyDecibel)
{
    /// <summary>The same as it is told and kept.</summary>
    public NoiseChange Rounded() => new(Math.Round(SpeedShare, 3), Math.Round(Decibel, 1), Math.Round(UncertaintyDecibel, 1));
}

/// <summary>A load and its figures that can be told beside the kelvins.</summary>
/// <param name="What">Clock or score.</param>
/// <param name="Unit">Of the score, where it was said.</param>
public sealed record PerformanceChange(PerformanceFigure What, double Before, double After, string? Unit);

/// <summary>What is measured of performance.</summary>
public enum PerformanceFigure
{
    Clock,
    Score,
}

/// <summary>Runs of one kind before, runs of one kind after, and what they show.</summary>
/// <param name="Before">The run before; of repeated ones their mean.</param>
/// <param name="BeforeRuns">How many there were. The same for after.</param>
/// <param name="Alike">Whether load, fan and settings are the same; else the calculation brings one to the other.</param>
public sealed record RunPair(
    Run Before,
    int BeforeRuns,
    Run After,
    int AfterRuns,
    bool Alike,
    VerdictOutcome Outcome,
    IReadOnlyList<PartVerdict> Parts,
    IReadOnlyList<VerdictReason> Reasons
)
{
    /// <summary>Whether the machine failed or throttled after the work.</summary>
    public bool StillWrong => After.Throttled || After.FailedAfterMinutes is not null;

    /// <summary>What is better besides.</summary>
    public IReadOnlyList<AlsoBetter> AlsoBetter { get; init; } = [];

    /// <summary>What an automatic fan won in noise; null where it kept its speed or is not known.</summary>
    public NoiseChange? Noise { get; init; }

    /// <summary>Clock and score where both runs have them.</summary>
    public IReadOnlyList<PerformanceChange> Performance { get; init; } = [];
}

/// <summary>Why a comparison is limited, adjusted or not possible.</summary>
/// <param name="Code">Stable word for programs, such as <c>ambient-differs</c>.</param>
public sealed record VerdictReason(string Code, Message Says);

/// <summary>What is better besides the kelvins.</summary>
public enum AlsoBetter
{
    Quieter,
    Faster,
    NoLongerThrottling,
    NoLongerFailing,
}

/// <summary>What a service proved to have won, or not.</summary>
/// <param name="Advice">What to do next, most useful first.</param>
public sealed record Verdict(
    VerdictOutcome Outcome,
    IReadOnlyList<PartVerdict> Parts,
    IReadOnlyList<VerdictReason> Reasons,
    IReadOnlyList<Message> Advice
)
{
    /// <summary>The result in one sentence; null in verdicts that were filed before there was one.</summary>
    public Message? Says { get; init; }

    /// <summary>What is better besides.</summary>
    public IReadOnlyList<AlsoBetter> AlsoBetter { get; init; } = [];

    /// <summary>The pairs that it rests on.</summary>
    public IReadOnlyList<RunPair> Pairs { get; init; } = [];

    /// <summary>Standard deviation from run to run at this bench, K, where repeats tell it; else null.</summary>
    public double? RepeatabilityKelvin { get; init; }

    /// <summary>What else lowers a temperature that a service cannot; empty where nothing is too hot.</summary>
    public IReadOnlyList<Remedy> Remedies { get; init; } = [];

    /// <summary>Whether it was worth it: cooler, or at least as cool and better in another way, and nothing worse.</summary>
    public bool IsSuccess =>
        Outcome == VerdictOutcome.Improved || Outcome == VerdictOutcome.NoChange && AlsoBetter.Count > 0 && !StillWrong;

    /// <summary>Whether a run after the work failed or throttled.</summary>
    public bool StillWrong => Pairs.Any(p => p.StillWrong);

    /// <summary>Without a before-run nothing can be proven, whatever the after-run says.</summary>
    public static Verdict Unproven { get; } =
        new(
            VerdictOutcome.NotComparable,
            [],
            [new VerdictReason("before-missing", "There was no before-run, so nothing can be proven.")],
            ["The after-run stands as the machine's new starting point."]
        )
        {
            Says = "Not proven: there was no before-run.",
        };

    /// <summary>Of a job that only looked.</summary>
    public static Verdict LookedAt { get; } =
        Unproven with
        {
            Reasons = [new VerdictReason("looked-at", "It was looked at only: nothing was done that a run could prove.")],
            Advice = [],
            Says = "Looked at; nothing was changed.",
        };
}

/// <summary>What else lowers a temperature where the cooler itself is the limit.</summary>
public enum Remedy
{
    Stand,
    AddOnFan,
    Undervolt,
    CoolerRoom,
    BetterCooler,
}

/// <summary>What follows from a remedy.</summary>
public static class Remedies
{
    /// <summary>The job that it is; null for the room, which is no work on the machine.</summary>
    public static ServiceLevel? Job(this Remedy remedy) =>
        remedy switch
        {
            Remedy.Stand => ServiceLevel.Stand,
            Remedy.AddOnFan => ServiceLevel.AddOnFan,
            Remedy.Undervolt => ServiceLevel.Undervolt,
            Remedy.BetterCooler => ServiceLevel.CoolerSwap,
            _ => null,
        };
}
