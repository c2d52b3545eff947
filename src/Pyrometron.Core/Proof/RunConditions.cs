using Pyrometron.Core.Cooling;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
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

/// <summary>What the work itself makes different: that is its result, and is not taken out of it.</summary>
/// <param name="Settings">Settings, and with them the heat.</param>
/// <param name="Fan">The fans: their speeds before and after are not of the same fans.</param>
/// <param name="Position">How the machine stands.</param>
internal readonly record struct MeantToDiffer(bool Settings, bool Fan, bool Position)
{
    public static MeantToDiffer Of(ServiceLevel level) =>
        new(
            level == ServiceLevel.Undervolt,
            level is ServiceLevel.CoolerSwap or ServiceLevel.AddOnFan,
            level == ServiceLevel.Stand
        );
}

/// <summary>Checks whether two runs were made under like conditions, or can be brought to them, and says what differs.</summary>
internal sealed class RunConditions(Run before, Run after, MeantToDiffer meant, List<VerdictReason> reasons)
{
    /// <summary>Speeds that differ by less are alike.</summary>
    public const double SpeedDiffersShare = 0.05;

    private const double AmbientDiffersKelvin = 1,
        PowerDiffersShare = 0.03;

    /// <summary>
    /// Rises are brought over no more than a factor of two in heat. Heat is proportional as long as the cooler is the same; but
    /// what besides the load warms a machine, and what a joint's resistance does with temperature, adds about a tenth of the
    /// step, and beyond a factor of two that is more than most services win. Common practice, no source.
    /// </summary>
    private const double MostPowerRatio = 2;

    /// <summary>
    /// Nor over more than a factor of two in speed: the law of the fan holds for turbulent flow, and below half its speed a fan
    /// leaves that (Incropera &amp; DeWitt, ch. 7; the factor itself is common practice, no source).
    /// </summary>
    private const double MostSpeedRatio = 2;

    private double _power = 1,
        _flow;

