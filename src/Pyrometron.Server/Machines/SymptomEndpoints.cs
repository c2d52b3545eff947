using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Machines;

/// <summary>What somebody saw or heard a machine do.</summary>
public sealed record ReportSymptom(DateOnly? Date, SymptomKind? Kind, string? Note);

/// <summary>A report withdrawn.</summary>
public sealed record WithdrawSymptom(string? Reason);

/// <summary>Reports of people about machines.</summary>
internal static class SymptomEndpoints
{
    public static void MapSymptoms(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/assets/{tag}/symptoms").WithTags("Machines");
        group.MapPost("", Post);
        group.MapPost("/{id:long}/withdraw", Withdraw);
    }

    private static Results<NoContent, ProblemHttpResult> Post(
        string tag,
        ReportSymptom request,
        FleetStore fleet,
        SymptomStore symptoms,
        TimeProvider clock,
        JudgementService judgement
    )
    {
        if (fleet.Find(tag) is not { } stored)
            return MachineEndpoints.Unknown(tag);
        var today = MachineEndpoints.Today(clock);
        if ((request.Date ?? today) is var date && (date > today.AddDays(1) || date.Year < 1990))
            return Problems.Input("/date", "date is the day it was noticed, not later than today");
        if (request.Kind is not { } kind)
            return Problems.Input("/kind", $"kind is needed: one of {Words.List<SymptomKind>()}");
        if (request.Note?.Length > MachineEndpoints.LongestReason)
            return Problems.Input("/note", $"A note is {MachineEndpoints.LongestReason} characters at most.");
        symptoms.Add(stored.Id, new Symptom(date, kind, string.IsNullOrWhiteSpace(request.Note) ? null : request.Note.Trim()));
        judgement.Changed(tag);
        return TypedResults.NoContent();
    }

    private static Results<NoContent, ProblemHttpResult> Withdraw(
        string tag,
        long id,
        WithdrawSymptom request,
        FleetStore fleet,
        SymptomStore symptoms,
        JudgementService judgement
    )
    {
        if (fleet.Find(tag) is not { } stored)
            return MachineEndpoints.Unknown(tag);
        if (MachineEndpoints.NeedsReason(request.Reason) is { } problem)
            return problem;
        if (!symptoms.Withdraw(stored.Id, id, request.Reason!))
            return Problems.Missing($"'{tag}' has no report {id} that stands.");
        judgement.Changed(tag);
        return TypedResults.NoContent();
    }
}
