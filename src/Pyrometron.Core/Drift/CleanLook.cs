using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Drift;

/// <summary>
/// A person looked and found fins, paste or pads as they should be: the wear there was near nothing on that day, with an
/// uncertainty by how deep they looked.
/// </summary>
/// <param name="Part">−1 for the air side, which all parts share.</param>
/// <param name="Day">Days since 1970.</param>
/// <param name="SigmaKelvin">Standard uncertainty of "nothing", K.</param>
internal readonly record struct CleanLook(int Part, double Day, double SigmaKelvin)
{
    /// <summary>
    /// What wear that nobody sees can still cost, K, seen on the open machine and from outside. Common practice, no source: a
    /// grey film costs a kelvin or two.
    /// </summary>
    private const double OpenedSigma = 1.5,
        OutsideSigma = 4;

    /// <summary>
    /// What a machine's looks say of its wear. A look at the mount says nothing of wear, and fans are judged by their speed.
    /// </summary>
    public static IReadOnlyList<CleanLook> Of(Asset asset, IReadOnlyList<Look> looks)
    {
        var clean = new List<CleanLook>();
        foreach (var look in looks.Where(l => !l.Found))
        {
            var (day, sigma) = (UnixDay.Of(look.At), look.Opened ? OpenedSigma : OutsideSigma);
            if (look.Cause == Cause.Dust)
                clean.Add(new CleanLook(-1, day, sigma));
            for (var p = 0; p < asset.Parts.Count; p++)
                if (look.Cause == asset.Parts[p].JointCause)
                    clean.Add(new CleanLook(p, day, sigma));
        }
        return clean;
    }
}
