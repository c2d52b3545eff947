using Pyrometron.Core.Planning;
using Pyrometron.Core.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Application.Weeks;

/// <summary>A stored plan as it stands in the house as it is now.</summary>
public static class StandingPlan
{
    /// <summary>The work of a plan as a problem in which all may stay where it stands.</summary>
    public static WeekProblem Of(House house, StoredPlan plan) =>
        new(
            house,
            plan.Start,
            plan.Days,
            [
                .. plan
                    .Placed.Select(p => p.Work)
                    .Concat(plan.LeftOut.Select(l => l.Work))
                    .Where(w => house.Sites.SelectMany(s => s.Zones).Any(z => z.Code == w.Zone)),
            ],
            plan.Placed,
            null
        );

    /// <summary>Work where it stands, as far as who does it is still in the house.</summary>
    public static IEnumerable<Assignment> Assignments(WeekProblem week, IReadOnlyList<Placed> placed)
    {
        var index = week.Wanted.Select((w, i) => (w.Id, i)).ToDictionary(w => w.Id, w => w.i);
        foreach (var p in placed)
            if (index.TryGetValue(p.Work.Id, out var job) && week.PersonOf(p.Person) is >= 0 and var person)
                yield return new Assignment(job, person, week.MinuteOf(p.Start), HelperOf(week, p));
    }

    /// <summary>Index of who helps; null where nobody is said to, or they are not in the house any more.</summary>
    internal static int? HelperOf(WeekProblem week, Placed placed) =>
        placed.Helper is { } code && week.PersonOf(code) is >= 0 and var helper ? helper : null;

    /// <summary>What work is called in a sentence.</summary>
    public static string NameOf(Wanted work) => work.Title.Length > 0 ? work.Title : work.Id;
}
