namespace Pyrometron.Core.Materials;

/// <summary>How the thickness of a pad's place was told.</summary>
public enum GapReading
{
    /// <summary>The gap itself: by putty pressed flat, or by gauges.</summary>
    Gap,

    /// <summary>The old pad where it was pressed: as thick as the gap.</summary>
    Imprint,

    /// <summary>The old pad at an edge that nothing pressed: as thick as it was sold.</summary>
    Edge,
}

/// <summary>How a pad of a thickness sits in a gap.</summary>
public enum PadContact
{
    /// <summary>Thinner than the gap, or just as thick: it does not touch.</summary>
    None,

    /// <summary>It touches, pressed by less than it should be.</summary>
    Light,

    /// <summary>Pressed as it should be.</summary>
    Good,

    /// <summary>Pressed too far: it lifts the cooler off the chip.</summary>
    TooThick,
}

/// <summary>A pad in a gap: compression (t − gap)/t, good between 10 and 30 %.</summary>
/// <param name="GapMm">Between the part and its cooler.</param>
public readonly record struct PadGap(double GapMm)
{
    /// <summary>The least and the most that a pad is pressed, as a share of its thickness. Common practice, no source.</summary>
    public const double LeastCompression = 0.10,
        MostCompression = 0.30;

    /// <summary>Thicknesses as they are sold, mm. Common practice, no source.</summary>
    public static IReadOnlyList<double> Sold { get; } = [0.5, 1.0, 1.5, 2.0, 3.0];

    private const double Middle = (LeastCompression + MostCompression) / 2,
        Same = 1e-9;

    /// <summary>The gap that a reading speaks of.</summary>
    /// <param name="by">How it was read.</param>
    /// <param name="mm">What was read.</param>
    public static PadGap Of(GapReading by, double mm) => new(by == GapReading.Edge ? (1 - Middle) * Nominal(mm) : mm);

    /// <summary>The thickness as sold that is nearest to one that was measured.</summary>
    public static double Nominal(double mm) => Sold.MinBy(s => Math.Abs(s - mm));

    /// <summary>The thinnest and the thickest pad that is pressed as it should be, mm.</summary>
    public (double From, double To) Band => (GapMm / (1 - LeastCompression), GapMm / (1 - MostCompression));

    /// <summary>By how much a pad is pressed, as a share of its thickness; negative where it does not reach.</summary>
    public double Compression(double thicknessMm) => (thicknessMm - GapMm) / thicknessMm;

    /// <summary>How a pad of a thickness sits in it.</summary>
    /// <param name="allowed">The most by which its maker allows it to be pressed, where that is less than usual.</param>
    public PadContact Contact(double thicknessMm, double? allowed = null) =>
        Compression(thicknessMm) switch
        {
            <= Same => PadContact.None,
            var share when share > (allowed ?? 1) + Same => PadContact.TooThick,
            < LeastCompression - Same => PadContact.Light,
            <= MostCompression + Same => PadContact.Good,
            _ => PadContact.TooThick,
        };

    /// <summary>How far a thickness is from the middle of the band.</summary>
    public double Misfit(double thicknessMm) => Math.Abs(Compression(thicknessMm) - Middle);

    /// <summary>What a pad costs its part, K: R = gap/(k·A), heat through it.</summary>
    /// <param name="areaMm2">Of the part.</param>
    /// <param name="conductivity">Of the pad, W/(m·K).</param>
    /// <param name="watts">Heat through it.</param>
    public double Kelvin(double areaMm2, double conductivity, double watts) =>
        GapMm * 1e-3 / (conductivity * areaMm2 * 1e-6) * watts;
}
