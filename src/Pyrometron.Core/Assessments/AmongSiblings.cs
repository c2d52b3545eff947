namespace Pyrometron.Core.Assessments;

/// <summary>How a machine's part stands among machines of the same model at equal heat and fan.</summary>
/// <param name="Peers">How many others are compared.</param>
/// <param name="KelvinAbove">Rise above their median, K.</param>
/// <param name="Z">The same in robust standard deviations.</param>
public readonly record struct AmongSiblings(string Part, int Peers, double KelvinAbove, double Z)
{
    /// <summary>Whether it stands out: beyond what machines of one model differ by, and by kelvins that matter.</summary>
    public bool StandsOut => Math.Abs(Z) >= 3 && Math.Abs(KelvinAbove) >= 3;
}

/// <summary>Where a machine works: heat, fan, and the rise of each part over its intake, K.</summary>
/// <param name="PowerW">1 where power is not measured.</param>
/// <param name="FanSpeed">Rpm or per cent; NaN where neither is measured.</param>
/// <param name="AirShare">Share of each part's rise that follows the fan.</param>
internal sealed record OperatingRise(
    double PowerW,
    bool HasPower,
    double FanSpeed,
    bool SpeedIsRpm,
    double[] Rise,
    double[] AirShare
);
