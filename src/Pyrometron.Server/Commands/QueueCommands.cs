using System.CommandLine;
using System.Globalization;
using Microsoft.Extensions.Logging.Abstractions;
using Pyrometron.Core.Fleet;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Commands;

/// <summary>What needs work next, and why, without a browser. They judge anew from the database and change nothing.</summary>
internal static class QueueCommands
{
    private const int UsualRows = 20;

    private static readonly Option<DateOnly?> Day = new("--as-of")
    {
        Description = "A day, such as 2026-11-30; by default today, or the day of the newest reading where that is long ago.",
    };

    /// <summary>The order of work.</summary>
    /// <param name="data">The option that names the folder with the database.</param>
    /// <param name="json">The option for answers in JSON.</param>
    public static Command Queue(Option<string> data, Option<bool> json)
    {
        var most = new Option<int>("--limit")
        {
            Description = "How many machines are listed; 0 for all.",
            DefaultValueFactory = _ => UsualRows,
        };
        var command = new Command("queue", "Tells which machines need work next, the first one first.") { most, Day, data, json };
        command.SetAction(
            (parsed, cancellation) =>
                CommandLine.ToldAsync(
                    parsed,
                    async (report, _) =>
                    {
                        using var database = CommandLine.Open(parsed.GetValue(data)!);
                        var judged = await JudgeAsync(database, parsed, report, cancellation);
                        if (judged.Queue.Count == 0)
                            report.Note("There are no machines yet. The command import takes in a fleet document.");
                        var limit = parsed.GetValue(most) is > 0 and var some ? some : int.MaxValue;
                        foreach (
                            var row in QueueEndpoints.Items(
                                judged,
                                limit,
                                Places.Of(new FleetStore(database).Sites()),
                                new SetAsideStore(database).On(judged.AsOf),
                                new JobStore(database)
                            )
                        )
                            report.Row(row, Told(row));
                        return true;
                    }
                )
        );
        return command;
    }

    /// <summary>The judgement of one machine.</summary>
    public static Command Judge(Option<string> data, Option<bool> json)
    {
        var tag = new Argument<string>("machine") { Description = "Its tag." };
        var command = new Command("judge", "Tells how one machine stands, and by which evidence.") { tag, Day, data, json };
        command.SetAction(
            (parsed, cancellation) =>
                CommandLine.ToldAsync(
                    parsed,
                    async (report, _) =>
                    {
                        using var database = CommandLine.Open(parsed.GetValue(data)!);
                        var name = parsed.GetValue(tag)!;
                        if (new FleetStore(database).Find(name) is not { } known)
                            throw new InvalidDataException($"There is no machine '{name}'. The command queue lists them.");
                        if (known.RetiredOn is not null)
                            throw new InvalidDataException($"'{name}' is retired and is not judged any more.");
                        using var service = Service(database);
                        var judged = await JudgeAsync(service, parsed, report, cancellation);
                        var assessment = service.One(judged, known.Asset.Tag)!;
                        var answer = AssessmentAnswer.From(assessment, new JudgedFleet(judged, null, Pending: false));
                        report.Row(answer, Told(answer));
                        return true;
                    }
                )
        );
        return command;
    }

    private static string Told(QueueItem row) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{row.Rank, 4}  {row.Asset, -12} {Words.Of(row.Urgency), -6} {(row.Service is { } level ? Words.Of(level) : "-"), -12} {row.Reason}"
        );

    private static string Told(AssessmentAnswer answer) =>
        string.Join(
            Environment.NewLine,
            (string[])
                [
                    $"{answer.Asset}, as of {answer.AsOf:yyyy-MM-dd}: {Words.Of(answer.Urgency)}, {(answer.Service is { } level ? Words.Of(level) : "no work advised")}",
                    .. answer.Sentences,
                    .. answer.WhyNot.Select(w => $"{Words.Of(w.What)}: {w.Evidence}"),
                ]
        );

    private static JudgementService Service(Database database) =>
        new(database, TimeProvider.System, NullLogger<JudgementService>.Instance);

    private static async Task<Core.Judging.FleetJudgement> JudgeAsync(
        Database database,
        ParseResult parsed,
        Report report,
        CancellationToken cancellation
    )
    {
        using var service = Service(database);
        return await JudgeAsync(service, parsed, report, cancellation);
    }

    private static async Task<Core.Judging.FleetJudgement> JudgeAsync(
        JudgementService service,
        ParseResult parsed,
        Report report,
        CancellationToken cancellation
    )
    {
        if (parsed.GetValue(Day) is { } asked && QueueEndpoints.Refuse(asked, null, service) is not null)
            throw new InvalidDataException($"{asked:yyyy-MM-dd} is not a day that can be judged.");
        while (true)
        {
            var judged = await service.GetAsync(parsed.GetValue(Day), TimeSpan.FromSeconds(5), cancellation);
            if (judged is { Pending: false, Judgement: { } judgement })
                return judgement;
            var (done, of) = service.Progress;
            report.Progress($"judging: {done} of {of} zones");
        }
    }
}
