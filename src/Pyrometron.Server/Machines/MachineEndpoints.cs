using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Fleet;
using Pyrometron.Application.Readings;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;
using Pyrometron.Server.Access;
using Pyrometron.Server.Bench;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Machines;

/// <summary>A machine taken out of use, or put back.</summary>
public sealed record Retirement(bool Retired, DateOnly? On, string? Reason);

/// <summary>A machine set aside.</summary>
public sealed record PutAside(string? Reason, DateOnly? Until);

/// <summary>A service to add by hand.</summary>
/// <param name="FanFailed">Whether the fan that was changed had failed, or was changed in time; null where nobody knows.</param>
public sealed record AddService(DateOnly? Date, ServiceLevel? Level, bool? FanFailed = null);

/// <summary>Something voided with a reason, or restored.</summary>
public sealed record Voiding(bool Voided, string? Reason);

/// <summary>A reading voided, restored or corrected.</summary>
public sealed record ReadingVoiding(DateTimeOffset? At, bool Voided, string? Reason);

/// <summary>One number of a reading corrected; a null value takes it out.</summary>
/// <param name="Column">Such as <c>ambient_c</c>, or a part's name.</param>
public sealed record ReadingCorrection(DateTimeOffset? At, string? Column, double? Value, string? Reason);

/// <summary>Machines and their books.</summary>
internal static class MachineEndpoints
{
    internal const int LongestReason = 500;

    public static void MapMachines(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/assets").WithTags("Machines");
        group
            .MapGet(
                "",
                (FleetStore fleet) =>
                    fleet
                        .All()
                        .Select(a => new MachineSummary(a.Asset.Tag, a.Asset.Kind, a.Asset.Model, a.Asset.Zone, a.RetiredOn))
                        .ToArray()
            )
            .WithSummary("All machines, in brief.");
        group.MapGet("/{tag}", Get);
        group.MapPut("/{tag}", Put);
        group.MapPost("/{tag}/retirement", Retire);
        group.MapPut("/{tag}/set-aside", SetAside);
        group
            .MapDelete(
                "/{tag}/set-aside",
                (Caller caller, string tag, FleetUseCases fleet) =>
                {
                    fleet.TakeBack(caller.Actor, tag);
                    return TypedResults.NoContent();
                }
            )
            .WithSummary("Takes a machine back into the queue.");
        group.MapPost("/{tag}/services", PostService);
        group.MapPost("/{tag}/services/{service:long}/void", VoidService);
        group.MapGet("/{tag}/readings", Readings);
        group.MapPost("/{tag}/readings/void", VoidReading);
        group.MapPost("/{tag}/readings/correct", CorrectReading);
    }

    /// <summary>A machine with its parts, services, readings and reports.</summary>
    internal static Results<Ok<MachineAnswer>, ProblemHttpResult> Get(
        string tag,
        FleetStore fleet,
        ServiceStore services,
        ReadingStore readings,
        JobStore jobs,
        SymptomStore symptoms
    )
    {
        if (fleet.Find(tag) is not { } stored)
            return Unknown(tag);
        var a = stored.Asset;
        var places = Places.Of(fleet.Sites());
        return TypedResults.Ok(
            new MachineAnswer(
                a.Tag,
                a.Kind,
                a.Model,
                a.Zone,
                places.ZoneName(a.Zone),
                places.SiteOf(a.Zone),
                a.HostTag,
                a.DutyHoursPerDay,
                a.InServiceSince,
                a.WarrantyUntil,
                stored.RetiredOn,
                stored.RetiredReason,
                [.. a.Parts.Select(p => new MachinePart(p.Name, p.Limit.Value, p.Joint))],
                [.. services.Of(stored.Id).Select(s => ServiceEntry.From(s))],
                fleet.Changes(stored.Id),
                readings.Amendments(stored),
                [.. jobs.Of(stored.Id).Select(JobSummary.From)],
                [
                    .. symptoms
                        .Of(stored.Id)
                        .Select(s => new SymptomEntry(
                            s.Id,
                            s.Symptom.Date,
                            s.Symptom.Kind,
                            s.Symptom.Note,
                            s.WithdrawnReason,
                            s.Symptom.MinutesToFailure
                        )),
                ],
                jobs.Deviations(tag),
                ServiceEffects.For(stored.Asset.Kind)
            )
        );
    }

    /// <summary>Changes what is known of a machine.</summary>
    internal static NoContent Put(Caller caller, string tag, MachineEdit edit, FleetUseCases fleet)
    {
        fleet.Edit(caller.Actor, tag, edit.Apply);
        return TypedResults.NoContent();
    }

    /// <summary>Takes a machine out of service; its history stays.</summary>
    internal static Results<NoContent, ProblemHttpResult> Retire(
        Caller caller,
        string tag,
        Retirement request,
        FleetUseCases fleet,
        TimeProvider clock
    )
    {
        if (request.Retired && NeedsReason(request.Reason) is { } problem)
            return problem;
        if (request.On is { } on && (on < Asset.EarliestDay || on > Today(clock).AddDays(1)))
            return Problems.Input("/on", "on is the last day of use: not later than today");
        fleet.Retire(
            caller.Actor,
            tag,
            request.Retired ? request.On ?? Today(clock) : null,
            request.Retired ? request.Reason : null
        );
        return TypedResults.NoContent();
    }

