using Pyrometron.Application.Bench;
using Pyrometron.Application.Fleet;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Planning;
using Pyrometron.Core.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Application.Weeks;

/// <summary>Who works when, where work may be done when, and which machines wait.</summary>
public sealed class StaffUseCases(Database database, TimeProvider clock)
{
    /// <summary>More people than this are no team that one plan is made for.</summary>
    public const int MostPeople = 200;

    /// <summary>Adds somebody, or changes what is known of them.</summary>
    /// <exception cref="NotPossibleException">There are too many, or a site of theirs is none.</exception>
    public void Keep(Actor actor, Person person) =>
        Write(
            actor.Allowed(Right.KeepPeople),
            t =>
            {
                var people = PeopleStore.All(t);
                var known = people.FirstOrDefault(p => p.Code == person.Code);
                if (known is null && people.Count >= MostPeople)
                    throw new NotPossibleException(
                        Message.Of("{people} are the most that a house may have.", Value.Counted("people", MostPeople, "person"))
                    );
                if (person.Sites.FirstOrDefault(s => SiteStore.All(t).All(site => site.Code != s)) is { } none)
                    throw new NotPossibleException(Message.Of("There is no site '{site}'.", Value.Text("site", none)));
                PeopleStore.Keep(t, person);
                var name = Value.Text("person", person.Name);
                t.Log(
                    new Change(
                        "people",
                        known is null ? Message.Of("Added: {person}", name) : Message.Of("Changed: {person}", name)
                    )
                    {
                        Before = known is null ? null : Told(known),
                        After = Told(person),
                    }
                );
            }
        );

    /// <summary>Takes somebody off the list.</summary>
    /// <exception cref="NotThereException">They are not on it.</exception>
    public void Remove(Actor actor, string code) =>
        Write(
            actor.Allowed(Right.KeepPeople),
            t =>
            {
                var person = Find(t, code);
                PeopleStore.Remove(t, code);
                t.Log(
                    new Change("people", Message.Of("Removed: {person}", Value.Text("person", person.Name)))
                    {
                        Before = Told(person),
                    }
                );
            }
        );

    /// <summary>Keeps an absence.</summary>
    /// <exception cref="NotThereException">Nobody has that code.</exception>
    public long Keep(Actor actor, Absence absence) =>
        Write(
            actor.Allowed(Right.Plan),
            t =>
            {
                var person = Find(t, absence.Person);
                var id = PeopleStore.Keep(t, absence);
                t.Log(
                    new Change(
                        "people",
                        Message.Of(
                            "{person} is away from {from} to {to}",
                            Value.Text("person", person.Name),
                            Value.Day("from", absence.From),
                            Value.Day("to", absence.To)
                        )
                    )
                    {
                        After = absence.Reason,
                    }
                );
                return id;
            }
        );

    /// <summary>Takes an absence back.</summary>
    /// <exception cref="NotThereException">There is no such absence.</exception>
    public void RemoveAbsence(Actor actor, long id) =>
        Write(
            actor.Allowed(Right.Plan),
            t =>
            {
                var absence =
                    PeopleStore.Absences(t).FirstOrDefault(a => a.Id == id).Absence
                    ?? throw new NotThereException(Message.Of("There is no absence {id}.", Value.Count("id", id)));
                PeopleStore.RemoveAbsence(t, id);
                t.Log(
                    new Change(
                        "people",
                        Message.Of(
                            "{person} is not away from {from} to {to} after all",
                            Value.Text("person", Find(t, absence.Person).Name),
                            Value.Day("from", absence.From),
                            Value.Day("to", absence.To)
                        )
                    )
                );
            }
        );

    /// <summary>Keeps when machines of a zone may be worked on.</summary>
    /// <exception cref="NotThereException">There is no such zone.</exception>
    public void Keep(Actor actor, ZoneTimes times) =>
        Write(
            actor.Allowed(Right.Plan),
            t =>
            {
                var zone =
                    SiteStore.All(t).SelectMany(s => s.Zones).FirstOrDefault(z => z.Code == times.Zone)
                    ?? throw Missing.Zone(times.Zone);
                t.Reach(times.Zone);
                var before = ZoneTimesStore.All(t).FirstOrDefault(z => z.Zone == times.Zone) ?? ZoneTimes.Usual(times.Zone);
                ZoneTimesStore.Keep(t, times);
                t.Log(
                    new Change("zone-times", Message.Of("Times of work changed: {zone}", Value.Text("zone", zone.Name)))
                    {
                        Before = Change.Told(before),
                        After = Change.Told(times),
                    }
                );
            }
        );

    /// <summary>Keeps the way between zones.</summary>
    public void Keep(Actor actor, Walking walking) =>
        Write(
            actor.AllowedEverywhere(Right.Plan),
            t =>
            {
                var before = ZoneTimesStore.Walking(t);
                ZoneTimesStore.Keep(t, walking);
                t.Log(
                    new Change(
                        "zone-times",
                        Message.Of(
                            "Ways changed: {within} between zones of a site, {between} between sites",
                            Value.Minutes("within", walking.WithinSite),
                            Value.Minutes("between", walking.BetweenSites)
                        )
                    )
                    {
                        Before = Change.Told(before),
                        After = Change.Told(walking),
                    }
                );
            }
        );

    /// <summary>Lets a machine wait until a day; null lets it wait no longer.</summary>
    /// <exception cref="NotThereException">There is no such machine.</exception>
    public void Hold(Actor actor, string tag, DateOnly? until, string reason) =>
        Write(
            actor.Allowed(Right.Plan),
            t =>
            {
                var asset = FleetUseCases.Find(t, tag);
                if (until is { } day)
                    ZoneTimesStore.Hold(t, asset.Id, day, reason);
                else
                    ZoneTimesStore.Release(t, asset.Id);
                t.Log(
                    new Change(
                        "plan",
                        until is { } then
                            ? Message.Of("{tag} waits until {day}", Value.Text("tag", tag), Value.Day("day", then))
                            : Message.Of("{tag} waits no longer", Value.Text("tag", tag))
                    )
                    {
                        Asset = asset.Id,
                        After = until is null ? null : reason,
                    }
                );
            }
        );

    private static Person Find(Transaction t, string code) =>
        PeopleStore.All(t).FirstOrDefault(p => p.Code == code)
        ?? throw new NotThereException(Message.Of("Nobody has the code '{code}'.", Value.Text("code", code)));

    private static string Told(Person person) =>
        $"{person.Name}; {string.Join(", ", person.Skills.Select(Words.Of))}; {person.Hours.Sum(h => h.To - h.From) / 60.0:0.#} h a week";

    private void Write(Actor actor, Action<Transaction> work) => database.Write(actor, clock.GetUtcNow(), work);

    private T Write<T>(Actor actor, Func<Transaction, T> work) => database.Write(actor, clock.GetUtcNow(), work);
}
