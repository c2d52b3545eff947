using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Bench;
using Pyrometron.Core.Procedures;
using Pyrometron.Formats;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>A model of the fleet.</summary>
public sealed record ModelSummary(string Model, string Kind, int Machines, bool Noted);

/// <summary>What is known of a model.</summary>
/// <param name="Version">0 where nothing is noted yet; a writer says which one it has seen.</param>
/// <param name="CoolerOrder">Numbers of the cooler's screws in the order they are tightened.</param>
public sealed record NotesAnswer(
    ModelNotes Notes,
    int Version,
    DateTimeOffset? ChangedAt,
    long? LearntFromJob,
    IReadOnlyList<int> CoolerOrder
);

/// <summary>Notes to keep.</summary>
public sealed record KeepNotes(ModelNotes? Notes, int? Version);

/// <summary>Notes of models.</summary>
internal static class NotesEndpoints
{
    public static void MapModelNotes(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/models").WithTags("Models");
        group.MapGet(
            "",
            (NotesStore notes) => notes.Models().Select(m => new ModelSummary(m.Model, m.Kind, m.Machines, m.Noted)).ToArray()
        );
        group.MapGet("/notes", (string model, NotesStore notes) => Answer(model, notes));
        group.MapPut("/notes", Put);
    }

    private static NotesAnswer Answer(string model, NotesStore store)
    {
        var stored = store.Find(model);
        return new NotesAnswer(
            stored.Notes,
            stored.Version,
            stored.ChangedAt,
            stored.JobId,
            [.. stored.Notes.CoolerScrewsInOrder.Select(s => s.Number)]
        );
    }

    private static Results<Ok<NotesAnswer>, ProblemHttpResult> Put(
        KeepNotes request,
        BenchUseCases bench,
        NotesStore store,
        FleetStore fleet
    )
    {
        if (request.Notes is not { Model: { } model } notes || request.Version is not { } version)
            return Problems.Input("/notes", "notes and the version that was seen are needed.");
        if (fleet.All().All(a => a.Asset.Model != model))
            return Problems.Input("/notes/model", $"No machine is of the model '{model}'.");
        if (
            notes.Screws is null
            || notes.Connectors is null
            || notes.Pads is null
            || notes.Fans is null
            || notes.Clips is null
            || notes.Traps is null
        )
            return Problems.Input(
                "/notes",
                "screws, connectors, pads, fans, clips and traps are needed; empty where nothing is known."
            );
        if (
            notes.Problems().Select(p => new InputProblem(p.Message, Pointer: "/notes" + p.Pointer)).ToArray() is
            { Length: > 0 } problems
        )
            return Problems.Input(problems);
        bench.KeepNotes(Actor.Unnamed, notes, version);
        return TypedResults.Ok(Answer(model, store));
    }
}
