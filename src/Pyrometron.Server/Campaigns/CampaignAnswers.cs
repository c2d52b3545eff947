using Pyrometron.Core.Campaigns;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Messages;

namespace Pyrometron.Server.Campaigns;

/// <summary>A campaign that somebody thinks of.</summary>
/// <param name="Model">All machines of a model; null for any.</param>
/// <param name="Zone">All machines of a zone; null for any.</param>
/// <param name="Assets">These machines; null for those of model and zone.</param>
/// <param name="Pilot">How many machines are done first, 1 to 50; 5 where missing.</param>
/// <param name="LeastKelvin">The least mean win that is worth it, above 0 to 30 K; 3 where missing.</param>
/// <param name="DueBy">The last day on which its work is not late.</param>
public sealed record CampaignDraft(
    string? Name,
    string? Level,
    string? Model,
    string? Zone,
    IReadOnlyList<string?>? Assets,
    int? Pilot,
    double? LeastKelvin,
    DateOnly? DueBy
);

/// <summary>A machine that a campaign would take.</summary>
/// <param name="PredictedKelvin">What the work is predicted to win there, K; null where nothing is measured.</param>
public sealed record CampaignCandidate(
    string Tag,
    string Model,
    string Zone,
    bool Pilot,
    int Minutes,
    double Material,
    double? PredictedKelvin
);

/// <summary>A machine that a campaign would not take, and why.</summary>
public sealed record NotInCampaign(string Tag, Message Says);

/// <summary>What a campaign takes in sum.</summary>
/// <param name="Minutes">At the bench, by what the house's own jobs took where there are some.</param>
/// <param name="Material">By the prices of the stores.</param>
/// <param name="Work">The hours by what an hour costs.</param>
public sealed record CampaignSum(int Machines, int Minutes, double Material, double Work, string Currency);

/// <summary>What a campaign would be.</summary>
/// <param name="Scatter">By how much wins differ from machine to machine, K.</param>
/// <param name="ScatterJobs">From so many jobs of this level; 0 where a usual value stands.</param>
public sealed record CampaignPreview(
    IReadOnlyList<CampaignCandidate> Machines,
    IReadOnlyList<NotInCampaign> Without,
    CampaignSum Sum,
    double Scatter,
    int ScatterJobs
);

/// <summary>A campaign that was begun.</summary>
public sealed record CampaignBegun(long Id);

/// <summary>A machine of a campaign.</summary>
/// <param name="Planned">When its work is planned; null where it is not.</param>
/// <param name="Job">The job that did its work, or the one that is at the bench.</param>
/// <param name="Outcome">Null where no run after the work was compared.</param>
public sealed record CampaignMachineAnswer(
    string Tag,
    string Model,
    string Zone,
    bool Pilot,
    CampaignStep Step,
    DateTimeOffset? Planned,
    long? Job,
    DateOnly? Done,
    VerdictOutcome? Outcome,
    double? WonKelvin,
    double? ExpandedKelvin
);

/// <summary>A campaign, how far it is, and what to do about it.</summary>
/// <param name="Evidence">1 and beyond: worthwhile; −1 and beyond: not.</param>
/// <param name="Left">What the machines that are not done take.</param>
/// <param name="ErrorRate">How often the rule goes on or stops wrongly, at most.</param>
/// <param name="Gone">Machines of it that are retired.</param>
public sealed record CampaignAnswer(
    long Id,
    string Name,
    ServiceLevel Level,
    CampaignState State,
    int Pilot,
    double LeastKelvin,
    double ScatterKelvin,
    DateOnly Begun,
    DateOnly? DueBy,
    DateOnly? Ended,
    string? EndedBecause,
    string? GoneOnBy,
    CampaignAdvice Advice,
    double Evidence,
    double ErrorRate,
    WorkWon Won,
    CampaignSum Left,
    int Gone,
    IReadOnlyList<CampaignMachineAnswer> Machines
);

/// <summary>A campaign that a machine is in.</summary>
public sealed record CampaignOfMachine(long Id, string Name, ServiceLevel Level, CampaignState State, CampaignStep Step);

/// <summary>All campaigns, newest first.</summary>
public sealed record CampaignsAnswer(IReadOnlyList<CampaignAnswer> Campaigns);

/// <summary>Who goes on before the proof says so.</summary>
public sealed record GoOnRequest(string? By);

/// <summary>Machines that are taken into a campaign.</summary>
public sealed record MoreMachines(IReadOnlyList<string?>? Assets);

/// <summary>Why a campaign ends.</summary>
public sealed record EndRequest(string? Because);
