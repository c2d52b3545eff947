using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Messages;

namespace Pyrometron.Server.Campaigns;

/// <summary>Which machines a campaign takes, in which order, and which it does not.</summary>
internal static class CampaignChoice
{
    /// <summary>Chooses among machines that somebody named.</summary>
    /// <param name="pilot">How many come first.</param>
    /// <param name="busy">Machines of other campaigns, with their names.</param>
    public static (IReadOnlyList<CampaignCandidate> Machines, IReadOnlyList<NotInCampaign> Without) Of(
        IReadOnlyList<Asset> named,
        ServiceLevel level,
        int pilot,
        IReadOnlyDictionary<string, Assessment> judged,
        IReadOnlyDictionary<string, string> busy,
        DateOnly today
    )
    {
        var without = new List<NotInCampaign>();
        var taken = new List<CampaignCandidate>();
        foreach (var asset in named)
            if (WhyNot(asset, level, judged.GetValueOrDefault(asset.Tag), busy, today) is { } why)
                without.Add(new NotInCampaign(asset.Tag, why));
            else
                taken.Add(Candidate(asset, level, judged.GetValueOrDefault(asset.Tag)));
        return (PilotFirst([.. taken.OrderByDescending(c => c.PredictedKelvin ?? 0)], pilot), without);
    }

    /// <summary>
    /// Brings a pilot to the front that is spread over machines with much and with little to win: of the worst alone nobody could
    /// tell what the others win.
    /// </summary>
    /// <param name="machines">Those with most to win first.</param>
    internal static IReadOnlyList<CampaignCandidate> PilotFirst(IReadOnlyList<CampaignCandidate> machines, int pilot)
    {
        var count = Math.Min(pilot, machines.Count);
        var chosen = Enumerable.Range(0, count).Select(i => ((2 * i) + 1) * machines.Count / (2 * count)).ToHashSet();
        return
        [
            .. machines.Where((_, i) => chosen.Contains(i)).Select(m => m with { Pilot = true }),
            .. machines.Where((_, i) => !chosen.Contains(i)),
        ];
    }

    private static Message? WhyNot(
        Asset asset,
        ServiceLevel level,
        Assessment? judged,
        IReadOnlyDictionary<string, string> busy,
        DateOnly today
    )
    {
        if (busy.TryGetValue(asset.Tag, out var other))
            return Message.Of("It is in the campaign '{name}' already.", Value.Text("name", other));
        if (!ServiceEffects.Suits(level, asset.Kind))
            return Message.Of("This is not done to machines of its kind.");
        if (judged is { } a && asset.WarrantyUntil is { } until && a.Policy.ForfeitsCover(asset, level, today))
            return Message.Of("It is under warranty until {day}, which this would forfeit.", Value.Day("day", until));
        return null;
    }

    private static CampaignCandidate Candidate(Asset asset, ServiceLevel level, Assessment? judged)
    {
        double? predicted = judged is { Parts.Count: > 0 } a
            ? a.Parts.Max(p => p.Split.WonBy(level)) * a.Policy.Proven.Of(asset, level).Share
            : null;
        return new CampaignCandidate(
            asset.Tag,
            asset.Model,
            asset.Zone,
            false,
            judged?.Policy.Times.Of(asset, level).Minutes ?? 0,
            judged?.Policy.Materials.Of(level) ?? 0,
            predicted
        );
    }
}
