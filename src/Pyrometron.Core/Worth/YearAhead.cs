using Pyrometron.Core.Drift;

namespace Pyrometron.Core.Worth;

/// <summary>The air that a machine will breathe over the next year; every later one is reckoned like it.</summary>
internal static class YearAhead
{
    /// <summary>Days a year.</summary>
    public const double Days = 365;

    /// <summary>
    /// That of the same days a year ago, day bin by day bin; where less than a year was measured, of the days there are. Small:
    /// it is kept for every machine.
    /// </summary>
    public static IReadOnlyList<(float DaysAhead, float AirC)> Of(CellTable cells)
    {
        var last = cells[cells.Count - 1].Day;
        return
        [
            .. cells
                .OfReadings.Where(c => c.Day > last - Days && !double.IsNaN(c.AmbientC))
                .GroupBy(c => Cell.BinOf(c.Day))
                .Select(bin => ((float)(bin.Average(c => c.Day) + Days - last), (float)bin.Average(c => c.AmbientC))),
        ];
    }
}
