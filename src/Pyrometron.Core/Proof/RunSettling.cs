using Pyrometron.Core.Events;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>Whether two runs were long enough, settled, started alike and kept one fan speed, and says what was not.</summary>
internal sealed class RunSettling(Run before, Run after)
{
    private const double DurationDiffersShare = 0.10;

    /// <summary>Below this a loaded machine has not shown its peak, minutes (common practice, no source).</summary>
    private const double SettledMinutes = 15;

    /// <summary>
    /// Starts that differ by more, above what the air did, are not alike, K; and the share of its rise that a run has reached
    /// where nobody knows it. Common practice, no source.
    /// </summary>
    private const double StartDiffersKelvin = 5,
        UnknownShare = 0.8;

    private readonly List<VerdictReason> _reasons = [];

    /// <summary>Checks everything.</summary>
    public IReadOnlyList<VerdictReason> Check()
    {
        CheckLength();
        CheckStart();
        CheckRamp();
        return _reasons;
    }

    /// <summary>
    /// Whether a run is over before a cooler has warmed through, and nothing says that this one had: whatever it reads is no
    /// result. Common practice, no source.
    /// </summary>
    public static bool ProvesNothing(Run run) => run.Settled is null && run.Minutes < 2 && run.FailedAfterMinutes is null;

    /// <summary>
    /// What a warmer start leaves of itself at the end of the shorter run, standard uncertainty, K: nothing once both had
    /// settled.
    /// </summary>
    public static double OfStart(Run before, Run after)
    {
        if (before.Start is not { } then || after.Start is not { } now)
            return 0;
        double Left(Run run) => RunUncertainty.IsSettled(run) ? 0 : 1 - (run.ShareOfRise ?? UnknownShare);
        return Math.Abs(now.Value - then.Value) * Math.Max(Left(before), Left(after)) / Math.Sqrt(3);
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
        if (ProvesNothing(before) || ProvesNothing(after))
            Say(
                "not-settled",
                "A run of {minutes} proves nothing: the chip is warm by then, its cooler is not. Run {least} at the least.",
                Value.Minutes("minutes", Math.Min(before.Minutes, after.Minutes)),
                Value.Minutes("least", SettledMinutes)
            );
        else if (before.Settled == false || after.Settled == false)
            SayUnsettled();
        else if (Math.Min(before.Minutes, after.Minutes) < SettledMinutes)
            Say(
                "not-settled",
                "A run under {minutes} may end before the machine has settled.",
                Value.Minutes("minutes", SettledMinutes)
            );
    }

    private void SayUnsettled()
    {
        foreach (var (run, after_) in ((Run, bool)[])[(before, false), (after, true)])
            if (run.Settled == false)
                Say(
                    "not-settled",
                    (run.ShareOfRise, run.SlopeAtEnd, after_) switch
                    {
                        ({ }, { }, false) =>
                            "The run before had not settled ({share} of its rise, {slope} K a minute at its end): what it had still to rise is in the uncertainty.",
                        ({ }, { }, true) =>
                            "The run after had not settled ({share} of its rise, {slope} K a minute at its end): what it had still to rise is in the uncertainty.",
                        ({ }, null, false) =>
                            "The run before had not settled ({share} of its rise): what it had still to rise is in the uncertainty.",
                        ({ }, null, true) =>
                            "The run after had not settled ({share} of its rise): what it had still to rise is in the uncertainty.",
                        (_, _, false) => "The run before had not settled: what it had still to rise is in the uncertainty.",
                        _ => "The run after had not settled: what it had still to rise is in the uncertainty.",
                    },
                    [
                        .. run.ShareOfRise is { } share ? (MessageValue[])[Value.Share("share", share)] : [],
                        .. run is { ShareOfRise: not null, SlopeAtEnd: { } slope }
                            ? (MessageValue[])[Value.Figure("slope", slope, "0.0#")]
                            : [],
                    ]
                );
    }

    private void CheckStart()
    {
        if (
            before.Start is { } then
            && after.Start is { } now
            && Math.Abs(now.Value - then.Value - ((after.Ambient ?? before.Ambient)?.Value - before.Ambient?.Value ?? 0))
                > StartDiffersKelvin
        )
            Say(
                "start-differs",
                OfStart(before, after) > 0
                    ? "It started at {before} before and at {after} after, and a run had not settled: what is left of that is in the uncertainty. Start both cold."
                    : "It started at {before} before and at {after} after. Both runs had settled, so little is left of that.",
                Value.Celsius("before", then.Value),
                Value.Celsius("after", now.Value)
            );
    }

    private void CheckRamp()
    {
        foreach (var (run, later) in ((Run, bool)[])[(before, false), (after, true)])
            if (run.FanRamp is { } ramp && Math.Abs(ramp) >= RunUncertainty.RampShare)
                Say(
                    "fan-ramped",
                    (later, ramp > 0) switch
                    {
                        (false, true) =>
                            "The fan was still speeding up in the run before ({share}): its temperature belongs to no one speed, and the uncertainty grows.",
                        (true, true) =>
                            "The fan was still speeding up in the run after ({share}): its temperature belongs to no one speed, and the uncertainty grows.",
                        (false, false) =>
                            "The fan was still slowing down in the run before ({share}): its temperature belongs to no one speed, and the uncertainty grows.",
                        _ =>
                            "The fan was still slowing down in the run after ({share}): its temperature belongs to no one speed, and the uncertainty grows.",
                    },
                    Value.Share("share", Math.Abs(ramp))
                );
    }

    private void Say(string code, string template, params ReadOnlySpan<MessageValue> values) =>
        _reasons.Add(new VerdictReason(code, Message.Of(template, values)));
}
