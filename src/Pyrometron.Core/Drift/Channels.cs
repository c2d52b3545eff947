using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>A channel that cannot be believed for a while.</summary>
/// <param name="Channel">A part's name, <c>ambient</c> or <c>fan</c>.</param>
/// <param name="What">What it did, in words.</param>
/// <param name="FromDay">Days since 1970 when it began.</param>
/// <param name="Readings">How many readings are left out.</param>
public sealed record SensorFinding(string Channel, Message What, double FromDay, int Readings)
{
    /// <summary>By how many kelvins it changed, where that alone says that it is the sensor; else null.</summary>
    public double? Implausible { get; init; }

    /// <summary>One part's sensor that left all others from one day to the next.</summary>
    public static SensorFinding Jumped(string part, double day) =>
        new(part, Message.Of("jumped from one day to the next, alone"), day, 0);

    /// <summary>One part's readings that changed by more within a week than wear does.</summary>
    public static SensorFinding TooMuch(string part, double day, double kelvin) =>
        new(
            part,
            Message.Of(
                "changed by {kelvin} within a week, with no service, settings or report to explain it",
                Value.SignedKelvin("kelvin", kelvin)
            ),
            day,
            0
        )
        {
            Implausible = kelvin,
        };
}

/// <summary>
/// The channels of one machine after what no heat could make has been dropped: values that stand still while the rest
/// moves, single spikes, temperatures below the air that cools them. Dropped values are NaN and told as findings.
/// </summary>
public sealed class Channels
{
    /// <summary>
    /// A value repeated this often while others move is a frozen sensor. Whole degrees repeat by chance, but not so long.
    /// </summary>
    private const int FrozenRun = 16;

    private const double SpikeSigmas = 6;

    /// <summary>
    /// A command, per cent, at which every fan turns; and readings that make a standing one more than a hiccup.
    /// </summary>
    private const double LeastCommand = 5,
        LeastStanding = 3;

    private Channels(ReadingSeries series, double[] ambient, double[][] parts, List<SensorFinding> findings) =>
        (Series, Ambient, Parts, Findings) = (series, ambient, parts, findings);

    /// <summary>The readings these were cleaned from.</summary>
    public ReadingSeries Series { get; }

    /// <summary>Intake air, °C, or NaN.</summary>
    public double[] Ambient { get; }

    /// <summary>°C by part and reading, or NaN.</summary>
    public double[][] Parts { get; }

    /// <summary>What was dropped.</summary>
    public List<SensorFinding> Findings { get; }

    /// <summary>Cleans one machine's channels. O(readings × parts).</summary>
    public static Channels Clean(Asset asset, ReadingSeries series)
    {
        var findings = new List<SensorFinding>();
        var ambient = (double[])series.Ambient.Clone();
        var parts = series.Parts.Select(p => (double[])p.Clone()).ToArray();
        for (var p = 0; p < parts.Length; p++)
        {
            DropFrozen(series, parts[p], asset.Parts[p].Name, findings);
            DropSpikes(series, parts[p], asset.Parts[p].Name, findings);
            DropColderThanAir(series, parts[p], ambient, asset.Parts[p].Name, findings);
        }
        AddStandingFan(series, findings);
        // A well-kept room is as steady as a frozen sensor: an intake is judged against the zone's others (ZoneAir) instead.
        return new Channels(series, ambient, parts, findings);
    }

    /// <summary>A fan that is asked to turn and does not: the readings stay, since they are true.</summary>
    private static void AddStandingFan(ReadingSeries series, List<SensorFinding> findings)
    {
        var standing = Enumerable
            .Range(0, series.Count)
            .Where(i => series.FanRpm[i] == 0 && series.FanPct[i] > LeastCommand)
            .ToArray();
        if (standing.Length >= LeastStanding)
            findings.Add(
                new SensorFinding(
                    "fan",
                    Message.Of("stands still although it is commanded to turn"),
                    series.Day[standing[0]],
                    standing.Length
                )
            );
    }

