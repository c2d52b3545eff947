using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Weeks;

/// <summary>What kind of visit a job of a plan is.</summary>
public enum WantedKind
{
    /// <summary>A service that is advised.</summary>
    Service,

    /// <summary>The run that shows whether a service helped.</summary>
    AfterRun,

    /// <summary>The look a week after a cooler came off.</summary>
    SecondLook,

    /// <summary>The run that decides whether a machine needs work.</summary>
    DecidingRun,

    /// <summary>Something that a person added.</summary>
    Visit,
}

/// <summary>What is done to one machine in a job.</summary>
/// <param name="Level">Null where nothing is opened: a run, a visit.</param>
/// <param name="Cause">What is wrong with it.</param>
/// <param name="Kelvin">What the work can win back, K; null where unknown.</param>
public sealed record WantedStep(string Tag, ServiceLevel? Level, int Minutes, Cause Cause, double? Kelvin);

/// <summary>Work that a plan may hold: one machine, or several of one host that are done in one go.</summary>
/// <param name="Id">The same as long as it is the same work: a plan made anew finds it again by that.</param>
/// <param name="Title">What a person called it, or the host of several cards; empty where the machine names it.</param>
/// <param name="Zone">Code of the zone.</param>
/// <param name="NotBefore">The day from which on it may be done; null for at once.</param>
/// <param name="WaitsFor">Why not before: parts, a warranty. Empty where nothing is waited for.</param>
/// <param name="DueBy">The last day on which it is not late; null where it never is.</param>
/// <param name="Weight">What a day of lateness costs.</param>
/// <param name="Campaign">Name of the campaign whose work it is; null where it is of none.</param>
/// <param name="TakesTwo">Whether it takes two people.</param>
/// <param name="Downtime">When its machines may be down for it, besides what their zone says; null for always.</param>
public sealed record Wanted(
    string Id,
    WantedKind Kind,
    string Title,
    string Zone,
    IReadOnlyList<WantedStep> Steps,
    IReadOnlySet<Skill> Skills,
    DateOnly? NotBefore,
    string WaitsFor,
    DateOnly? DueBy,
    double Weight,
    string? Campaign = null,
    bool TakesTwo = false,
    DowntimeRules? Downtime = null
)
{
    /// <summary>What is waited for where a warranty runs.</summary>
    public const string Warranty = "warranty";

    /// <summary>How long it takes, without set-up.</summary>
    public int Minutes => Steps.Sum(s => s.Minutes);
}

/// <summary>Work in its place.</summary>
/// <param name="Work">What is done.</param>
/// <param name="Person">Code of who does it.</param>
/// <param name="Locked">Whether it stays there when the plan is made anew.</param>
/// <param name="Helper">Code of who helps, where it takes two.</param>
public sealed record Placed(Wanted Work, string Person, DateTimeOffset Start, bool Locked, string? Helper = null)
{
    /// <summary>Whether somebody has to be there.</summary>
    public bool Has(string person) => Person == person || Helper == person;
}
