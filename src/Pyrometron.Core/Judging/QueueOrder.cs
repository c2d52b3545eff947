using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Judging;

/// <summary>Which machine is next: urgency first, then by the house's precedence.</summary>
public static class QueueOrder
{
    /// <summary>
    /// Machines that differ by less than this cannot be told apart by a run (its repeatability), and stand alike, K.
    /// </summary>
    private const double StepKelvin = 1;

    /// <summary>Chances that differ by less than this stand alike.</summary>
    private const double StepChance = 0.05;

    /// <summary>
    /// Most pressing first, what crashes before all else; equal ones by tag, so that the order is the same every time.
    /// </summary>
    public static Assessment[] Of(IEnumerable<Assessment> machines, DateOnly asOf, JudgementPolicy policy)
    {
        double PressureOf(Assessment a) => Pressure(a.DriftKelvin ?? 0, a.Action, asOf, a.Policy);
        return
        [
            .. machines
                .OrderBy(a => a.Urgency)
                // Whoever comes for a machine that may only have a wrong sensor comes after the others.
                .ThenBy(a => a is { Urgency: Urgency.Soon, Service: ServiceLevel.Inspect, DoubtedSensor: not null })
                .ThenByDescending(a => a.Symptoms.Any(s => s.Kind is SymptomKind.Crash or SymptomKind.Shutdown))
                .ThenByDescending(a =>
                    policy.Precedence == Precedence.Evidence ? Math.Floor((a.NeedsWorkProbability ?? 0) / StepChance) : 0
                )
                .ThenByDescending(a =>
                    policy.Precedence == Precedence.Evidence ? Math.Floor(PressureOf(a) * a.Policy.MuchKelvin / StepKelvin) : 0
                )
                .ThenByDescending(a => a.Advised?.PerHour ?? double.NegativeInfinity)
                .ThenByDescending(PressureOf)
                // Where nothing was measured the longest overdue goes first, by the length of its interval.
                .ThenByDescending(a => a is { Parts.Count: 0, ServiceDue: { } due } ? due.OverdueShare(asOf) : 0)
                .ThenBy(a => a.Asset.Tag, StringComparer.Ordinal),
        ];
    }

    /// <summary>
    /// How far beyond the thresholds a machine stands, 1 at the threshold. Winning six kelvin and standing at the line with two
    /// and a half weigh alike.
    /// </summary>
    public static double Pressure(double winnable, ActionDate? action, DateOnly asOf, JudgementPolicy policy)
    {
        var days = action is { } a ? Math.Max(0, a.Day.DayNumber - asOf.DayNumber) : double.PositiveInfinity;
        var nearness = 1 / (1 + Math.Exp((days - JudgementPolicy.NextDays) / 15));
        return winnable / policy.MuchKelvin + nearness * Math.Min(winnable, 2 * policy.WorthKelvin) / policy.WorthKelvin;
    }
}
