using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// Partial pooling over machines of one model: the same cooler has the same convective resistance, so the air side of a
/// machine whose fan never moves, or that has hardly been read, is known from its siblings. Brought from one machine to
/// another by heat and fan speed: F = c·P·n^(−m).
/// </summary>
internal static class Siblings
{
    /// <summary>Siblings that must know their air side before others borrow it.</summary>
    private const int LeastSiblings = 3;

    /// <summary>How much two coolers of one model differ at the least.</summary>
    private const double UnitSpread = 0.12;

    /// <summary>Gives every machine of one model its air side's prior.</summary>
    public static void Pool(IReadOnlyCollection<WearModel> models)
    {
        // Rpm and per cent, measured heat and heat by name are different scales: each is pooled with its own kind.
        foreach (var alike in models.Where(m => m.Reference.FanSpeed > 0).GroupBy(m => (m.Reference.HasPower, m.Reference.SpeedIsRpm)))
        {
            var constants = alike.Where(m => m.KnowsItsAir).Select(m => m.AirRise / Scale(m.Reference)).ToArray();
            if (constants.Length < LeastSiblings)
                continue;
            var (middle, spread) = (Robust.Median(constants), Robust.MadScale(constants));
            foreach (var model in alike)
            {
                var mean = middle * Scale(model.Reference);
                model.SetAirPrior(mean, Math.Sqrt(Math.Pow(UnitSpread * mean, 2) + Math.Pow(spread * Scale(model.Reference), 2) / constants.Length));
            }
        }
    }

    private static double Scale(ReferencePoint reference) => reference.PowerW * Math.Pow(reference.FanSpeed, -FanLaw.Exponent);
}
