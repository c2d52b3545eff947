using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Bench;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Procedures;
using Pyrometron.Formats;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>A model of the fleet.</summary>
public sealed record ModelSummary(string Model, string Kind, int Machines, bool Noted);

/// <summary>What is known of a model.</summary>
/// <param name="Version">0 where nothing is noted yet; a writer says which one it has seen.</param>
/// <param name="CoolerOrder">Numbers of the cooler's screws in the order they are tightened.</param>
/// <param name="Seen">Who saw what of it in this house's jobs, and how often.</param>
public sealed record NotesAnswer(
    ModelNotes Notes,
    int Version,
    DateTimeOffset? ChangedAt,
    long? LearntFromJob,
    IReadOnlyList<int> CoolerOrder,
    IReadOnlyList<NoteSource> Seen
);

/// <summary>Notes to keep.</summary>
/// <param name="By">Who writes them, as they call themselves.</param>
public sealed record KeepNotes(ModelNotes? Notes, int? Version, string? By = null);

/// <summary>Notes on models as they travel from house to house.</summary>
/// <param name="Format"><c>pyrometron-notes/1</c>.</param>
public sealed record NotesDocument(string? Format, IReadOnlyList<ModelNotes>? Models)
{
    internal const string Form = "pyrometron-notes/1";
}

/// <summary>What two notes say differently.</summary>
/// <param name="About">Such as <c>chip</c>, <c>screw 4</c>, <c>pad 2</c>.</param>
public sealed record NotesDifferenceAnswer(string Model, string About, string Here, string There);

/// <summary>What became of notes from elsewhere, or would become in a dry run; models by name.</summary>
/// <param name="WithoutMachines">Kept all the same: for machines that are still to come.</param>
/// <param name="Differences">What both say differently, whichever was kept.</param>
public sealed record NotesImportAnswer(
    IReadOnlyList<string> Created,
    IReadOnlyList<string> Merged,
    IReadOnlyList<string> Unchanged,
    IReadOnlyList<string> WithoutMachines,
    IReadOnlyList<NotesDifferenceAnswer> Differences
);

/// <summary>Notes of models.</summary>
internal static class NotesEndpoints
{
    public static void MapModelNotes(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/models").WithTags("Models");
        group
            .MapGet(
                "",
                (NotesStore notes) => notes.Models().Select(m => new ModelSummary(m.Model, m.Kind, m.Machines, m.Noted)).ToArray()
            )
            .WithSummary("All models with how many machines each has.");
        group.MapGet("/notes", (string model, NotesStore notes) => Answer(model, notes)).WithSummary("The notes of a model.");
        group.MapPut("/notes", Put);
        group.MapGet("/notes/export", Export);
        group.MapPost("/notes/import", Import);
    }

    private static NotesAnswer Answer(string model, NotesStore store)
    {
        var stored = store.Find(model);
        return new NotesAnswer(
            stored.Notes,
            stored.Version,
            stored.ChangedAt,
            stored.JobId,
            [.. stored.Notes.CoolerScrewsInOrder.Select(s => s.Number)],
            store.Seen(model)
        );
    }

    /// <summary>Notes of all models, or of those named, with who saw what and how often.</summary>
    internal static NotesDocument Export(string[]? model, NotesStore store) =>
        new(
            NotesDocument.Form,
            [
                .. store
                    .All()
                    .Where(n => model is not { Length: > 0 } || model.Contains(n.Model))
                    .Select(n => NotesMerge.Of(n, n with { Sources = store.Seen(n.Model) }, PreferredNotes.Here).Notes),
            ]
        );

    /// <summary>Takes in notes of models; those that stand here stay unless they are asked to be replaced.</summary>
    internal static Results<Ok<NotesImportAnswer>, ProblemHttpResult> Import(
        Caller caller,
        NotesDocument document,
        bool? dryRun,
        string? prefer,
        BenchUseCases bench,
        FleetStore fleet
    )
    {
        if (document.Format != NotesDocument.Form)
            return Problems.Input("/format", $"format is needed: '{NotesDocument.Form}', as the export writes it.");
        if (!Words.TryRead<PreferredNotes>(prefer ?? Words.Of(PreferredNotes.Here), out var preferred))
            return Problems.Input("/prefer", $"prefer is one of {Words.List<PreferredNotes>()}.");
        if (document.Models is not { } models)
            return Problems.Input("/models", "models is needed: a list of notes, each with its model.");
        var problems = models.SelectMany((notes, i) => ProblemsOf(notes, $"/models/{i}")).Take(100).ToList();
        foreach (var (notes, i) in models.Select((notes, i) => (notes, i)))
            if (notes is not null && models.Take(i).Any(o => o?.Model == notes.Model))
                problems.Add(new InputProblem($"'{notes.Model}' is there twice.", Pointer: $"/models/{i}/model"));
        if (problems.Count > 0)
            return Problems.Input(problems);
        var taken = bench.TakeInNotes(caller.Actor, models, preferred, dryRun == true);
        var known = fleet.All().Select(a => a.Asset.Model).ToHashSet();
        return TypedResults.Ok(
            new NotesImportAnswer(
                [.. taken.Where(n => n.IsNew).Select(n => n.Model)],
                [.. taken.Where(n => !n.IsNew && n.Changed).Select(n => n.Model)],
                [.. taken.Where(n => !n.IsNew && !n.Changed).Select(n => n.Model)],
                [.. taken.Where(n => !known.Contains(n.Model)).Select(n => n.Model)],
                [
                    .. taken.SelectMany(n =>
                        n.Merged.Differences.Select(d => new NotesDifferenceAnswer(n.Model, d.About, d.Here, d.There))
                    ),
                ]
            )
        );
    }

    private static IEnumerable<InputProblem> ProblemsOf(ModelNotes? notes, string at)
    {
        if (notes is not { Model.Length: > 0 and <= 200 })
            return [new InputProblem("notes need the name of their model", Pointer: at + "/model")];
        if (
            new IEnumerable<object?>?[] { notes.Screws, notes.Connectors, notes.Pads, notes.Fans, notes.Clips, notes.Traps }.Any(
                list => list is null || list.Contains(null)
            )
            || notes.Tools?.Contains(null!) == true
            || notes.Sources?.Contains(null!) == true
        )
            return
            [
                new InputProblem(
                    "screws, connectors, pads, fans, clips and traps are needed; empty where nothing is known.",
                    Pointer: at
                ),
            ];
        return notes.Problems().Select(p => new InputProblem(p.Says, Pointer: at + p.Pointer));
    }

    /// <summary>Changes the notes of a model.</summary>
    internal static Results<Ok<NotesAnswer>, ProblemHttpResult> Put(
        Caller caller,
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
        if (request.By?.Length > 80)
            return Problems.Input("/by", "A name is 80 characters at most.");
        if (ProblemsOf(notes, "/notes").ToArray() is { Length: > 0 } problems)
            return Problems.Input(problems);
        // Who wrote what is kept here, not sent.
        var signed = notes with
        {
            Sources = store.Find(model).Notes.Sources,
        };
        bench.KeepNotes(string.IsNullOrWhiteSpace(request.By) ? caller.Actor : caller.At(request.By, ""), signed, version);
        return TypedResults.Ok(Answer(model, store));
    }
}
