using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Causes;

/// <summary>
/// What each serviceable cause costs one part at its reference point, in kelvin; the parts add up to the whole.
/// </summary>
/// <param name="Joint">Paste or pads, whichever carries this part's heat.</param>
public readonly record struct CauseSplit(double Dust, double Joint, double Fan, double Mount, JointMaterial Material)
{
    /// <summary>All that service could win back, K.</summary>
    public double Total => Dust + Joint + Fan + Mount;

    /// <summary>The same split of a larger or smaller whole.</summary>
    public CauseSplit Times(double factor) =>
        this with
        {
            Dust = Dust * factor,
            Joint = Joint * factor,
            Fan = Fan * factor,
            Mount = Mount * factor,
        };

    /// <summary>The kelvins of one cause; 0 for those that no service removes.</summary>
    public double Of(Cause cause) =>
        cause switch
        {
            Cause.Dust => Dust,
            Cause.Fan => Fan,
            Cause.Mount => Mount,
            Cause.Paste => Material == JointMaterial.Paste ? Joint : 0,
            Cause.Pads => Material == JointMaterial.Pad ? Joint : 0,
            _ => 0,
        };

    /// <summary>The causes with their kelvins, largest first.</summary>
    public IEnumerable<(Cause Cause, double Kelvin)> Ranked()
    {
        var split = this;
        return ((Cause[])[Cause.Dust, Cause.Paste, Cause.Pads, Cause.Fan, Cause.Mount])
            .Select(c => (c, split.Of(c)))
            .OrderByDescending(c => c.Item2);
    }

    /// <summary>What a service of a level would take away of each cause.</summary>
    public CauseSplit RemovedBy(ServiceLevel level) =>
        new(
            Dust * ServiceEffects.RemovedShare(level, Cause.Dust),
            Joint * ServiceEffects.RemovedShare(level, Material == JointMaterial.Pad ? Cause.Pads : Cause.Paste),
            Fan * ServiceEffects.RemovedShare(level, Cause.Fan),
            Mount * ServiceEffects.RemovedShare(level, Cause.Mount),
            Material
        );

    /// <summary>What a service of a level would win back on this part, K.</summary>
    public double WonBy(ServiceLevel level) => RemovedBy(level).Total;
}
