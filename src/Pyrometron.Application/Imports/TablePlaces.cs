using Pyrometron.Application.Fleet;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;
using Pyrometron.Formats.Tables;

namespace Pyrometron.Application.Imports;

/// <summary>Finds the site and zone that a line names, by code or name, and makes those that are not there yet.</summary>
internal sealed class TablePlaces(IReadOnlyList<Site> here)
{
    private const string HouseCode = "HOUSE",
        MainCode = "MAIN";

    private readonly Dictionary<string, Site> _sites = here.ToDictionary(s => s.Code);
    private readonly HashSet<string> _used = [];
    private readonly Dictionary<(string?, string?, string?), (string Site, string Zone)> _found = [];
    private readonly Dictionary<(string, string), int> _defaults = [];

    /// <summary>Sites that any line stands in, with all their zones.</summary>
    public IReadOnlyList<Site> Used => [.. _sites.Values.Where(s => _used.Contains(s.Code))];

    /// <summary>What was put in for sites and zones.</summary>
    public IEnumerable<TableDefault> Defaults => _defaults.Select(d => new TableDefault(d.Key.Item1, d.Key.Item2, d.Value));

    /// <summary>The code of a line's zone.</summary>
    /// <param name="known">Where the machine stands now; null for a new one.</param>
    public string ZoneOf(TableMachine m, string? known)
    {
        var named = (m.Site, m.Zone, m is { Site: null, Zone: null } ? known : null);
        if (_found.TryGetValue(named, out var place))
            return Keep(_sites[place.Site], place.Zone, m);
        var zone = FindOrMake(m, known);
        _found[named] = (_sites.Values.First(s => s.Zones.Any(z => z.Code == zone)).Code, zone);
        return zone;
    }

    private string FindOrMake(TableMachine m, string? known)
    {
        if (m is { Site: null, Zone: null } && known is not null)
            return Keep(_sites.Values.First(s => s.Zones.Any(z => z.Code == known)), known, m);
        // A zone that is there once needs no site.
        if (m is { Site: null, Zone: { } named } && Zones(named) is [var (only, zone)])
            return Keep(only, zone.Code, m);
        var site = SiteOf(m);
        var name = m.Zone ?? Default("zone", "Main room");
        var found = site.Zones.FirstOrDefault(z => Is(z.Code, z.Name, name));
        if (found is not null)
            return Keep(site, found.Code, m);
        var code = PlaceCodes.Of(m.Zone is null ? MainCode : name, c => $"{site.Code}-{c}", IsZone);
        if (m.Dust is null)
            Default("dust", Words.Of(DustClass.Normal));
        if (m.DesignAmbientCelsius is null)
            Default("designAmbientCelsius", FormattableString.Invariant($"{UsualMachines.DesignAmbient.Value:0}"));
        _sites[site.Code] = site with
        {
            Zones = [.. site.Zones, new Zone(code, name, DustClass.Normal, UsualMachines.DesignAmbient)],
        };
        return Keep(_sites[site.Code], code, m);
    }

    /// <summary>Takes what a line says of its zone and site, and that they are used.</summary>
    private string Keep(Site site, string zone, TableMachine m)
    {
        _used.Add(site.Code);
        var now = site.Zones.First(z => z.Code == zone);
        if (
            (m.Dust ?? now.Dust) == now.Dust
            && (m.DesignAmbientCelsius ?? now.DesignAmbient.Value) == now.DesignAmbient.Value
            && (m.AltitudeMetres ?? site.AltitudeMetres) == site.AltitudeMetres
        )
            return zone;
        _sites[site.Code] = site with
        {
            AltitudeMetres = m.AltitudeMetres ?? site.AltitudeMetres,
            Zones =
            [
                .. site.Zones.Select(z =>
                    z.Code == zone
                        ? z with
                        {
                            Dust = m.Dust ?? z.Dust,
                            DesignAmbient = m.DesignAmbientCelsius is { } c ? new Celsius(c) : z.DesignAmbient,
                        }
                        : z
                ),
            ],
        };
        return zone;
    }

    private Site SiteOf(TableMachine m)
    {
        if (m.Site is null && _sites.Count == 1)
            return _sites.Values.First();
        var name = m.Site ?? Default("site", "House");
        if (_sites.Values.FirstOrDefault(s => Is(s.Code, s.Name, name)) is { } known)
            return known;
        var code = PlaceCodes.Of(m.Site is null ? HouseCode : name, c => c, _sites.ContainsKey);
        if (m.AltitudeMetres is null)
            Default("altitudeMetres", "0");
        return _sites[code] = new Site(code, name, m.AltitudeMetres ?? 0, []);
    }

    private (Site Site, Zone Zone)[] Zones(string named) =>
        [.. _sites.Values.SelectMany(s => s.Zones, (s, z) => (s, z)).Where(p => Is(p.z.Code, p.z.Name, named))];

    private bool IsZone(string code) => _sites.Values.Any(s => s.Zones.Any(z => z.Code == code));

    private static bool Is(string code, string name, string said) =>
        code.Equals(said, StringComparison.OrdinalIgnoreCase) || name.Equals(said, StringComparison.OrdinalIgnoreCase);

    private string Default(string field, string value)
    {
        _defaults[(field, value)] = _defaults.GetValueOrDefault((field, value)) + 1;
        return value;
    }
}
