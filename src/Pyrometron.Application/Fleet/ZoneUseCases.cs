using Pyrometron.Application.Bench;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Fleet;

/// <summary>Zones and their sites: added, edited, removed.</summary>
public sealed class ZoneUseCases(Database database, TimeProvider clock)
{
    private DateTimeOffset Now => clock.GetUtcNow();

    /// <summary>Adds a zone, and its site where that is new.</summary>
    /// <param name="place">Gets the sites there are; answers the site with the new zone as its last.</param>
    public Zone Add(Actor actor, Func<IReadOnlyList<Site>, Site> place) =>
        database.Write(
            actor.AllowedEverywhere(Right.KeepMachines),
            Now,
            t =>
            {
                var site = place(SiteStore.All(t));
                SiteStore.Update(t, site);
                t.Log(
                    new Change("zone", Message.Of("Zone added: {zone}", Value.Text("zone", site.Zones[^1].Name)))
                    {
                        After = Told(site, site.Zones[^1]),
                    }
                );
                return site.Zones[^1];
            }
        );

    /// <summary>Removes a zone without machines, and its site with its last zone.</summary>
    /// <exception cref="NotThereException">There is no such zone.</exception>
    /// <exception cref="NotPossibleException">A machine belongs to it.</exception>
    public void Remove(Actor actor, string code) =>
        database.Write(
            actor.Allowed(Right.KeepMachines),
            Now,
            t =>
            {
                var (site, zone) = Find(t, code);
                var machines = FleetStore.All(t).Count(m => m.Asset.Zone == code);
                if (machines > 0)
                    throw new NotPossibleException(
                        Message.Of(
                            "{machines} of '{zone}' would lose their place, retired ones among them: move them first.",
                            Value.Counted("machines", machines, "machine"),
                            Value.Text("zone", zone.Name)
                        )
                    );
                SiteStore.RemoveZone(t, code);
                t.Log(
                    new Change("zone", Message.Of("Zone removed: {zone}", Value.Text("zone", zone.Name)))
                    {
                        Before = Told(site, zone),
                    }
                );
            }
        );

    /// <summary>Draws a zone's floor: puts machines of it into their cells, or takes them off the plan.</summary>
    /// <param name="places">By tag; null takes a machine off.</param>
    /// <exception cref="NotThereException">There is no such zone, or no such machine in it.</exception>
    public void Place(Actor actor, string code, IReadOnlyDictionary<string, FloorPlace?> places) =>
        database.Write(
            actor.Allowed(Right.KeepMachines),
            Now,
            t =>
            {
                var (_, zone) = Find(t, code);
                var moved = new List<long>();
                foreach (var (tag, place) in places)
                {
                    var known = FleetUseCases.Find(t, tag);
                    if (known.Asset.Zone != code)
                        throw Missing.Machine(tag);
                    FleetStore.Update(t, known, known.Asset with { Place = place });
                    moved.Add(known.Id);
                }
                t.Log(
                    new Change(
                        "floor",
                        Message.Of(
                            "Floor of {zone} drawn: {machines}",
                            Value.Text("zone", zone.Name),
                            Value.Counted("machines", places.Count, "machine")
                        )
                    )
                    {
                        Touches = moved,
                    }
                );
            }
        );

    /// <summary>Edits a zone and its site.</summary>
    /// <param name="edit">Gets the site and the zone; throws where the edit cannot be taken.</param>
    /// <exception cref="NotThereException">There is no such zone.</exception>
    public void Edit(Actor actor, string code, Func<Site, Zone, Site> edit) =>
        database.Write(
            actor.Allowed(Right.KeepMachines),
            Now,
            t =>
            {
                var (site, zone) = Find(t, code);
                var edited = edit(site, zone);
                if (edited.Zones.SequenceEqual(site.Zones) && edited with { Zones = site.Zones } == site)
                    return;
                SiteStore.Update(t, edited);
                t.Log(
                    new Change("zone", Message.Of("Zone changed: {zone}", Value.Text("zone", zone.Name)))
                    {
                        Before = Told(site, zone),
                        After = Told(edited, edited.Zones.Single(z => z.Code == code)),
                    }
                );
            }
        );

    private static (Site Site, Zone Zone) Find(Transaction t, string code)
    {
        var site = SiteStore.All(t).FirstOrDefault(s => s.Zones.Any(z => z.Code == code)) ?? throw Missing.Zone(code);
        t.Reach(code);
        return (site, site.Zones.Single(z => z.Code == code));
    }

    private static string Told(Site site, Zone zone) =>
        FormattableString.Invariant(
            $"{site.Name}, {site.AltitudeMetres} m; {zone.Code} {zone.Name}, {Words.Of(zone.Dust)} dust, {zone.DesignAmbient}"
        );
}
