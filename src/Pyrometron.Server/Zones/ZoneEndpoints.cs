using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Fleet;
using Pyrometron.Server.Judging;
using Pyrometron.Storage;

namespace Pyrometron.Server.Zones;

/// <summary>A zone that was added.</summary>
public sealed record ZoneAdded(string Code);

/// <summary>Zones: listed with their rooms, added, edited, removed.</summary>
internal static class ZoneEndpoints
{
    public static void MapZones(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/zones").WithTags("Zones");
        group.MapGet("", Get);
        group.MapPost(
            "",
            (ZoneEdit zone, ZoneUseCases zones) => TypedResults.Ok(new ZoneAdded(zones.Add(Actor.Unnamed, zone.Add).Code))
        );
        group.MapPut(
            "/{code}",
            (string code, ZoneEdit edit, ZoneUseCases zones) =>
            {
                zones.Edit(Actor.Unnamed, code, edit.Apply);
                return TypedResults.NoContent();
            }
        );
        group.MapDelete(
            "/{code}",
            (string code, ZoneUseCases zones) =>
            {
                zones.Remove(Actor.Unnamed, code);
                return TypedResults.NoContent();
            }
        );
    }

    private static async Task<Results<Ok<ZoneAnswer[]>, ProblemHttpResult>> Get(
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
