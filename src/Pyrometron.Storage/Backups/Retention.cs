using System.Globalization;

namespace Pyrometron.Storage.Backups;

/// <summary>Which backups are kept: the newest of so many days, weeks and months. The newest of all always is.</summary>
public sealed record Retention(int Days, int Weeks, int Months)
{
    /// <summary>What is kept where nobody chose. Common practice, no source.</summary>
    public static Retention Usual { get; } = new(14, 8, 12);

    /// <summary>Those that are kept of some, by when they were made.</summary>
    public IEnumerable<DateTimeOffset> Kept(IEnumerable<DateTimeOffset> made)
    {
        var newest = made.OrderDescending().ToList();
        IEnumerable<DateTimeOffset> Of(int most, Func<DateTime, string> span) =>
            newest.GroupBy(at => span(at.UtcDateTime)).Take(most).Select(g => g.First());
        return newest
            .Take(1)
            .Concat(Of(Days, at => at.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)))
            .Concat(
                Of(Weeks, at => string.Create(CultureInfo.InvariantCulture, $"{ISOWeek.GetYear(at)}-{ISOWeek.GetWeekOfYear(at)}"))
            )
            .Concat(Of(Months, at => at.ToString("yyyy-MM", CultureInfo.InvariantCulture)))
            .Distinct();
    }
}
