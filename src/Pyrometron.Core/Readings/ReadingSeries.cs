namespace Pyrometron.Core.Readings;

/// <summary>
/// All readings of one machine by column, in time order: what the judgement runs on. Every array has
/// <see cref="Count"/> entries; <see cref="double.NaN"/> is "not measured"; a label is an index, −1 for none.
/// </summary>
public sealed class ReadingSeries
{
    private ReadingSeries(int count, int parts)
    {
        Day = new double[count];
        Ambient = new double[count];
        Power = new double[count];
        FanRpm = new double[count];
        FanPct = new double[count];
        ClockMhz = new double[count];
        Throttled = new bool[count];
        Settings = new int[count];
        Workload = new int[count];
        Parts = new double[parts][];
        for (var p = 0; p < parts; p++)
            Parts[p] = new double[count];
    }

    /// <summary>Number of readings.</summary>
    public int Count => Day.Length;

    /// <summary>Days since 1970-01-01T00:00Z, with the fraction of the day.</summary>
    public double[] Day { get; }

    /// <summary>Intake air, °C.</summary>
    public double[] Ambient { get; }

    /// <summary>Heat, W.</summary>
    public double[] Power { get; }

    /// <summary>Fan speed, turns a minute.</summary>
    public double[] FanRpm { get; }

    /// <summary>Commanded fan speed, per cent.</summary>
    public double[] FanPct { get; }

    /// <summary>Clock, MHz.</summary>
    public double[] ClockMhz { get; }

    /// <summary>Whether the machine reported that it throttled.</summary>
    public bool[] Throttled { get; }

    /// <summary>Index into <see cref="SettingsNames"/>.</summary>
    public int[] Settings { get; }

    /// <summary>Index into <see cref="WorkloadNames"/>.</summary>
    public int[] Workload { get; }

    /// <summary>°C by part, then by reading.</summary>
    public double[][] Parts { get; }

    /// <summary>The settings labels seen, in order of appearance.</summary>
    public IReadOnlyList<string> SettingsNames { get; private set; } = [];

    /// <summary>The workload labels seen, in order of appearance.</summary>
    public IReadOnlyList<string> WorkloadNames { get; private set; } = [];

    /// <summary>Builds the columns from readings in time order.</summary>
    /// <param name="readings">Oldest first.</param>
    /// <param name="parts">Number of parts of the machine.</param>
    public static ReadingSeries From(IReadOnlyList<Reading> readings, int parts)
    {
        var series = new ReadingSeries(readings.Count, parts);
        var settings = new Dictionary<string, int>();
        var workloads = new Dictionary<string, int>();
        for (var i = 0; i < readings.Count; i++)
        {
            var r = readings[i];
            series.Day[i] = r.UnixMilliseconds / 86_400_000.0;
            series.Ambient[i] = r.AmbientC;
            series.Power[i] = r.PowerW;
            series.FanRpm[i] = r.FanRpm;
            series.FanPct[i] = r.FanPct;
            series.ClockMhz[i] = r.ClockMhz;
            series.Throttled[i] = r.Throttled > 0;
            series.Settings[i] = IndexOf(settings, r.Settings);
            series.Workload[i] = IndexOf(workloads, r.Workload);
            for (var p = 0; p < parts; p++)
                series.Parts[p][i] = p < r.PartsC.Length ? r.PartsC[p] : double.NaN;
        }
        series.SettingsNames = [.. settings.Keys];
        series.WorkloadNames = [.. workloads.Keys];
        return series;
    }

    private static int IndexOf(Dictionary<string, int> names, string? name)
    {
        if (name is null)
            return -1;
        if (!names.TryGetValue(name, out var index))
            names[name] = index = names.Count;
        return index;
    }
}
