using System.Globalization;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Messages;
using Pyrometron.Formats.Csv;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>Who changed something.</summary>
public sealed record ActorAnswer(long Id, ActorKind Kind, string? Name);

/// <summary>A line of the change log.</summary>
/// <param name="Asset">The machine; null for the fleet, or for several.</param>
/// <param name="Before">What stood there, JSON or words; null for nothing.</param>
/// <param name="Address">From where on the network; null for the program itself, and for those who do not keep the house.</param>
/// <param name="Hash">SHA-256 over the hash of the line before and all that stands in this one.</param>
public sealed record ChangeAnswer(
    long Id,
    DateTimeOffset At,
    DateTimeOffset StoredAt,
    ActorAnswer Actor,
    string Kind,
    string? Asset,
    long? JobId,
    string? Before,
    string? After,
    string Says,
    Message Message,
    string? Address,
    string Hash
)
{
    /// <param name="withAddress">Whether the reader may see from where it was done.</param>
    internal static ChangeAnswer From(LoggedChange c, bool withAddress) =>
        new(
            c.Id,
            c.At,
            c.StoredAt,
            new ActorAnswer(c.ActorId, c.Actor.Kind, c.Actor.Name.Length > 0 ? c.Actor.Name : null),
            c.Kind,
            c.Tag,
            c.JobId,
            c.Before,
            c.After,
            c.Says.ToString(),
            c.Says,
            withAddress ? c.Address : null,
            c.Hash
        );
}

/// <summary>A page of the audit log, newest first.</summary>
public sealed record AuditAnswer(int Total, IReadOnlyList<ChangeAnswer> Lines);

/// <summary>Who did what, when, from where: for whoever keeps the house.</summary>
internal static class AuditEndpoints
{
    private const int MostAtOnce = 500;

    private static readonly byte[] LineEnd = "\n"u8.ToArray();

    public static void MapAudit(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Audit log").Needs(Right.KeepHouse);
        group.MapGet("/audit", Page);
        group
            .MapGet("/audit/choices", (AuditStore audit) => audit.Choices())
            .WithSummary("Who, which kinds and which addresses there are to choose from.");
        group
            .MapGet("/audit/chain", (AuditStore audit, CancellationToken cancellation) => audit.Follow(cancellation))
            .WithSummary("Follows the chain of hashes, and names the first line that is not as it was written.");
        group
            .MapGet("/audit.csv", ([AsParameters] AuditQuery query, AuditStore audit) => Csv(audit, query.Filter))
            .WithSummary("The lines that a search finds as CSV, oldest first.")
            .Produces(200, contentType: "text/csv");
        group
            .MapGet("/audit.jsonl", ([AsParameters] AuditQuery query, AuditStore audit) => JsonLines(audit, query.Filter))
            .WithSummary("The same as JSON, one line each.")
            .Produces(200, contentType: "application/jsonl");
    }

    /// <summary>What of the audit log is asked for.</summary>
    /// <param name="Who">The name of the person, device or program.</param>
    /// <param name="Kinds">Separated by commas.</param>
    /// <param name="From">The first day on which it was written, UTC.</param>
    /// <param name="Until">The last one.</param>
    /// <param name="Address">From where on the network.</param>
    /// <param name="Text">Anywhere in the words, or in what stood there before and after.</param>
    internal sealed record AuditQuery(
        string? Who,
        string? Kinds,
        string? Asset,
        DateOnly? From,
        DateOnly? Until,
        string? Address,
        string? Text
    )
    {
        public AuditFilter Filter =>
            new(
                Who,
                Kinds?.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries),
                Asset,
                From,
                Until,
                Address,
                Text?.Trim()
            );
    }

    /// <summary>Lines of the audit log, newest first.</summary>
    internal static AuditAnswer Page([AsParameters] AuditQuery query, int? skip, int? take, AuditStore audit) =>
        new(
            audit.Count(query.Filter),
            [
                .. audit
                    .Page(query.Filter, Math.Max(0, skip ?? 0), Math.Clamp(take ?? 100, 1, MostAtOnce))
                    .Select(c => ChangeAnswer.From(c, withAddress: true)),
            ]
        );

    private static PushStreamHttpResult Csv(AuditStore audit, AuditFilter filter) =>
        TypedResults.Stream(
            async stream =>
            {
                await using var writer = new StreamWriter(stream, new UTF8Encoding(false));
                await writer.WriteAsync(
                    CsvWriter.Record(
                        "line",
                        "written",
                        "happened",
                        "by",
                        "address",
                        "kind",
                        "asset",
                        "job",
                        "text",
                        "before",
                        "after",
                        "hash"
                    )
                );
                foreach (var c in audit.All(filter))
                    await writer.WriteAsync(
                        CsvWriter.Record(
                            c.Id.ToString(CultureInfo.InvariantCulture),
                            c.StoredAt.ToString("O", CultureInfo.InvariantCulture),
                            c.At.ToString("O", CultureInfo.InvariantCulture),
                            c.Actor.Name,
                            c.Address,
                            c.Kind,
                            c.Tag,
                            c.JobId?.ToString(CultureInfo.InvariantCulture),
                            c.Says.ToString(),
                            c.Before,
                            c.After,
                            c.Hash
                        )
                    );
            },
            "text/csv; charset=utf-8",
            "audit-log.csv"
        );

    private static PushStreamHttpResult JsonLines(AuditStore audit, AuditFilter filter) =>
        TypedResults.Stream(
            async stream =>
            {
                foreach (var c in audit.All(filter))
                {
                    await JsonSerializer.SerializeAsync(stream, ChangeAnswer.From(c, withAddress: true), ApiJson.Options);
                    await stream.WriteAsync(LineEnd);
                }
            },
            "application/jsonl",
            "audit-log.jsonl"
        );
}
