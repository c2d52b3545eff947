using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Fleet;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Zones;

/// <summary>A zone that was added.</summary>
public sealed record ZoneAdded(string Code);

/// <summary>A machine's cell on the floor plan of its zone; without one it is taken off the plan.</summary>
public sealed record FloorCell(string? Asset, FloorPlace? Place);

/// <summary>Machines put into their cells.</summary>
public sealed record FloorDrawn(IReadOnlyList<FloorCell?>? Places)
{
    /// <summary>The places by tag.</summary>
    /// <exception cref="RefusedInputException">A cell lies off the plan, or a machine is named twice.</exception>
    internal IReadOnlyDictionary<string, FloorPlace?> Check()
    {
        if (Places is null)
            throw new RefusedInputException(new InputProblem("places is needed", Pointer: "/places"));
        var places = new Dictionary<string, FloorPlace?>();
        for (var i = 0; i < Places.Count; i++)
            if (Places[i] is not { Asset: { Length: > 0 } tag } cell)
                throw new RefusedInputException(new InputProblem("asset is needed", Pointer: $"/places/{i}/asset"));
            else if (cell.Place is { IsOnPlan: false })
                throw new RefusedInputException(
                    new InputProblem($"column and row lie between 0 and {FloorPlace.Most - 1}", Pointer: $"/places/{i}/place")
                );
            else if (!places.TryAdd(tag, cell.Place))
                throw new RefusedInputException(new InputProblem($"'{tag}' is named twice", Pointer: $"/places/{i}/asset"));
        return places;
    }
}

/// <summary>The air of a zone in five days.</summary>
/// <param name="At">Their middle.</param>
/// <param name="SensorCelsius">What its intake sensors say.</param>
/// <param name="RoomKelvin">What its machines show beyond that; null with too few of them.</param>
public sealed record AirPoint(DateTimeOffset At, double SensorCelsius, double? RoomKelvin);

/// <summary>Zones: listed with their rooms, added, edited, removed.</summary>
internal static class ZoneEndpoints
{
    public static void MapZones(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/zones").WithTags("Zones");
        group.MapGet("", Get);
        group
            .MapPost(
                "",
                (Caller caller, ZoneEdit zone, ZoneUseCases zones) =>
                    TypedResults.Ok(new ZoneAdded(zones.Add(caller.Actor, zone.Add).Code))
            )
            .WithSummary("Adds a zone to a site.");
        group
            .MapPut(
                "/{code}",
                (Caller caller, string code, ZoneEdit edit, ZoneUseCases zones) =>
                {
                    zones.Edit(caller.Actor, code, edit.Apply);
                    return TypedResults.NoContent();
                }
            )
            .WithSummary("Changes what is known of a zone.");
        group.MapGet("/{code}/air", GetAir);
        group
            .MapPut(
                "/{code}/floor",
                (Caller caller, string code, FloorDrawn drawn, ZoneUseCases zones) =>
                {
                    zones.Place(caller.Actor, code, drawn.Check());
                    return TypedResults.NoContent();
                }
            )
            .WithSummary("Keeps where machines stand on a zone's floor.");
        group
            .MapDelete(
                "/{code}",
                (Caller caller, string code, ZoneUseCases zones) =>
                {
                    zones.Remove(caller.Actor, code);
                    return TypedResults.NoContent();
                }
            )
            .WithSummary("Removes a zone that has no machines.");
    }

    /// <summary>The air of a zone over time, °C.</summary>
    internal static async Task<Results<Ok<AirPoint[]>, ProblemHttpResult>> GetAir(
        string code,
        JudgementService service,
        FleetStore fleet,
        CancellationToken cancellation
    )
    {
        if (!fleet.Sites().Any(s => s.Zones.Any(z => z.Code == code)))
            return Problems.Missing($"There is no zone '{code}'.");
        var judged = await service.GetAsync(null, QueueEndpoints.PatienceOf(null), cancellation);
        return TypedResults.Ok(
            (judged.Judgement?.AirOf(code) ?? [])
                .Select(p => new AirPoint(
                    AssessmentAnswer.At(p.Day),
                    Math.Round(p.SensorC, 1),
                    p.RoomKelvin is { } kelvin ? Math.Round(kelvin, 2) : null
                ))
                .ToArray()
        );
    }

    /// <summary>All zones with their air, dust and machines.</summary>
    internal static async Task<Results<Ok<ZoneAnswer[]>, ProblemHttpResult>> Get(
        DateOnly? asOf,
        double? wait,
        JudgementService service,
        FleetStore fleet,
        CancellationToken cancellation
    )
    {
        if (QueueEndpoints.Refuse(asOf, wait, service) is { } refused)
            return refused;
        var judged = await service.GetAsync(asOf, QueueEndpoints.PatienceOf(wait), cancellation);
        var drifts = (judged.Judgement?.Zones ?? []).ToDictionary(z => z.Zone);
        return TypedResults.Ok(
            fleet.Sites().SelectMany(s => s.Zones.Select(z => ZoneAnswer.From(s, z, drifts.GetValueOrDefault(z.Code)))).ToArray()
        );
    }
}
