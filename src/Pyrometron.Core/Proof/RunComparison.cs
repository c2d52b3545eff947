using System.Globalization;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Proof;

/// <summary>
/// Compares a run before a service with one after it. The rises over ambient are brought to the conditions of the
/// before-run where that can be calculated; their difference carries its uncertainty (JCGM 100:2008, GUM): per run
/// repeatability 1.0 K, resolution as a rectangular distribution (step/√12), ambient 0.5 K, or 2.5 K when unknown; k = 2.
/// </summary>
public static class RunComparison
{
    private const double RepeatabilityKelvin = 1.0,
        AmbientKelvin = 0.5,
        UnknownAmbientKelvin = 2.5,
        Coverage = 2;

    private const double AmbientDiffersKelvin = 1,
        DurationDiffersShare = 0.10,
        PowerDiffersShare = 0.03,
        SpeedDiffersShare = 0.05;

    /// <summary>Below this a loaded machine has not shown its peak (common practice, no source).</summary>
    private const double SettledMinutes = 15;

    /// <summary>Share of a rise that follows the fan's speed, and its spread, when the machine's own is not known.</summary>
    private const double AirShare = 0.5,
        AirShareSigma = 0.2;

    /// <summary>Judges a pair of runs.</summary>
    /// <param name="service">What was done in between; shapes the advice.</param>
    public static Verdict Evaluate(ServiceLevel service, Run before, Run after)
    {
        var reasons = new List<VerdictReason>();
        var comparable = CheckConditions(before, after, reasons, out var scale);
        foreach (
            var name in before
                .Parts.Select(p => p.Part)
                .Except(after.Parts.Select(p => p.Part))
                .Concat(after.Parts.Select(p => p.Part).Except(before.Parts.Select(p => p.Part)))
        )
            reasons.Add(new VerdictReason("part-missing", $"{name} was measured in one run only and is left out."));

        var parts = new List<PartVerdict>();
        foreach (var b in before.Parts)
            if (after.Parts.FirstOrDefault(a => a.Part == b.Part) is { } a)
                parts.Add(Compare(before, after, b, a, scale, comparable));
        var outcome =
            !comparable || parts.Count == 0 ? VerdictOutcome.NotComparable
            : parts.Any(p => p.Outcome == VerdictOutcome.Worse) ? VerdictOutcome.Worse
            : parts.Any(p => p.Outcome == VerdictOutcome.Improved) ? VerdictOutcome.Improved
            : VerdictOutcome.NoChange;
        return new Verdict(outcome, parts, reasons, [.. Advice.For(service, before, after, outcome, parts, reasons)]);
    }

    /// <summary>What the after-run's rises are multiplied by to stand at the before-run's conditions.</summary>
    /// <param name="Power">Exact: heat is proportional.</param>
    /// <param name="Flow">Convective resistance before over after, minus 1; acts on the air share.</param>
    private readonly record struct Scale(double Power, double Flow)
    {
        public double Factor => Power * (1 + AirShare * Flow);

        /// <summary>Standard uncertainty of the factor.</summary>
        public double Sigma => Math.Sqrt(Math.Pow(Power * AirShareSigma * Flow, 2) + Math.Pow(0.1 * (Power - 1), 2));
    }

    private static PartVerdict Compare(Run before, Run after, RunPart b, RunPart a, Scale scale, bool comparable)
    {
        // An ambient nobody wrote down is taken as the other run's: the wide uncertainty says what that is worth.
        var ambientBefore = (before.Ambient ?? after.Ambient)?.Value ?? 0;
        var ambientAfter = (after.Ambient ?? before.Ambient)?.Value ?? 0;
        var known = before.Ambient is not null || after.Ambient is not null;
        var riseAfter = a.Celsius.Value - ambientAfter;
        var factor = known ? scale.Factor : 1;
        var change = riseAfter * factor - (b.Celsius.Value - ambientBefore);
        var u = Math.Sqrt(
            Variance(before, b) + Variance(after, a) * factor * factor + (known ? Math.Pow(riseAfter * scale.Sigma, 2) : 0)
        );
        var outcome =
            !comparable ? VerdictOutcome.NotComparable
            : change > Coverage * u ? VerdictOutcome.Worse
            : change < -Coverage * u && !after.Throttled ? VerdictOutcome.Improved
            : VerdictOutcome.NoChange;
        return new PartVerdict(b.Part, outcome, change, Coverage * u, a.Celsius.Value - b.Celsius.Value);
    }

    private static double Variance(Run run, RunPart part)
    {
        var ambient =
            run.Ambient is null ? UnknownAmbientKelvin
            : run.AmbientSpread > 0 ? Math.Max(AmbientKelvin, run.AmbientSpread / Math.Sqrt(3))
            : AmbientKelvin;
        return RepeatabilityKelvin * RepeatabilityKelvin + part.ResolutionKelvin * part.ResolutionKelvin / 12 + ambient * ambient;
    }

