using Pyrometron.Core.Fleet;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.LearntIntervals;

/// <summary>A better interval than the rules', from what some machines have gathered.</summary>
/// <param name="Scope">
/// A zone for dust, since it is in the air, or a kind in it where it holds several; a model for paste, since that is in the
/// machine.
/// </param>
/// <param name="Key">That of the rule: code of the zone, zone and kind, or name of the model.</param>
/// <param name="Machines">Measured machines that it rests on.</param>
/// <param name="Jobs">Proven jobs that it rests on besides.</param>
/// <param name="KelvinPerMonth">What the machines gather in the mean.</param>
/// <param name="SigmaKelvinPerMonth">Its standard uncertainty.</param>
/// <param name="MuchKelvin">What is worth opening one for at once, by their rules.</param>
/// <param name="PresentMonths">The interval by the rules, the middle machine's.</param>
/// <param name="Months">
/// The time in which so much gathers where that is shorter than the present interval; where it is longer, its lower end, at most
/// twice the present interval.
/// </param>
/// <param name="LowMonths">The lower end of that time (k = 2).</param>
/// <param name="HighMonths">The upper end; null where it may never gather.</param>
/// <param name="RuleMonths">What a rule has to say so that surroundings make this of it.</param>
public sealed record LearntInterval(
    RuleScope Scope,
    string Key,
    ServiceLevel Level,
    int Machines,
    int Jobs,
    double KelvinPerMonth,
    double SigmaKelvinPerMonth,
    double MuchKelvin,
    double PresentMonths,
    double Months,
    double LowMonths,
    double? HighMonths,
    double RuleMonths
)
{
    /// <summary>Fewer machines and jobs than this teach nothing.</summary>
    private const int LeastEvidence = 5;

    /// <summary>A zone is of one kind where this share of its machines is.</summary>
    private const double OneKindShare = 0.8;

    /// <summary>
    /// What all machines' paces have in common and no number of machines takes out: the scale that wear is brought to (relative),
    /// and what of a slow change of all of them is the room's (K over the time measured). Chosen on invented halls.
    /// </summary>
    private const double ScaleShare = 0.12,
        RoomKelvin = 1;

    /// <summary>A difference below this share is not worth a rule.</summary>
    private const double LeastShare = 0.15;

    /// <summary>No interval is stretched beyond so many times what the rules have: evidence moves single dates as far.</summary>
    private const double MostStretch = 2;

    /// <summary>
    /// All intervals that the record contradicts: those whose present length lies outside of what the pace of wear allows.
    /// </summary>
    /// <param name="sites">Where zones stand.</param>
    /// <param name="jobs">Finished jobs.</param>
    public static IReadOnlyList<LearntInterval> Of(
        FleetJudgement judgement,
        IReadOnlyList<Site> sites,
        IReadOnlyList<FinishedJob> jobs
    )
    {
        var siteOf = sites.SelectMany(s => s.Zones, (site, zone) => (zone.Code, site)).ToDictionary(z => z.Code, z => z.site);
        var byTag = jobs.ToLookup(j => j.Tag);
        var found = new List<LearntInterval?>();
        foreach (var zone in judgement.Queue.GroupBy(a => a.Asset.Zone))
        {
            var kinds = zone.GroupBy(a => a.Asset.Kind).OrderByDescending(g => g.Count()).ToList();
            if (kinds[0].Count() >= OneKindShare * zone.Count())
                found.Add(Learn(RuleScope.Zone, zone.Key, ServiceLevel.DustOut, [.. kinds[0]], siteOf, byTag));
            else
                found.AddRange(
                    kinds.Select(kind =>
                        Learn(
                            RuleScope.ZoneKind,
                            LocalRule.ZoneKind(zone.Key, kind.Key),
                            ServiceLevel.DustOut,
                            [.. kind],
                            siteOf,
                            byTag
                        )
                    )
                );
        }
        foreach (var model in judgement.Queue.GroupBy(a => a.Asset.Model))
            found.Add(Learn(RuleScope.Model, model.Key, ServiceLevel.Repaste, [.. model], siteOf, byTag));
        return [.. found.OfType<LearntInterval>().OrderBy(f => f.Months / f.PresentMonths)];
    }

    private static LearntInterval? Learn(
        RuleScope scope,
        string key,
        ServiceLevel level,
        Assessment[] machines,
        Dictionary<string, Site> siteOf,
        ILookup<string, FinishedJob> jobs
    )
    {
        var paces = machines.Select(a => PaceOf(a, level)).OfType<Pace>().ToList();
        var proven = machines
            .SelectMany(a => jobs[a.Asset.Tag].Select(j => PaceOf(a.Asset, j, level)).OfType<NormalMean>())
            .ToList();
        var intervals = machines
            .Select(a =>
                new ServiceIntervals(a.Asset, siteOf[a.Asset.Zone], a.Zone, a.Policy).All().FirstOrDefault(i => i.Level == level)
            )
            .OfType<Interval>()
            .ToArray();
        if (paces.Count + proven.Count < LeastEvidence || paces.Count == 0 || intervals.Length == 0)
            return null;
        var pooled = RandomEffects.Of([.. paces.Select(p => p.KelvinPerMonth), .. proven]);
        var much = Robust.Median([.. machines.Select(a => a.Policy.MuchKelvin)]);
        var present = Robust.Median([.. intervals.Select(i => i.Months)]);
        var surroundings = Robust.Median([.. intervals.Select(i => i.Months / i.BaseMonths)]);
        var sigma = Math.Sqrt(
            pooled.Sigma * pooled.Sigma
                + Math.Pow(ScaleShare * pooled.Mean, 2)
                + Math.Pow(RoomKelvin / Robust.Median([.. paces.Select(p => p.Months)]), 2)
        );
        var (fast, slow) = (pooled.Mean + 2 * sigma, pooled.Mean - 2 * sigma);
        if (fast <= 0)
            return null;
        var low = much / fast;
        double? high = slow > 0 ? much / slow : null;
        if (present >= low && (high is null || present <= high))
            return null;
        // Shorter by what is likeliest; longer only as far as is sure.
        var longest = intervals.Min(i => i.LongestMonths) ?? double.PositiveInfinity;
        var months = present > low ? much / pooled.Mean : Math.Min(Math.Min(low, MostStretch * present), longest);
        if (Math.Abs(months - present) < LeastShare * present)
            return null;
        return new LearntInterval(
            scope,
            key,
            level,
            paces.Count,
            proven.Count,
            pooled.Mean,
            sigma,
            much,
            present,
            months,
            low,
            high,
            Math.Max(0.5, Math.Round(2 * months / surroundings) / 2)
        );
    }

    private readonly record struct Pace(NormalMean KelvinPerMonth, double Months);

    /// <summary>What a machine gathers a month by its readings, on the part that gathers most.</summary>
    private static Pace? PaceOf(Assessment a, ServiceLevel level)
    {
        Pace? most = null;
        foreach (var part in a.Parts)
        {
            var pace =
                level == ServiceLevel.DustOut ? part.DustPace
                : part.Part.Joint == JointMaterial.Paste ? part.JointPace
                : null;
            if (pace is not { } known || known.KelvinPerDay * Interval.DaysAMonth <= most?.KelvinPerMonth.Mean)
                continue;
            var months = known.Days / Interval.DaysAMonth;
            most = new Pace(new NormalMean(known.KelvinPerDay * Interval.DaysAMonth, part.SigmaKelvin / months), months);
        }
        return most;
    }

    /// <summary>
    /// What a machine had gathered a month before a job, by what its proof says was won: of jobs that took this away and little
    /// else.
    /// </summary>
    private static NormalMean? PaceOf(Asset asset, FinishedJob job, ServiceLevel level)
    {
        var cause = level == ServiceLevel.DustOut ? Cause.Dust : Cause.Paste;
        if (job.Level != level || !WorkWon.IsCompared(job) || (level == ServiceLevel.Repaste && job.Predicted != cause))
            return null;
        var since = asset.RenewedOn(cause, job.Done.AddDays(-1));
        var months = (job.Done.DayNumber - since.DayNumber) / Interval.DaysAMonth;
        return months < 2 ? null : new NormalMean(job.WonKelvin / months, Math.Max(0.5, job.ExpandedKelvin / 2) / months);
    }
}
