namespace Pyrometron.Core.Weeks;

/// <summary>A machine on its way to its action line.</summary>
/// <param name="Minutes">What the work takes that keeps it from there.</param>
/// <param name="Days">Days until it gets there; 0 or less where it has.</param>
public readonly record struct OnItsWay(int Minutes, double Days);

/// <summary>How many machines pass their action line, with so many hours of work a week.</summary>
public static class HoursNeeded
{
    private const double MinutesOfHour = 60,
        DaysOfWeek = 7,
        RoundingMinutes = 1e-6;

    /// <summary>
    /// The fewest that pass it, whatever the order of work: work goes on evenly through the weeks, one machine after the other,
    /// and a machine that would come too late anyway gives its time to the others. J. M. Moore 1968, An n job, one machine
    /// sequencing algorithm for minimizing the number of late jobs, Management Science 15, 102–109 (Hodgson's form of it).
    /// </summary>
    /// <param name="machines">All that get there in the time that is looked at.</param>
    /// <param name="hoursAWeek">0 or more.</param>
    public static int Passing(IEnumerable<OnItsWay> machines, double hoursAWeek)
    {
        if (hoursAWeek <= 0)
            return machines.Count();
        var done = new PriorityQueue<int, int>();
        var (spent, passed) = (0L, 0);
        foreach (var machine in machines.OrderBy(m => m.Days))
        {
            done.Enqueue(machine.Minutes, -machine.Minutes);
            spent += machine.Minutes;
            // What is ready on the very day is in time.
            if (spent <= machine.Days / DaysOfWeek * hoursAWeek * MinutesOfHour + RoundingMinutes)
                continue;
            // The longest of those so far is left.
            spent -= done.Dequeue();
            passed++;
        }
        return passed;
    }
}
