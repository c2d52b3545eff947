namespace Pyrometron.Core.Materials;

/// <summary>Paste that a cooler presses flat.</summary>
/// <param name="Spot">How it was laid on, and the chip.</param>
/// <param name="VolumeMm3">Of the paste.</param>
/// <param name="PascalSeconds">Its viscosity, Pa·s, taken as that of a Newtonian liquid.</param>
/// <param name="Newtons">The force with which the cooler presses on this chip.</param>
/// <param name="LeastMicrometres">The thickness below which its grains let it go no further, µm.</param>
public sealed record PastePressed(
    PasteSpot Spot,
    double VolumeMm3,
    double PascalSeconds,
    double Newtons,
    double LeastMicrometres
);

/// <summary>Paste at an instant.</summary>
/// <param name="Seconds">Since the cooler touched it.</param>
/// <param name="GapMicrometres">Between chip and cooler.</param>
/// <param name="Coverage">The share of the chip that is covered.</param>
/// <param name="SqueezedOut">The share of the paste that has left the chip.</param>
/// <param name="Fill">
/// How full each cell of the quarter at the chip's lower right is, 0 to 255, row by row from the middle outwards; the other
/// quarters mirror it.
/// </param>
public sealed record PasteFrame(double Seconds, double GapMicrometres, double Coverage, double SqueezedOut, byte[] Fill);

/// <summary>
/// How paste spreads under a cooler: the flow of a viscous layer between two plates that come together under a constant force
/// (Reynolds' lubrication equation, div(h³/12µ · grad p) = dh/dt, with no pressure where the paste ends), on
/// <see cref="Cells"/> × <see cref="Cells"/> cells. Of a full disc it gives Stefan's law (1874), of a drop that of Dienes and
/// Klemm (1946). Air that the paste encloses is taken to escape: bubbles cost a third of a degree (common practice, no source).
/// </summary>
public sealed class SqueezeFlow
{
    /// <summary>Cells along each side of the chip.</summary>
    public const int Cells = 200;

    /// <summary>Cells along each side of the quarter that is worked out.</summary>
    public const int Half = Cells / 2;

    private const int Wide = Half + 2;

    /// <summary>The most that a cell at the rim fills up in one step.</summary>
    private const double MostFill = 1;

    /// <summary>The most by which the gap shrinks in one step.</summary>
    private const double MostThinner = 0.04,
        LeastThinner = 0.015;

    /// <summary>How much of what has to flow may be left over; the next step takes it along.</summary>
    private const double Tolerance = 2e-3;

    private readonly PastePressed _paste;
    private readonly double _dx,
        _dy;

    /// <summary>How full each cell is, with a row and a column around; those beyond the chip's edge stay empty.</summary>
    private readonly double[] _fill = new double[Wide * Wide];

    /// <summary>Pressure times the time of a step, in such units that its slope is the volume that crosses a side.</summary>
    private readonly double[] _psi = new double[Wide * Wide];
    private readonly double[] _source = new double[Wide * Wide];
    private readonly PressureField _field = new(Half);
    private double _thinner = 0.02,
        _flowed;

    private SqueezeFlow(PastePressed paste, double gapMm, IReadOnlyList<double> fill)
    {
        _paste = paste;
        (_dx, _dy) = (paste.Spot.WidthMm / Cells, paste.Spot.HeightMm / Cells);
        GapMm = gapMm;
        for (var y = 0; y < Half; y++)
        for (var x = 0; x < Half; x++)
            _fill[At(x, y)] = fill[(y * Half) + x];
    }

    /// <summary>Between chip and cooler, mm.</summary>
    public double GapMm { get; private set; }

    /// <summary>Since the start, s.</summary>
    public double Seconds { get; private set; }

    /// <summary>Left the chip, mm³.</summary>
    public double SqueezedOutMm3 { get; private set; }

    /// <summary>On the chip, mm³.</summary>
    public double VolumeMm3 => 4 * _fill.Sum() * _dx * _dy * GapMm;