    private static void DropFrozen(ReadingSeries series, double[] channel, string name, List<SensorFinding> findings)
    {
        // Rare test runs: fewer repeats are telling, since load and air differ from run to run.
        var longest = NoiseModel.IsRare(series) ? FrozenRun / 2 : FrozenRun;
        for (var start = 0; start < channel.Length; )
        {
            var (end, seen) = (start + 1, 1);
            for (; end < channel.Length && (double.IsNaN(channel[end]) || channel[end] == channel[start]); end++)
                seen += double.IsNaN(channel[end]) ? 0 : 1;
            if (!double.IsNaN(channel[start]) && seen >= longest && OthersMove(series, channel, start, end))
            {
                findings.Add(
                    new SensorFinding(
                        name,
                        Message.Of("stands at {celsius} while load and air change", Value.Celsius("celsius", channel[start])),
                        series.Day[start],
                        seen
                    )
                );
                Array.Fill(channel, double.NaN, start, end - start);
            }
            start = end;
        }
    }

    /// <summary>Whether load, air or any other part moved by what should have moved this one too.</summary>
    private static bool OthersMove(ReadingSeries series, double[] channel, int start, int end)
    {
        bool Moves(double[] other, double least)
        {
            double low = double.PositiveInfinity,
                high = double.NegativeInfinity;
            for (var i = start; i < end; i++)
                if (!double.IsNaN(other[i]))
                    (low, high) = (Math.Min(low, other[i]), Math.Max(high, other[i]));
            return high - low >= least;
        }
        return Moves(series.Ambient, 2.5) || series.Parts.Any(p => !p.AsSpan().SequenceEqual(channel) && Moves(p, 5));
    }

    private static void DropSpikes(ReadingSeries series, double[] channel, string name, List<SensorFinding> findings)
    {
        var known = Enumerable.Range(0, channel.Length).Where(i => !double.IsNaN(channel[i])).ToArray();
        if (known.Length < 9)
            return;
        var steps = new double[known.Length - 1];
        for (var k = 1; k < known.Length; k++)
            steps[k - 1] = channel[known[k]] - channel[known[k - 1]];
        // Whole years repeat themselves: some hundred steps, evenly spread, tell how large a step is usual.
        var every = Math.Max(1, steps.Length / 300);
        var bound = Math.Max(8, SpikeSigmas * Robust.MadScale(steps.Where((_, k) => k % every == 0).ToArray()));
        Span<double> window = stackalloc double[7];
        var spikes = new List<int>();
        for (var k = 0; k < known.Length; k++)
        {
            // Looked at only where it leaves a neighbour: most readings of a year do not.
            if ((k == 0 || Math.Abs(steps[k - 1]) < bound / 2) && (k == steps.Length || Math.Abs(steps[k]) < bound / 2))
                continue;
            var n = 0;
            for (var j = Math.Max(0, k - 3); j <= Math.Min(known.Length - 1, k + 3); j++)
                // Idle windows between loaded ones are no spikes: compare within one workload.
                if (series.Workload[known[j]] == series.Workload[known[k]])
                    window[n++] = channel[known[j]];
            if (n >= 4 && Math.Abs(channel[known[k]] - Robust.MedianInPlace(window[..n])) > bound)
                spikes.Add(known[k]);
        }
        if (spikes.Count == 0)
            return;
        findings.Add(
            new SensorFinding(
                name,
                Message.Of("jumps by more than heat could, for single readings"),
                series.Day[spikes[0]],
                spikes.Count
            )
        );
        foreach (var i in spikes)
            channel[i] = double.NaN;
    }

    private static void DropColderThanAir(
        ReadingSeries series,
        double[] channel,
        double[] ambient,
        string name,
        List<SensorFinding> findings
    )
    {
        var (dropped, first) = (0, 0.0);
        for (var i = 0; i < channel.Length; i++)
            if (channel[i] < ambient[i] - 2 || channel[i] > 150)
            {
                first = dropped++ == 0 ? series.Day[i] : first;
                channel[i] = double.NaN;
            }
        if (dropped > 0)
            findings.Add(
                new SensorFinding(
                    name,
                    Message.Of("reads colder than the air, or hotter than the part could survive"),
                    first,
                    dropped
                )
            );
    }
}
