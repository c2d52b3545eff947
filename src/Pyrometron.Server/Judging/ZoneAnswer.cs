using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;

namespace Pyrometron.Server.Judging;

/// <summary>A zone and its room.</summary>
/// <param name="RoomKelvin">What its air adds beyond its intake sensors; null with too few machines.</param>
public sealed record ZoneAnswer(
    string Code,
    string Name,
    string Site,
    string SiteName,
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
            zone.Dust,
            zone.DesignAmbient.Value,
            drift is { Bins.Count: > 0 } d ? Math.Round(d.NowKelvin, 2) : null,
            drift?.Machines ?? 0
        );
}
