using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Planning;

/// <summary>Says of each job that is not in a plan why: the first condition that alone keeps it out.</summary>
public static class LeftOutReasons
{
    /// <summary>Of all jobs that have no place.</summary>
    public static IReadOnlyList<LeftOut> Of(Roster roster) =>
        [.. Enumerable.Range(0, roster.Problem.Jobs.Count).Where(j => !roster.Has(j)).Select(j => Of(roster, j))];

    private static LeftOut Of(Roster roster, int index)
    {
        var problem = roster.Problem;
        var job = problem.Jobs[index];
        var zone = problem.Zones[job.Zone];
        LeftOut Because(LeftOutCode code, Message reason) => new(index, code, reason);

        var skilled = problem.People.Where(p => PlanProblem.MaySkill(p, job)).ToList();
        var skills = Value.Text("skills", string.Join(", ", job.Skills.Order(StringComparer.Ordinal)));
        if (skilled.Count == 0)
            return Because(
                LeftOutCode.NoSkill,
                problem.People.Count == 0 || job.Skills.Count == 0
                    ? "There is nobody to do it."
                    : Message.Of("Nobody has all the skills that it needs: {skills}.", skills)
            );
        var people = skilled.Where(p => problem.MaySite(p, job)).ToList();
        var site = Value.Text("site", zone.Site);
        if (people.Count == 0)
            return Because(
                LeftOutCode.NoSite,
                job.Skills.Count == 0
                    ? Message.Of("Nobody works at {site}.", site)
                    : Message.Of("Nobody who works at {site} has the skills that it needs: {skills}.", site, skills)
            );
        if (job.TakesTwo && !people.Any(p => problem.People.Any(other => other != p && problem.MayHelp(other, job))))
            return Because(
                LeftOutCode.NoSkill,
                job.HelperSkills!.Count == 0
                    ? Message.Of("It takes two, and nobody else works at {site}.", site)
                    : Message.Of(
                        "It takes two, and nobody else who works at {site} may help: {skills}.",
                        site,
                        Value.Text("skills", string.Join(", ", job.HelperSkills.Order(StringComparer.Ordinal)))
                    )
            );
        var shifts = people.SelectMany(p => p.Shifts).ToList();
        var needed = job.Minutes + zone.SetupMinutes;
        if (!shifts.Any(s => s.Minutes >= needed))
            return Because(
                LeftOutCode.TooLong,
                Message.Of(
                    "With its set-up it takes {needed}; the longest shift of those who may do it has {longest}.",
                    Value.Minutes("needed", needed),
                    Value.Minutes("longest", shifts.Select(s => s.Minutes).DefaultIfEmpty(0).Max())
                )
            );
        var atOnce = job with { NotBefore = 0 };
        if (!shifts.Any(s => problem.Starts(atOnce, s).Any()))
            return Because(
                LeftOutCode.NoWindow,
                Message.Of(
                    job.Windows is null
                        ? "No window of {zone} holds its {needed} within a shift of somebody who may do it."
                        : "No time at which its rules and {zone} let it be down holds its {needed} within a shift of somebody who may do it.",
                    Value.Text("zone", zone.Code),
                    Value.Minutes("needed", job.Minutes)
                )
            );
        if (job.NotBefore >= problem.Horizon.To)
            return Because(
                LeftOutCode.NotBefore,
                Message.Of(
                    "It may not begin before {day}, and the plan ends before that.",
                    Value.Day("day", problem.Start.AddDays(job.NotBefore / PlanProblem.Day))
                )
            );
        if (!shifts.Any(s => problem.Starts(job, s).Any()))
            return Because(
                LeftOutCode.NotBefore,
                Message.Of(
                    "It may not begin before {day}, and then nobody who may do it has room.",
                    Value.Day("day", problem.Start.AddDays(job.NotBefore / PlanProblem.Day))
                )
            );
        if (job.TakesTwo && !CanStand(new Roster(problem), index, crowding: false))
            return Because(
                LeftOutCode.NoWindow,
                Message.Of(
                    "It takes two: no window of {zone} holds its {needed} while two who may do it are at work together.",
                    Value.Text("zone", zone.Code),
                    Value.Minutes("needed", job.Minutes)
                )
            );
        if (!CanStand(roster, index, crowding: false))
            return Because(
                LeftOutCode.NoRoom,
                job.TakesTwo
                    ? "It takes two, and no two who may do it are free together whenever it could be done."
                    : "All who may do it are busy whenever it could be done."
            );
        if (!CanStand(roster, index, crowding: true))
            return Because(
                LeftOutCode.MaxDown,
                Message.Of(
                    "Whenever somebody who may do it is free, {most} of {zone}, its limit, are down already.",
                    Value.Counted("most", zone.MaxDown ?? 0, "machine"),
                    Value.Text("zone", zone.Code)
                )
            );
        return Because(LeftOutCode.TooDear, "It could be placed, but its set-up costs more than leaving it out.");
    }

    private static bool CanStand(Roster roster, int index, bool crowding)
    {
        var places = new List<Place>();
        foreach (var opening in roster.Openings.Of(index))
        {
            roster.Places(index, opening, places, crowding);
            if (places.Count > 0)
                return true;
        }
        return false;
    }
}
