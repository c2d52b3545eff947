using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;

namespace Pyrometron.Core.Judging;

/// <summary>
/// Services since the machine was measured last: each is credited with what its level usually wins, as far as the fleet's proven
/// jobs bear that out, until something is measured.
/// </summary>
/// <param name="lastDay">When it was measured last, days since 1970.</param>
internal sealed class UnmeasuredServices(Asset asset, double lastDay, ProvenGains proven)
{
    private readonly ServiceDone[] _services = [.. asset.Services.Where(s => s.Day > lastDay)];

    /// <summary>The newest of them that does more than look; null without any.</summary>
    public ServiceDone? Newest => _services.LastOrDefault(s => s.Level != ServiceLevel.Inspect);

    /// <summary>The share of a cause that they have left.</summary>
    public double Left(Cause cause) =>
        _services.Aggregate(1.0, (left, s) => left * (1 - s.Removed(cause) * Math.Min(1, proven.Of(asset, s.Level).Share)));

    /// <summary>Relative standard uncertainty of what they are credited with.</summary>
    public double Sigma => _services.Select(s => proven.Of(asset, s.Level).Sigma).DefaultIfEmpty(0).Max();
}
