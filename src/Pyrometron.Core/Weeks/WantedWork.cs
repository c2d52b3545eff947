using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Weeks;

/// <summary>A machine that must wait: parts that are not there yet.</summary>
/// <param name="Until">The first day on which it may be worked on.</param>
public sealed record Hold(string Tag, DateOnly Until, string Reason);

/// <summary>Finds in a judged fleet what a plan should hold.</summary>
public static class WantedWork
{
    /// <summary>
    /// What a day of lateness costs, by urgency. The ratios decide what gives way where hands are short: a machine that throttles
    /// or has failed goes before several that will reach their line.
    /// </summary>
    private const double NowWeight = 10,
        NextWeight = 4,
        SoonWeight = 1.5,
        FollowUpWeight = 2;

    /// <summary>
    /// Days from the judgement on by which work is due at the latest, whatever its date. Work that only its interval asks for is
    /// not late before <see cref="NextDays"/>: long overdue or not, a week more changes nothing that was measured.
    /// </summary>
    private const int NextDays = 14,
        SoonDays = 60;

    /// <summary>How long they take: to settle, and the run. Common practice, no source.</summary>
    private const int AfterRunMinutes = 25,
        SecondLookMinutes = 20;

    /// <summary>
    /// All work that the judgement advises, one job a machine; cards of one host in one. Where it is not known yet whether a
    /// machine needs work, the run that decides it.
    /// </summary>
    /// <param name="queue">The machines judged, without those that are set aside or at the bench.</param>
    /// <param name="holds">Machines that wait.</param>
    public static IEnumerable<Wanted> Advised(IEnumerable<Assessment> queue, IReadOnlyDictionary<string, Hold> holds) =>
        ByHost(queue.Select(a => Of(a, holds.GetValueOrDefault(a.Asset.Tag))).OfType<(string Host, Wanted Work)>());

    /// <summary>Work on cards of one host as one job: their host is down once. That of several campaigns stays apart.</summary>
    public static IEnumerable<Wanted> ByHost(IEnumerable<(string Host, Wanted Work)> works) =>
        works
            .GroupBy(w => (w.Host, w.Work.Zone, w.Work.NotBefore, w.Work.Campaign), w => w.Work)
            .Select(group => Together([.. group.OrderBy(w => w.Id, StringComparer.Ordinal)], group.Key.Host));

    /// <summary>
    /// The work of a campaign on a machine. None where the judgement advises something there that this would not do: that goes
    /// first. It is due as late as work that is advised for soon, where no day is set.
    /// </summary>
    /// <param name="a">The machine, judged.</param>
    /// <param name="name">What the campaign is called.</param>
    /// <param name="level">What it does.</param>
    public static Wanted? OfCampaign(Assessment a, string name, ServiceLevel level, DateOnly? dueBy, Hold? hold)
    {
        if (GoesFirst(a, level))
            return null;
        double? won = a.Parts.Count > 0 ? a.Parts.Max(p => p.Split.WonBy(level)) : null;
        var cause = ServiceEffects.RemovedShare(level, a.Cause) > 0 ? a.Cause : Cause.None;
        return new Wanted(
            a.Asset.Tag,
            WantedKind.Service,
            "",
            a.Asset.Zone,
            [new WantedStep(a.Asset.Tag, level, Math.Max(1, a.Policy.Times.Of(a.Asset, level).Minutes), cause, won)],
            SkillsOf(a, level),
            hold?.Until,
            hold?.Reason ?? "",
            dueBy ?? a.AsOf.AddDays(SoonDays),
            Math.Max(
                SoonWeight,
                a.Urgency switch
                {
                    Urgency.Now => NowWeight,
                    Urgency.Next => NextWeight,
                    _ => SoonWeight,
                }
            ),
            name,
            TakesTwo(a, level),
            DowntimeOf(a)
        );
    }

    /// <summary>Whether a service is advised on a machine that work of a level would not do.</summary>
    public static bool GoesFirst(Assessment a, ServiceLevel level) =>
        a is { Service: { } advised, Urgency: <= Urgency.Soon, Measure: null } && !ServiceEffects.Covers(level, advised);

    /// <summary>The after-run of a job whose work is done.</summary>
    /// <param name="job">Number of the job.</param>
    /// <param name="done">The day on which the work was done.</param>
    public static Wanted AfterRun(long job, Asset asset, DateOnly done) =>
        FollowUp($"after-run-{job}", WantedKind.AfterRun, asset, AfterRunMinutes, null, done.AddDays(7));

