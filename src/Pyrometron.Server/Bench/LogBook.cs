using System.Globalization;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Formats.Csv;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>How often a predicted cause was found on opening.</summary>
/// <param name="Says">In a sentence; null with too few jobs.</param>
/// <param name="Message">The same as template and values.</param>
public sealed record AgreementAnswer(Cause Predicted, int Jobs, int Right, string? Says, Message? Message);

/// <summary>A line of the log book.</summary>
/// <param name="Says">In words.</param>
/// <param name="Photo">The key of a photo, or null.</param>
/// <param name="Message">The words as template and values.</param>
public sealed record LogLineAnswer(
    DateTimeOffset At,
    string Asset,
    string Kind,
    string Says,
    string? By,
    long? JobId,
    Guid? Photo,
    Message Message
)
{
    internal static LogLineAnswer From(LoggedChange c) =>
        new(
            c.At,
            c.Tag ?? "",
            c.Kind,
            c.Says.ToString(),
            c.Actor is { Kind: ActorKind.Person, Name.Length: > 0 } person ? person.Name : null,
            c.JobId,
            c.Kind == "photo-taken" && c.After is { } entry
                ? JsonDocument.Parse(entry).RootElement.GetProperty("photo").GetGuid()
                : null,
            c.Says
        );
}

/// <summary>A page of the log book.</summary>
public sealed record LogAnswer(int Total, IReadOnlyList<LogLineAnswer> Lines);

/// <summary>A page of the change log, oldest first.</summary>
/// <param name="Next">What to ask for as <c>after</c> next; the same as asked where there is nothing newer.</param>
public sealed record ChangesAnswer(IReadOnlyList<ChangeAnswer> Changes, long Next);

/// <summary>The log book of the fleet, or of one machine, and the change log behind it.</summary>
internal static class LogBookEndpoints
{
    private const int MostAtOnce = 500;

    public static void MapLogBook(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Log book");
        group
            .MapGet(
                "/log",
                ([AsParameters] LogQuery query, int? skip, int? take, ChangeStore log) =>
                    new LogAnswer(
                        log.Count(query.Filter),
                        [
                            .. log.Page(query.Filter, Math.Max(0, skip ?? 0), Math.Clamp(take ?? 100, 1, MostAtOnce))
                                .Select(LogLineAnswer.From),
                        ]
                    )
            )
            .WithSummary("Lines of the log book, newest first.");
        group
            .MapGet("/log.csv", ([AsParameters] LogQuery query, ChangeStore log) => Csv(log, query.Filter))
            .WithSummary("The lines that a search finds as CSV.")
            .Produces(200, contentType: "text/csv");
        group
            .MapGet(
                "/log.json",
                ([AsParameters] LogQuery query, ChangeStore log) =>
                    Export(
                        "application/json",
                        "json",
                        stream =>
                            JsonSerializer.SerializeAsync(
                                stream,
                                log.All(query.Filter).Select(LogLineAnswer.From),
                                ApiJson.Options
                            )
                    )
            )
            .WithSummary("The same as JSON.")
            .Produces<LogLineAnswer[]>();
        group
            .MapGet(
                "/changes",
                (Caller caller, long? after, int? limit, ChangeStore log) =>
                    Changes(caller, log, after ?? 0, Math.Clamp(limit ?? 100, 1, MostAtOnce))
            )
            .WithSummary("What has changed since a line of the log, for programs that follow along.");
        group
            .MapGet(
                "/findings/agreement",
                (JobStore jobs) =>
                    TrackRecord
                        .Of(jobs.PredictedAndFound())
                        .Select(r => new AgreementAnswer(r.Predicted, r.Jobs, r.Right, r.Says?.ToString(), r.Says))
                        .ToArray()
            )
            .WithSummary("How often the cause that was judged was the one that was found.");
        group
            .MapGet("/findings/comebacks", (JobStore jobs) => jobs.ComeBack())
            .WithSummary("Machines that came back soon after a service, and for what.");
    }

    /// <summary>What of the log book is asked for.</summary>
    /// <param name="Kinds">Separated by commas.</param>
    /// <param name="Text">Anywhere in tag or words.</param>
    internal sealed record LogQuery(string? Asset, string? Kinds, DateOnly? From, DateOnly? Until, string? Text)
    {
        public LogFilter Filter =>
            new(
                Asset,
                Kinds?.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries),
                From,
                Until,
                Text?.Trim()
            );
    }

    private static ChangesAnswer Changes(Caller caller, ChangeStore log, long after, int most)
    {
        // Who signed in when is for whoever keeps the house.
        var isKeeper = caller.Actor.Rights.May(Right.KeepHouse);
        var changes = log.After(after, most);
        return new ChangesAnswer(
            [
                .. changes
                    .Where(c => isKeeper || c.Kind is not ("account" or "sign-in" or "refused"))
                    .Select(c => ChangeAnswer.From(c, isKeeper)),
            ],
            changes.Count > 0 ? changes[^1].Id : after
        );
    }

    private static PushStreamHttpResult Csv(ChangeStore log, LogFilter filter) =>
        Export(
            "text/csv; charset=utf-8",
            "csv",
            async stream =>
            {
                await using var writer = new StreamWriter(stream, new UTF8Encoding(false));
                await writer.WriteAsync(CsvWriter.Record("time", "asset", "kind", "text", "by", "job", "photo"));
                foreach (var line in log.All(filter).Select(LogLineAnswer.From))
                    await writer.WriteAsync(
                        CsvWriter.Record(
                            line.At.ToString("O", CultureInfo.InvariantCulture),
                            line.Asset,
                            line.Kind,
                            line.Says,
                            line.By,
                            line.JobId?.ToString(CultureInfo.InvariantCulture),
                            line.Photo?.ToString()
                        )
                    );
            }
        );

    private static PushStreamHttpResult Export(string type, string ending, Func<Stream, Task> write) =>
        TypedResults.Stream(write, type, $"log-book.{ending}");
}
