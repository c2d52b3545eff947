using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// Partial pooling over machines of one model: the same cooler has the same convective resistance, so the air side of a
/// machine whose fan never moves, or that has hardly been read, is known from its siblings. Brought from one machine to
/// another by heat, fan speed and the thinness of the air: F = c·P·n^(−m)·altitude.
/// </summary>
internal static class Siblings
{
    /// <summary>Siblings that must know their air side before others borrow it.</summary>
    private const int LeastSiblings = 3;

    /// <summary>How much two coolers of one model differ at the least.</summary>
    private const double UnitSpread = 0.12;

    /// <summary>What machines of one model have shown: c, by whether heat and speed are in watts and rpm.</summary>
    /// <param name="Middle">Median of c.</param>
    /// <param name="MiddleSigma">How sure that is.</param>
    public readonly record struct Known(double Middle, double MiddleSigma);

    /// <summary>What siblings must have in common to be compared: rpm and per cent, measured heat and heat by name are different scales.</summary>
    public readonly record struct Kin(AssetKind Kind, string Model, bool HasPower, bool SpeedIsRpm)
    {
        public static Kin Of(Asset asset, ReferencePoint reference) => new(asset.Kind, asset.Model, reference.HasPower, reference.SpeedIsRpm);
    }

    /// <summary>What a fleet's machines teach each other.</summary>
    public static Dictionary<Kin, Known> Learn(IEnumerable<(Kin Kin, WearModel Model, double Altitude)> machines)
    {
        var known = new Dictionary<Kin, Known>();
        foreach (var alike in machines.Where(m => m.Model.KnowsItsAir).GroupBy(m => m.Kin))
            if (alike.Select(m => m.Model.AirRise / Scale(m.Model.Reference, m.Altitude)).ToArray() is { Length: >= LeastSiblings } constants)
                known[alike.Key] = new Known(Robust.Median(constants), Robust.MadScale(constants) / Math.Sqrt(constants.Length));
        return known;
    }

    /// <summary>Gives a machine what its siblings have shown as the prior of its air side.</summary>
    public static void Teach(IReadOnlyDictionary<Kin, Known> known, Kin kin, WearModel model, double altitude)
    {
        if (!(model.Reference.FanSpeed > 0) || !known.TryGetValue(kin, out var shown))
            return;
        var scale = Scale(model.Reference, altitude);
        model.SetAirPrior(shown.Middle * scale, Math.Sqrt(Math.Pow(UnitSpread * shown.Middle * scale, 2) + Math.Pow(shown.MiddleSigma * scale, 2)));
    }

    private static double Scale(ReferencePoint reference, double altitude) =>
        reference.PowerW * Math.Pow(reference.FanSpeed, -FanLaw.Exponent) * FanLaw.AltitudeFactor(altitude);
}
