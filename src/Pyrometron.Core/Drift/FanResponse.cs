using Pyrometron.Core.Cooling;

namespace Pyrometron.Core.Drift;

/// <summary>
/// How an automatic fan answers to its machine's temperature. Where it does, chance that makes a reading warm makes the fan
/// fast too, and the plain fit of rise against flow takes the fan for useless (simultaneity: Haavelmo 1943). The likelihood of
/// rise and flow together has one factor more, the Jacobian 1 + κ·q·(F + S) of each reading: it sets that right, and vanishes
/// for a fan that does not listen.
/// </summary>
internal static class FanResponse
{
    private const int LeastPairs = 8;

    /// <summary>Cells this close to full speed are on the stop: no answer there.</summary>
    private const double NearFull = 0.01;

    /// <summary>
    /// κ·q by cell: how much the relative convective resistance falls for a kelvin of the hottest part, times the heat. Zeros
    /// where the fan does not listen.
    /// </summary>
    public static double[] Of(CellTable cells, ReferencePoint reference)
    {
        var answers = new double[cells.Count];
        if (!(reference.FanSpeed > 0) || reference.FanFixed || cells.Parts == 0)
            return answers;
        var hottest = Enumerable
            .Range(0, cells.Parts)
            .MaxBy(p => cells.OfReadings.Select(c => c.Rise(p)).Where(r => !double.IsNaN(r)).DefaultIfEmpty(0).Average());
        var kappa = Slope(cells, hottest);
        if (!(kappa > 0))
            return answers;
        var full = FanLaw.RelativeResistance(reference.FullSpeed, reference.FanSpeed) - 1;
        for (var c = 0; c < answers.Length; c++)
            if (!cells[c].IsRun && cells[c].Flow > full + NearFull)
                answers[c] = kappa * cells[c].AirHeat(hottest);
        return answers;
    }

    /// <summary>
    /// Least squares of the change in flow on the changes in rise and in air from one cell to the next under the same labels: the
    /// air moves many fans, only the rise tells one that listens. 1/K, positive where a warmer part means a faster fan.
    /// </summary>
    private static double Slope(CellTable cells, int part)
    {
        double rr = 0,
            ra = 0,
            aa = 0,
            rf = 0,
            af = 0;
        var pairs = 0;
        var last = new Dictionary<(int, int), Cell>();
        foreach (var cell in cells.OfReadings)
        {
            if (double.IsNaN(cell.Rise(part)) || cell.Flow == 0)
                continue;
            if (last.TryGetValue((cell.Workload, cell.Settings), out var before))
            {
                var (rise, air, flow) = (
                    cell.Rise(part) - before.Rise(part),
                    cell.AmbientC - before.AmbientC,
                    cell.Flow - before.Flow
                );
                (rr, ra, aa, rf, af, pairs) = (
                    rr + rise * rise,
                    ra + rise * air,
                    aa + air * air,
                    rf + rise * flow,
                    af + air * flow,
                    pairs + 1
                );
            }
            last[(cell.Workload, cell.Settings)] = cell;
        }
        // Whole degrees blur a difference by a sixth of a square kelvin; air that never moves is left out.
        aa += pairs / 6.0;
        var determinant = rr * aa - ra * ra;
        return pairs >= LeastPairs && determinant > 0 ? -(rf * aa - af * ra) / determinant : 0;
    }
}
