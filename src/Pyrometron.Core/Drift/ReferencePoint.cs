using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>The operating point to which all readings of a machine are brought: 25 °C air, usual heat, usual fan.</summary>
/// <param name="PowerW">Usual heat under the present settings and main workload; 1 where power is not measured.</param>
/// <param name="HasPower">Whether power is measured.</param>
/// <param name="FanSpeed">Usual speed in rpm (in per cent where no rpm is measured); NaN where neither is.</param>
/// <param name="FanPct">Commanded speed there, per cent, or NaN.</param>
/// <param name="FullSpeed">Speed at full command, same unit as <paramref name="FanSpeed"/>.</param>
/// <param name="SpeedIsRpm">Whether speeds are turns a minute, not per cent.</param>
/// <param name="FanFixed">Whether the command never moves.</param>
/// <param name="Workload">Index of the main workload, −1 for none.</param>
/// <param name="Settings">Index of the present settings, −1 for none.</param>
public sealed record ReferencePoint(
    double PowerW,
    bool HasPower,
    double FanSpeed,
    double FanPct,
    double FullSpeed,
    bool SpeedIsRpm,
    bool FanFixed,
    int Workload,
    int Settings
)
{
    /// <summary>The ambient of the reference point, °C.</summary>
    public const double AmbientC = 25;

    /// <summary>What is usual is taken from so many days, or from so many readings where those are fewer.</summary>
    private const double PresentDays = 60;

    private const int LeastRecent = 10;

    /// <summary>Readings needed for a line, and the most that one is drawn through.</summary>
    private const int LeastForLine = 12,
        MostForLine = 60;

    /// <summary>Quantiles of a year are taken from this many readings, evenly spread.</summary>
    private const int MostForQuantile = 240;

    /// <summary>Finds the reference point of a machine.</summary>
    /// <param name="fanUnseen">Whether the fan is taken as not measured, although it is.</param>
    /// <returns>Null without readings.</returns>
    public static ReferencePoint? Of(Channels machine, bool fanUnseen = false)
    {
        var s = machine.Series;
        if (s.Count == 0)
            return null;
        var settings = s.Settings[^1];
        var (recent, underThese) = (new List<int>(), new List<int>());
        for (var i = 0; i < s.Count; i++)
            if (s.Settings[i] == settings)
            {
                underThese.Add(i);
                if (s.Day[i] > s.Day[^1] - PresentDays)
                    recent.Add(i);
            }
        if (recent.Count < LeastRecent)
            recent = [.. underThese.TakeLast(LeastRecent)];
        var hasPower = s.Power.Count(p => p > 0) >= Math.Max(1, s.Count / 2);
        var workload = MainWorkload(machine, recent);
        var main = recent.Where(i => s.Workload[i] == workload).ToArray();
        var power = hasPower ? MedianOf(s.Power, main) : 1;
        if (!(power > 0))
            (power, hasPower) = (1, false);

        var speeds = s.FanRpm.Any(n => n > 0) ? s.FanRpm : s.FanPct;
        var atMain = Enumerable.Range(0, s.Count).Where(i => s.Workload[i] == workload).ToArray();
        var speed = fanUnseen ? double.NaN : FreshSpeed(machine, speeds, atMain);
        var command = FreshSpeed(machine, s.FanPct, atMain);
        var fixedFan = !double.IsNaN(command) && QuantileOf(s.FanPct, atMain, 0.95) - QuantileOf(s.FanPct, atMain, 0.05) < 2.5;
        var full =
            double.IsNaN(speed) ? double.NaN
            : fixedFan ? speed
            : !double.IsNaN(command) && command > 0 ? speed * Math.Max(1, 100 / command)
            : Math.Max(speed, QuantileOf(speeds, atMain, 0.995));
        return new ReferencePoint(
            power,
            hasPower,
            speed > 0 ? speed : double.NaN,
            command,
            full,
            s.FanRpm.Any(n => n > 0),
            fixedFan,
            workload,
            settings
        );
    }

    /// <summary>
    /// The fresh machine's fan at the reference ambient: an automatic one follows the weather, and creeps up with wear, so the
    /// history's first part counts, brought to 25 °C by a robust line through speed against air.
    /// </summary>
    private static double FreshSpeed(Channels machine, double[] speeds, int[] atMain)
    {
        var known = atMain.Where(i => speeds[i] > 0).ToArray();
        var usual = QuantileOf(speeds, known, 0.35);
        var early = known[..(known.Length / 3)].Where(i => !double.IsNaN(machine.Ambient[i])).ToArray();
        if (early.Length < LeastForLine)
            return usual;
        var thinned = Thinned(early, MostForLine);
        if (
            TheilSen.Fit(thinned.Select(i => machine.Ambient[i] - AmbientC).ToArray(), thinned.Select(i => speeds[i]).ToArray())
            is not { } line
        )
            return usual;
        // A fan does not slow down as the air warms, and no line is drawn far beyond what was seen.
        return line.Slope <= 0 ? usual : Math.Clamp(line.Intercept, 0.75 * usual, 1.25 * usual);
    }

    /// <summary>The hottest workload that makes up a fair share of the readings.</summary>
    private static int MainWorkload(Channels machine, List<int> recent)
    {
        var s = machine.Series;
        return recent
            .GroupBy(i => s.Workload[i])
            .OrderByDescending(g => g.Count() >= 0.25 * recent.Count)
            .ThenByDescending(g => g.Count() >= 0.6 * recent.Count)
            .ThenByDescending(g =>
                machine.Parts.Sum(p =>
                    Robust.Median(g.Select(i => p[i]).Where(c => !double.IsNaN(c)).ToArray()) is var m && m > 0 ? m : 0
                )
            )
            .First()
            .Key;
    }

    private static double MedianOf(double[] channel, IReadOnlyList<int> at) => QuantileOf(channel, at, 0.5);

    private static double QuantileOf(double[] channel, IReadOnlyList<int> at, double fraction) =>
        Robust.Quantile(Thinned(at, MostForQuantile).Select(i => channel[i]).Where(v => v > 0).ToArray(), fraction);

    private static int[] Thinned(IReadOnlyList<int> at, int most) =>
        at.Count <= most ? [.. at] : [.. Enumerable.Range(0, most).Select(k => at[(int)((long)k * at.Count / most)])];
}