    /// <summary>The look a week after a cooler came off: pads settle and paste spreads under heat.</summary>
    /// <param name="job">Number of the job.</param>
    /// <param name="due">When it is due.</param>
    public static Wanted SecondLook(long job, Asset asset, DateOnly due) =>
        FollowUp($"second-look-{job}", WantedKind.SecondLook, asset, SecondLookMinutes, due, due.AddDays(7));

    private static Wanted FollowUp(
        FormattableString id,
        WantedKind kind,
        Asset asset,
        int minutes,
        DateOnly? from,
        DateOnly due
    ) =>
        new(
            FormattableString.Invariant(id),
            kind,
            "",
            asset.Zone,
            [new WantedStep(asset.Tag, null, minutes, Cause.None, null)],
            new HashSet<Skill>(),
            from,
            "",
            due,
            FollowUpWeight
        );

    private static (string Host, Wanted Work)? Of(Assessment a, Hold? hold)
    {
        if (a is { Measure: { } run, NeedsWorkProbability: not null, Urgency: Urgency.Soon })
            return (
                $"run-{a.Asset.Tag}",
                FollowUp($"run-{a.Asset.Tag}", WantedKind.DecidingRun, a.Asset, run.Minutes, null, a.AsOf.AddDays(NextDays)) with
                {
                    Downtime = DowntimeOf(a),
                }
            );
        if (a.Service is not { } level || a.Minutes is not { } minutes || a.Urgency > Urgency.Soon)
            return null;
        var waits = a.Warranty is { Wait: true } ? a.Warranty : null;
        var (from, why) =
            hold is not null && hold.Until > (waits?.OpenableFrom ?? DateOnly.MinValue) ? (hold.Until, hold.Reason)
            : waits is not null ? (waits.OpenableFrom, Wanted.Warranty)
            : ((DateOnly?)null, "");
        var dates = new DateOnly?[]
        {
            a.ByCalendar ? null : a.Action?.Day,
            a.ServiceDue is { } asked && asked.Level == level ? asked.Due : (DateOnly?)null,
        };
        var (weight, due) = a.Urgency switch
        {
            Urgency.Now => (NowWeight, a.AsOf),
            Urgency.Next => (NextWeight, Within(dates.Min(), a.AsOf, a.AsOf.AddDays(NextDays))),
            _ => (SoonWeight, Within(dates.Min(), a.AsOf.AddDays(NextDays), a.AsOf.AddDays(SoonDays))),
        };
        var kelvin = a.ByCalendar ? null : a.DriftKelvin;
        return (
            a.Asset.HostTag ?? a.Asset.Tag,
            new Wanted(
                a.Asset.Tag,
                WantedKind.Service,
                "",
                a.Asset.Zone,
                [new WantedStep(a.Asset.Tag, level, Math.Max(1, minutes), a.ByCalendar ? Cause.None : a.Cause, kelvin)],
                SkillsOf(a, level),
                from,
                why,
                due,
                weight,
                null,
                TakesTwo(a, level),
                DowntimeOf(a)
            )
        );
    }

    private static bool TakesTwo(Assessment a, ServiceLevel level) => a.Policy.HandsFor(level) > 1;

    private static HashSet<Skill> SkillsOf(Assessment a, ServiceLevel level) =>
        [.. Skills.Of(a.Asset.Kind, level), .. TakesTwo(a, level) ? [Skill.LiftWithTwo] : Array.Empty<Skill>()];

    private static DowntimeRules? DowntimeOf(Assessment a) =>
        a.Policy.Downtime == DowntimeRules.Default ? null : a.Policy.Downtime;

    private static DateOnly Within(DateOnly? day, DateOnly first, DateOnly last) =>
        day is not { } known || known > last ? last
        : known < first ? first
        : known;

    private static Wanted Together(IReadOnlyList<Wanted> works, string host) =>
        works.Count == 1
            ? works[0]
            : works[0] with
            {
                // Not the host's: what of it waits for parts is a job of its own.
                Title = host,
                Steps = [.. works.SelectMany(w => w.Steps)],
                Skills = works.SelectMany(w => w.Skills).ToHashSet(),
                DueBy = works.Min(w => w.DueBy),
                Weight = works.Sum(w => w.Weight),
                TakesTwo = works.Any(w => w.TakesTwo),
                Downtime = works.Select(w => w.Downtime).Aggregate((all, one) => one is null ? all : all?.And(one) ?? one),
            };
}
