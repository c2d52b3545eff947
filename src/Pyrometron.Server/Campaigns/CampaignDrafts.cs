using Pyrometron.Application.Campaigns;
using Pyrometron.Core.Campaigns;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Server.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Server.Campaigns;

/// <summary>Reads what somebody thinks of as a campaign, and tells what it would be.</summary>
internal sealed class CampaignDrafts(
    CampaignReading reading,
    CampaignStore campaigns,
    FleetStore fleet,
    JudgementService judgement
)
{
    public const int UsualPilot = 5;

    /// <summary>K. Chosen: half of what usually makes a machine need work.</summary>
    public const double UsualLeast = 3;

    private const int MostPilot = 50,
        LongestName = 80;

    private const double MostLeast = 30;

    /// <summary>What it would be; null with what is wrong with it.</summary>
    /// <param name="named">Whether it needs a name.</param>
    public async Task<(CampaignPreview? Preview, IReadOnlyList<InputProblem> Problems)> PreviewAsync(
        CampaignDraft draft,
        bool named,
        CancellationToken cancellation
    )
    {
        var reader = new Reader();
        var today = judgement.Today();
        var (level, machines) = reader.Read(draft, named, today, fleet);
        if (reader.Problems.Count > 0)
            return (null, reader.Problems);
        var judged = await reading.JudgedAsync(cancellation);
        var busy = Campaign.Taken(campaigns.All());
        var (taken, without) = CampaignChoice.Of(machines, level, draft.Pilot ?? UsualPilot, judged, busy, today);
        var (scatter, jobs) = reading.Scatter(level);
        return (new CampaignPreview(taken, without, reading.Sum(taken.Select(m => m.Tag), level, judged), scatter, jobs), []);
    }

    private sealed class Reader : RequestReader
    {
        public (ServiceLevel Level, IReadOnlyList<Asset> Machines) Read(
            CampaignDraft draft,
            bool named,
            DateOnly today,
            FleetStore fleet
        )
        {
            if (named && !Texts.IsLine(draft.Name, LongestName))
                Wrong("/name", $"name is needed: {LongestName} characters at most, on one line", 0);
            if (!Words.TryRead<ServiceLevel>(draft.Level, out var level) || level == ServiceLevel.Inspect)
                Wrong("/level", $"level is needed: one of {Words.List<ServiceLevel>()}, and not a mere look", 0);
            if (draft.Pilot is not null)
                Within("/pilot", draft.Pilot, 1, MostPilot);
            if (draft.LeastKelvin is not (null or (> 0 and <= MostLeast)))
                Wrong("/leastKelvin", $"leastKelvin must be a number above 0 and up to {MostLeast}", 0);
            if (draft.DueBy < today || draft.DueBy > today.AddYears(3))
                Wrong("/dueBy", "dueBy must be a day from today on, within three years", 0);
            var all = fleet.All().Where(a => a.RetiredOn is null).Select(a => a.Asset).ToList();
            var machines = draft.Assets is { } tags ? Listed(tags, all) : Alike(draft, all);
            if (machines.Count > CampaignUseCases.MostMachines)
                Wrong("/assets", $"a campaign is for {CampaignUseCases.MostMachines} machines at most", 0);
            return (level, machines);
        }

        private List<Asset> Listed(IReadOnlyList<string?> tags, List<Asset> all)
        {
            var known = all.ToDictionary(a => a.Tag);
            var machines = new List<Asset>();
            foreach (var (tag, i) in tags.Distinct().Select((tag, i) => (tag, i)).Take(CampaignUseCases.MostMachines + 1))
                if (tag is not null && known.TryGetValue(tag, out var asset))
                    machines.Add(asset);
                else
                    Wrong($"/assets/{i}", $"There is no machine '{tag}'.", 0);
            return machines;
        }

        private List<Asset> Alike(CampaignDraft draft, List<Asset> all)
        {
            if (draft.Model is null && draft.Zone is null)
                return Wrong("/model", "model, zone or assets is needed: which machines", new List<Asset>());
            var machines = all.Where(a => (draft.Model ?? a.Model) == a.Model && (draft.Zone ?? a.Zone) == a.Zone).ToList();
            return machines.Count > 0
                ? machines
                : Wrong(draft.Model is null ? "/zone" : "/model", "No machine is of this model and in this zone.", machines);
        }
    }
}
