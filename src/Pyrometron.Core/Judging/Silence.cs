using Pyrometron.Core.Messages;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Judging;

/// <summary>How a machine's readings come.</summary>
/// <param name="LastDay">The newest, days since 1970.</param>
/// <param name="SpacingDays">Median of the days between two days with readings.</param>
internal sealed record ReadingRhythm(double LastDay, double SpacingDays)
{
    /// <summary>Days with readings that the spacing is taken from, the newest ones, and how many there must be.</summary>
    private const int MostDays = 13,
        LeastDays = 3;

    /// <summary>Takes it from a machine's readings; null with fewer than three days of them.</summary>
    public static ReadingRhythm? Of(ReadingSeries series)
    {
        var days = new List<double>(MostDays);
        for (var i = series.Count - 1; i >= 0 && days.Count < MostDays; i--)
            if (days.Count == 0 || Math.Floor(series.Day[i]) < days[^1])
                days.Add(Math.Floor(series.Day[i]));
        return days.Count < LeastDays
            ? null
            : new ReadingRhythm(series.Day[^1], Robust.Median([.. days.Zip(days.Skip(1), (later, earlier) => later - earlier)]));
    }
}

/// <summary>Readings that used to come and have stopped.</summary>
/// <param name="Since">Day of the last one.</param>
/// <param name="Days">From then to the day judged.</param>
/// <param name="Reporting">Machines of its zone that have sent readings since it went silent.</param>
public sealed record Silence(DateOnly Since, int Days, int Reporting)
{
    /// <summary>What is told of it.</summary>
    public Message Says =>
        Reporting > 0
            ? Message.Of(
                "No readings since {day}, {days} ago, while {reporting} beside it go on reporting: see to its sensor program or its connection.",
                Value.Day("day", Since),
                Value.Counted("days", Days, "day"),
                Value.Counted("reporting", Reporting, "machine")
            )
            : Message.Of(
                "No readings since {day}, {days} ago: it is judged as it was then.",
                Value.Day("day", Since),
                Value.Counted("days", Days, "day")
            );
}

/// <summary>Finds the machines whose readings have stopped.</summary>
internal sealed class ReportingMachines
{
    /// <summary>Usual spacings that may pass without a reading before it counts as stopped.</summary>
    private const double Spacings = 3;

    /// <summary>Days that may pass in any case: with neighbours that go on, and without.</summary>
    private const double LeastBesideOthers = 3,
        LeastAlone = 14;

    private readonly Dictionary<string, double[]> _lastDays;
    private readonly DateOnly _asOf;

    private ReportingMachines(Dictionary<string, double[]> lastDays, DateOnly asOf) => (_lastDays, _asOf) = (lastDays, asOf);

    /// <summary>Learns when each zone's machines reported last.</summary>
    public static ReportingMachines Of(IEnumerable<Assessment> fleet, DateOnly asOf) =>
        new(
            fleet
                .Where(a => a.Rhythm is not null)
                .GroupBy(a => a.Asset.Zone)
                .ToDictionary(g => g.Key, g => g.Select(a => a.Rhythm!.LastDay).ToArray()),
            asOf
        );

    /// <summary>The assessment, told whether the machine's readings have stopped.</summary>
    public Assessment Attach(Assessment a)
    {
        if (a.Rhythm is not { } rhythm)
            return a;
        var since = UnixDay.DateOf(rhythm.LastDay);
        var days = _asOf.DayNumber - since.DayNumber;
        var patience = Spacings * rhythm.SpacingDays;
        if (days <= Math.Max(LeastBesideOthers, patience))
            return a;
        var reporting = _lastDays.GetValueOrDefault(a.Asset.Zone, []).Count(d => d > rhythm.LastDay + patience);
        return reporting > 0 || days > Math.Max(LeastAlone, patience)
            ? a with
            {
                Silence = new Silence(since, days, reporting),
            }
            : a;
    }
}
