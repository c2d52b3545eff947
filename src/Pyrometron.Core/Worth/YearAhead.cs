using Pyrometron.Core.Drift;

namespace Pyrometron.Core.Worth;

/// <summary>The air that a machine will breathe over the next year; every later one is reckoned like it.</summary>
internal static class YearAhead
{
    /// <summary>Days a year.</summary>
    public const double Days = 365;

    /// <summary>That of the same days a year ago; where less than a year was measured, of the days there are.</summary>
    public static IReadOnlyList<(double DaysAhead, double AirC)> Of(CellTable cells)
    {
        var last = cells[cells.Count - 1].Day;
        var year = new List<(double, double)>();
        foreach (var cell in cells.OfReadings)
            if (cell.Day > last - Days && !double.IsNaN(cell.AmbientC))
                year.Add((cell.Day + Days - last, cell.AmbientC));
        return year;
    }
}
