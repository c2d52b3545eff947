using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Bench.Scoring;

/// <summary>
/// What makes a fleet's data poor, on top of what an invented fleet has: one model that reports otherwise from a day on, one zone
/// that building work fouls, runs that scatter more, machines tested once in four weeks only, and sensors that jump by any size.
/// </summary>
internal sealed class RoughTroubles
{
    private readonly string _model,
        _zone;
    private readonly double _reportsFrom,
        _reportsKelvin,
        _foulsFrom,
        _foulsDays,
        _now;
    private readonly Dictionary<string, Trouble> _byTag;

    /// <param name="Monthly">Whether only every fourth of its runs is there.</param>
    /// <param name="Noise">Factor on its scatter.</param>
    /// <param name="Jump">A sensor that jumps besides: part, day and kelvins.</param>
    private sealed record Trouble(bool Monthly, double Noise, double DustKelvin, (int Part, double Day, double Kelvin)? Jump);

    private RoughTroubles(Asset[] assets, double now, Random random)
    {
        double Between(double low, double high) => low + (high - low) * random.NextDouble();
        _now = now;
        (_model, _zone) = (assets[random.Next(assets.Length)].Model, assets[random.Next(assets.Length)].Zone);
        (_reportsFrom, _reportsKelvin) = (now - Between(30, 200), Between(3, 8) * (random.NextDouble() < 0.7 ? 1 : -1));
        (_foulsFrom, _foulsDays) = (now - Between(60, 200), Between(30, 120));
        _byTag = assets.ToDictionary(
            a => a.Tag,
            a => new Trouble(
                IsWeekly(a) && random.NextDouble() < 0.15,
                Between(1, 1.6),
                Between(3, 12),
                random.NextDouble() < 0.06
                    ? (random.Next(a.Parts.Count), now - Between(15, 300), Between(5, 16) * (random.NextDouble() < 0.7 ? 1 : -1))
                    : null
            )
        );
    }

    /// <summary>The troubles of a fleet.</summary>
    public static RoughTroubles On(IEnumerable<Asset> assets, double now, Random random) => new([.. assets], now, random);

    /// <summary>A machine as its surroundings make it.</summary>
    public SimulatedMachine In(SimulatedMachine machine)
    {
        var (trouble, scatter) = (_byTag[machine.Asset.Tag], machine.Scatter);
        return machine with
        {
            Scatter = new Scatter(scatter.RunKelvin * trouble.Noise, scatter.LocalAirKelvin * trouble.Noise),
            Faults =
                machine.Asset.Zone == _zone
                    ?
                    [
                        .. machine.Faults,
                        new Fault(Cause.Dust, _foulsFrom, Math.Min(_now, _foulsFrom + _foulsDays), trouble.DustKelvin),
                    ]
                    : machine.Faults,
        };
    }

    /// <summary>A machine's readings as its sensors and its firmware tell them.</summary>
    public List<Reading> Told(Asset asset, List<Reading> readings)
    {
        var trouble = _byTag[asset.Tag];
        return
        [
            .. readings
                .Where((_, i) => !trouble.Monthly || i % 4 == 0)
                .Select(r =>
                {
                    var day = r.UnixMilliseconds / 86_400_000.0;
                    return r with
                    {
                        PartsC =
                        [
                            .. r.PartsC.Select(
                                (c, p) =>
                                    c
                                    + (asset.Model == _model && day >= _reportsFrom ? Math.Round(_reportsKelvin) : 0)
                                    + (
                                        trouble.Jump is { } jump && jump.Part == p && day >= jump.Day
                                            ? Math.Round(jump.Kelvin)
                                            : 0
                                    )
                            ),
                        ],
                    };
                }),
        ];
    }

    /// <summary>What may mislead about a machine.</summary>
    public IEnumerable<string> ConfoundsOf(Asset asset)
    {
        if (asset.Model == _model)
            yield return "model-recalibrated";
        if (asset.Zone == _zone)
            yield return "building-dust";
        if (_byTag[asset.Tag].Monthly)
            yield return "monthly";
        if (_byTag[asset.Tag].Jump is not null)
            yield return "sensor-offset";
    }

    private static bool IsWeekly(Asset asset) => asset.Kind is AssetKind.Laptop or AssetKind.Desktop;
}
