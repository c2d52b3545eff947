using Pyrometron.Application.Fleet;
using Pyrometron.Core.Campaigns;
using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Campaigns;

/// <summary>Campaigns are begun, paused, gone on with, and ended.</summary>
public sealed class CampaignUseCases(Database database, TimeProvider clock)
{
    /// <summary>More are no campaign that one page tells of.</summary>
    public const int MostMachines = 3000;

    /// <summary>Begins one.</summary>
    /// <param name="campaign">Its number is given; its tags are its machines, the pilot first.</param>
    /// <returns>Its number.</returns>
    /// <exception cref="NotThereException">One of the machines is not there.</exception>
    /// <exception cref="NotPossibleException">One of them is in another campaign that is not ended.</exception>
    public long Begin(Actor actor, Campaign campaign) =>
        Write(
            actor.AllowedEverywhere(Right.Plan),
            t =>
            {
                CheckFree(t, campaign.Tags);
                var id = CampaignStore.Add(t, campaign, [.. campaign.Tags.Select(tag => FleetUseCases.Find(t, tag).Id)]);
                t.Log(
                    new Change(
                        "campaign",
                        Message.Of(
                            "Campaign begun: {name}, {machines}",
                            Value.Text("name", campaign.Name),
                            Value.Counted("machines", campaign.Tags.Count, "machine")
                        )
                    )
                );
                return id;
            }
        );

    /// <summary>Pauses one, or lets it run again.</summary>
    /// <exception cref="NotPossibleException">It is ended.</exception>
    public void Pause(Actor actor, long id, bool paused) =>
        Change(
            actor,
            id,
            (t, campaign) =>
            {
                CampaignStore.Set(t, id, paused ? CampaignState.Paused : CampaignState.Running, campaign.GoneOnBy);
                return paused
                    ? Message.Of("Campaign paused: {name}", Value.Text("name", campaign.Name))
                    : Message.Of("Campaign runs again: {name}", Value.Text("name", campaign.Name));
            }
        );

    /// <summary>Goes on with all machines, whatever the proof says so far.</summary>
    /// <param name="by">Who decides that.</param>
    /// <exception cref="NotPossibleException">It is ended.</exception>
    public void GoOn(Actor actor, long id, string by) =>
        Change(
            actor,
            id,
            (t, campaign) =>
            {
                CampaignStore.Set(t, id, CampaignState.Running, by);
                return Message.Of(
                    "Campaign {name}: {person} goes on with all machines",
                    Value.Text("name", campaign.Name),
                    Value.Text("person", by)
                );
            }
        );

    /// <summary>Ends one; what it has proven stays.</summary>
    /// <exception cref="NotPossibleException">It is ended already.</exception>
    public void End(Actor actor, long id, string because) =>
        Change(
            actor,
            id,
            (t, campaign) =>
            {
                CampaignStore.End(t, id, DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime), because);
                return Message.Of(
                    "Campaign ended: {name} ({reason})",
                    Value.Text("name", campaign.Name),
                    Value.Text("reason", because)
                );
            }
        );

    /// <summary>Takes a machine out of one.</summary>
    /// <exception cref="NotThereException">It is not in it.</exception>
    public void Remove(Actor actor, long id, string tag) =>
        Change(
            actor,
            id,
            (t, campaign) =>
            {
                if (!campaign.Tags.Contains(tag))
                    throw new NotThereException($"'{tag}' is not in the campaign '{campaign.Name}'.");
                CampaignStore.Remove(t, id, FleetUseCases.Find(t, tag).Id);
                return Message.Of("Campaign {name} without {tag}", Value.Text("name", campaign.Name), Value.Text("tag", tag));
            }
        );

    /// <summary>Takes machines into one that runs: they are the last ones.</summary>
    /// <exception cref="NotThereException">One of them is not there.</exception>
    /// <exception cref="NotPossibleException">One of them is in a campaign already, or it would be too many.</exception>
    public void Add(Actor actor, long id, IReadOnlyList<string> tags) =>
        Change(
            actor,
            id,
            (t, campaign) =>
            {
                CheckFree(t, tags);
                if (campaign.Tags.Count + tags.Count > MostMachines)
                    throw new NotPossibleException($"A campaign is for {MostMachines} machines at most.");
                CampaignStore.AddMachines(t, id, [.. tags.Select(tag => FleetUseCases.Find(t, tag).Id)]);
                return Message.Of(
                    "Campaign {name} with {tags} too",
                    Value.Text("name", campaign.Name),
                    Value.Text("tags", string.Join(", ", tags))
                );
            }
        );

    private static void CheckFree(Transaction t, IReadOnlyList<string> tags)
    {
        var taken = Campaign.Taken(CampaignStore.All(t));
        if (tags.FirstOrDefault(taken.ContainsKey) is { } twice)
            throw new NotPossibleException(
                $"{twice} is in the campaign '{taken[twice]}' already: end that, or leave the machine out."
            );
    }

    private void Change(Actor actor, long id, Func<Transaction, Campaign, Message> work) =>
        Write(
            actor.AllowedEverywhere(Right.Plan),
            t =>
            {
                var campaign =
                    CampaignStore.All(t).FirstOrDefault(c => c.Id == id)
                    ?? throw new NotThereException($"There is no campaign {id}.");
                if (campaign.State == CampaignState.Ended)
                    throw new NotPossibleException($"'{campaign.Name}' is ended: begin another one.");
                t.Log(new Change("campaign", work(t, campaign)));
                return id;
            }
        );

    private T Write<T>(Actor actor, Func<Transaction, T> work) => database.Write(actor, clock.GetUtcNow(), work);
}
