using Pyrometron.Application.Fleet;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Units;
using Pyrometron.Formats;

namespace Pyrometron.Server.Zones;

/// <summary>A zone and its room.</summary>
/// <param name="RoomKelvin">What its air adds beyond its intake sensors; null with too few machines.</param>
public sealed record ZoneAnswer(
    string Code,
    string Name,
    string Site,
    string SiteName,
    double AltitudeMetres,
    string? TimeZone,
    DustClass Dust,
    double DesignAmbientCelsius,
    double? RoomKelvin,
    int Machines
)
{
    internal static ZoneAnswer From(Site site, Zone zone, ZoneAssessment? drift) =>
        new(
            zone.Code,
            zone.Name,
            site.Code,
            site.Name,
            site.AltitudeMetres,
            site.TimeZone,
            zone.Dust,
            zone.DesignAmbient.Value,
            drift is { Bins.Count: > 0 } d ? Math.Round(d.NowKelvin, 2) : null,
            drift?.Machines ?? 0
        );
}

/// <summary>What can be edited of a zone and its site; what is absent stays as it is.</summary>
public sealed record ZoneEdit(
    string? Name,
    DustClass? Dust,
    double? DesignAmbientCelsius,
    string? SiteName,
    double? AltitudeMetres,
    string? TimeZone = null
)
{
    /// <summary>The site with the edit applied to itself and to one of its zones.</summary>
    /// <exception cref="RefusedInputException">It cannot be taken.</exception>
    internal Site Apply(Site site, Zone zone)
    {
        Check();
        var edited = Of(zone);
        return Of(site) with { Zones = [.. site.Zones.Select(z => z.Code == zone.Code ? edited : z)] };
    }

    /// <summary>The site that the name tells, or a new one, with a new zone as its last.</summary>
    /// <exception cref="RefusedInputException">It cannot be taken.</exception>
    internal Site Add(IReadOnlyList<Site> sites)
    {
        Check(("name", Name), ("siteName", SiteName));
        var (name, siteName) = (Name!.Trim(), SiteName!.Trim());
        bool Is(string one, string other) => one.Equals(other, StringComparison.OrdinalIgnoreCase);
        var site =
            sites.FirstOrDefault(s => Is(s.Name, siteName) || Is(s.Code, siteName))
            ?? new Site(PlaceCodes.Of(siteName, c => c, c => sites.Any(s => s.Code == c)), siteName, 0, []);
        if (site.Zones.Any(z => Is(z.Name, name) || Is(z.Code, name)))
            throw new RefusedInputException(new InputProblem($"'{site.Name}' has a zone '{name}' already", Pointer: "/name"));
        var code = PlaceCodes.Of(name, c => $"{site.Code}-{c}", c => sites.Any(s => s.Zones.Any(z => z.Code == c)));
        var zone = Of(new Zone(code, name, DustClass.Normal, UsualMachines.DesignAmbient));
        return site with
        {
            AltitudeMetres = AltitudeMetres ?? site.AltitudeMetres,
            TimeZone = ZoneFor(site),
            Zones = [.. site.Zones, zone],
        };
    }

    private Zone Of(Zone zone) =>
        zone with
        {
            Name = Name?.Trim() ?? zone.Name,
            Dust = Dust ?? zone.Dust,
            DesignAmbient = DesignAmbientCelsius is { } celsius ? new Celsius(celsius) : zone.DesignAmbient,
        };

    private Site Of(Site site) =>
        site with
        {
            Name = SiteName?.Trim() ?? site.Name,
            AltitudeMetres = AltitudeMetres ?? site.AltitudeMetres,
            TimeZone = ZoneFor(site),
        };

    private string? ZoneFor(Site site) =>
        TimeZone is null ? site.TimeZone
        : TimeZone.Length == 0 ? null
        : TimeZone;

    /// <param name="needed">Texts that may not be absent.</param>
    private void Check(params ReadOnlySpan<(string At, string? Text)> needed)
    {
        var problems = new List<InputProblem>();
        void Check(bool good, string at, Message message)
        {
            if (!good)
                problems.Add(new InputProblem(message, Pointer: "/" + at));
        }
        static bool IsName(string? text) =>
            text is null || (text.Length <= 80 && !string.IsNullOrWhiteSpace(text) && !text.Any(char.IsControl));
        foreach (var (at, text) in needed)
            Check(text is not null, at, $"{at} is needed");
        Check(IsName(Name), "name", "name has 1 to 80 characters");
        Check(IsName(SiteName), "siteName", "siteName has 1 to 80 characters");
        Check(
            DesignAmbientCelsius is null or (>= -40 and <= 80),
            "designAmbientCelsius",
            "designAmbientCelsius lies between -40 and 80"
        );
        Check(
            string.IsNullOrEmpty(TimeZone) || (TimeZone.Length <= 80 && TimeZoneInfo.TryFindSystemTimeZoneById(TimeZone, out _)),
            "timeZone",
            "timeZone is a time zone such as Europe/Lisbon, or empty for that of the server"
        );
        Check(AltitudeMetres is null or (>= -500 and <= 9000), "altitudeMetres", "altitudeMetres lies between -500 and 9000");
        if (problems.Count > 0)
            throw new RefusedInputException(problems);
    }
}
