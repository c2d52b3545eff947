using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Weeks;
using Pyrometron.Core.Worth;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Judging;

/// <summary>When the advised work is done.</summary>
public enum WhenDone
{
    Now,

    /// <summary>On the first day on which the zone's machines may be down.</summary>
    Window,

    /// <summary>On the days of the plan.</summary>
    Plan,

    /// <summary>In 30 days.</summary>
    Month,

    /// <summary>Not at all; looked at a year from now.</summary>
    Never,
}

/// <summary>What doing the advised work at some time means.</summary>
/// <param name="Day">The day up to which it is looked; null where each machine has another.</param>
/// <param name="Machines">How many machines it is asked of; fewer than all where only some are planned.</param>
/// <param name="MoreKelvin">What is gathered beyond today by then, K, in the mean of the machines.</param>
/// <param name="PastLine">How many are past their action line by then, as expected: of one machine, the chance.</param>
/// <param name="Value">What the work is worth then.</param>
/// <param name="Costs">What it is worth less than done now; negative where waiting is worth more.</param>
public sealed record WaitingOption(
    WhenDone When,
    DateOnly? Day,
    int Machines,
    double MoreKelvin,
    double PastLine,
    ValueAnswer Value,
    double Costs
);

/// <summary>What waiting with the advised work means, of a machine or of a zone.</summary>
/// <param name="Machines">Those on which work is advised and something was measured; 0 where there are none.</param>
/// <param name="Minutes">At the bench, of all of them.</param>
/// <param name="Years">In which the work has to pay.</param>
/// <param name="Options">Now first, never last; empty without machines.</param>
public sealed record WaitingAnswer(int Machines, int Minutes, string Currency, int Years, IReadOnlyList<WaitingOption> Options);

/// <summary>What it means to do advised work now, at the next window, as planned, in a month, or never.</summary>
internal static class WaitingEndpoints
{
    private const int MonthDays = 30,
        WindowDays = 60;

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);

    public static void MapWaiting(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Queue");
        group.MapGet("/assets/{tag}/waiting", OfMachineAsync);
        group.MapGet("/zones/{code}/waiting", OfZoneAsync);
    }

    /// <summary>What waiting with the work advised for a machine means.</summary>
    internal static async Task<Results<Ok<WaitingAnswer>, ProblemHttpResult>> OfMachineAsync(
        string tag,
        FleetStore fleet,
        JudgementService service,
        ZoneTimesStore times,
        PlanStore plans,
        CancellationToken cancellation
    )
    {
        if (fleet.Find(tag) is null)
            return Problems.Missing($"There is no machine '{tag}'.");
        return TypedResults.Ok(await AnswerAsync(a => a.Asset.Tag == tag, service, times, plans, cancellation));
    }

    /// <summary>The same of all machines of a zone for which work is advised by now, next or soon.</summary>
    internal static async Task<Results<Ok<WaitingAnswer>, ProblemHttpResult>> OfZoneAsync(
        string code,
        FleetStore fleet,
        JudgementService service,
        ZoneTimesStore times,
        PlanStore plans,
        SetAsideStore setAside,
        CancellationToken cancellation
    )
    {
        if (!Places.Of(fleet.Sites()).HasZone(code))
            return Problems.Missing($"There is no zone '{code}'.");
        var aside = setAside.On(service.Today()).Keys.ToHashSet();
        bool IsAsked(Assessment a) =>
            a.Asset.Zone == code && a.Urgency is Urgency.Now or Urgency.Next or Urgency.Soon && !aside.Contains(a.Asset.Tag);
        return TypedResults.Ok(await AnswerAsync(IsAsked, service, times, plans, cancellation));
    }

    private static async Task<WaitingAnswer> AnswerAsync(
        Func<Assessment, bool> isAsked,
        JudgementService service,
        ZoneTimesStore times,
        PlanStore plans,
        CancellationToken cancellation
    )
    {
        var judged = (await service.GetAsync(null, Patience, cancellation)).Judgement;
        var now = (judged?.Queue ?? [])
            .Where(isAsked)
            .Select(a => (Machine: a, Done: Waiting.Of(a, 0)!))
            .Where(m => m.Done is not null);
        var machines = now.ToList();
        var values = judged?.Policy.Values;
        if (machines.Count == 0)
            return new WaitingAnswer(0, 0, values?.Currency ?? "", values?.PayBackYears ?? 0, []);
        var today = service.Today();
        var zone = machines[0].Machine.Asset.Zone;
        var window = (times.All().FirstOrDefault(z => z.Zone == zone) ?? ZoneTimes.Usual(zone)).NextOpen(today, WindowDays);
        var planned = (plans.Newest()?.Placed ?? [])
            // An after-run or a second look is planned too, and wins nothing.
            .SelectMany(p =>
                p.Work.Steps.Where(s => s.Level is not null).Select(s => (s.Tag, Day: DateOnly.FromDateTime(p.Start.UtcDateTime)))
            )
            .Where(p => p.Day > today)
            .DistinctBy(p => p.Tag)
            .ToDictionary(p => p.Tag, p => p.Day);
        WaitingOption? Option(WhenDone when, Func<Assessment, DateOnly?> dayOf)
        {
            var of = machines
                .Select(m => (m.Done, Day: dayOf(m.Machine), m.Machine))
                .Where(m => m.Day is not null)
                .Select(m =>
                    (
                        Now: m.Done,
                        m.Day,
                        Then: when == WhenDone.Never
                            ? Waiting.Never(m.Machine)!
                            : Waiting.Of(m.Machine, m.Day!.Value.DayNumber - today.DayNumber)!
                    )
                )
                .ToList();
            if (of.Count == 0)
                return null;
            var (value, atOnce) = (Sum(of.Select(w => w.Then)), Sum(of.Select(w => w.Now)));
            return new WaitingOption(
                when,
                of.All(w => w.Day == of[0].Day) ? of[0].Day : null,
                of.Count,
                Math.Round(of.Average(w => w.Then.MoreKelvin), 2),
                Math.Round(of.Sum(w => w.Then.ChancePastLine), 3),
                ValueAnswer.From(value),
                Math.Round(atOnce.Net - value.Net, 2)
            );
        }
        return new WaitingAnswer(
            machines.Count,
            machines.Sum(m => m.Machine.Minutes ?? 0),
            values!.Currency,
            values.PayBackYears,
            [
                .. new[]
                {
                    Option(WhenDone.Now, _ => today),
                    window > today ? Option(WhenDone.Window, _ => window) : null,
                    Option(WhenDone.Plan, a => planned.TryGetValue(a.Asset.Tag, out var day) ? day : null),
                    Option(WhenDone.Month, _ => today.AddDays(MonthDays)),
                    Option(WhenDone.Never, _ => today.AddDays(Waiting.YearDays)),
                }.OfType<WaitingOption>(),
            ]
        );
    }

    private static LevelValue Sum(IEnumerable<Waiting> waits) => waits.Aggregate(LevelValue.Nothing, (sum, w) => sum + w.Value);
}
