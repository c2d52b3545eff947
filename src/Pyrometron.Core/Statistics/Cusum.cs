namespace Pyrometron.Core.Statistics;

/// <summary>
/// Two-sided tabular CUSUM (Page 1954; Hawkins &amp; Olwell 1998): C⁺ = max(0, C⁺ + z − k), C⁻ = max(0, C⁻ − z − k),
/// signal when either exceeds h.
/// </summary>
/// <param name="k">Half the shift worth finding, in standard deviations.</param>
/// <param name="h">Decision interval, in standard deviations.</param>
public sealed class Cusum(double k = 0.5, double h = 5)
{
    private int _upRun,
        _downRun;

    /// <summary>The upper sum.</summary>
    public double Up { get; private set; }

    /// <summary>The lower sum.</summary>
    public double Down { get; private set; }

    /// <summary>How many observations ago the shift that now signals began.</summary>
    public int RunLength => Up >= Down ? _upRun : _downRun;

    /// <summary>Takes one standardised observation.</summary>
    /// <returns>+1 for a shift up, −1 for one down, 0 for none.</returns>
    public int Add(double z)
    {
        Up = Math.Max(0, Up + z - k);
        Down = Math.Max(0, Down - z - k);
        _upRun = Up > 0 ? _upRun + 1 : 0;
        _downRun = Down > 0 ? _downRun + 1 : 0;
        return Up > h ? 1
            : Down > h ? -1
            : 0;
    }

    /// <summary>Begins anew, after a signal has been dealt with.</summary>
    public void Reset() => (Up, Down, _upRun, _downRun) = (0, 0, 0, 0);
}
