using System.Globalization;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Jobs;
using Pyrometron.Formats.Csv;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>A line of the log book.</summary>
/// <param name="Says">In words.</param>
/// <param name="Photo">The key of a photo, or null.</param>
public sealed record LogLineAnswer(
    DateTimeOffset At,
    string Asset,
    string Kind,
    string Says,
    string? By,
    long? JobId,
    Guid? Photo
);

/// <summary>A page of the log book.</summary>
public sealed record LogAnswer(int Total, IReadOnlyList<LogLineAnswer> Lines);

/// <summary>The log book of the fleet, or of one machine.</summary>
internal static class LogBookEndpoints
{
    private const int MostAtOnce = 500;

    public static void MapLogBook(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("").WithTags("Log book");
        group.MapGet(
            "/log",
            (
                string? asset,
                string? kinds,
                DateOnly? from,
                DateOnly? until,
                string? text,
                int? skip,
                int? take,
                LogStore log,
                JobBook book
            ) =>
            {
                var filter = Filter(asset, kinds, from, until, text);
                var say = new Sayer(book);
                return new LogAnswer(
                    log.Count(filter),
                    [.. log.Page(filter, Math.Max(0, skip ?? 0), Math.Clamp(take ?? 100, 1, MostAtOnce)).Select(say.Answer)]
                );
            }
        );
        group
            .MapGet(
                "/log.csv",
                (string? asset, string? kinds, DateOnly? from, DateOnly? until, string? text, LogStore log, JobBook book) =>
                    Export(
                        "text/csv; charset=utf-8",
                        "csv",
                        async stream =>
                        {
                            await using var writer = new StreamWriter(stream, new UTF8Encoding(false));
                            await writer.WriteAsync(CsvWriter.Record("time", "asset", "kind", "text", "by", "job", "photo"));
                            foreach (var line in All(log, Filter(asset, kinds, from, until, text), book))
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
                    )
            )
            .Produces(200, contentType: "text/csv");
        group
            .MapGet(
                "/log.json",
                (string? asset, string? kinds, DateOnly? from, DateOnly? until, string? text, LogStore log, JobBook book) =>
                    Export(
                        "application/json",
                        "json",
                        stream =>
                            System.Text.Json.JsonSerializer.SerializeAsync(
                                stream,
                                All(log, Filter(asset, kinds, from, until, text), book),
                                ApiJson.Options
                            )
                    )
            )
            .Produces<LogLineAnswer[]>();
        group.MapGet("/findings/agreement", (JobStore jobs) => TrackRecord.Of(jobs.PredictedAndFound()));
    }

    private static PushStreamHttpResult Export(string type, string ending, Func<Stream, Task> write) =>
        TypedResults.Stream(write, type, $"log-book.{ending}");

    private static LogFilter Filter(string? asset, string? kinds, DateOnly? from, DateOnly? until, string? text) =>
        new(
            asset,
            kinds?.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries),
            from,
            until,
            text?.Trim()
        );

    private static IEnumerable<LogLineAnswer> All(LogStore log, LogFilter filter, JobBook book) =>
        log.All(filter).Select(new Sayer(book).Answer);

    /// <summary>Puts lines into words; the steps of each job are looked up once.</summary>
    private sealed class Sayer(JobBook book)
    {
        private static readonly HashSet<string> Worded = ["job", "service", "report", "change", "reading"];

        private readonly Dictionary<long, Dictionary<string, string>> _steps = [];

        public LogLineAnswer Answer(LogLine line)
        {
            if (Worded.Contains(line.Kind) || line.JobId is not { } id)
                return new LogLineAnswer(line.At, line.Tag, line.Kind, line.Detail, line.By, line.JobId, null);
            if (!_steps.TryGetValue(id, out var steps))
                _steps[id] = steps = book.Find(id)!.Steps.ToDictionary(s => s.Card.Id, s => s.Card.Do);
            var entry = JobBook.Read(line.Detail);
            return new LogLineAnswer(
                line.At,
                line.Tag,
                line.Kind,
                EntryWords.Of(entry, steps.GetValueOrDefault),
                line.By,
                id,
                (entry as PhotoTaken)?.Photo
            );
        }
    }
}
