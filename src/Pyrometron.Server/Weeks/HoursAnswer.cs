using Pyrometron.Core.Judging;
using Pyrometron.Core.Weeks;

namespace Pyrometron.Server.Weeks;

/// <summary>Hours of work a week against machines that pass their action line.</summary>
/// <param name="Until">The day up to which is looked.</param>
/// <param name="Machines">Machines that reach their line until then if nothing is done, or are past it.</param>
/// <param name="Past">Those of them that are past it today: no hours undo that.</param>
/// <param name="HoursAWeek">Hours of all shifts in a usual week, without absences.</param>
/// <param name="Points">The curve, by rising hours.</param>
public sealed record HoursAnswer(DateOnly Until, int Machines, int Past, double HoursAWeek, IReadOnlyList<HoursPoint> Points);

/// <summary>A point of the curve.</summary>
/// <param name="Passing">The fewest machines that pass their line with these hours.</param>
/// <param name="IfEarly">The same where all get there on the early day of their dates (10 %).</param>
/// <param name="IfLate">The same where all get there on the late day of their dates (90 %).</param>
public sealed record HoursPoint(double Hours, int Passing, int IfEarly, int IfLate);

/// <summary>Works the curve out.</summary>
internal static class HoursCurve
{
    /// <summary>Points of the curve beside that of no hours.</summary>
    private const int Steps = 10;

    /// <summary>The curve goes at least so far, hours a week; twice as far while more hours still help.</summary>
    private const double LeastHours = 1;

    public static HoursAnswer Of(IEnumerable<Assessment> queue, DateOnly today, DateOnly until, IReadOnlyList<Person> people)
    {
        var machines = queue.Where(a => a is { Action: not null, Service: not null, Minutes: not null }).ToList();
        List<OnItsWay> By(Func<Core.Forecast.ActionDate, DateOnly?> day) =>
            [
                .. machines
                    .Where(a => day(a.Action!.Value) <= until)
                    .Select(a => new OnItsWay(
                        a.Minutes!.Value * a.Policy.HandsFor(a.Service!.Value),
                        day(a.Action!.Value)!.Value.DayNumber - today.DayNumber
                    )),
            ];
        var (usual, early, late) = (By(a => a.Day), By(a => a.Early), By(a => a.Late));
        var hours = people.Sum(p => p.Hours.Sum(h => h.To - h.From)) / 60.0;
        var end = LeastHours;
        while (end < 10_000 && HoursNeeded.Passing(early, end) > HoursNeeded.Passing(early, double.MaxValue))
            end *= 2;
        return new(
            until,
            usual.Count,
            usual.Count(m => m.Days <= 0),
            Math.Round(hours, 1),
            [
                .. Enumerable
                    .Range(0, Steps + 1)
                    .Select(i => end * i / Steps)
                    .Select(h => new HoursPoint(
                        Math.Round(h, 1),
                        HoursNeeded.Passing(usual, h),
                        HoursNeeded.Passing(early, h),
                        HoursNeeded.Passing(late, h)
                    )),
            ]
        );
    }
}