    /// <summary>The share of the chip that is covered.</summary>
    public double Coverage => _fill.Sum(f => Math.Min(1, f)) / (Half * Half);

    /// <summary>Whether it goes no further.</summary>
    public bool Ended => GapMm * 1000 <= _paste.LeastMicrometres * 1.0001;

    /// <summary>Paste as it was laid on, at the gap at which the cooler touches all of it.</summary>
    public static SqueezeFlow Laid(PastePressed paste)
    {
        var spot = paste.Spot;
        var (dx, dy) = (spot.WidthMm / Cells, spot.HeightMm / Cells);
        // A drop stands about half as high as it is wide.
        var reach = spot.Pattern == PastePattern.Dot ? Math.Cbrt(paste.VolumeMm3 / Math.PI) : spot.BeadMm;
        var fill = new double[Half * Half];
        for (var y = 0; y < Half; y++)
        for (var x = 0; x < Half; x++)
            fill[(y * Half) + x] = spot.Covers((x + 0.5) * dx, (y + 0.5) * dy, reach) ? 1 : 0;
        // A chip smaller than the drop is full at once.
        if (!fill.Contains(1))
            Array.Fill(fill, 1);
        var gap = paste.VolumeMm3 / (4 * fill.Sum() * dx * dy);
        return new SqueezeFlow(paste, Math.Max(gap, paste.LeastMicrometres / 1000), Scaled(fill, gap, paste));
    }

    /// <summary>Pictures from the first touch to the end of the flow, evenly spread over the thickness lost.</summary>
    /// <param name="paste">What is pressed.</param>
    /// <param name="frames">How many, 2 or more.</param>
    /// <param name="mostSeconds">Not beyond this time.</param>
    /// <param name="cancel">Ends it early, with what there is.</param>
    public static IEnumerable<PasteFrame> Frames(PastePressed paste, int frames, double mostSeconds, CancellationToken cancel)
    {
        var flow = Laid(paste);
        var (first, last) = (flow.GapMm, paste.LeastMicrometres / 1000);
        yield return flow.Frame();
        for (var i = 1; i < frames && !flow.Ended && flow.Seconds < mostSeconds && !cancel.IsCancellationRequested; i++)
        {
            // Equal factors: thin layers take nearly all of the time.
            var gap = first * Math.Pow(last / first, i / (frames - 1.0));
            while (flow.GapMm > gap * (1 + 1e-9) && flow.Seconds < mostSeconds && !cancel.IsCancellationRequested)
                flow.Step(gap);
            yield return flow.Frame();
        }
    }

    /// <summary>Brings the plates together until a gap is reached.</summary>
    /// <param name="gapMm">The gap.</param>
    public void PressTo(double gapMm)
    {
        while (GapMm > gapMm * (1 + 1e-9))
            Step(gapMm);
    }

    private static double[] Scaled(double[] fill, double gap, PastePressed paste) =>
        // Less paste than the least thickness over the pattern: it never fills the gap there.
        gap * 1000
        >= paste.LeastMicrometres
            ? fill
            : [.. fill.Select(f => f * gap * 1000 / paste.LeastMicrometres)];

    /// <summary>
    /// One step: the gap shrinks by a share, what has no room flows down the slope of the pressure, and the force tells how long
    /// that took.
    /// </summary>
    /// <param name="atLeast">The gap that is not passed, mm.</param>
    private void Step(double atLeast)
    {
        var next = Math.Max(GapMm * (1 - _thinner), atLeast);
        var full = Thin(next);
        if (full == 0)
        {
            // Nothing is in the way yet.
            GapMm = next;
            return;
        }
        Solve();
        var most = Flow(next);
        // Impulse: the sum of the pressure over the area and the time of the step. Four quarters bear the force.
        var sum = 0.0;
        foreach (var psi in _psi)
            sum += psi;
        var mean = Math.Pow((GapMm + next) / 2, 3);
        var pascal = 12 * _paste.PascalSeconds / mean * 4 * sum * _dx * _dy;
        Seconds += pascal / _paste.Newtons * 1e-6;
        GapMm = next;
        _thinner = Math.Clamp(_thinner * Math.Clamp(MostFill / Math.Max(most, 1e-6), 0.5, 1.5), LeastThinner, MostThinner);
    }

