using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Campaigns;

/// <summary>Whether a campaign goes on.</summary>
public enum CampaignState
{
    Running,

    /// <summary>Its machines are not planned for the time being.</summary>
    Paused,

    Ended,
}

/// <summary>The same work on many machines that are alike: a model, a hall, all that got pads of one batch.</summary>
/// <param name="Level">What is done to each.</param>
/// <param name="Pilot">So many machines are done first; the others wait for what they prove.</param>
/// <param name="Test">By which rule it is gone on with or stopped.</param>
/// <param name="Begun">Work done from this day on counts.</param>
/// <param name="DueBy">The last day on which its work is not late; null where none was set.</param>
/// <param name="GoneOnBy">Who decided to go on although the proof does not say so yet; null for nobody.</param>
/// <param name="Tags">Its machines, the pilot first.</param>
public sealed record Campaign(
    long Id,
    string Name,
    ServiceLevel Level,
    int Pilot,
    SequentialTest Test,
    CampaignState State,
    DateOnly Begun,
    DateOnly? DueBy,
    DateOnly? Ended,
    string? EndedBecause,
    string? GoneOnBy,
    IReadOnlyList<string> Tags
)
{
    /// <summary>
    /// The scatter of wins from machine to machine where the house has none to learn it from, K. Chosen, no source.
    /// </summary>
    public const double UsualScatter = 3;

    /// <summary>Which machines are in a campaign that is not ended, with its name: a machine is in one at a time.</summary>
    public static IReadOnlyDictionary<string, string> Taken(IEnumerable<Campaign> campaigns) =>
        campaigns
            .Where(c => c.State != CampaignState.Ended)
            .SelectMany(c => c.Tags.Select(tag => (tag, c.Name)))
            .ToDictionary(c => c.tag, c => c.Name);

    /// <summary>Whether a job of a level did this campaign's work.</summary>
    public bool IsDoneBy(ServiceLevel level) => ServiceEffects.Covers(level, Level);
}
