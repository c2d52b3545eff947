using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Access;
using Pyrometron.Core.Fleet;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>A key that a program is to get.</summary>
/// <param name="Name">Of the program.</param>
/// <param name="Until">The last day on which it counts, in UTC; null for no end.</param>
public sealed record NewKey(string? Name, KeyScope? Scope, DateOnly? Until = null);

/// <summary>A key; told once.</summary>
public sealed record KeyGiven(string Key);

/// <summary>A key of a program.</summary>
/// <param name="Begins">How it begins; the rest is kept as a hash alone.</param>
/// <param name="MadeAt">When it was given out or renewed.</param>
/// <param name="UsedAt">When it was last used, to the hour; null for never.</param>
public sealed record KeyAnswer(
    long Id,
    string Name,
    KeyScope Scope,
    string Begins,
    DateTimeOffset MadeAt,
    DateTimeOffset? Until,
    DateTimeOffset? UsedAt,
    string? UsedFrom
);

/// <summary>Keys of programs as whoever keeps the house sees and changes them.</summary>
internal static class KeyEndpoints
{
    public static void MapKeys(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/keys").WithTags("Accounts").Needs(Right.KeepHouse);
        group.MapGet("", All);
        group.MapPost("", Add);
        group.MapPost("/{id:long}/renew", Renew);
        group.MapDelete("/{id:long}", Remove);
    }

    /// <summary>All keys, by the programs' names.</summary>
    internal static KeyAnswer[] All(KeyStore keys) =>
        [.. keys.All().Select(k => new KeyAnswer(k.Id, k.Name, k.Scope, k.Begins, k.MadeAt, k.Until, k.UsedAt, k.UsedFrom))];

    /// <summary>Gives a program a key.</summary>
    internal static Results<Ok<KeyGiven>, ProblemHttpResult> Add(NewKey request, Caller caller, KeyUseCases keys)
    {
        if (request.Scope is not { } scope)
            return Problems.Input("/scope", $"scope is needed: one of {Words.List<KeyScope>()}.");
        DateTimeOffset? until = request.Until is { } day
            ? new DateTimeOffset(day.ToDateTime(TimeOnly.MinValue), TimeSpan.Zero).AddDays(1)
            : null;
        return TypedResults.Ok(new KeyGiven(keys.Add(caller.Actor, request.Name?.Trim() ?? "", scope, until)));
    }

    /// <summary>Makes a new key for the same program; the one before counts for another day.</summary>
    internal static KeyGiven Renew(long id, Caller caller, KeyUseCases keys) => new(keys.Renew(caller.Actor, id));

    /// <summary>Ends a key at once.</summary>
    internal static NoContent Remove(long id, Caller caller, KeyUseCases keys)
    {
        keys.Remove(caller.Actor, id);
        return TypedResults.NoContent();
    }
}
