using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Fleet;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Machines;

/// <summary>What somebody saw or heard a machine do.</summary>
/// <param name="MinutesToFailure">After how long it shows, where that is known.</param>
public sealed record ReportSymptom(DateOnly? Date, SymptomKind? Kind, string? Note, double? MinutesToFailure = null);

/// <summary>A report withdrawn.</summary>
public sealed record WithdrawSymptom(string? Reason);

/// <summary>Reports of people about machines.</summary>
internal static class SymptomEndpoints
{
    private const double MostMinutes = 10_000;

    public static void MapSymptoms(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/assets/{tag}/symptoms").WithTags("Machines");
        group.MapPost("", Post);
        group.MapPost("/{id:long}/withdraw", Withdraw);
    }

    /// <summary>Reports what somebody noticed on a machine.</summary>
    internal static Results<NoContent, ProblemHttpResult> Post(
        Caller caller,
        string tag,
        ReportSymptom request,
        FleetUseCases fleet,
        TimeProvider clock
    )
    {
        var today = MachineEndpoints.Today(clock);
        if ((request.Date ?? today) is var date && (date > today.AddDays(1) || date.Year < 1990))
            return Problems.Input("/date", "date is the day it was noticed, not later than today");
        if (request.Kind is not { } kind)
            return Problems.Input("/kind", $"kind is needed: one of {Words.List<SymptomKind>()}");
        if (request.Note?.Length > MachineEndpoints.LongestReason)
            return Problems.Input("/note", $"A note is {MachineEndpoints.LongestReason} characters at most.");
        if (request.MinutesToFailure is not (null or > 0 and <= MostMinutes))
            return Problems.Input("/minutesToFailure", $"minutesToFailure lies above 0 and up to {MostMinutes}");
        fleet.Report(
            caller.Actor,
            tag,
            new Symptom(date, kind, string.IsNullOrWhiteSpace(request.Note) ? null : request.Note.Trim())
            {
                MinutesToFailure = request.MinutesToFailure,
            }
        );
        return TypedResults.NoContent();
    }

    /// <summary>Takes a report back; it stays in the book with its reason.</summary>
    internal static Results<NoContent, ProblemHttpResult> Withdraw(
        Caller caller,
        string tag,
        long id,
        WithdrawSymptom request,
        FleetUseCases fleet
    )
    {
        if (MachineEndpoints.NeedsReason(request.Reason) is { } problem)
            return problem;
        fleet.WithdrawReport(caller.Actor, tag, id, request.Reason!);
        return TypedResults.NoContent();
    }
}