    private static bool CheckConditions(Run before, Run after, List<VerdictReason> reasons, out Scale scale)
    {
        void Say(string code, FormattableString message) =>
            reasons.Add(new VerdictReason(code, message.ToString(CultureInfo.InvariantCulture)));
        var comparable = true;
        var (power, flow) = (1.0, 0.0);

        if (before.Workload != after.Workload)
        {
            comparable = false;
            Say(
                "workload-differs",
                $"The load was '{before.Workload}' before and '{after.Workload}' after: run the first one again."
            );
        }
        if (before.Ambient is null || after.Ambient is null)
            Say(
                "ambient-unknown",
                $"The air temperature is missing {(before.Ambient is null && after.Ambient is null ? "in both runs" : before.Ambient is null ? "before" : "after")}; the uncertainty grows with it."
            );
        else if (Math.Abs(after.Ambient.Value.Value - before.Ambient.Value.Value) > AmbientDiffersKelvin)
            Say(
                "ambient-differs",
                $"The air was {before.Ambient.Value.Value:0.#} °C before and {after.Ambient.Value.Value:0.#} °C after; rises over the air are compared, not temperatures."
            );
        if (Math.Abs(after.Minutes - before.Minutes) > DurationDiffersShare * before.Minutes)
            Say(
                "duration-differs",
                $"The runs lasted {before.Minutes:0.#} and {after.Minutes:0.#} minutes; a shorter one ends cooler by itself."
            );
        if (Math.Min(before.Minutes, after.Minutes) < SettledMinutes)
            Say("not-settled", $"A run under {SettledMinutes} minutes may end before the machine has settled.");
        if (before.PowerWatts is > 0 && after.PowerWatts is > 0)
        {
            var ratio = after.PowerWatts.Value / before.PowerWatts.Value;
            if (Math.Abs(ratio - 1) > PowerDiffersShare)
            {
                power = 1 / ratio;
                Say(
                    "power-differs",
                    $"{before.PowerWatts:0.#} W before, {after.PowerWatts:0.#} W after; the rise is brought to the first, heat being proportional."
                );
            }
        }
        if (before.Settings != after.Settings)
        {
            comparable &= before.PowerWatts is > 0 && after.PowerWatts is > 0;
            Say(
                "settings-differ",
                $"The settings were '{before.Settings}' before and '{after.Settings}' after{(comparable ? "; the measured power stands in for them" : "")}."
            );
        }
        if (
            before.Position is { Length: > 0 } stood
            && after.Position is { Length: > 0 } stands
            && !stood.Equals(stands, StringComparison.OrdinalIgnoreCase)
        )
            Say(
                "position-differs",
                $"It stood '{stood}' before and '{stands}' after: a laptop propped up breathes better by itself."
            );
        comparable &= CheckFan(before.Fan, after.Fan, Say, ref flow);
        if (after.Throttled)
            Say("throttled", $"It throttled in the after-run: cooler or not, that is no cure.");
        else if (before.Throttled)
            Say("throttled", $"It throttled before: the true gain is larger than the figure.");
        scale = new Scale(power, flow);
        return comparable;
    }

    private static bool CheckFan(RunFan before, RunFan after, Action<string, FormattableString> say, ref double flow)
    {
        var (rpmBefore, rpmAfter) = (before.Rpm, after.Rpm);
        var bothRpm = rpmBefore is > 0 && rpmAfter is > 0;
        if (before.Mode == FanMode.Auto && after.Mode == FanMode.Auto)
        {
            say(
                "fan-not-fixed",
                $"The fan was automatic in both runs: part of a gain may show as less speed at the same temperature."
            );
            if (bothRpm && Math.Abs(rpmAfter!.Value / rpmBefore!.Value - 1) > SpeedDiffersShare)
                flow = FanLaw.RelativeResistance(rpmBefore.Value, rpmAfter.Value) - 1;
            return true;
        }
        if (before.Mode != after.Mode)
        {
            if (bothRpm)
                flow = FanLaw.RelativeResistance(rpmBefore!.Value, rpmAfter!.Value) - 1;
            say(
                "fan-differs",
                $"The fan was {Mode(before)} before and {Mode(after)} after{(bothRpm ? "; the rises are brought to the first speed" : ": fix it alike and run again")}."
            );
            return bothRpm;
        }
        var (commandBefore, commandAfter) = bothRpm ? (rpmBefore, rpmAfter) : (before.Percent, after.Percent);
        if (
            commandBefore is > 0
            && commandAfter is > 0
            && Math.Abs(commandAfter.Value / commandBefore.Value - 1) > SpeedDiffersShare
        )
        {
            flow = FanLaw.RelativeResistance(commandBefore.Value, commandAfter.Value) - 1;
            say(
                "fan-differs",
                $"The fan ran at {commandBefore:0} before and {commandAfter:0} after; the rises are brought to the first speed."
            );
        }
        return true;
    }

    private static string Mode(RunFan fan) => fan.Mode == FanMode.Auto ? "automatic" : "fixed";
}
