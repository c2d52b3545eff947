using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Policies;

/// <summary>What a level uses up, in the house's currency.</summary>
/// <param name="known">By the prices of the stores; for the other levels the usual cost stands.</param>
public sealed class MaterialCosts(IReadOnlyDictionary<ServiceLevel, double> known)
{
    /// <summary>No price is known.</summary>
    public static MaterialCosts Usual { get; } = new(new Dictionary<ServiceLevel, double>());

    /// <summary>Whether it follows from prices of the stores.</summary>
    public bool IsKnown(ServiceLevel level) => known.ContainsKey(level);

    /// <summary>
    /// Its cost. Where no price is known: a tenth of a tube and wipes, two packs of pads, a fan (common practice, no source).
    /// </summary>
    public double Of(ServiceLevel level) =>
        known.TryGetValue(level, out var cost)
            ? cost
            : level switch
            {
                ServiceLevel.BlowOut or ServiceLevel.DustOut => 1,
                ServiceLevel.FanSwap => 15,
                ServiceLevel.Repaste => 4,
                ServiceLevel.Repad => 20,
                _ => 0,
            };
}
