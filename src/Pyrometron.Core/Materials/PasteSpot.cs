namespace Pyrometron.Core.Materials;

/// <summary>
/// Where paste lies before the cooler is set down, as a share of the chip's width and height from its middle to its edge. All
/// patterns are alike on both sides of both middle lines, so a quarter tells all.
/// </summary>
/// <param name="Pattern">How it is laid on.</param>
/// <param name="WidthMm">Of the chip.</param>
/// <param name="HeightMm">Of the chip.</param>
public readonly record struct PasteSpot(PastePattern Pattern, double WidthMm, double HeightMm)
{
    /// <summary>How far from the chip's edge spread paste ends, mm: 1 to 2 (common practice, no source).</summary>
    private const double SpreadMarginMm = 1.5;

    /// <summary>How much of the longer side a line takes. Common practice, no source.</summary>
    private const double LineShare = 0.7;

    /// <summary>How far the arms of a cross go towards the corners. Common practice, no source.</summary>
    private const double CrossShare = 0.7;

    /// <summary>The half width of a bead as it comes from the tube, against the chip's shorter side.</summary>
    private const double BeadShare = 0.06;

    /// <summary>Whether there is paste at a place.</summary>
    /// <param name="x">From the chip's middle, mm, 0 or more.</param>
    /// <param name="y">From the chip's middle, mm, 0 or more.</param>
    /// <param name="reach">
    /// How far the paste reaches beyond its middle line, mm: of a dot its radius, of a line and a cross half their width.
    /// </param>
    public bool Covers(double x, double y, double reach)
    {
        var (halfWidth, halfHeight) = (WidthMm / 2, HeightMm / 2);
        switch (Pattern)
        {
            case PastePattern.Spread:
                var margin = Math.Min(SpreadMarginMm, 0.2 * Math.Min(halfWidth, halfHeight));
                return x <= halfWidth - margin && y <= halfHeight - margin;
            case PastePattern.Line:
                var (along, across, half) = WidthMm >= HeightMm ? (x, y, halfWidth) : (y, x, halfHeight);
                var beyond = Math.Max(0, along - (LineShare * half));
                return Math.Sqrt((beyond * beyond) + (across * across)) <= reach;
            case PastePattern.Cross:
                return FromArm(x, y, CrossShare * halfWidth, CrossShare * halfHeight) <= reach;
            default:
                return Math.Sqrt((x * x) + (y * y)) <= reach;
        }
    }

    /// <summary>The reach of a bead, mm; a dot is found by its volume and the height of a drop instead.</summary>
    public double BeadMm => BeadShare * Math.Min(WidthMm, HeightMm);

    /// <summary>The distance of a place from the arm that runs from the middle to a point.</summary>
    private static double FromArm(double x, double y, double endX, double endY)
    {
        var length = (endX * endX) + (endY * endY);
        var along = Math.Clamp(((x * endX) + (y * endY)) / length, 0, 1);
        var (dx, dy) = (x - (along * endX), y - (along * endY));
        return Math.Sqrt((dx * dx) + (dy * dy));
    }
}
