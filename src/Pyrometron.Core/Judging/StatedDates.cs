using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;

namespace Pyrometron.Core.Judging;

/// <summary>
/// Whether the dates at which machines were said to reach their action line have held: what a judgement of an earlier day said,
/// against where the machines are now. Machines that were worked on meanwhile tell nothing and are left out; so what is left are
/// those that nobody hurried to.
/// </summary>
/// <param name="Then">The day of the earlier judgement.</param>
/// <param name="Now">The day that it is held against.</param>
/// <param name="Dated">Machines that had a date then, and had not reached their line.</param>
/// <param name="Served">Those of them that were worked on, or are not judged any more.</param>
/// <param name="Expected">How many of the others were to have passed their line by now, by what was stated.</param>
/// <param name="Passed">How many have.</param>
/// <param name="Groups">By the chance, as stated then, of having passed it by now.</param>
/// <param name="Brier"><see cref="ChanceGroup.Brier"/>.</param>
public sealed record StatedDates(
    DateOnly Then,
    DateOnly Now,
    int Dated,
    int Served,
    double Expected,
    int Passed,
    IReadOnlyList<ChanceGroup> Groups,
    double? Brier
)
{
    /// <summary>Holds an earlier judgement against a later one.</summary>
    public static StatedDates Of(FleetJudgement then, FleetJudgement now)
    {
        var dated = then.Queue.Where(a => a.Action is { } date && date.Day > then.AsOf).ToList();
        var told = new List<(double Stated, bool CameTrue)>();
        foreach (var before in dated)
            if (now.ByTag.TryGetValue(before.Asset.Tag, out var after) && !ServedSince(after, then.AsOf))
                told.Add((before.Action!.Value.ChanceBy(now.AsOf), after.Action is { } date && date.Day <= now.AsOf));
        return new StatedDates(
            then.AsOf,
            now.AsOf,
            dated.Count,
            dated.Count - told.Count,
            told.Sum(t => t.Stated),
            told.Count(t => t.CameTrue),
            ChanceGroup.Of(told),
            ChanceGroup.Brier(told)
        );
    }

    private static bool ServedSince(Assessment a, DateOnly day) =>
        a.Asset.Services.Any(s => s.Date > day && s.Level != ServiceLevel.Inspect);
}
