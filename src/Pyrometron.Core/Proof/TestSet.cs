using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Proof;

/// <summary>
/// The runs of a job as a set: several loads, fan modes and settings, each before and after. Like is paired with like; what is
/// left is paired where the calculation brings both to one operating point; what is left then lacks its partner and is named.
/// </summary>
public static class TestSet
{
    /// <summary>
    /// The usual repeatability counts as so many degrees of freedom beside a bench's own repeats: two runs alone tell a standard
    /// deviation badly. Common practice, no source.
    /// </summary>
    private const double PriorFreedom = 4;

    /// <summary>Judges all runs of a job.</summary>
    /// <param name="service">What was done in between; shapes the advice.</param>
    /// <param name="before">At least one.</param>
    /// <param name="after">At least one.</param>
    /// <param name="machine">What is known of the machine; nothing where left out.</param>
    public static Verdict Judge(
        ServiceLevel service,
        IReadOnlyList<Run> before,
        IReadOnlyList<Run> after,
        TestedMachine? machine = null
    )
    {
        var (first, second) = (RunGroup.Of(before), RunGroup.Of(after));
        var (repeatability, isOwn) = Repeatability([.. first, .. second]);
        var (pairs, missing) = PairUp(first, second, repeatability, MeantToDiffer.Of(service));
        var comparable = pairs.Where(p => p.Outcome != VerdictOutcome.NotComparable).ToArray();
        PartVerdict[] parts = comparable.Length switch
        {
            0 => [.. pairs[^1].Parts],
            1 => [.. comparable[0].Parts],
            _ => [.. comparable.SelectMany(p => p.Parts).GroupBy(p => p.Part).Select(Over)],
        };
        var outcome =
            comparable.Length == 0 ? VerdictOutcome.NotComparable
            : parts.Any(p => p.Outcome == VerdictOutcome.Worse) ? VerdictOutcome.Worse
            : parts.Any(p => p.Outcome == VerdictOutcome.Improved) && !pairs.Any(p => p.StillWrong) ? VerdictOutcome.Improved
            : VerdictOutcome.NoChange;
        var result = new SetResult(service, outcome, parts, pairs, missing, machine ?? TestedMachine.Unknown);
        return new Verdict(
            outcome,
            parts,
            [.. pairs.SelectMany(p => p.Reasons).DistinctBy(r => (r.Code, r.Says.ToString()))],
            [.. Advice.For(result)]
        )
        {
            Says = ResultWords.Of(result),
            AlsoBetter = [.. result.AlsoBetter],
            Pairs = pairs,
            RepeatabilityKelvin = isOwn ? repeatability : null,
            Remedies = Advice.Remedies(result),
        };
    }

    /// <summary>
    /// From run to run at this bench, K: pooled over all repeats, with the usual figure as <see cref="PriorFreedom"/> degrees of
    /// freedom (JCGM 100:2008, 4.2.4 and H.3.6: pooled estimates).
    /// </summary>
    /// <returns>It, and whether any repeat went into it.</returns>
    private static (double Kelvin, bool IsOwn) Repeatability(IReadOnlyList<RunGroup> groups)
    {
        var scatter = groups.Select(g => g.Scatter()).ToArray();
        var freedom = scatter.Sum(s => s.Freedom);
        var usual = RunUncertainty.RepeatabilityKelvin;
        return freedom == 0
            ? (usual, false)
            : (Math.Sqrt((PriorFreedom * usual * usual + scatter.Sum(s => s.Squares)) / (PriorFreedom + freedom)), true);
    }

    private static (IReadOnlyList<RunPair> Pairs, IReadOnlyList<Message> Missing) PairUp(
        IReadOnlyList<RunGroup> before,
        IReadOnlyList<RunGroup> after,
        double repeatability,
        MeantToDiffer meant
    )
    {
        RunPair Pair(RunGroup first, RunGroup second) => RunComparison.Pair(first, second, repeatability, meant);
        var pairs = new List<RunPair>();
        var (firsts, seconds) = (before.ToList(), after.ToList());
        foreach (var second in after)
            if (firsts.Find(f => f.Kind.Equals(second.Kind)) is { } first)
            {
                pairs.Add(Pair(first, second));
                firsts.Remove(first);
                seconds.Remove(second);
            }
        // Unlike ones: the pair that is surest first.
        while (Nearest(firsts, seconds, Pair) is var (first, second, pair))
        {
            pairs.Add(pair);
            firsts.Remove(first);
            seconds.Remove(second);
        }
        Message[] missing =
        [
            .. firsts.Select(f => Message.Of("The run before of {kind} has no partner: run it after the work too.", KindOf(f))),
            .. seconds.Select(s => Message.Of("The run after of {kind} has no partner among those before.", KindOf(s))),
        ];
        // Nothing fits: the newest two say why.
        return pairs.Count > 0
            ? (pairs, missing)
            : ([Pair(before[^1], after[^1])], before.Count + after.Count > 2 ? missing : []);
    }

    private static (RunGroup First, RunGroup Second, RunPair Pair)? Nearest(
        IEnumerable<RunGroup> firsts,
        IReadOnlyList<RunGroup> seconds,
        Func<RunGroup, RunGroup, RunPair> pair
    )
    {
        var possible = firsts
            .SelectMany(f => seconds.Select(s => (First: f, Second: s, Pair: pair(f, s))))
            .Where(c => c.Pair.Outcome != VerdictOutcome.NotComparable)
            .ToArray();
        return possible.Length == 0 ? null : possible.MinBy(c => c.Pair.Parts.Min(p => p.UncertaintyKelvin));
    }

