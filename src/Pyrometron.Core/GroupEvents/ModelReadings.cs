using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.GroupEvents;

/// <summary>
/// Finds the day from which all machines of a model read otherwise, every part by the same kelvins and wherever they stand: their
/// firmware reports otherwise. Held against the other machines of each zone, so that a room is not taken for it.
/// </summary>
internal sealed class ModelReadings
{
    /// <summary>Members and others that are needed to tell.</summary>
    private const int LeastMembers = 4,
        LeastOthers = 3;

    /// <summary>Smaller steps are left to each machine, K.</summary>
    private const double LeastKelvin = 1.5;

    /// <summary>How sure the step must be, standard uncertainties: some seventy days of every model are looked at.</summary>
    private const double LeastSigmas = 5;

    /// <summary>Most such events looked for in one model.</summary>
    private const int MostEvents = 2;

    private readonly ILookup<string, StepsAround> _byModel,
        _byZone;
    private readonly List<GroupEvent> _found = [];

    private ModelReadings(IReadOnlyList<StepsAround> machines) =>
        (_byModel, _byZone) = (machines.ToLookup(m => m.Model), machines.ToLookup(m => m.Zone));

    /// <summary>The events of all models, the surest first. O(machines × models of their zones × bins).</summary>
    /// <param name="machines">Before their first fit.</param>
    public static IReadOnlyList<GroupEvent> Find(IEnumerable<WearModel> machines, int threads, CancellationToken cancellation)
    {
        StepsAround[] steps =
        [
            .. machines
                .AsParallel()
                .AsOrdered()
                .WithDegreeOfParallelism(threads)
                .WithCancellation(cancellation)
                .Select(m => new StepsAround(m)),
        ];
        var search = new ModelReadings(steps);
        search.FindAll();
        return search._found;
    }

    private void FindAll()
    {
        var candidates = _byModel
            .Where(m => m.Count() >= LeastMembers)
            .SelectMany(m => m.SelectMany(s => s.Bins).Distinct().Select(bin => At(bin, m.Key)))
            .OfType<GroupEvent>()
            .OrderByDescending(e => Math.Abs(e.Kelvin) / e.SigmaKelvin)
            .ToArray();
        foreach (var candidate in candidates)
            if (
                _found.Count(e => e.Group == candidate.Group) < MostEvents
                && !_found.Any(e => e.Group == candidate.Group && IsNear(e, candidate.Day))
                // What a surer event of another model made of this one's neighbours is not an event of its own.
                && (_found.Count == 0 ? candidate : At(Cell.BinOf(candidate.Day), candidate.Group)) is { } still
            )
                _found.Add(still with { Day = DayOf(still) });
    }

    /// <summary>Medians see it alike from some days to either side: it is where the nearest cells differ most.</summary>
    private double DayOf(GroupEvent e) =>
        Enumerable
            .Range(-4, 9)
            .Select(bins => e.Day + bins * Cell.Days)
            .MaxBy(day =>
                _byModel[e.Group]
                    .Select(m => m.At(day, StepsAround.LeastCells)?.Kelvin)
                    .OfType<double>()
                    .Select(kelvin => kelvin * Math.Sign(e.Kelvin))
                    .DefaultIfEmpty(0)
                    .Average()
            );

    private static bool IsNear(GroupEvent e, double day) => Math.Abs(e.Day - day) < StepsAround.WindowDays;

    private GroupEvent? At(int bin, string model)
    {
        var shown = new List<(string Tag, double Raw, double Kelvin, double Variance)>();
        foreach (var zone in _byModel[model].GroupBy(m => m.Zone))
        {
            var members = zone.Select(m => (m.Tag, Step: m.At(bin))).Where(m => m.Step is not null).ToArray();
            if (members.Length > 0 && RoomOf(zone.Key, bin, model) is { } room)
                shown.AddRange(
                    members.Select(m =>
                        (m.Tag, m.Step!.Value.Kelvin, m.Step.Value.Kelvin - room.Kelvin, m.Step.Value.Variance + room.Variance)
                    )
                );
        }
        if (shown.Count < LeastMembers)
            return null;
        double[] kelvins = [.. shown.Select(s => s.Kelvin)];
        var size = Robust.Median(kelvins);
        if (Math.Abs(size) < LeastKelvin)
            return null;
        var spread = Math.Max(Robust.MadScale(kelvins), Math.Sqrt(shown.Average(s => s.Variance)));
        var sigma = spread * Math.Sqrt(Math.PI / 2 / kelvins.Length);
        // Of two models that leave each other, it is the one that moved.
        var moved = Robust.Median([.. shown.Select(s => s.Raw)]) * Math.Sign(size) >= Math.Abs(size) / 2;
        return !moved || Math.Abs(size) < LeastSigmas * sigma
            ? null
            : new GroupEvent(
                GroupEventKind.Readings,
                model,
                bin * Cell.Days,
                size,
                sigma,
                spread,
                [.. shown.Where(s => Math.Abs(s.Kelvin - size) < 3 * spread).Select(s => s.Tag)]
            );
    }

    /// <summary>What the zone's other machines did: its room. Null with too few of them.</summary>
    private StepsAround.Step? RoomOf(string zone, int bin, string model)
    {
        var day = bin * Cell.Days;
        var others = _byZone[zone]
            .Where(m => m.Model != model && !_found.Any(e => e.Group == m.Model && IsNear(e, day)))
            .Select(m => m.At(bin))
            .OfType<StepsAround.Step>()
            .ToArray();
        return others.Length < LeastOthers
            ? null
            : new StepsAround.Step(
                Robust.Median([.. others.Select(s => s.Kelvin)]),
                Math.PI / 2 * others.Average(s => s.Variance) / others.Length
            );
    }
}
