using System.Globalization;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Bench.Scoring;

/// <summary>A trial fleet made harder, or a method made poorer: whether figures hold where nobody has looked.</summary>
internal sealed record Variation(
    string Name,
    Func<TrialFleet, TrialFleet> Change,
    Ablation Without = Ablation.None,
    Precedence Precedence = Precedence.Evidence
)
{
    public static IReadOnlyList<Variation> All { get; } =
    [
        new("as it is", fleet => fleet),
        new("every second machine", fleet => Machines(fleet, i => i % 2 == 0)),
        new("the other half", fleet => Machines(fleet, i => i % 2 == 1)),
        new("every third reading", fleet => Each(fleet, (readings, _) => readings.Where((_, i) => i % 3 == 0))),
        new(
            "the last 200 days",
            fleet =>
                Each(
                    fleet,
                    (readings, _) => readings.Where(r => r.UnixMilliseconds > readings[^1].UnixMilliseconds - 200 * 86_400_000L)
                )
        ),
        new(
            "1 K of noise on every temperature",
            fleet =>
                Each(
                    fleet,
                    (readings, random) =>
                        readings.Select(r =>
                            r with
                            {
                                AmbientC = Noisy(r.AmbientC, random),
                                PartsC = [.. r.PartsC.Select(c => Noisy(c, random))],
                            }
                        )
                )
        ),
        new(
            "no fan speeds",
            fleet => Each(fleet, (readings, _) => readings.Select(r => r with { FanRpm = double.NaN, FanPct = double.NaN }))
        ),
        new("no power", fleet => Each(fleet, (readings, _) => readings.Select(r => r with { PowerW = double.NaN }))),
        new("no fan command", fleet => Each(fleet, (readings, _) => readings.Select(r => r with { FanPct = double.NaN }))),
        new(
            "all words for loads and settings changed",
            fleet =>
                Each(
                    fleet,
                    (readings, _) => readings.Select(r => r with { Settings = Other(r.Settings), Workload = Other(r.Workload) })
                )
        ),
        new(
            "clocks nine hours off",
            fleet =>
                Each(
                    fleet,
                    (readings, _) => readings.Select(r => r with { UnixMilliseconds = r.UnixMilliseconds + 9 * 3_600_000L })
                )
        ),
        new("without taking the room out", fleet => fleet, Ablation.Room),
        new("without fan correction", fleet => fleet, Ablation.Fan),
        new("without pooling of siblings", fleet => fleet, Ablation.Siblings),
        new("without looking for sensor jumps", fleet => fleet, Ablation.SensorSteps),
        new("the house puts value first", fleet => fleet, Precedence: Precedence.Value),
    ];

    private static TrialFleet Machines(TrialFleet fleet, Func<int, bool> taken)
    {
        var assets = fleet.Register.Assets.Where((_, i) => taken(i)).ToArray();
        var tags = assets.Select(a => a.Tag).ToHashSet();
        return fleet with
        {
            Register = fleet.Register with { Assets = assets },
            Truth = fleet.Truth.Where(t => tags.Contains(t.Key)).ToDictionary(),
        };
    }

    private static TrialFleet Each(TrialFleet fleet, Func<List<Reading>, Random, IEnumerable<Reading>> change) =>
        fleet with
        {
            Readings = fleet.Readings.ToDictionary(
                r => r.Key,
                r =>
                    r.Value.Count == 0
                        ? r.Value
                        : [.. change(r.Value, new Random(int.Parse(r.Key[^3..], CultureInfo.InvariantCulture)))]
            ),
        };

    private static double Noisy(double celsius, Random random) => celsius + random.Normal();

    private static string? Other(string? word) => word is null ? null : $"job {(word[^1] * 7) % 26}-{word.Length}";
}
