using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Stores;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Stores;

/// <summary>The number of something that was added.</summary>
public sealed record AddedLot(long Id);

/// <summary>Lots on the shelf: added, looked at, changed, counted, thrown away.</summary>
internal static class LotEndpoints
{
    public static void MapLots(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/stores/lots").WithTags("Stores");
        group.MapPost("", AddLot);
        group.MapGet("/{id:long}", GetLot);
        group.MapPut("/{id:long}", ChangeLot);
        group.MapPost("/{id:long}/count", Count);
        group.MapPost("/{id:long}/throw-away", ThrowAway);
    }

    /// <summary>Puts a lot on the shelf.</summary>
    internal static Results<Created<AddedLot>, ProblemHttpResult> AddLot(
        Caller caller,
        NewLot lot,
        ProductStore products,
        StoresUseCases stores,
        WorkAhead ahead
    )
    {
        var reader = new LotReader();
        var product = products.All().FirstOrDefault(p => p.Code == lot.Product);
        if (reader.Read(lot, product, ahead.Today) is not { } read)
            return Problems.Input(reader.Problems);
        var id = stores.Add(caller.Actor, read);
        return TypedResults.Created($"/api/v1/stores/lots/{id}", new AddedLot(id));
    }

    /// <summary>A lot, everything that came in and went out, and the machines that it or its batch went into.</summary>
    internal static async Task<Results<Ok<LotPageAnswer>, ProblemHttpResult>> GetLot(
        long id,
        WorkAhead ahead,
        LotStore lots,
        CancellationToken cancellation
    )
    {
        var shelf = lots.Shelf(ahead.Today);
        if (shelf.Lots.FirstOrDefault(l => l.Id == id) is not { } lot)
            return Problems.Missing($"There is no lot {id}.");
        var next = await ahead.NextAsync(StoresEndpoints.UsualJobs, cancellation);
        return TypedResults.Ok(
            new LotPageAnswer(
                StoresReading.Of(shelf, next).Lot(lot),
                [.. lots.Moves(id).Select(m => new MoveAnswer(m.Kind, m.Amount, m.At, m.Job, m.By, m.Note))],
                lots.Users(id)
            )
        );
    }

    /// <summary>Replaces what is known of a lot besides its amount.</summary>
    internal static Results<NoContent, ProblemHttpResult> ChangeLot(
        Caller caller,
        long id,
        LotChange change,
        StoresUseCases stores
    )
    {
        var reader = new LotReader();
        if (reader.Read(change) is not { } facts)
            return Problems.Input(reader.Problems);
        stores.Change(caller.Actor, id, facts);
        return TypedResults.NoContent();
    }

    /// <summary>Takes over what somebody counted.</summary>
    internal static Results<NoContent, ProblemHttpResult> Count(
        Caller caller,
        long id,
        CountedAmount counted,
        StoresUseCases stores
    )
    {
        var reader = new LotReader();
        if (counted.Amount is not (>= 0 and <= StoresUseCases.MostAmount))
            return Problems.Input("/amount", "amount must be a number from 0 to 100000: nothing is less than nothing");
        var (note, by) = (reader.Optional("/note", counted.Note), reader.Optional("/by", counted.By));
        if (reader.Problems.Count > 0)
            return Problems.Input(reader.Problems);
        stores.Count(by is null ? caller.Actor : caller.At(by, ""), id, counted.Amount.Value, note);
        return TypedResults.NoContent();
    }

    /// <summary>Throws a part of a lot away.</summary>
    internal static Results<NoContent, ProblemHttpResult> ThrowAway(
        Caller caller,
        long id,
        ThrownAway thrown,
        StoresUseCases stores
    )
    {
        var reader = new LotReader();
        if (thrown.Amount is not (> 0 and <= StoresUseCases.MostAmount))
            return Problems.Input("/amount", "amount must lie above 0 and up to 100000");
        var reason = reader.Reason("/reason", thrown.Reason);
        if (reader.Problems.Count > 0)
            return Problems.Input(reader.Problems);
        stores.ThrowAway(caller.Actor, id, thrown.Amount.Value, reason);
        return TypedResults.NoContent();
    }
}