    private static MessageValue KindOf(RunGroup group) => Value.List("kind", "", [KindWords(group.Runs[0])]);

    /// <summary>A run by its load, fan and settings.</summary>
    internal static Message KindWords(Run run) =>
        run.Fan switch
        {
            { Mode: FanMode.Auto } => Message.Of(
                "“{load}”, fan automatic, settings “{settings}”",
                Value.Text("load", run.Workload),
                Value.Text("settings", run.Settings)
            ),
            { Percent: { } percent } => Message.Of(
                "“{load}”, fan fixed at {percent}, settings “{settings}”",
                Value.Text("load", run.Workload),
                Value.Percent("percent", percent),
                Value.Text("settings", run.Settings)
            ),
            _ => Message.Of(
                "“{load}”, fan fixed, settings “{settings}”",
                Value.Text("load", run.Workload),
                Value.Text("settings", run.Settings)
            ),
        };

    /// <summary>
    /// One part over several pairs: their mean weighted by their certainty, its uncertainty widened where they differ by more
    /// than each allows (Birge ratio), and their range. What one load shows beyond its own uncertainty stands.
    /// </summary>
    private static PartVerdict Over(IGrouping<string, PartVerdict> pairs)
    {
        var known = pairs.Where(p => p.Outcome != VerdictOutcome.NotComparable).ToArray();
        if (known.Length < 2)
            return known.FirstOrDefault() ?? pairs.First();
        var weights = known.Select(p => 1 / (p.UncertaintyKelvin * p.UncertaintyKelvin)).ToArray();
        var sum = weights.Sum();
        var mean = known.Zip(weights, (p, w) => p.ChangeKelvin * w).Sum() / sum;
        // The weights are of expanded uncertainties: k² brings them back to standard ones.
        var chiSquare =
            RunComparison.Coverage
            * RunComparison.Coverage
            * known.Zip(weights, (p, w) => w * (p.ChangeKelvin - mean) * (p.ChangeKelvin - mean)).Sum();
        var uncertainty = Math.Max(1, Math.Sqrt(chiSquare / (known.Length - 1))) / Math.Sqrt(sum);
        var outcome =
            known.Any(p => p.Outcome == VerdictOutcome.Worse) || mean > uncertainty ? VerdictOutcome.Worse
            : known.Any(p => p.Outcome == VerdictOutcome.Improved) || mean < -uncertainty ? VerdictOutcome.Improved
            : VerdictOutcome.NoChange;
        return new PartVerdict(pairs.Key, outcome, mean, uncertainty, known.Average(p => p.RawChangeCelsius))
        {
            OverPairs = new KelvinRange(known.Min(p => p.ChangeKelvin), known.Max(p => p.ChangeKelvin)),
        };
    }
}

/// <summary>What a verdict knows of the machine beside its runs.</summary>
/// <param name="Limits">Of its parts, °C; where one is not known, figures of the trade stand in.</param>
/// <param name="Complaint">Whether its user complains of something: then it did need the work.</param>
public sealed record TestedMachine(AssetKind? Kind, IReadOnlyDictionary<string, double> Limits, bool Complaint = false)
{
    /// <summary>Nothing is known.</summary>
    public static TestedMachine Unknown { get; } = new(null, new Dictionary<string, double>());
}

/// <summary>What the runs of a job show, before it is put into words.</summary>
internal sealed record SetResult(
    ServiceLevel Service,
    VerdictOutcome Outcome,
    IReadOnlyList<PartVerdict> Parts,
    IReadOnlyList<RunPair> Pairs,
    IReadOnlyList<Message> Missing,
    TestedMachine Machine
)
{
    /// <summary>The hottest that a part read in any run after the work, °C.</summary>
    public IEnumerable<(string Part, double Celsius)> Hottest =>
        Pairs.SelectMany(p => p.After.Parts).GroupBy(p => p.Part).Select(g => (g.Key, g.Max(p => p.Celsius.Value)));

    /// <summary>When a run after the work failed first, minutes; null when all ran through.</summary>
    public double? Failed => Pairs.Min(p => p.After.FailedAfterMinutes);

    /// <summary>Whether a run after the work throttled.</summary>
    public bool Throttled => Pairs.Any(p => p.After.Throttled);

    /// <summary>Whether something was wrong before the work: it failed, throttled, or somebody complained.</summary>
    public bool WasWrong => Machine.Complaint || Pairs.Any(p => p.Before.Throttled || p.Before.FailedAfterMinutes is not null);

    /// <summary>What is better besides, in any pair that can be compared.</summary>
    public IEnumerable<AlsoBetter> AlsoBetter =>
        Pairs
            .Where(p => p.Outcome != VerdictOutcome.NotComparable)
            .SelectMany(p => p.AlsoBetter)
            .Distinct()
            .Where(b => !IsUndone(b));

    /// <summary>What one load shows cured and another still shows is not cured.</summary>
    private bool IsUndone(AlsoBetter better) =>
        better switch
        {
            Proof.AlsoBetter.NoLongerFailing => Failed is not null,
            Proof.AlsoBetter.NoLongerThrottling => Throttled,
            _ => false,
        };

    /// <summary>The change of a part; null where it was not compared.</summary>
    public PartVerdict? this[string part] =>
        Parts.FirstOrDefault(p => p.Part == part && p.Outcome != VerdictOutcome.NotComparable);
}
