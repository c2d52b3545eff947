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
            actor,
            Now,
            t =>
            {
                var site = place(FleetStore.Sites(t));
                FleetStore.Update(t, site);
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
            actor,
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
                FleetStore.RemoveZone(t, code);
                t.Log(
                    new Change("zone", Message.Of("Zone removed: {zone}", Value.Text("zone", zone.Name)))
                    {
                        Before = Told(site, zone),
                    }
                );
            }
        );

    /// <summary>Edits a zone and its site.</summary>
    /// <param name="edit">Gets the site and the zone; throws where the edit cannot be taken.</param>
    /// <exception cref="NotThereException">There is no such zone.</exception>
    public void Edit(Actor actor, string code, Func<Site, Zone, Site> edit) =>
        database.Write(
            actor,
            Now,
            t =>
            {
                var (site, zone) = Find(t, code);
                var edited = edit(site, zone);
                if (edited.Zones.SequenceEqual(site.Zones) && edited with { Zones = site.Zones } == site)
                    return;
                FleetStore.Update(t, edited);
                t.Log(
                    new Change("zone", Message.Of("Zone changed: {zone}", Value.Text("zone", zone.Name)))
                    {
                        Before = Told(site, zone),
                        After = Told(edited, edited.Zones.Single(z => z.Code == code)),
                    }
                );
            }
        );

    private static (Site Site, Zone Zone) Find(Transaction t, string code) =>
        FleetStore.Sites(t).FirstOrDefault(s => s.Zones.Any(z => z.Code == code)) is { } site
            ? (site, site.Zones.Single(z => z.Code == code))
            : throw Missing.Zone(code);

    private static string Told(Site site, Zone zone) =>
        FormattableString.Invariant(
            $"{site.Name}, {site.AltitudeMetres} m; {zone.Code} {zone.Name}, {Words.Of(zone.Dust)} dust, {zone.DesignAmbient}"
        );
}