    /// <summary>Checks everything.</summary>
    public (bool Comparable, RunScale Scale) Check()
    {
        var sameLoad = IsSame(before.Workload, after.Workload);
        if (!sameLoad)
            Say(
                "workload-differs",
                "The load was '{before}' before and '{after}' after: run the first one again.",
                Value.Text("before", before.Workload),
                Value.Text("after", after.Workload)
            );
        CheckAir();
        reasons.AddRange(new RunSettling(before, after).Check());
        var nearPower = CheckPower();
        var sameSettings = CheckSettings();
        if (
            !meant.Position
            && before.Position is { Length: > 0 } stood
            && after.Position is { Length: > 0 } stands
            && !IsSame(stood, stands)
        )
            Say(
                "position-differs",
                "It stood '{before}' before and '{after}' after: a laptop propped up breathes better by itself.",
                Value.Text("before", stood),
                Value.Text("after", stands)
            );
        var sameFan = CheckFan(before.Fan, after.Fan);
        CheckBelowAir(before, "before");
        CheckBelowAir(after, "after");
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
        return (sameLoad && nearPower && sameSettings && sameFan, new RunScale(_power, _flow));
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

    /// <summary>Whether a part was read below the air that cools it: then its sensor or the air is wrong.</summary>
    public static bool IsBelowAir(Run run, RunPart part) => run.Ambient is { } air && part.Celsius.Value < air.Value;

    private void CheckBelowAir(Run run, string when)
    {
        foreach (var part in run.Parts.Where(p => IsBelowAir(run, p)))
            Say(
                "below-air",
                when == "before"
                    ? "{part} read {celsius} before, below the air of {air}: its sensor or the air is wrong, and it is left out."
                    : "{part} read {celsius} after, below the air of {air}: its sensor or the air is wrong, and it is left out.",
                Value.PartFirst("part", part.Part),
                Value.Celsius("celsius", part.Celsius.Value),
                Value.Celsius("air", run.Ambient!.Value.Value)
            );
    }

    /// <summary>Names that somebody typed are the same whatever their capitals and outer spaces.</summary>
    public static bool IsSame(string a, string b) => a.Trim().Equals(b.Trim(), StringComparison.OrdinalIgnoreCase);

    /// <returns>Whether the heat was alike, or near enough to be brought to the same.</returns>
    private bool CheckPower()
    {
        if (before.PowerWatts is not { } then || after.PowerWatts is not { } now || then == now)
            return true;
        if (meant.Settings)
        {
            Say(
                "power-differs",
                "{before} before, {after} after: that is what the new settings took, and it is left in the result.",
                Value.Watt("before", then),
                Value.Watt("after", now)
            );
            return true;
        }
        var near = then > 0 && now > 0 && Ratio(then, now) <= MostPowerRatio;
        if (near && Math.Abs(now / then - 1) <= PowerDiffersShare)
            return true;
        if (near)
            _power = then / now;
        Say(
            "power-differs",
            near
                ? "{before} before, {after} after; the rise is brought to the first, heat being proportional."
                : "{before} before, {after} after: too far apart to bring one to the other. Run both at the same heat.",
            Value.Watt("before", then),
            Value.Watt("after", now)
        );
        return near;
    }

    private static double Ratio(double a, double b) => Math.Max(a / b, b / a);

    private bool CheckSettings()
    {
        if (IsSame(before.Settings, after.Settings))
            return true;
        if (meant.Settings)
        {
            Say(
                "settings-differ",
                "The settings were '{before}' before and '{after}' after: that is the work, and it is left in the result.",
                Value.Text("before", before.Settings),
                Value.Text("after", after.Settings)
            );
            return true;
        }
        // Power so far apart is told already, and nothing stands in for it.
        var measured =
            before.PowerWatts is > 0 and var then && after.PowerWatts is > 0 and var now && Ratio(then, now) <= MostPowerRatio;
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
        if (meant.Fan && then.Mode == now.Mode)
        {
            if (then.Mode == FanMode.Fixed && then.Percent is { } first && now.Percent is { } second && first != second)
                Say(
                    "fan-differs",
                    "The fans ran at {before} before and {after} after. They are other fans now, and nothing is brought from one to the other.",
                    Value.Percent("before", first),
                    Value.Percent("after", second)
                );
            else
                Say("fan-not-fixed", "Before and after it ran with other fans: their speeds are not compared.");
            return then.Percent == now.Percent || then.Mode == FanMode.Auto;
        }
        if ((then.Rpm == 0) != (now.Rpm == 0) && then.Rpm is not null && now.Rpm is not null)
            return FromStanding(then, now);
        var bothRpm = then.Rpm is > 0 && now.Rpm is > 0;
        if (then.Mode == FanMode.Auto && now.Mode == FanMode.Auto)
        {
            Say(
                "fan-not-fixed",
                "The fan was automatic in both runs: part of a gain may show as less speed at the same temperature."
            );
            return !bothRpm || BringToSpeed(then.Rpm!.Value, now.Rpm!.Value);
        }
        if (then.Mode != now.Mode)
        {
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
            return bothRpm && BringToSpeed(then.Rpm!.Value, now.Rpm!.Value);
        }
        var (speedThen, speedNow) = bothRpm ? (then.Rpm, now.Rpm) : (then.Percent, now.Percent);
        if (speedThen is not > 0 || speedNow is not > 0 || Math.Abs(speedNow.Value / speedThen.Value - 1) <= SpeedDiffersShare)
            return true;
        Say(
            "fan-differs",
            "The fan ran at {before} before and {after} after; the rises are brought to the first speed.",
            Value.Figure("before", speedThen.Value, "0"),
            Value.Figure("after", speedNow.Value, "0")
        );
        return BringToSpeed(speedThen.Value, speedNow.Value);
    }

    /// <summary>Brings the after-run to the speed of the before-run, where that is near enough.</summary>
    private bool BringToSpeed(double then, double now)
    {
        if (Math.Abs(now / then - 1) <= SpeedDiffersShare)
            return true;
        if (Ratio(then, now) > MostSpeedRatio)
        {
            Say(
                "fan-differs",
                "{before} and {after} are too far apart to bring one to the other. Run both at the same speed.",
                Value.Figure("before", then, "0"),
                Value.Figure("after", now, "0")
            );
            return false;
        }
        _flow = FanLaw.RelativeResistance(then, now) - 1;
        return true;
    }

    /// <summary>
    /// A fan that reads no turns in one run stood still, or is not read: nothing is brought from or to that. Runs at the same
    /// fixed command are compared as they are, since that is what its change won.
    /// </summary>
    private bool FromStanding(RunFan then, RunFan now)
    {
        var sameCommand = then.Mode == FanMode.Fixed && now.Mode == FanMode.Fixed && then.Percent is { } p && p == now.Percent;
        Say(
            "fan-differs",
            then.Rpm == 0
                ? "The fan read no turns before: it stood, or is not read. Nothing is brought to another speed."
                : "The fan read no turns after: it stands, or is not read. Look at it before this is called a result."
        );
        return sameCommand;
    }

    private void Say(string code, string template, params ReadOnlySpan<MessageValue> values) =>
        reasons.Add(new VerdictReason(code, Message.Of(template, values)));
}
