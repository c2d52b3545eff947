using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Planning;

/// <summary>Says why a job cannot stand where somebody wants it.</summary>
public static class Conflict
{
    /// <summary>The first rule that forbids it.</summary>
    /// <param name="roster">The plan without the job.</param>
    /// <param name="wanted">A place that <see cref="Roster.TryPut"/> refused.</param>
    public static Message Of(Roster roster, Assignment wanted)
    {
        var problem = roster.Problem;
        var job = problem.Jobs[wanted.Job];
        var person = problem.People[wanted.Person];
        var zone = problem.Zones[job.Zone];
        var span = roster.SpanOf(wanted);
        var who = Value.Text("person", person.Id);
        var where = Value.Text("zone", zone.Code);
        if (!PlanProblem.MaySkill(person, job))
            return Message.Of(
                "{person} lacks a skill that it needs: {skills}.",
                who,
                Value.Text("skills", string.Join(", ", job.Skills.Except(person.Skills).Order(StringComparer.Ordinal)))
            );
        if (!problem.MaySite(person, job))
            return Message.Of("{person} does not work at {site}.", who, Value.Text("site", zone.Site));
        if (!person.Shifts.Any(s => s.Holds(span)))
            return Message.Of("{person} has no shift that holds it.", who);
        if (span.From < job.NotBefore)
            return Message.Of(
                "It may not begin before {day}.",
                Value.Day("day", problem.Start.AddDays(job.NotBefore / PlanProblem.Day))
            );
        if (zone.Windows?.Any(w => w.Holds(span)) == false)
            return Message.Of("{zone} is not open for work then.", where);
        if (job.Windows?.Any(w => w.Holds(span)) == false)
            return "By its rules it may not be down then.";
        if (
            roster
                .Assignments.Where(a =>
                    (a.Person == wanted.Person || a.Helper == wanted.Person) && roster.SpanOf(a).Overlaps(span)
                )
                .ToList()
            is [var other, ..]
        )
            return Message.Of("{person} is busy then: {job}.", who, Value.Text("job", problem.Jobs[other.Job].Id));
        if (zone.MaxDown is { } most && Crowds(roster, job.Zone, span, wanted.Person, most))
            return Message.Of(
                "{most} of {zone}, its limit, are down already then.",
                Value.Counted("most", most, "machine"),
                where
            );
        if (job.TakesTwo && !roster.HasHelper(wanted))
            return wanted.Helper is { } helper
                ? Message.Of("{person} cannot help with it then.", Value.Text("person", problem.People[helper].Id))
                : "It takes two, and nobody else who may do it is free then.";
        return Message.Of(
            "There is no time for the set-up: {needed} in {zone}, or before what follows.",
            Value.Minutes("needed", zone.SetupMinutes),
            where
        );
    }

    private static bool Crowds(Roster roster, int zone, Span span, int person, int most)
    {
        var down = roster
            .Assignments.Where(a => a.Person != person && roster.Problem.Jobs[a.Job].Zone == zone)
            .Select(roster.SpanOf)
            .Where(s => s.Overlaps(span))
            .ToList();
        return down.Any(s =>
            down.Count(o => o.From <= Math.Max(s.From, span.From) && Math.Max(s.From, span.From) < o.To) >= most
        );
    }
}