    /// <summary>Thins the gap: what a cell holds too much is what has to flow.</summary>
    /// <returns>How many cells are full.</returns>
    private int Thin(double next)
    {
        var (factor, full, source) = (GapMm / next, 0, 0.0);
        for (var y = 0; y < Half; y++)
        for (var x = 0; x < Half; x++)
        {
            var at = At(x, y);
            _fill[at] *= factor;
            _source[at] = Math.Max(0, _fill[at] - 1) * next;
            source += _source[at];
            if (Full(at))
                full++;
        }
        // Pressure goes with what has to flow: a better start than that of the step before.
        var scale = _flowed > 0 ? source / _flowed : 1;
        for (var at = 0; at < _psi.Length; at++)
            _psi[at] *= scale;
        _flowed = source;
        return full;
    }

    /// <summary>
    /// The pressure on the full cells: none in the others, whose middle is a cell away, and none at the chip's edge, half a cell
    /// away; nothing flows across the middle lines.
    /// </summary>
    private void Solve()
    {
        var (wx, wy) = (1 / (_dx * _dx), 1 / (_dy * _dy));
        for (var y = 0; y < Half; y++)
        for (var x = 0; x < Half; x++)
        {
            var at = At(x, y);
            if (!Full(at))
            {
                (_field.Own[at], _field.Right[at], _field.Below[at], _psi[at]) = (0, 0, 0, 0);
                continue;
            }
            _field.Right[at] = x + 1 < Half && Full(at + 1) ? wx : 0;
            _field.Below[at] = y + 1 < Half && Full(at + Wide) ? wy : 0;
            _field.Own[at] = (wx * Sides(x)) + (wy * Sides(y));
        }
        _field.Solve(_psi, _source, Tolerance);
    }

    private static int Sides(int place) => (place == 0 ? 1 : 2) + (place == Half - 1 ? 1 : 0);

    private bool Full(int at) => _source[at] > 0;

    /// <summary>Moves what has no room along the slope of the pressure.</summary>
    /// <returns>The most that came into one cell that was not full.</returns>
    private double Flow(double next)
    {
        var most = 0.0;
        var came = new double[_fill.Length];
        for (var y = 0; y < Half; y++)
        for (var x = 0; x < Half; x++)
        {
            var at = At(x, y);
            Across(at, at + 1, x + 1 < Half, 1 / (_dx * _dx));
            Across(at, at + Wide, y + 1 < Half, 1 / (_dy * _dy));
        }
        for (var y = 0; y < Half; y++)
        for (var x = 0; x < Half; x++)
        {
            var at = At(x, y);
            _fill[at] = Math.Max(0, _fill[at] + came[at]);
            if (!Full(at))
                most = Math.Max(most, came[at]);
        }
        return most;

        void Across(int from, int to, bool within, double weight)
        {
            var flux = (within ? _psi[from] - _psi[to] : 2 * _psi[from]) * weight / next;
            if (flux == 0)
                return;
            came[from] -= flux;
            if (within)
                came[to] += flux;
            else
                SqueezedOutMm3 += 4 * flux * next * _dx * _dy;
        }
    }

    private PasteFrame Frame()
    {
        var fill = new byte[Half * Half];
        for (var y = 0; y < Half; y++)
        for (var x = 0; x < Half; x++)
            fill[(y * Half) + x] = (byte)Math.Round(255 * Math.Min(1, _fill[At(x, y)]));
        return new PasteFrame(Seconds, GapMm * 1000, Coverage, SqueezedOutMm3 / _paste.VolumeMm3, fill);
    }

    private static int At(int x, int y) => ((y + 1) * Wide) + x + 1;
}
