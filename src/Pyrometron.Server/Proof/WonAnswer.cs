using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Stores;
using Pyrometron.Core.Worth;

namespace Pyrometron.Server.Proof;

/// <summary>By what jobs are grouped.</summary>
public enum WonBy
{
    /// <summary>The level that was done.</summary>
    Level,

    /// <summary>The machine's model.</summary>
    Model,

    /// <summary>Where the machine stands today.</summary>
    Zone,

    /// <summary>The month in which the work was done, such as 2026-11.</summary>
    Month,

    /// <summary>The paste, by its name.</summary>
    Paste,

    /// <summary>The pads, by their name.</summary>
    Pads,

    /// <summary>The paste with its batch.</summary>
    Batch,

    /// <summary>The alcohol, by its name.</summary>
    Alcohol,

    /// <summary>How paste was laid on.</summary>
    Pattern,
}

/// <summary>The machines that jobs were on, and what holds for them.</summary>
/// <param name="rulesFor">By tag; null where a machine is gone.</param>
internal sealed class HouseOfJobs(
    JudgementPolicy policy,
    Func<string, (Asset Asset, JudgementPolicy Policy)?> rulesFor,
    MaterialCosts materials
)
{
    /// <summary>The rules of the house.</summary>
    public JudgementPolicy Policy { get; } = policy;

    /// <summary>What jobs have cost.</summary>
    public WorkSpent Spent(IEnumerable<FinishedJob> jobs) => WorkSpent.Of(jobs, rulesFor, materials);

    /// <summary>What jobs have won in money.</summary>
    public MoneyWon Money(IEnumerable<FinishedJob> jobs) => MoneyWon.Of(jobs, rulesFor);
}

/// <summary>A group of jobs.</summary>
/// <param name="Key">
/// The level's word, the model, the zone's code, the month, the product, product and batch, or the pattern's word.
/// </param>
public sealed record WonGroupAnswer(string Key, string Name, WorkWon Won, WorkSpent Spent, MoneyWon Money);

/// <summary>A job that won nothing, or from which the machine came back.</summary>
/// <param name="WonKelvin">On the part that won most, positive for cooler.</param>
/// <param name="ExpandedKelvin">Its expanded uncertainty, k = 2.</param>
public sealed record LostJobAnswer(
    long Id,
    string Asset,
    string Model,
    ServiceLevel Level,
    DateOnly Done,
    VerdictOutcome Outcome,
    double WonKelvin,
    double ExpandedKelvin,
    bool CameBack
);

/// <summary>How often a cause was found where another, or the same, was predicted.</summary>
public sealed record FoundAnswer(Cause Predicted, Cause Found, int Jobs);

/// <summary>What work has won.</summary>
/// <param name="Machines">How many machines they were on.</param>
/// <param name="All">All jobs of the days asked for.</param>
/// <param name="Sides">What they have won besides kelvins.</param>
/// <param name="Spent">What they cost, in <paramref name="Currency"/>.</param>
/// <param name="Money">What those that were compared have won, by what things are worth to the house.</param>
/// <param name="PayBackYears">The years over which that is counted.</param>
/// <param name="WithoutGain">Those of them that were compared and are not cooler, and those whose machine came back; newest
/// first.</param>
/// <param name="Causes">Of jobs with a prediction in which somebody looked; a job in which nothing was found counts as
/// none.</param>
/// <param name="Chances">Whether the chances stated when jobs began have held.</param>
public sealed record WonAnswer(
    DateOnly? From,
    DateOnly? Until,
    int Machines,
    WorkWon All,
    SidesWon Sides,
    WorkSpent Spent,
    MoneyWon Money,
    int PayBackYears,
    string Currency,
    IReadOnlyList<WonGroupAnswer> Groups,
    IReadOnlyList<LostJobAnswer> WithoutGain,
    IReadOnlyList<FoundAnswer> Causes,
    StatedChances Chances
)
{
    private const int MostListed = 100;

    internal static WonAnswer Of(
        IReadOnlyList<FinishedJob> jobs,
        WonBy by,
        Func<string, string> zoneName,
        (DateOnly? From, DateOnly? Until) days,
        HouseOfJobs house
    ) =>
        new(
            days.From,
            days.Until,
            jobs.Select(j => j.Tag).Distinct().Count(),
            WorkWon.Of(jobs),
            SidesWon.Of(jobs),
            house.Spent(jobs),
            house.Money(jobs),
            house.Policy.Values.PayBackYears,
            house.Policy.Values.Currency,
            Grouped(jobs, by, zoneName, house),
            [
                .. jobs.Where(j => j.CameBack || (WorkWon.IsCompared(j) && j.Outcome != VerdictOutcome.Improved))
                    .Take(MostListed)
                    .Select(j => new LostJobAnswer(
                        j.Id,
                        j.Tag,
                        j.Model,
                        j.Level,
                        j.Done,
                        j.Outcome ?? VerdictOutcome.NotComparable,
                        j.WonKelvin,
                        j.ExpandedKelvin,
                        j.CameBack
                    )),
            ],
            [
                .. jobs.Where(j => j is { Predicted: not null, Found: not null })
                    .SelectMany(j =>
                        (j.Found!.Count == 0 ? [Cause.None] : j.Found).Select(found =>
                            (Predicted: j.Predicted!.Value, Found: found)
                        )
                    )
                    .CountBy(c => c)
                    .Select(c => new FoundAnswer(c.Key.Predicted, c.Key.Found, c.Value))
                    .OrderBy(c => c.Predicted)
                    .ThenByDescending(c => c.Jobs),
            ],
            StatedChances.Of(jobs, house.Policy.WorthKelvin)
        );

    /// <summary>Groups with most jobs first; months in their order, newest first.</summary>
    private static IReadOnlyList<WonGroupAnswer> Grouped(
        IReadOnlyList<FinishedJob> jobs,
        WonBy by,
        Func<string, string> zoneName,
        HouseOfJobs house
    )
    {
        // Jobs of which nobody wrote it down are in no group of products.
        string? KeyOf(FinishedJob job) =>
            by switch
            {
                WonBy.Level => Words.Of(job.Level),
                WonBy.Model => job.Model,
                WonBy.Zone => job.Zone,
                WonBy.Paste => job.Product(ProductKind.Paste)?.Name,
                WonBy.Pads => job.Product(ProductKind.Pads)?.Name,
                WonBy.Alcohol => job.Product(ProductKind.Alcohol)?.Name,
                WonBy.Batch => job.Product(ProductKind.Paste) is { Batch: { } batch } paste ? $"{paste.Name}, {batch}" : null,
                WonBy.Pattern => job.Product(ProductKind.Paste)?.Pattern is { } pattern ? Words.Of(pattern) : null,
                _ => job.Done.ToString("yyyy-MM", System.Globalization.CultureInfo.InvariantCulture),
            };
        var groups = jobs.GroupBy(KeyOf)
            .Where(g => g.Key is not null)
            .Select(g => new WonGroupAnswer(
                g.Key!,
                by == WonBy.Zone ? zoneName(g.Key!) : g.Key!,
                WorkWon.Of([.. g]),
                house.Spent(g),
                house.Money(g)
            ));
        return
        [
            .. by == WonBy.Month
                ? groups.OrderByDescending(g => g.Key, StringComparer.Ordinal)
                : groups.OrderByDescending(g => g.Won.Jobs).ThenBy(g => g.Key, StringComparer.Ordinal),
        ];
    }
}
