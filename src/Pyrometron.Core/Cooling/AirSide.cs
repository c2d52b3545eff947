namespace Pyrometron.Core.Cooling;

/// <summary>What is taken of a cooler's air side where nothing of the machine's own tells it.</summary>
public static class AirSide
{
    /// <summary>
    /// The share of a loaded part's rise over the air that lies between the cooler and the air, and so follows fan and dust.
    /// Common practice, no source; chosen on the practice fleets and on invented ones.
    /// </summary>
    public const double ShareOfRise = 0.48;

    /// <summary>Standard deviation of that share from one machine to another. Chosen likewise.</summary>
    public const double Spread = 0.15;
}
