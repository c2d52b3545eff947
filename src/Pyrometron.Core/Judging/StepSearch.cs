using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>
/// Finds where a machine's history jumps: at lifted coolers, where a sensor did, and where nothing explains it.
/// </summary>
internal static class StepSearch
{
    private const double WorthTellingKelvin = 1;

    /// <summary>
    /// Allowance and decision interval of the CUSUM, standard deviations: wide enough that chance hardly ever signals in a year.
    /// </summary>
    private const double Allowance = 0.5,
        Decision = 12;

    private const int LeastCells = 12;

    /// <param name="unexplained">Parts on which steps that nothing explains are looked for too.</param>
    public static IEnumerable<StepFinding> Of(Asset asset, WearModel model, ZoneRoom room, IReadOnlyList<int> unexplained)
    {
        foreach (var (day, p, kelvin) in model.Steps(WearTerm.Mount).Where(s => s.Kelvin >= WorthTellingKelvin))
            yield return new StepFinding(UnixDay.DateOf(day), asset.Parts[p].Name, kelvin, "mount");
        foreach (var (day, p, kelvin) in model.Steps(WearTerm.SensorOffset))
            yield return new StepFinding(UnixDay.DateOf(day), asset.Parts[p].Name, kelvin, "sensor");
        foreach (var p in unexplained)
            if (Unexplained(model, room, p) is { } step && Math.Abs(step.Kelvin) >= WorthTellingKelvin)
                yield return new StepFinding(UnixDay.DateOf(step.Day), asset.Parts[p].Name, step.Kelvin, "unexplained");
    }

    /// <summary>
    /// Where a part leaves its fitted wear for good, with no service, no sensor and no settings to explain it: a two-sided CUSUM
    /// on what the model leaves.
    /// </summary>
    private static (double Day, double Kelvin)? Unexplained(WearModel model, ZoneRoom room, int p)
    {
        var left = Enumerable
            .Range(0, model.Cells.Count)
            .Where(c => !double.IsNaN(model.Cells[c].Rise(p)) && model.Cells[c].AirHeat(p) > 0.5)
            .Select(c => (model.Cells[c].Day, Kelvin: model.Residual(c, p) - room.At(model.Cells[c].Bin)))
            .ToArray();
        var scale = Robust.MadScale(left.Select(l => l.Kelvin).ToArray());
        if (left.Length < LeastCells || !(scale > 0))
            return null;
        var chart = new Cusum(Allowance, Decision);
        for (var i = 0; i < left.Length; i++)
            if (chart.Add(left[i].Kelvin / scale) != 0)
            {
                var began = Math.Max(0, i + 1 - chart.RunLength);
                return (left[began].Day, Robust.Median(left[began..(i + 1)].Select(l => l.Kelvin).ToArray()));
            }
        return null;
    }
}
