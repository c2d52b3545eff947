using Pyrometron.Core.Fleet;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Units;

namespace Pyrometron.Bench.Scoring;

/// <summary>What was put into a simulated machine, in the words of the trial fleets' truth.</summary>
internal static class InventedTruth
{
    /// <summary>The truth of a machine on a day.</summary>
    public static Truth Of(SimulatedMachine machine, Zone zone, double now, string[] confounds)
    {
        var wear = machine.Wear(now);
        var totals = wear.Select(w => w.Values.Sum()).ToArray();
        var worst = Array.IndexOf(totals, totals.Max());
        var margins = MarginsOn(machine, zone, now);
        var limiting = Array.IndexOf(margins, margins.Min());
        // Wear goes on at its present pace; a service in between would be no pace.
        var back = Math.Clamp(
            now - machine.Asset.Services.Select(s => UnixDay.Noon(s.Date) + 0.5).DefaultIfEmpty(0).Max(),
            1,
            30
        );
        var days = MarginsOn(machine, zone, now - back)
            .Zip(
                margins,
                (then, now) =>
                    now <= 0 ? 0
                    : then > now ? now / ((then - now) / back)
                    : double.PositiveInfinity
            )
            .Min();
        var ranked = wear[worst].OrderByDescending(w => w.Value).ToArray();
        var needs = totals[worst] >= 6 || (totals[worst] >= 2.5 && days <= 45);
        return new Truth(
            machine.Asset.Tag,
            needs ? "needs-work"
                : totals.Max() < 3 ? "healthy"
                : "grey",
            needs,
            Words.Of(ranked[0].Key),
            [.. ranked.Skip(1).Where(r => r.Value >= 0.7 * ranked[0].Value).Select(r => Words.Of(r.Key))],
            totals[limiting],
            totals[worst],
            days <= 365 ? (int)Math.Ceiling(days) : null,
            confounds
        );
    }

    private static double[] MarginsOn(SimulatedMachine machine, Zone zone, double day) =>
        [.. machine.Hottest(day, zone.DesignAmbient.Value).Zip(machine.Asset.Parts, (c, p) => p.Limit.Value - 5 - c)];
}
