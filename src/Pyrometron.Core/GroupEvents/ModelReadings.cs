using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.GroupEvents;

/// <summary>
/// Finds the day from which all machines of a model read otherwise, every part by the same kelvins and wherever they stand: their
/// firmware reports otherwise. Held against the other machines of each zone, so that a room is not taken for it.
/// </summary>
internal static class ModelReadings
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

    /// <summary>The events of all models, the surest first.</summary>
    public static List<GroupEvent> Find(IEnumerable<WearModel> machines)
    {
        StepsAround[] all = [.. machines.Select(m => new StepsAround(m))];
        var events = new List<GroupEvent>();
        var candidates = new List<GroupEvent>();
        foreach (var model in all.GroupBy(s => s.Model.Asset.Model))
            candidates.AddRange(Days([.. model]).Select(day => At(day, model.Key, all, events)).OfType<GroupEvent>());
        foreach (var candidate in candidates.OrderByDescending(e => Math.Abs(e.Kelvin) / e.SigmaKelvin))
            if (
                events.Count(e => e.Group == candidate.Group) < MostEvents
                && !events.Any(e => e.Group == candidate.Group && IsNear(e, candidate.Day))
                // What a surer event of another model made of this one's neighbours is not an event of its own.
                && (events.Count == 0 ? candidate : At(candidate.Day, candidate.Group, all, events)) is { } still
            )
                events.Add(still with { Day = DayOf(still, [.. all.Where(s => s.Model.Asset.Model == still.Group)]) });
        return events;
    }

    /// <summary>Medians see it alike from some days to either side: it is where the nearest cells differ most.</summary>
    private static double DayOf(GroupEvent found, StepsAround[] members) =>
        Enumerable
            .Range(-4, 9)
            .Select(bins => found.Day + bins * Cell.Days)
            .MaxBy(day =>
                members
                    .Select(m => OfMachine(m.At(day, StepsAround.LeastCells))?.Kelvin)
                    .OfType<double>()
                    .Select(kelvin => kelvin * Math.Sign(found.Kelvin))
                    .DefaultIfEmpty(0)
                    .Average()
            );

    private static bool IsNear(GroupEvent e, double day) => Math.Abs(e.Day - day) < StepsAround.WindowDays;

    private static IEnumerable<double> Days(StepsAround[] members) =>
        members.Length < LeastMembers
            ? []
            : members.SelectMany(m => m.Model.Bins).Distinct().Order().Skip(2).SkipLast(2).Select(b => b * Cell.Days);

    private static GroupEvent? At(double day, string model, StepsAround[] all, List<GroupEvent> known)
    {
        var others = all.Where(s =>
                s.Model.Asset.Model != model && !known.Any(e => e.Group == s.Model.Asset.Model && IsNear(e, day))
            )
            .ToLookup(s => s.Model.Asset.Zone);
        var rooms = new Dictionary<string, (double Kelvin, double Variance)?>();
        (double Kelvin, double Variance)? RoomOf(string zone)
        {
            if (rooms.TryGetValue(zone, out var room))
                return room;
            var steps = others[zone].Select(o => OfMachine(o.At(day))).OfType<(double Kelvin, double Variance)>().ToArray();
            return rooms[zone] =
                steps.Length >= LeastOthers
                    ? (
                        Robust.Median([.. steps.Select(s => s.Kelvin)]),
                        Math.PI / 2 * steps.Average(s => s.Variance) / steps.Length
                    )
                    : null;
        }
        var shown = new List<(string Tag, double Raw, double Kelvin, double Variance)>();
        foreach (var member in all.Where(s => s.Model.Asset.Model == model))
            if (OfMachine(member.At(day)) is { } step && RoomOf(member.Model.Asset.Zone) is { } room)
                shown.Add((member.Model.Asset.Tag, step.Kelvin, step.Kelvin - room.Kelvin, step.Variance + room.Variance));
        if (shown.Count < LeastMembers)
            return null;
        double[] kelvins = [.. shown.Select(s => s.Kelvin)];
        var size = Robust.Median(kelvins);
        var spread = Math.Max(Robust.MadScale(kelvins), Math.Sqrt(shown.Average(s => s.Variance)));
        var sigma = spread * Math.Sqrt(Math.PI / 2 / kelvins.Length);
        // Of two models that leave each other, it is the one that moved.
        var moved = Robust.Median([.. shown.Select(s => s.Raw)]) * Math.Sign(size) >= Math.Abs(size) / 2;
        return !moved || Math.Abs(size) < LeastKelvin || Math.Abs(size) < LeastSigmas * sigma
            ? null
            : new GroupEvent(
                GroupEventKind.Readings,
                model,
                day,
                size,
                sigma,
                spread,
                [.. shown.Where(s => Math.Abs(s.Kelvin - size) < 3 * spread).Select(s => s.Tag)]
            );
    }

    /// <summary>
    /// The step that a machine shows as a whole: the median over parts and loads; null where nothing was measured.
    /// </summary>
    private static (double Kelvin, double Variance)? OfMachine(List<StepsAround.Step> steps) =>
        steps.Count == 0 ? null : (Robust.Median([.. steps.Select(s => s.Kelvin)]), steps.Min(s => s.Variance));
}
