using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Priority;

/// <summary>What service could win back on a machine's worst part.</summary>
/// <param name="Kelvin">At its reference point.</param>
/// <param name="Sigma">Its standard uncertainty, K.</param>
/// <param name="Pace">What it grows by, K a day; 0 without a pace.</param>
/// <param name="Chance">The chance that the machine needs work: see <see cref="NeedsWork"/>.</param>
public readonly record struct Winnable(double Kelvin, double Sigma, double Pace, double Chance)
{
    /// <summary>
    /// Less than this many standard uncertainties (k = 2, JCGM 100:2008, 6.3.3) may be chance: nobody is sent at once for it.
    /// </summary>
    private const double SureSigmas = 2;

    /// <summary>One-sided 95 % of a normal distribution, standard deviations (JCGM 100:2008, table G.1, at 90 %).</summary>
    private const double Sure95 = 1.645;

    /// <summary>What it is less than with 95 %, K.</summary>
    public double Most => Kelvin + Sure95 * Sigma;

    /// <summary>For how many days it stays below this many kelvins with 95 %, by its pace; 0 where it is not now.</summary>
    public double DaysBelow(double kelvin) =>
        Most >= kelvin ? 0
        : Pace <= 0 ? double.PositiveInfinity
        : (kelvin - Most) / Pace;

    /// <summary>Whether it is beyond chance.</summary>
    public bool IsSure => Kelvin >= SureSigmas * Sigma;
}

/// <summary>How pressing work on a machine is, from what is to win and by when.</summary>
public static class UrgencyRule
{
    /// <summary>
    /// <c>now</c>: at its limit, throttling or past the action line, with enough to win. <c>next</c>: much to win, or enough
    /// and the line near. <c>soon</c>: the same a little later, its interval is due, or whether it needs work is not known yet:
    /// then measuring comes first. <c>watch</c>: real drift without a date, or hot with nothing to win. Else <c>fine</c>. What
    /// was reported or reached is not weighed; what is only reckoned sends somebody when it is likelier than not.
    /// </summary>
    /// <param name="winnable">What service could win back.</param>
    /// <param name="atItsLimit">Throttling, or temperatures at a limit.</param>
    /// <param name="action">When the first part reaches its action line.</param>
    /// <param name="due">The next service of the calendar.</param>
    /// <param name="symptoms">What people reported and nothing has cleared since.</param>
    public static Urgency Of(
        Winnable winnable,
        bool atItsLimit,
        ActionDate? action,
        DueService? due,
        IReadOnlyList<Symptom> symptoms,
        DateOnly asOf,
        JudgementPolicy policy
    )
    {
        atItsLimit |= symptoms.Any(s => s.Kind == SymptomKind.Throttling);
        var byEvidence = ByEvidence(winnable, atItsLimit, action, asOf, policy);
        var byCalendar = due is { } d && d.Due <= asOf ? Urgency.Soon : Urgency.Fine;
        var bySchool = policy.School switch
        {
            School.Calendar => Sooner(
                byEvidence == Urgency.Now ? Urgency.Now
                    : byEvidence == Urgency.Fine ? Urgency.Fine
                    : Urgency.Watch,
                byCalendar
            ),
            School.Evidence => byEvidence,
            School.Failure => byEvidence == Urgency.Now ? Urgency.Now
            : byEvidence == Urgency.Fine ? Urgency.Fine
            : Urgency.Watch,
            _ => Sooner(byEvidence, byCalendar),
        };
        return Of(symptoms) is { } reported ? Sooner(bySchool, reported) : bySchool;
    }

    /// <summary>What reports alone ask for: they outrank degrees. Null without any.</summary>
    public static Urgency? Of(IReadOnlyList<Symptom> symptoms) =>
        symptoms.Count == 0 ? null
        : symptoms.Any(s => s.IsFailure) ? Urgency.Now
        : Urgency.Soon;

    /// <summary>
    /// Where nothing was ever measured the interval alone decides; unknown where it is not due, or does not count.
    /// </summary>
    public static Urgency ByIntervalAlone(DueService? due, DateOnly asOf, JudgementPolicy policy) =>
        due is not { } d || !d.IsDue(asOf) || policy.School is School.Evidence or School.Failure ? Urgency.Unknown
        : d.IsLongOverdue(asOf) ? Urgency.Next
        : Urgency.Soon;

    /// <summary>What a machine that a job left worse deserves at least, whatever the rest says.</summary>
    /// <param name="result">Of its newest job, while nothing has been measured or done since that answers it; or null.</param>
    public static Urgency AfterJob(Urgency judged, JobResult? result) =>
        result is { Outcome: VerdictOutcome.Worse } ? Sooner(judged, Urgency.Next) : judged;

    private static Urgency Sooner(Urgency a, Urgency b) => a < b ? a : b;

    private static Urgency ByEvidence(
        Winnable winnable,
        bool atItsLimit,
        ActionDate? action,
        DateOnly asOf,
        JudgementPolicy policy
    )
    {
        var days = action is { } a ? a.Day.DayNumber - asOf.DayNumber : int.MaxValue;
        var worth = winnable.Kelvin >= policy.WorthKelvin;
        var sure = worth && winnable.IsSure;
        var likely = winnable.Chance >= NeedsWork.Likely;
        if (sure && (atItsLimit || (likely && days <= 0)))
            return Urgency.Now;
        if (likely && (winnable.Kelvin >= policy.MuchKelvin || (sure && days <= JudgementPolicy.NextDays)))
            return Urgency.Next;
        if (
            winnable.Chance >= NeedsWork.Possible
            || (
                worth
                && (
                    days <= JudgementPolicy.SoonDays
                    || winnable.Kelvin + JudgementPolicy.SoonDays * winnable.Pace >= policy.MuchKelvin
                )
            )
        )
            return Urgency.Soon;
        if (sure || atItsLimit || days <= 0)
            return Urgency.Watch;
        return Urgency.Fine;
    }
}
