using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>A run worth making before, or beside, any work.</summary>
/// <param name="What">What to do, and what to write down.</param>
/// <param name="Minutes">How long it takes.</param>
/// <param name="Why">What it would tell.</param>
public sealed record RunToMake(Message What, int Minutes, Message Why);

/// <summary>
/// Where machines were never measured: the one of each model whose run would tell most, and the one of each zone that no model
/// has picked. That is the longest overdue, by the length of its interval: it is the likeliest to be worn, so its run changes
/// most. Where none is due, the one served last: its fresh state can be seen only now.
/// </summary>
internal sealed class TellingRuns
{
    /// <summary>A run so long after a service still shows the fresh state, days.</summary>
    private const int FreshDays = 60;

    private readonly Dictionary<string, RunToMake> _byTag;

    private TellingRuns(Dictionary<string, RunToMake> byTag) => _byTag = byTag;

    /// <summary>Picks the machines of a fleet.</summary>
    public static TellingRuns Of(IEnumerable<Assessment> fleet)
    {
        var candidates = fleet
            .Where(a =>
                a.Readings + a.Runs == 0 && a.Symptoms.Count == 0 && a.Asset.NewBaseline is null && a.Reason != Reasons.Failed
            )
            .ToArray();
        var picked = new Dictionary<string, RunToMake>();
        foreach (var model in candidates.GroupBy(a => (a.Asset.Kind, a.Asset.Build)).Where(g => g.Count() > 1))
            Pick(model.ToArray(), model.First().Asset.Model, picked);
        foreach (var zone in candidates.GroupBy(a => a.Zone.Code).Where(z => !z.Any(a => picked.ContainsKey(a.Asset.Tag))))
            Pick(zone.ToArray(), zone.First().Zone.Name, picked);
        return new TellingRuns(picked);
    }

    /// <summary>The assessment, with the run to make where this machine was picked.</summary>
    public Assessment Attach(Assessment a) => _byTag.TryGetValue(a.Asset.Tag, out var run) ? a with { Measure = run } : a;

    private static void Pick(Assessment[] alike, string name, Dictionary<string, RunToMake> picked)
    {
        var overdue = alike
            .Where(a => a.ServiceDue is { } due && due.IsDue(a.AsOf))
            .MaxBy(a => a.ServiceDue!.Value.OverdueShare(a.AsOf));
        var fresh = alike
            .Where(a => LastOpened(a) is { } last && a.AsOf.DayNumber - last.Date.DayNumber <= FreshDays)
            .MaxBy(a => LastOpened(a)!.Day);
        if ((overdue ?? fresh) is { } best)
            picked[best.Asset.Tag] = new RunToMake(
                "A loaded run of 20 minutes, with the air temperature written down.",
                BenchCosts.TestMinutes / 2,
                best == overdue ? Overdue(best, alike.Length, name) : Fresh(LastOpened(best)!)
            );
    }

    private static ServiceDone? LastOpened(Assessment a) => a.Asset.Services.LastOrDefault(s => ServiceEffects.Opens(s.Level));

    private static Message Overdue(Assessment a, int unmeasured, string name)
    {
        var tells = Message.Of(
            "Its run tells how far it is from its limits, and one after its {level} what that won.",
            Value.Word("level", a.ServiceDue!.Value.Level)
        );
        return unmeasured > 1
            ? Message.Join(
                Message.Of(
                    "The longest overdue of {unmeasured} never measured ({name}).",
                    Value.Counted("unmeasured", unmeasured, "machine"),
                    Value.Text("name", name)
                ),
                tells
            )!
            : tells;
    }

    private static Message Fresh(ServiceDone last) =>
        Message.Of(
            "Its {level} was on {day}: a run now keeps its fresh state, and later ones are compared with it.",
            Value.Word("level", last.Level),
            Value.Day("day", last.Date)
        );
}
