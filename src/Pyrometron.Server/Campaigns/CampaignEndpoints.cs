using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Campaigns;
using Pyrometron.Core.Campaigns;
using Pyrometron.Core.Fleet;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Server.Campaigns;

/// <summary>Many machines alike, worked on as one: pilot first, then as far as the proof carries.</summary>
internal static class CampaignEndpoints
{
    private const int LongestReason = 300;

    public static void MapCampaigns(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/campaigns").WithTags("Campaigns");
        group.MapGet("", AllAsync);
        group.MapGet("/{id:long}", OneAsync);
        group.MapPost("/preview", PreviewAsync);
        group.MapPost("", BeginAsync);
        group
            .MapPost(
                "/{id:long}/pause",
                (Caller caller, long id, CampaignUseCases campaigns) => Pause(caller, id, true, campaigns)
            )
            .WithSummary("Pauses a campaign: its machines are planned no further.");
        group
            .MapPost(
                "/{id:long}/resume",
                (Caller caller, long id, CampaignUseCases campaigns) => Pause(caller, id, false, campaigns)
            )
            .WithSummary("Goes on with a campaign that was paused.");
        group.MapPost("/{id:long}/go-on", GoOn);
        group.MapPost("/{id:long}/end", End);
        group.MapPost("/{id:long}/machines", Add);
        group.MapDelete("/{id:long}/machines/{tag}", Remove);
        api.MapGet("/assets/{tag}/campaigns", OfMachine).WithTags("Campaigns");
    }

    /// <summary>The campaigns that a machine is in and that are not ended.</summary>
    internal static Results<Ok<IReadOnlyList<CampaignOfMachine>>, ProblemHttpResult> OfMachine(
        string tag,
        CampaignReading reading,
        FleetStore fleet
    )
    {
        if (fleet.Find(tag) is null)
            return Problems.Missing($"There is no machine '{tag}'.");
        IReadOnlyList<CampaignOfMachine> found =
        [
            .. from p in reading.Progress()
            where p.Campaign.State != CampaignState.Ended
            from m in p.Machines
            where m.Tag == tag
            select new CampaignOfMachine(p.Campaign.Id, p.Campaign.Name, p.Campaign.Level, p.Campaign.State, m.Step),
        ];
        return TypedResults.Ok(found);
    }

    /// <summary>All campaigns, with how far each is.</summary>
    internal static async Task<CampaignsAnswer> AllAsync(CampaignReading reading, CancellationToken cancellation) =>
        new(await reading.AnswersAsync(reading.Progress(), cancellation));

    /// <summary>One campaign with its machines and what its runs prove so far.</summary>
    internal static async Task<Results<Ok<CampaignAnswer>, ProblemHttpResult>> OneAsync(
        long id,
        CampaignReading reading,
        CancellationToken cancellation
    ) =>
        await reading.AnswersAsync(reading.Progress().Where(p => p.Campaign.Id == id), cancellation) is [var one]
            ? TypedResults.Ok(one)
            : Problems.Missing($"There is no campaign {id}.");

    /// <summary>What a campaign would be: its machines, what it takes, what it leaves out.</summary>
    internal static async Task<Results<Ok<CampaignPreview>, ProblemHttpResult>> PreviewAsync(
        CampaignDraft draft,
        CampaignDrafts drafts,
        CancellationToken cancellation
    )
    {
        var (preview, problems) = await drafts.PreviewAsync(draft, named: false, cancellation);
        return preview is null ? Problems.Input(problems) : TypedResults.Ok(preview);
    }

    /// <summary>Begins a campaign with the machines of its preview.</summary>
    internal static async Task<Results<Created<CampaignBegun>, ProblemHttpResult>> BeginAsync(
        Caller caller,
        CampaignDraft draft,
        CampaignDrafts drafts,
        CampaignUseCases campaigns,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        var (preview, problems) = await drafts.PreviewAsync(draft, named: true, cancellation);
        if (preview is null)
            return Problems.Input(problems);
        if (preview.Machines.Count < 2)
            return Problems.Conflict("A campaign is for two machines at least; these are not enough of them.");
        Words.TryRead<ServiceLevel>(draft.Level, out var level);
        var id = campaigns.Begin(
            caller.Actor,
            new Campaign(
                0,
                draft.Name!.Trim(),
                level,
                Math.Min(draft.Pilot ?? CampaignDrafts.UsualPilot, preview.Machines.Count),
                new SequentialTest(draft.LeastKelvin ?? CampaignDrafts.UsualLeast, preview.Scatter),
                CampaignState.Running,
                DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime),
                draft.DueBy,
                null,
                null,
                null,
                [.. preview.Machines.Select(m => m.Tag)]
            )
        );
        return TypedResults.Created($"/api/v1/campaigns/{id}", new CampaignBegun(id));
    }

    private static NoContent Pause(Caller caller, long id, bool paused, CampaignUseCases campaigns)
    {
        campaigns.Pause(caller.Actor, id, paused);
        return TypedResults.NoContent();
    }

    /// <summary>Goes on with all machines although the proof does not say so.</summary>
    internal static Results<NoContent, ProblemHttpResult> GoOn(
        Caller caller,
        long id,
        GoOnRequest request,
        CampaignUseCases campaigns
    )
    {
        if (!Texts.IsLine(request.By, 80))
            return Problems.Input("/by", "by is needed: who decides it, 80 characters at most");
        campaigns.GoOn(caller.Actor, id, caller.Named(request.By)!.Trim());
        return TypedResults.NoContent();
    }

    /// <summary>Ends a campaign; machines that are not done yet go back to their own rules.</summary>
    internal static Results<NoContent, ProblemHttpResult> End(
        Caller caller,
        long id,
        EndRequest request,
        CampaignUseCases campaigns
    )
    {
        if (!Texts.IsLine(request.Because, LongestReason))
            return Problems.Input("/because", $"because is needed: {LongestReason} characters at most, on one line");
        campaigns.End(caller.Actor, id, request.Because!.Trim());
        return TypedResults.NoContent();
    }

    /// <summary>Takes machines into a campaign that runs.</summary>
    internal static Results<NoContent, ProblemHttpResult> Add(
        Caller caller,
        long id,
        MoreMachines request,
        CampaignUseCases campaigns
    )
    {
        if (request.Assets is not { Count: > 0 and <= CampaignUseCases.MostMachines } sent || sent.Any(string.IsNullOrEmpty))
            return Problems.Input("/assets", $"assets is needed: 1 to {CampaignUseCases.MostMachines} machines");
        campaigns.Add(caller.Actor, id, [.. sent.Distinct().OfType<string>()]);
        return TypedResults.NoContent();
    }

    /// <summary>Takes a machine out of a campaign.</summary>
    internal static NoContent Remove(Caller caller, long id, string tag, CampaignUseCases campaigns)
    {
        campaigns.Remove(caller.Actor, id, tag);
        return TypedResults.NoContent();
    }
}
