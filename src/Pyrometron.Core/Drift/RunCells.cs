using Pyrometron.Core.Cooling;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Drift;

/// <summary>
/// How a run scatters about the model; its air was read at the machine, so neither the zone's room nor its local air is in it.
/// </summary>
/// <param name="Common">Standard uncertainty of what all parts share, K.</param>
/// <param name="Own">Of one part alone, K.</param>
internal readonly record struct RunNoise(float Common, float Own);

/// <summary>
/// Runs measured at the bench as cells of their own: one run, one cell, at its own instant, with the uncertainty of its own
/// budget (<see cref="RunUncertainty"/>). They stand in the same fit as the readings.
/// </summary>
internal sealed class RunCells(Asset asset, ReferencePoint reference, ReadingSeries series, Func<double, double> zoneAir)
{
    /// <summary>
    /// Standard uncertainty of a rise, as a share of it, where a run does not say how fast its fan turned: a quarter more speed
    /// is worth a sixth of the air side (θ ∝ n^−0.8), and that is about half of the rise.
    /// </summary>
    private const double UnknownFanShare = 0.08;

    private readonly List<string?> _workloads = [.. series.WorkloadNames];
    private readonly List<string?> _settings = [.. series.SettingsNames];

    /// <summary>
    /// The runs that tell something of the machine's parts. One taken from the machine's own readings is left out where those are
    /// there: they count already.
    /// </summary>
    public static IReadOnlyList<MeasuredRun> Usable(Asset asset, IReadOnlyList<MeasuredRun> runs, bool hasReadings) =>
        [
            .. runs.Where(r =>
                !(hasReadings && r.Run.Source == RunSource.Readings)
                && r.Run.Parts.Any(p => asset.Parts.Any(a => a.Name == p.Part))
            ),
        ];

    /// <summary>
    /// A machine's few readings and its runs in one series: what the reference point of a machine is taken from that is measured
    /// by runs alone.
    /// </summary>
    public static ReadingSeries Merged(Asset asset, ReadingSeries readings, IReadOnlyList<MeasuredRun> runs)
    {
        var (names, numbers) = (new List<string>(), new Dictionary<string, long>());
        long Number(string? label)
        {
            if (label is null)
                return -1;
            if (!numbers.TryGetValue(label, out var number))
            {
                numbers[label] = number = names.Count;
                names.Add(label);
            }
            return number;
        }
        var builder = new ReadingSeries.Builder(asset.Parts.Count, readings.Count + runs.Count);
        var next = 0;
        for (var i = 0; i <= readings.Count; i++)
        {
            var day = i < readings.Count ? readings.Day[i] : double.PositiveInfinity;
            for (; next < runs.Count && UnixDay.Of(runs[next].At) <= day; next++)
            {
                var run = runs[next].Run;
                builder.Begin(runs[next].At.ToUnixTimeMilliseconds(), Number(run.Settings), Number(run.Workload));
                builder.Measured(
                    run.Ambient?.Value ?? double.NaN,
                    run.PowerWatts ?? double.NaN,
                    run.Fan.Rpm ?? double.NaN,
                    run.Fan.Percent ?? double.NaN,
                    run.Throttled
                );
                for (var p = 0; p < asset.Parts.Count; p++)
                    builder.Part(p, CelsiusOf(run, asset.Parts[p].Name));
            }
            if (i == readings.Count)
                break;
            builder.Begin(
                (long)Math.Round(readings.Day[i] * 86_400_000),
                Number(NameOf(readings.SettingsNames, readings.Settings[i])),
                Number(NameOf(readings.WorkloadNames, readings.Workload[i]))
            );
            builder.Measured(
                readings.Ambient[i],
                readings.Power[i],
                readings.FanRpm[i],
                readings.FanPct[i],
                readings.Throttled[i]
            );
            for (var p = 0; p < asset.Parts.Count; p++)
                builder.Part(p, readings.Parts[p][i]);
        }
        return builder.Build(number => names[(int)number]);
    }

    /// <summary>A part's temperature in a run, °C; NaN where it was not measured.</summary>
    public static double CelsiusOf(Run run, string part)
    {
        foreach (var measured in run.Parts)
            if (measured.Part == part)
                return measured.Celsius.Value;
        return double.NaN;
    }

    /// <summary>
    /// The air that a run's rises are taken over, °C: its own, else the zone's, else that of the reference point.
    /// </summary>
    public double AirOf(MeasuredRun measured) =>
        measured.Run.Ambient is { } air ? air.Value
        : zoneAir(UnixDay.Of(measured.At)) is var zone && double.IsFinite(zone) ? zone
        : ReferencePoint.AmbientC;

    /// <summary>One run as a cell: its row, the rise of each part, and its noise.</summary>
    public (CellTable.CellRow Row, float[] Rise, RunNoise Noise) Of(MeasuredRun measured)
    {
        var (run, air) = (measured.Run, AirOf(measured));
        var heat = reference.HasPower && run.PowerWatts is > 0 ? run.PowerWatts.Value / reference.PowerW : 1;
        var rise = new float[asset.Parts.Count];
        var (common, own, hottest) = (0.0, 0.0, 0.0);
        for (var p = 0; p < rise.Length; p++)
        {
            rise[p] = float.NaN;
            if (run.Parts.FirstOrDefault(m => m.Part == asset.Parts[p].Name) is not { } part)
                continue;
            rise[p] = (float)(part.Celsius.Value - air);
            var uncertainty = RunUncertainty.Of(run, part, rise[p]);
            (common, own, hottest) = (
                Math.Max(common, uncertainty.Common),
                Math.Max(own, uncertainty.Own),
                Math.Max(hottest, Math.Abs(rise[p]))
            );
        }
        var flow = FlowOf(run.Fan);
        if (double.IsNaN(flow))
            common = Math.Sqrt(common * common + Math.Pow(UnknownFanShare * hottest, 2));
        return (
            new CellTable.CellRow(
                UnixDay.Of(measured.At),
                (short)IndexOf(_workloads, run.Workload),
                (short)IndexOf(_settings, run.Settings),
                1,
                (float)heat,
                double.IsNaN(flow) ? 0 : (float)flow,
                float.NaN,
                (float)air
            ),
            rise,
            new RunNoise((float)common, (float)own)
        );
    }

    /// <summary>
    /// Convective resistance relative to the reference speed, minus 1; NaN where the machine's speeds are known and the run's is
    /// not.
    /// </summary>
    private double FlowOf(RunFan fan)
    {
        if (!(reference.FanSpeed > 0))
            return 0;
        var speed =
            reference.SpeedIsRpm && fan.Rpm is > 0 ? fan.Rpm.Value
            : !reference.SpeedIsRpm && fan.Percent is > 0 ? fan.Percent.Value
            // Turns go with the command: what the reference command gives tells what another gives.
            : fan.Percent is > 0 && reference.FanPct > 0 ? reference.FanSpeed * fan.Percent.Value / reference.FanPct
            : double.NaN;
        return FanLaw.RelativeResistance(speed, reference.FanSpeed) - 1;
    }

    private static int IndexOf(List<string?> names, string name)
    {
        var index = names.IndexOf(name);
        if (index >= 0)
            return index;
        names.Add(name);
        return names.Count - 1;
    }

    private static string? NameOf(IReadOnlyList<string?> names, int index) =>
        index < 0 ? null
        : index < names.Count ? names[index] ?? $"#{index}"
        : $"#{index}";
}
