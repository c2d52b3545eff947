using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Units;
using Pyrometron.Formats;

namespace Pyrometron.Server.Judging;

/// <summary>A zone and its room.</summary>
/// <param name="RoomKelvin">What its air adds beyond its intake sensors; null with too few machines.</param>
public sealed record ZoneAnswer(
    string Code,
    string Name,
    string Site,
    string SiteName,
    double AltitudeMetres,
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
    double? AltitudeMetres
)
{
    /// <summary>The site with the edit applied to itself and to one of its zones.</summary>
    /// <exception cref="RefusedInputException">It cannot be taken.</exception>
    internal Site Apply(Site site, Zone zone)
    {
        var problems = new List<InputProblem>();
        void Check(bool good, string at, string message)
        {
            if (!good)
                problems.Add(new InputProblem(message, Pointer: "/" + at));
        }
        static bool IsName(string? text) =>
            text is null || (text.Length <= 80 && !string.IsNullOrWhiteSpace(text) && !text.Any(char.IsControl));
        Check(IsName(Name), "name", "name has 1 to 80 characters");
        Check(IsName(SiteName), "siteName", "siteName has 1 to 80 characters");
        Check(
            DesignAmbientCelsius is null or (>= -40 and <= 80),
            "designAmbientCelsius",
            "designAmbientCelsius lies between -40 and 80"
        );
        Check(AltitudeMetres is null or (>= -500 and <= 9000), "altitudeMetres", "altitudeMetres lies between -500 and 9000");
        if (problems.Count > 0)
            throw new RefusedInputException(problems);
        var edited = zone with
        {
            Name = Name?.Trim() ?? zone.Name,
            Dust = Dust ?? zone.Dust,
            DesignAmbient = DesignAmbientCelsius is { } celsius ? new Celsius(celsius) : zone.DesignAmbient,
        };
        return site with
        {
            Name = SiteName?.Trim() ?? site.Name,
            AltitudeMetres = AltitudeMetres ?? site.AltitudeMetres,
            Zones = [.. site.Zones.Select(z => z.Code == zone.Code ? edited : z)],
        };
    }
}