    /// <summary>Sets a machine aside until a day: it leaves the queue, with a reason.</summary>
    internal static Results<NoContent, ProblemHttpResult> SetAside(
        Caller caller,
        string tag,
        PutAside request,
        FleetUseCases fleet,
        TimeProvider clock
    )
    {
        if (NeedsReason(request.Reason) is { } problem)
            return problem;
        if (request.Until is not { } until || until <= Today(clock) || until > Today(clock).AddYears(2))
            return Problems.Input("/until", "until is needed: the day it comes back, after today and within two years");
        fleet.SetAside(caller.Actor, tag, request.Reason!, until);
        return TypedResults.NoContent();
    }

    /// <summary>Enters a service that was done without the bench.</summary>
    internal static Results<NoContent, ProblemHttpResult> PostService(
        Caller caller,
        string tag,
        AddService request,
        FleetUseCases fleet,
        TimeProvider clock
    )
    {
        if (request.Date is not { } date || !ServiceDone.IsPossible(date, Today(clock)))
            return Problems.Input("/date", "date is needed: the day of the service, not later than today");
        if (request.Level is not { } level)
            return Problems.Input("/level", $"level is needed: one of {Words.List<ServiceLevel>()}");
        fleet.AddService(
            caller.Actor,
            tag,
            new ServiceDone(date, level) { FanFailed = level == ServiceLevel.FanSwap ? request.FanFailed : null }
        );
        return TypedResults.NoContent();
    }

    /// <summary>Voids a service that never was; it stays in the book with its reason.</summary>
    internal static Results<NoContent, ProblemHttpResult> VoidService(
        Caller caller,
        string tag,
        long service,
        Voiding request,
        FleetUseCases fleet
    )
    {
        if (request.Voided && NeedsReason(request.Reason) is { } problem)
            return problem;
        fleet.VoidService(caller.Actor, tag, service, request.Voided ? request.Reason : null);
        return TypedResults.NoContent();
    }

    /// <summary>Readings of a machine, newest first.</summary>
    /// <param name="before">Only older ones, for paging.</param>
    internal static Results<Ok<ReadingEntry[]>, ProblemHttpResult> Readings(
        string tag,
        DateTimeOffset? before,
        int? count,
        FleetStore fleet,
        ReadingStore readings
    ) =>
        fleet.Find(tag) is { } stored
            ? TypedResults.Ok(
                readings
                    .Newest(stored, Math.Clamp(count ?? 50, 1, 500), before?.ToUnixTimeMilliseconds() ?? long.MaxValue)
                    .Select(ReadingEntry.From)
                    .ToArray()
            )
            : Unknown(tag);

    /// <summary>Voids a reading; it stays with its reason and counts no more.</summary>
    internal static Results<NoContent, ProblemHttpResult> VoidReading(
        Caller caller,
        string tag,
        ReadingVoiding request,
        ReadingUseCases readings
    )
    {
        if (NeedsReason(request.Reason) is { } problem)
            return problem;
        if (request.At is not { } at)
            return Problems.Input("/at", "at is needed: the instant of the reading");
        readings.Void(caller.Actor, tag, at, request.Voided, request.Reason!);
        return TypedResults.NoContent();
    }

    /// <summary>Corrects a value of a reading; what stood there stays in its history.</summary>
    internal static Results<NoContent, ProblemHttpResult> CorrectReading(
        Caller caller,
        string tag,
        ReadingCorrection request,
        FleetStore fleet,
        ReadingUseCases readings
    )
    {
        if (NeedsReason(request.Reason) is { } problem)
            return problem;
        if (request.At is not { } at || request.Column is not { } column)
            return Problems.Input("/at", "at and column are needed: the instant of the reading, and what of it is corrected");
        var temperature = column is "ambient_c" or "outlet_c" || fleet.Find(tag)?.Asset.Parts.Any(p => p.Name == column) == true;
        if (
            request.Value is { } value
            && (temperature ? value is < Reading.ColdestC or > Reading.HottestC : value is < 0 or > Reading.LargestNumber)
        )
            return Problems.Input(
                "/value",
                temperature ? "A temperature lies between −273.15 and 1000 °C." : "This cannot be negative."
            );
        readings.Correct(caller.Actor, tag, new ReadingCorrected(at, column, request.Value, request.Reason!));
        return TypedResults.NoContent();
    }

    internal static ProblemHttpResult Unknown(string tag) => Problems.Missing($"There is no machine '{tag}'.");

    internal static ProblemHttpResult? NeedsReason(string? reason) =>
        string.IsNullOrWhiteSpace(reason) || reason.Length > LongestReason
            ? Problems.Input("/reason", $"reason is needed: {LongestReason} characters at most")
            : null;

    internal static DateOnly Today(TimeProvider clock) => DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);
}
