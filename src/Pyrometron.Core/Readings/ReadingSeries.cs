namespace Pyrometron.Core.Readings;

/// <summary>
/// All readings of one machine by column, in time order: what the judgement runs on. Every array has
/// <see cref="Count"/> entries; <see cref="double.NaN"/> is "not measured"; a label is a number of its own, −1 for none.
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
    public double[] Day { get; private set; }

    /// <summary>Intake air, °C.</summary>
    public double[] Ambient { get; private set; }

    /// <summary>Heat, W.</summary>
    public double[] Power { get; private set; }

    /// <summary>Fan speed, turns a minute.</summary>
    public double[] FanRpm { get; private set; }

    /// <summary>Commanded fan speed, per cent.</summary>
    public double[] FanPct { get; private set; }

    /// <summary>Whether the machine reported that it throttled.</summary>
    public bool[] Throttled { get; private set; }

    /// <summary>The settings, numbered in order of appearance.</summary>
    public int[] Settings { get; private set; }

    /// <summary>The workload, numbered in order of appearance.</summary>
    public int[] Workload { get; private set; }

    /// <summary>The settings by their number; null for one whose name is not known.</summary>
    public IReadOnlyList<string?> SettingsNames { get; private set; } = [];

    /// <summary>The workloads by their number; null for one whose name is not known.</summary>
    public IReadOnlyList<string?> WorkloadNames { get; private set; } = [];

    /// <summary>°C by part, then by reading.</summary>
    public double[][] Parts { get; }

    /// <summary>Builds the columns from readings in time order.</summary>
    /// <param name="readings">Oldest first.</param>
    /// <param name="parts">Number of parts of the machine.</param>
    public static ReadingSeries From(IReadOnlyList<Reading> readings, int parts)
    {
        var builder = new Builder(parts, readings.Count);
        var labels = new Dictionary<string, long>();
        long Number(string? label) =>
            label is null ? -1
            : labels.TryGetValue(label, out var known) ? known
            : labels[label] = labels.Count;
        foreach (var r in readings)
        {
            builder.Begin(r.UnixMilliseconds, Number(r.Settings), Number(r.Workload));
            builder.Measured(r.AmbientC, r.PowerW, r.FanRpm, r.FanPct, r.Throttled > 0);
            for (var p = 0; p < parts; p++)
                builder.Part(p, p < r.PartsC.Length ? r.PartsC[p] : double.NaN);
        }
        var names = labels.ToDictionary(l => l.Value, l => l.Key);
        return builder.Build(names.GetValueOrDefault);
    }

    /// <summary>The readings from a day on (included); the same series when that is all of them.</summary>
    public ReadingSeries Since(double day)
    {
        var from = Array.FindIndex(Day, d => d >= day);
        return from < 0 ? Slice(Count, 0)
            : from == 0 ? this
            : Slice(from, Count - from);
    }

    /// <summary>The readings before a day (excluded).</summary>
    public ReadingSeries Before(double day)
    {
        var until = Array.FindIndex(Day, d => d >= day);
        return until < 0 ? this : Slice(0, until);
    }

    private ReadingSeries Slice(int from, int count)
    {
        var slice = new ReadingSeries(0, Parts.Length)
        {
            Day = Day[from..(from + count)],
            Ambient = Ambient[from..(from + count)],
            Power = Power[from..(from + count)],
            FanRpm = FanRpm[from..(from + count)],
            FanPct = FanPct[from..(from + count)],
            Throttled = Throttled[from..(from + count)],
            Settings = Settings[from..(from + count)],
            Workload = Workload[from..(from + count)],
            SettingsNames = SettingsNames,
            WorkloadNames = WorkloadNames,
        };
        for (var p = 0; p < Parts.Length; p++)
            slice.Parts[p] = Parts[p][from..(from + count)];
        return slice;
    }

    /// <summary>Takes readings one by one, oldest first, without an object for each.</summary>
    public sealed class Builder(int parts, int expected = 1500)
    {
        private readonly List<long> _settings = [],
            _workloads = [];
        private ReadingSeries _series = new(Math.Max(1, expected), parts);
        private int _count;

        /// <summary>Begins anew with the next machine, in the same memory.</summary>
        public void Clear()
        {
            _count = 0;
            _settings.Clear();
            _workloads.Clear();
        }

        /// <summary>Begins a reading; the values that follow belong to it.</summary>
        /// <param name="settings">Any number that stands for the label, −1 for none.</param>
        /// <param name="workload">The same.</param>
        public void Begin(long unixMilliseconds, long settings, long workload)
        {
            if (_count == _series.Count)
                Grow();
            _series.Day[_count] = unixMilliseconds / 86_400_000.0;
            _series.Settings[_count] = IndexOf(_settings, settings);
            _series.Workload[_count] = IndexOf(_workloads, workload);
            _count++;
        }

        /// <summary>What was measured of the machine.</summary>
        public void Measured(double ambient, double power, double fanRpm, double fanPct, bool throttled)
        {
            var at = _count - 1;
            (_series.Ambient[at], _series.Power[at], _series.FanRpm[at], _series.FanPct[at], _series.Throttled[at]) = (
                ambient,
                power,
                fanRpm,
                fanPct,
                throttled
            );
        }

        /// <summary>What was measured of a part.</summary>
        public void Part(int part, double celsius) => _series.Parts[part][_count - 1] = celsius;

        /// <summary>The columns of all readings begun.</summary>
        /// <param name="nameOf">The label that a number stands for; null where nobody needs the names.</param>
        public ReadingSeries Build(Func<long, string?>? nameOf = null)
        {
            var built = _series.Slice(0, _count);
            if (nameOf is not null)
                (built.SettingsNames, built.WorkloadNames) = ([.. _settings.Select(nameOf)], [.. _workloads.Select(nameOf)]);
            return built;
        }

        private void Grow()
        {
            var larger = new ReadingSeries(2 * _count, _series.Parts.Length);
            Array.Copy(_series.Day, larger.Day, _count);
            Array.Copy(_series.Ambient, larger.Ambient, _count);
            Array.Copy(_series.Power, larger.Power, _count);
            Array.Copy(_series.FanRpm, larger.FanRpm, _count);
            Array.Copy(_series.FanPct, larger.FanPct, _count);
            Array.Copy(_series.Throttled, larger.Throttled, _count);
            Array.Copy(_series.Settings, larger.Settings, _count);
            Array.Copy(_series.Workload, larger.Workload, _count);
            for (var p = 0; p < larger.Parts.Length; p++)
                Array.Copy(_series.Parts[p], larger.Parts[p], _count);
            _series = larger;
        }

        private static int IndexOf(List<long> seen, long label)
        {
            if (label < 0)
                return -1;
            var index = seen.IndexOf(label);
            if (index >= 0)
                return index;
            seen.Add(label);
            return seen.Count - 1;
        }
    }
}
