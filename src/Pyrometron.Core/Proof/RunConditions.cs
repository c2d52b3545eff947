using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>What the after-run's rises are multiplied by to stand at the before-run's conditions.</summary>
/// <param name="Power">Exact: heat is proportional.</param>
/// <param name="Flow">Convective resistance before over after, minus 1; acts on the air share.</param>
internal readonly record struct RunScale(double Power, double Flow)
{
    /// <summary>Relative standard uncertainty of scaling by power.</summary>
    private const double PowerSigma = 0.1;

    public double Factor => Power * (1 + AirSide.ShareOfRise * Flow);

    /// <summary>Standard uncertainty of the factor.</summary>
    public double Sigma => Math.Sqrt(Math.Pow(Power * AirSide.Spread * Flow, 2) + Math.Pow(PowerSigma * (Power - 1), 2));
}

/// <summary>Checks whether two runs were made under like conditions, or can be brought to them, and says what differs.</summary>
internal sealed class RunConditions(Run before, Run after, List<VerdictReason> reasons)
{
    /// <summary>Speeds that differ by less are alike.</summary>
    public const double SpeedDiffersShare = 0.05;

    private const double AmbientDiffersKelvin = 1,
        DurationDiffersShare = 0.10,
        PowerDiffersShare = 0.03;

    /// <summary>Below this a loaded machine has not shown its peak, minutes (common practice, no source).</summary>
    private const double SettledMinutes = 15;

    private double _power = 1,
        _flow;

    /// <summary>Checks everything.</summary>
    public (bool Comparable, RunScale Scale) Check()
    {
        var sameLoad = before.Workload == after.Workload;
        if (!sameLoad)
            Say(
                "workload-differs",
                "The load was '{before}' before and '{after}' after: run the first one again.",
                Value.Text("before", before.Workload),
                Value.Text("after", after.Workload)
            );
        CheckAir();
        CheckLength();
        CheckPower();
        var sameSettings = CheckSettings();
        if (
            before.Position is { Length: > 0 } stood
            && after.Position is { Length: > 0 } stands
            && !stood.Equals(stands, StringComparison.OrdinalIgnoreCase)
        )
            Say(
                "position-differs",
                "It stood '{before}' before and '{after}' after: a laptop propped up breathes better by itself.",
                Value.Text("before", stood),
                Value.Text("after", stands)
            );
        var sameFan = CheckFan(before.Fan, after.Fan);
        if (after.FailedAfterMinutes is { } failed)
            Say(
                "failed",
                "It failed after {minutes} in the after-run: cooler or not, that is no cure.",
                Value.Minutes("minutes", failed)
            );
        if (after.Throttled)
            Say("throttled", "It throttled in the after-run: cooler or not, that is no cure.");
        else if (before.Throttled)
            Say("throttled", "It throttled before: the true gain is larger than the figure.");
        return (sameLoad && sameSettings && sameFan, new RunScale(_power, _flow));
    }

    private void CheckAir()
    {
        if (before.Ambient is { } then && after.Ambient is { } now)
        {
            if (Math.Abs(now.Value - then.Value) > AmbientDiffersKelvin)
                Say(
                    "ambient-differs",
                    "The air was {before} before and {after} after; rises over the air are compared, not temperatures.",
                    Value.Celsius("before", then.Value),
                    Value.Celsius("after", now.Value)
                );
            return;
        }
        Say(
            "ambient-unknown",
            before.Ambient is null && after.Ambient is null
                    ? "The air temperature is missing in both runs; the uncertainty grows with it."
                : before.Ambient is null ? "The air temperature is missing before; the uncertainty grows with it."
                : "The air temperature is missing after; the uncertainty grows with it."
        );
    }

    private void CheckLength()
    {
        if (Math.Abs(after.Minutes - before.Minutes) > DurationDiffersShare * before.Minutes)
            Say(
                "duration-differs",
                "The runs lasted {before} and {after}; a shorter one ends cooler by itself.",
                Value.Minutes("before", before.Minutes),
                Value.Minutes("after", after.Minutes)
            );
        if (before.Settled == false || after.Settled == false)
            Say("not-settled", "A run had not settled: what it had still to rise is in the uncertainty.");
        else if (Math.Min(before.Minutes, after.Minutes) < SettledMinutes)
            Say(
                "not-settled",
                "A run under {minutes} may end before the machine has settled.",
                Value.Minutes("minutes", SettledMinutes)
            );
    }

    private void CheckPower()
    {
        if (before.PowerWatts is not > 0 || after.PowerWatts is not > 0)
            return;
        var ratio = after.PowerWatts.Value / before.PowerWatts.Value;
        if (Math.Abs(ratio - 1) <= PowerDiffersShare)
            return;
        _power = 1 / ratio;
        Say(
            "power-differs",
            "{before} before, {after} after; the rise is brought to the first, heat being proportional.",
            Value.Watt("before", before.PowerWatts.Value),
            Value.Watt("after", after.PowerWatts.Value)
        );
    }

    private bool CheckSettings()
    {
        if (before.Settings == after.Settings)
            return true;
        var measured = before.PowerWatts is > 0 && after.PowerWatts is > 0;
        Say(
            "settings-differ",
            measured
                ? "The settings were '{before}' before and '{after}' after; the measured power stands in for them."
                : "The settings were '{before}' before and '{after}' after.",
            Value.Text("before", before.Settings),
            Value.Text("after", after.Settings)
        );
        return measured;
    }

    private bool CheckFan(RunFan then, RunFan now)
    {
        var (rpmThen, rpmNow) = (then.Rpm, now.Rpm);
        var bothRpm = rpmThen is > 0 && rpmNow is > 0;
        if (then.Mode == FanMode.Auto && now.Mode == FanMode.Auto)
        {
            Say(
                "fan-not-fixed",
                "The fan was automatic in both runs: part of a gain may show as less speed at the same temperature."
            );
            if (bothRpm && Math.Abs(rpmNow!.Value / rpmThen!.Value - 1) > SpeedDiffersShare)
                _flow = FanLaw.RelativeResistance(rpmThen.Value, rpmNow.Value) - 1;
            return true;
        }
        if (then.Mode != now.Mode)
        {
            if (bothRpm)
                _flow = FanLaw.RelativeResistance(rpmThen!.Value, rpmNow!.Value) - 1;
            Say(
                "fan-differs",
                (bothRpm, then.Mode) switch
                {
                    (true, FanMode.Auto) =>
                        "The fan was automatic before and fixed after; the rises are brought to the first speed.",
                    (true, _) => "The fan was fixed before and automatic after; the rises are brought to the first speed.",
                    (false, FanMode.Auto) => "The fan was automatic before and fixed after: fix it alike and run again.",
                    _ => "The fan was fixed before and automatic after: fix it alike and run again.",
                }
            );
            return bothRpm;
        }
        var (speedThen, speedNow) = bothRpm ? (rpmThen, rpmNow) : (then.Percent, now.Percent);
        if (speedThen is > 0 && speedNow is > 0 && Math.Abs(speedNow.Value / speedThen.Value - 1) > SpeedDiffersShare)
        {
            _flow = FanLaw.RelativeResistance(speedThen.Value, speedNow.Value) - 1;
            Say(
                "fan-differs",
                "The fan ran at {before} before and {after} after; the rises are brought to the first speed.",
                Value.Figure("before", speedThen.Value, "0"),
                Value.Figure("after", speedNow.Value, "0")
            );
        }
        return true;
    }

    private void Say(string code, string template, params ReadOnlySpan<MessageValue> values) =>
        reasons.Add(new VerdictReason(code, Message.Of(template, values)));
}
