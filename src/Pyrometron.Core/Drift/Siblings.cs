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
    /// <summary>Siblings that must know their air side before others borrow it, and that must have a joint before it is held against theirs.</summary>
    private const int LeastForAir = 3,
        LeastForJoints = 5;

    /// <summary>How much two coolers of one model differ at the least.</summary>
    private const double UnitSpread = 0.12;

    /// <summary>How much two joints of one model differ at the least, as a share of the joint's rise, and in K.</summary>
    private const double JointSpread = 0.06,
        LeastJointSpread = 1;

    /// <summary>What machines of one model have shown: c, by whether heat and speed are in watts and rpm.</summary>
    /// <param name="Air">Median of c, and how sure that is.</param>
    /// <param name="Joints">By part: median and spread of the fresh joint's resistance, K/W.</param>
    public sealed record Known(
        (double Middle, double Sigma)? Air,
        IReadOnlyDictionary<string, (double Middle, double Spread)> Joints
    );

    /// <summary>What siblings must have in common to be compared: rpm and per cent, measured heat and heat by name are different scales.</summary>
    public readonly record struct Kin(AssetKind Kind, string Model, bool HasPower, bool SpeedIsRpm)
    {
        public static Kin Of(Asset asset, ReferencePoint reference) =>
            new(asset.Kind, asset.Model, reference.HasPower, reference.SpeedIsRpm);
    }

    /// <summary>What a fleet's machines teach each other.</summary>
    public static Dictionary<Kin, Known> Learn(IEnumerable<(Kin Kin, WearModel Model, double Altitude)> machines)
    {
        var known = new Dictionary<Kin, Known>();
        foreach (var alike in machines.GroupBy(m => m.Kin))
        {
            var constants = alike
                .Where(m => m.Model.KnowsItsAir)
                .Select(m => m.Model.AirRise / Scale(m.Model.Reference, m.Altitude))
                .ToArray();
            // Heat by its name is each machine's own: only watts can be shared.
            var joints = !alike.Key.HasPower
                ? []
                : alike
                    .SelectMany(m => m.Model.FreshJoints)
                    .GroupBy(j => j.Part, j => j.KelvinPerWatt)
                    .Where(j => j.Count() >= LeastForJoints)
                    .ToDictionary(j => j.Key, j => MiddleAndSpread([.. j]));
            (double Middle, double Spread)? air = constants.Length < LeastForAir ? null : MiddleAndSpread(constants);
            known[alike.Key] = new Known(air is { } c ? (c.Middle, c.Spread / Math.Sqrt(constants.Length)) : null, joints);
        }
        return known;
    }

    /// <summary>Gives a machine what its siblings have shown as the prior of its fresh air side and joints: what exceeds it was worn before the first reading.</summary>
    public static void Teach(IReadOnlyDictionary<Kin, Known> known, Kin kin, WearModel model, double altitude)
    {
        if (!known.TryGetValue(kin, out var shown))
            return;
        if (shown.Air is { } air && model.Reference.FanSpeed > 0)
        {
            var scale = Scale(model.Reference, altitude);
            model.SetAirPrior(
                air.Middle * scale,
                Math.Sqrt(Math.Pow(UnitSpread * air.Middle * scale, 2) + Math.Pow(air.Sigma * scale, 2))
            );
        }
        foreach (var (part, (middle, spread)) in shown.Joints)
            model.SetJointPrior(
                part,
                middle * model.Reference.PowerW,
                Math.Max(LeastJointSpread, Math.Max(JointSpread * middle, spread) * model.Reference.PowerW)
            );
    }

    private static (double Middle, double Spread) MiddleAndSpread(double[] values) =>
        (Robust.Median(values), Robust.MadScale(values));

    private static double Scale(ReferencePoint reference, double altitude) =>
        reference.PowerW * Math.Pow(reference.FanSpeed, -FanLaw.Exponent) * FanLaw.AltitudeFactor(altitude);
}
