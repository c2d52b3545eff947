using Pyrometron.Core.Units;

namespace Pyrometron.Core.Fleet;

/// <summary>A room, aisle or floor whose machines share their air.</summary>
/// <param name="Code">Unique in the whole fleet.</param>
/// <param name="DesignAmbient">The warmest intake air the zone is planned for.</param>
public sealed record Zone(string Code, string Name, DustClass Dust, Celsius DesignAmbient);

/// <summary>A place with one altitude and one or more zones.</summary>
/// <param name="AltitudeMetres">Metres above sea level.</param>
public sealed record Site(string Code, string Name, double AltitudeMetres, IReadOnlyList<Zone> Zones)
{
    /// <summary>Its time zone, such as Europe/Lisbon (IANA); null for that of the machine the server runs on.</summary>
    public string? TimeZone { get; init; }
}

/// <summary>A chip, or a group of chips, whose temperature is measured.</summary>
/// <param name="Name">As in the readings: the column is <c>name_c</c>.</param>
/// <param name="Limit">The temperature at which it throttles or must not go beyond.</param>
public sealed record Part(string Name, Celsius Limit, JointMaterial Joint)
{
    /// <summary>What a worn joint of this part is called: its paste, or its pads.</summary>
    public Cause JointCause => Joint.WornCause();
}

/// <summary>One machine: a desktop, laptop, server or graphics card.</summary>
/// <param name="Tag">The label on the machine; unique.</param>
/// <param name="Zone">Code of the zone where it stands.</param>
/// <param name="HostTag">The machine it is built into, if any.</param>
/// <param name="DutyHoursPerDay">Hours a day under load, 0 to 24.</param>
/// <param name="Parts">In the order of the document; at most <see cref="MaxParts"/>.</param>
/// <param name="Services">Oldest first.</param>
public sealed record Asset(
    string Tag,
    AssetKind Kind,
    string Model,
    string Zone,
    string? HostTag,
    double DutyHoursPerDay,
    DateOnly InServiceSince,
    DateOnly? WarrantyUntil,
    IReadOnlyList<Part> Parts,
    IReadOnlyList<ServiceDone> Services
)
{
    /// <summary>Where it stands on its zone's floor plan; null where nobody has said.</summary>
    public FloorPlace? Place { get; init; }

    /// <summary>Readings keep one column a part; a machine with more measured parts than this is refused.</summary>
    public const int MaxParts = 12;

    /// <summary>No machine came into service, or lost its warranty, outside of these days.</summary>
    public static readonly DateOnly EarliestDay = new(1980, 1, 1),
        LatestDay = new(2100, 12, 31);

    /// <summary>What makes a tag, for messages.</summary>
    public const string TagRule = "must be a tag that can stand in an address: without / and \\, and not dots alone";

    /// <summary>Whether a text of letters can be a tag: it stands in addresses and on labels.</summary>
    public static bool IsTag(string text) => text.AsSpan().IndexOfAny('/', '\\') < 0 && text.Any(c => c != '.');

    /// <summary>The last day on which a cause was renewed: by a service that removes it, else the first day of use.</summary>
    public DateOnly RenewedOn(Cause cause, DateOnly asOf)
    {
        for (var i = Services.Count - 1; i >= 0; i--)
            if (Services[i].Date <= asOf && Services[i].Renews(cause))
                return Services[i].Date;
        return InServiceSince;
    }

    /// <summary>
    /// The last work that made its cooling another one, so that older measurements do not count; null for none.
    /// </summary>
    public ServiceDone? NewBaseline => Services.LastOrDefault(s => ServiceEffects.Changes(s.Level) == CoolingChange.NewBaseline);

    /// <summary>
    /// What its siblings have in common with it: the model, and what was built in since. Machines with another cooler are
    /// compared with each other, not with those as they were made.
    /// </summary>
    public string Build => NewBaseline is { } change ? $"{Model} + {Words.Of(change.Level)}" : Model;

    /// <summary>Whether the maker's warranty still runs on a day (its last day included).</summary>
    public bool UnderWarranty(DateOnly day) => WarrantyUntil is { } last && day <= last;
}

/// <summary>The whole fleet document: where machines stand, and which there are.</summary>
public sealed record Register(IReadOnlyList<Site> Sites, IReadOnlyList<Asset> Assets);
