using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Bench;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>Work on a machine, as its owner sees it.</summary>
/// <param name="FiledAt">When the work was done; null while it goes on.</param>
/// <param name="MayOpen">What its owner said of its being opened; null where nobody asked yet.</param>
/// <param name="Says">What was measured before and after, in a sentence; null where nothing was proven.</param>
public sealed record OwnJobAnswer(
    long Id,
    ServiceLevel Level,
    JobState State,
    DateTimeOffset StartedAt,
    DateTimeOffset? FiledAt,
    bool? MayOpen,
    Message? Says
);

/// <summary>A machine, as its owner sees it.</summary>
/// <param name="Urgency">How pressing it is; null while it is not judged.</param>
/// <param name="Advised">What is advised; null for nothing.</param>
/// <param name="LastService">The day of the last service that is known.</param>
/// <param name="Jobs">The newest first.</param>
public sealed record OwnMachineAnswer(
    string Asset,
    AssetKind Kind,
    string Model,
    Urgency? Urgency,
    ServiceLevel? Advised,
    DateOnly? LastService,
    IReadOnlyList<OwnJobAnswer> Jobs
);

/// <summary>What an owner says of a job.</summary>
public sealed record OwnersWord(bool? MayOpen);

/// <summary>What owners of machines see and say.</summary>
internal static class OwnMachinesEndpoints
{
    private const int MostJobs = 20;

    private static readonly TimeSpan Patience = TimeSpan.FromMilliseconds(300);

    public static void MapOwnMachines(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/own").WithTags("Accounts").Needs(Right.LookAtOwn);
        group.MapGet("/machines", GetAsync);
        group.MapPost("/jobs/{id:long}/order", Agree);
    }

    /// <summary>The machines of whoever is signed in, with what was done to them.</summary>
    internal static async Task<OwnMachineAnswer[]> GetAsync(
        Caller caller,
        FleetStore fleet,
        JobStore jobs,
        JudgementService judgement,
        CancellationToken cancellation
    )
    {
        var judged = (await judgement.GetAsync(null, Patience, cancellation)).Judgement;
        return
        [
            .. caller
                .Account.Machines.Select(fleet.Find)
                .OfType<StoredAsset>()
                .Select(m =>
                {
                    var a = judged?.ByTag.GetValueOrDefault(m.Asset.Tag);
                    return new OwnMachineAnswer(
                        m.Asset.Tag,
                        m.Asset.Kind,
                        m.Asset.Model,
                        a?.Urgency,
                        a?.Service,
                        m.Asset.Services.Select(s => (DateOnly?)s.Date).Max(),
                        [.. jobs.Of(m.Id).Take(MostJobs).Select(row => Told(row, jobs.Job(row.Id)!))]
                    );
                }),
        ];
    }

    /// <summary>Notes whether its owner agrees to a machine's being opened.</summary>
    internal static Results<NoContent, ProblemHttpResult> Agree(long id, OwnersWord word, Caller caller, OwnerUseCases owners)
    {
        if (word.MayOpen is not { } mayOpen)
            return Problems.Input("/mayOpen", "mayOpen is needed: true or false.");
        owners.Agree(caller.Actor, caller.Account.Machines, id, mayOpen);
        return TypedResults.NoContent();
    }

    private static OwnJobAnswer Told(StoredJob row, Job job) =>
        new(row.Id, row.Level, row.State, row.StartedAt, row.WorkDoneAt, job.Order?.MayOpen, job.Verdict?.Says);
}
