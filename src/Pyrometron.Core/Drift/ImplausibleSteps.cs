using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// Finds readings that change by more from one week to the next than dust, paste, pads or a bad mount do, with no service and no
/// change of settings to explain it: a sensor, until somebody shows otherwise. Unlike <see cref="SensorSteps"/> it asks no other
/// part, so a machine with one sensor, and one whose sensors all went wrong together, are held against it too.
/// </summary>
internal static class ImplausibleSteps
{
    /// <summary>More than wear does in a week, K. Common practice, no source.</summary>
    private const double LeastKelvin = 20;

    /// <summary>Two cells whose middles lie this near are a week apart or less, give or take their width, days.</summary>
    private const double WeekDays = 10;

    /// <summary>Cells to either side whose median is taken; this many at least stand before.</summary>
    private const int Window = 3,
        LeastBefore = 2;

    /// <summary>The share of a step that came within a week.</summary>
    private const double MostOfIt = 0.8;

    /// <summary>The steps of each part, in time order. O(parts × cells).</summary>
    public static IEnumerable<SensorStep> Find(Asset asset, ReferencePoint reference, CellTable cells)
    {
        var main = cells.OfReadings.Where(c => c.Workload == reference.Workload && c.Heat > 0.6).OrderBy(c => c.Day).ToArray();
        return Enumerable
            .Range(0, asset.Parts.Count)
            .SelectMany(part => Of(asset, [.. main.Where(c => !double.IsNaN(c.Rise(part)))], part));
    }

    private static IEnumerable<SensorStep> Of(Asset asset, Cell[] cells, int part)
    {
        for (var at = LeastBefore; at < cells.Length; at++)
        {
            var kelvin = Step(cells, part, at);
            if (Math.Abs(kelvin) < LeastKelvin || !IsAbrupt(cells, part, at, kelvin))
                continue;
            at = WhereMostOfIt(cells, part, at);
            kelvin = Step(cells, part, at);
            if (!Served(asset, cells[at - 2].Day, cells[at].Day) && !Cured(asset, cells, part, at, kelvin))
                yield return new SensorStep(part, (cells[at - 1].Day + cells[at].Day) / 2, kelvin);
            at += Window - 1;
        }
    }

    /// <summary>
    /// Whether most of a step came within a week under one setting: from one cell to the next, or to the one after that, since a
    /// cell may hold some of both.
    /// </summary>
    private static bool IsAbrupt(Cell[] cells, int part, int at, double kelvin)
    {
        for (var to = at; to < Math.Min(cells.Length, at + 2); to++)
            if (
                cells[to].Day - cells[at - 1].Day <= WeekDays
                && cells[at - 1].Settings == cells[to].Settings
                && (cells[to].Rise(part) / cells[to].AirHeat(part) - cells[at - 1].Rise(part) / cells[at - 1].AirHeat(part))
                    / kelvin
                    > MostOfIt
            )
                return true;
        return false;
    }

    /// <summary>
    /// The cell before which most of a step lies: medians see it one cell early where the step came late in a cell that is
    /// otherwise as before.
    /// </summary>
    private static int WhereMostOfIt(Cell[] cells, int part, int at)
    {
        double Change(int c) =>
            Math.Abs(cells[c].Rise(part) / cells[c].AirHeat(part) - cells[c - 1].Rise(part) / cells[c - 1].AirHeat(part));
        return at + 1 < cells.Length && Change(at + 1) > Change(at) ? at + 1 : at;
    }

    /// <summary>
    /// By how much a part's rise changes before a cell, K: at equal heat, and at equal air if the fan was told to turn otherwise,
    /// whichever is less.
    /// </summary>
    private static double Step(Cell[] cells, int part, int at)
    {
        double Change(Func<Cell, double> rise) =>
            Median(cells, at, Math.Min(cells.Length, at + Window), rise) - Median(cells, Math.Max(0, at - Window), at, rise);
        var (atHeat, atFlow) = (
            Change(c => c.Rise(part) / c.AirHeat(part)),
            Change(c => c.Rise(part) / c.AirHeat(part) / (1 + c.Flow))
        );
        return Math.Abs(atHeat) < Math.Abs(atFlow) ? atHeat : atFlow;
    }

    private static bool Served(Asset asset, double from, double to) => asset.Services.Any(s => s.Day > from && s.Day < to);

    /// <summary>Whether a later service took most of it away again: then it was the machine.</summary>
    private static bool Cured(Asset asset, Cell[] cells, int part, int at, double kelvin) =>
        asset.Services.Any(s =>
            s.Day > cells[at].Day
            && Array.FindIndex(cells, c => c.Day > s.Day) is > 0 and var since
            && Step(cells, part, since) * Math.Sign(kelvin) < -Math.Abs(kelvin) / 2
        );

    private static double Median(Cell[] cells, int from, int to, Func<Cell, double> value) =>
        Robust.Median(cells[from..to].Select(value).ToArray());
}
