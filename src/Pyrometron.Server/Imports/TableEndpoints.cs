using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Pyrometron.Application.Imports;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats;
using Pyrometron.Formats.Tables;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Imports;

/// <summary>What a column was taken for.</summary>
/// <param name="Field">One of the fields of a table of machines, such as <c>tag</c> or <c>inServiceSince</c>; or
/// <c>ignore</c>.</param>
/// <param name="Guessed">Whether nobody has settled it.</param>
public sealed record TableColumnAnswer(string Header, string Field, bool Guessed);

/// <summary>A machine of a table as it would stand.</summary>
public sealed record TableMachineAnswer(
    string Tag,
    AssetKind Kind,
    string Model,
    string Zone,
    DateOnly InServiceSince,
    DateOnly? WarrantyUntil,
    double DutyHoursPerDay,
    DateOnly? LastService
);

/// <summary>What became of a table of machines, or would become in a dry run.</summary>
/// <param name="RefusedCount">All lines left out; <paramref name="Refused"/> lists the first hundred.</param>
/// <param name="Questions">What the table does not say by itself; answered by <c>map</c> or <c>means</c>.</param>
/// <param name="Defaults">What was put in where it says nothing.</param>
/// <param name="Preview">The first machines as they would stand.</param>
public sealed record TableAnswer(
    IReadOnlyList<TableColumnAnswer> Columns,
    int Created,
    int Updated,
    int Unchanged,
    IReadOnlyList<RefusedLine> Refused,
    int RefusedCount,
    IReadOnlyList<InputQuestion> Questions,
    IReadOnlyList<TableDefault> Defaults,
    IReadOnlyList<TableMachineAnswer> Preview
);

/// <summary>Machines as a table, in and out.</summary>
internal static class TableEndpoints
{
    private const int MostListed = 100;

    public static void MapTables(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/fleet/table").WithTags("Imports");
        group.MapPost("", Post).WithMetadata(Bodies.Spreadsheets);
        group
            .MapGet("", (FleetStore fleet) => Csv(MachineTableWriter.Write(fleet.Register(withRetired: false)), "machines.csv"))
            .WithSummary("The machines as a table, CSV.");
        group
            .MapGet("/template", () => Csv(MachineTableWriter.Template, "machines-template.csv"))
            .WithSummary("An empty table with the headers that are known, CSV.");
    }

    private static FileContentHttpResult Csv(string table, string name) =>
        TypedResults.File(Encoding.UTF8.GetBytes(table), "text/csv; charset=utf-8", name);

    /// <summary>Takes in a table of machines, CSV or XLSX; what is not clear is asked.</summary>
    /// <param name="map">HEADER:field, repeatable: settles a header.</param>
    /// <param name="means">WORD:meaning, repeatable: settles a kind, a model's kind, or the order of a header's dates.</param>
    internal static async Task<Results<Ok<TableAnswer>, ProblemHttpResult>> Post(
        Caller caller,
        HttpRequest request,
        DataFolder folder,
        TableUseCases tables,
        bool? dryRun,
        [FromQuery] string[]? map,
        [FromQuery] string[]? means,
        CancellationToken cancellation
    )
    {
        var (headers, words) = (new Dictionary<string, MachineField>(), new Dictionary<string, string>());
        foreach (var pair in map ?? [])
            if (Split(pair) is (var header, var name) && MachineTable.FieldOf(name) is { } field)
                headers[header] = field;
            else
                return Problems.Input("/map", $"'{pair}' settles nothing: write HEADER:field, with one of {Fields}.");
        foreach (var pair in means ?? [])
            if (Split(pair) is (var word, var meaning))
                words[word] = meaning;
            else
                return Problems.Input("/means", $"'{pair}' settles nothing: write WORD:meaning, as a question offers it.");
        using var spool = await GzipSpool.TakeAsync(request.Body, folder.Uploads, cancellation);
        var taken = tables.Take(
            caller.Actor,
            spool.ReadAll(TableText.LongestBytes),
            headers,
            words,
            dryRun == true,
            cancellation
        );
        return TypedResults.Ok(Answer(taken));
    }

    private static string Fields => string.Join(", ", Enum.GetValues<MachineField>().Select(MachineTable.NameOf));

    /// <summary>The last colon parts them: headers may hold some.</summary>
    internal static (string Text, string Meaning)? Split(string pair) =>
        pair.LastIndexOf(':') is > 0 and var at && at < pair.Length - 1 ? (pair[..at], pair[(at + 1)..]) : null;

    private static TableAnswer Answer(TableTaken t) =>
        new(
            [.. t.Columns.Select(c => new TableColumnAnswer(c.Header, MachineTable.NameOf(c.Field), c.Guessed))],
            t.Created,
            t.Updated,
            t.Unchanged,
            [.. t.Refused.Take(MostListed).Select(RefusedLine.Of)],
            t.Refused.Select(r => r.Line).Distinct().Count(),
            t.Questions,
            t.Defaults,
            [
                .. t.Preview.Select(a => new TableMachineAnswer(
                    a.Tag,
                    a.Kind,
                    a.Model,
                    a.Zone,
                    a.InServiceSince,
                    a.WarrantyUntil,
                    a.DutyHoursPerDay,
                    a.Services.Count > 0 ? a.Services[^1].Date : null
                )),
            ]
        );
}
