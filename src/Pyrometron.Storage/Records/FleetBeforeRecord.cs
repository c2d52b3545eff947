using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Storage.Records;

/// <summary>Sites, zones and machines that a fleet document changed, as they were before it.</summary>
internal sealed record FleetBeforeRecord(
    IReadOnlyList<FleetBeforeRecord.SiteRecord> Sites,
    IReadOnlyList<FleetBeforeRecord.ZoneRecord> Zones,
    IReadOnlyList<FleetBeforeRecord.AssetRecord> Assets
)
{
    /// <summary>The form written today.</summary>
    public const int Form = 1;

    internal sealed record SiteRecord(string Code, string Name, double AltitudeMetres);

    internal sealed record ZoneRecord(string Code, string Site, string Name, string Dust, double DesignAmbientCelsius);

    internal sealed record PartRecord(string Name, double LimitCelsius, string Joint);

    internal sealed record AssetRecord(
        string Tag,
        string Kind,
        string Model,
        string Zone,
        string? HostTag,
        double DutyHoursPerDay,
        DateOnly InServiceSince,
        DateOnly? WarrantyUntil,
        IReadOnlyList<PartRecord> Parts,
        int? Column = null,
        int? Row = null
    )
    {
        public static AssetRecord Of(Asset a) =>
            new(
                a.Tag,
                Words.Of(a.Kind),
                a.Model,
                a.Zone,
                a.HostTag,
                a.DutyHoursPerDay,
                a.InServiceSince,
                a.WarrantyUntil,
                [.. a.Parts.Select(p => new PartRecord(p.Name, p.Limit.Value, Words.Of(p.Joint)))],
                a.Place?.Column,
                a.Place?.Row
            );

        public Asset ToAsset() =>
            new(
                Tag,
                StoredWords.Read<AssetKind>(Kind),
                Model,
                Zone,
                HostTag,
                DutyHoursPerDay,
                InServiceSince,
                WarrantyUntil,
                [.. Parts.Select(p => new Part(p.Name, new Celsius(p.LimitCelsius), StoredWords.Read<JointMaterial>(p.Joint)))],
                []
            )
            {
                Place = Column is { } column && Row is { } row ? new FloorPlace(column, row) : null,
            };
    }

    /// <summary>What of a register differs from what is in force: only what is there already can be changed.</summary>
    public static FleetBeforeRecord Of(IReadOnlyList<Site> sites, IEnumerable<Asset> changed, Register register)
    {
        var known = sites.ToDictionary(s => s.Code);
        var zones = sites.SelectMany(s => s.Zones.Select(z => (Site: s.Code, Zone: z))).ToDictionary(z => z.Zone.Code);
        return new FleetBeforeRecord(
            [
                .. register
                    .Sites.Select(s => known.GetValueOrDefault(s.Code))
                    .OfType<Site>()
                    .Select(s => new SiteRecord(s.Code, s.Name, s.AltitudeMetres)),
            ],
            [
                .. register
                    .Sites.SelectMany(s => s.Zones)
                    .Where(z => zones.ContainsKey(z.Code))
                    .Select(z => zones[z.Code])
                    .Select(z => new ZoneRecord(
                        z.Zone.Code,
                        z.Site,
                        z.Zone.Name,
                        Words.Of(z.Zone.Dust),
                        z.Zone.DesignAmbient.Value
                    )),
            ],
            [.. changed.Select(AssetRecord.Of)]
        );
    }
}
