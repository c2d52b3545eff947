using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Access;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>Somebody who may sign in.</summary>
/// <param name="Account">Sign-in name.</param>
/// <param name="Sites">Where they may change something; empty for all.</param>
/// <param name="Machines">For an owner: the tags of theirs.</param>
/// <param name="HasPassword">Whether they have come in by their link.</param>
/// <param name="OneTimeCodes">Whether a code of their phone is asked for.</param>
/// <param name="LinkUntil">Until when a link that they have counts; null for none.</param>
/// <param name="Browsers">In how many browsers they are signed in.</param>
/// <param name="SeenAt">When they were last at work, to the hour; null for never or long ago.</param>
public sealed record AccountAnswer(
    string Account,
    string Name,
    Role Role,
    IReadOnlyList<string> Sites,
    IReadOnlyList<string> Machines,
    bool Suspended,
    bool HasPassword,
    bool OneTimeCodes,
    DateTimeOffset? LinkUntil,
    int Browsers,
    DateTimeOffset? SeenAt
);

/// <summary>All who may sign in, and what each role may.</summary>
public sealed record AccountsAnswer(IReadOnlyList<AccountAnswer> Accounts, IReadOnlyList<RoleAnswer> Roles);

/// <summary>A role and what it may.</summary>
public sealed record RoleAnswer(Role Role, IReadOnlyList<Right> Rights);

/// <summary>What an account is to be.</summary>
public sealed record AccountDto(
    string? Name,
    Role? Role,
    IReadOnlyList<string?>? Sites = null,
    IReadOnlyList<string?>? Machines = null,
    bool Suspended = false
);

/// <summary>A link by which somebody comes in; told once.</summary>
/// <param name="Path">Behind the address of this house; the token stands behind <c>#</c>, where no server sees it.</param>
public sealed record LinkGiven(string Path, DateTimeOffset Until);

/// <summary>Accounts as whoever keeps the house sees and changes them.</summary>
internal static class AccountsEndpoints
{
    private const int LongestWord = 80,
        MostListed = 200;

    public static void MapAccounts(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/accounts").WithTags("Accounts").Needs(Right.KeepHouse);
        group.MapGet("", All);
        group.MapPost("/{code}", Add);
        group.MapPut("/{code}", Change);
        group.MapDelete("/{code}", Remove);
        group.MapPost("/{code}/link", GiveLink);
        group.MapPost("/{code}/sign-out", SignOut);
        group.MapPost("/{code}/codes/end", EndCodes);
    }

    /// <summary>All who may sign in.</summary>
    internal static AccountsAnswer All(AccountStore accounts, SessionStore sessions, TimeProvider clock)
    {
        var now = clock.GetUtcNow();
        var (ready, links) = (accounts.Ready(), accounts.Links(now));
        var open = sessions.All(now).ToLookup(s => s.Account.Id);
        return new(
            [
                .. accounts
                    .All()
                    .Select(a => new AccountAnswer(
                        a.Code,
                        a.Name,
                        a.Role,
                        a.Sites,
                        a.Machines,
                        a.Suspended,
                        ready[a.Id].Password,
                        ready[a.Id].Totp,
                        links.TryGetValue(a.Id, out var until) ? until : null,
                        open[a.Id].Count(),
                        open[a.Id].Select(s => (DateTimeOffset?)s.SeenAt).Max()
                    )),
            ],
            [.. Enum.GetValues<Role>().Select(r => new RoleAnswer(r, [.. Roles.RightsOf(r).Order()]))]
        );
    }

    /// <summary>Adds an account. Its person comes in by the link that is answered.</summary>
    internal static Results<Created<LinkGiven>, ProblemHttpResult> Add(
        string code,
        AccountDto request,
        Caller caller,
        AccountUseCases accounts,
        TimeProvider clock
    )
    {
        var wrong = Wrong(request);
        if (wrong.Count > 0)
            return Problems.Input(wrong);
        return TypedResults.Created(
            $"/api/v1/accounts/{Uri.EscapeDataString(code)}",
            Given(accounts.Add(caller.Actor, Read(code, request)), clock)
        );
    }

    /// <summary>Changes what an account is called and may.</summary>
    internal static Results<NoContent, ProblemHttpResult> Change(
        string code,
        AccountDto request,
        Caller caller,
        AccountUseCases accounts
    )
    {
        var wrong = Wrong(request);
        if (wrong.Count > 0)
            return Problems.Input(wrong);
        accounts.Change(caller.Actor, Read(code, request));
        return TypedResults.NoContent();
    }

    /// <summary>Removes an account; what its person did keeps their name.</summary>
    internal static NoContent Remove(string code, Caller caller, AccountUseCases accounts)
    {
        accounts.Remove(caller.Actor, code);
        return TypedResults.NoContent();
    }

    /// <summary>Gives out a new link; the one before it ends.</summary>
    internal static LinkGiven GiveLink(string code, Caller caller, AccountUseCases accounts, TimeProvider clock) =>
        Given(accounts.GiveLink(caller.Actor, code), clock);

    /// <summary>Signs an account out everywhere: a lost phone.</summary>
    internal static NoContent SignOut(string code, Caller caller, AccountUseCases accounts)
    {
        accounts.SignOut(caller.Actor, code);
        return TypedResults.NoContent();
    }

    /// <summary>Takes the second factor of somebody away who has lost it.</summary>
    internal static NoContent EndCodes(string code, Caller caller, AccountUseCases accounts)
    {
        accounts.TakeSecondFactor(caller.Actor, code);
        return TypedResults.NoContent();
    }

    private static LinkGiven Given(string token, TimeProvider clock) =>
        new(PathOf(token), clock.GetUtcNow() + AccountUseCases.LinkLife);

    /// <summary>Where a link leads: what stands behind the number sign stays in the browser.</summary>
    internal static string PathOf(string token) => $"/enter#{token}";

    private static List<InputProblem> Wrong(AccountDto request)
    {
        var wrong = new List<InputProblem>();
        if (request.Role is null)
            wrong.Add(new($"role is needed: one of {Words.List<Role>()}.", Pointer: "/role"));
        if (Listed("/sites", request.Sites) is { } ofSites)
            wrong.Add(ofSites);
        if (Listed("/machines", request.Machines) is { } ofMachines)
            wrong.Add(ofMachines);
        return wrong;
    }

    private static InputProblem? Listed(string at, IReadOnlyList<string?>? words) =>
        words is { Count: > MostListed } || words?.Any(w => w is not { Length: > 0 and <= LongestWord }) == true
            ? new($"{at[1..]} lists {MostListed} codes at most, of {LongestWord} characters at most.", Pointer: at)
            : null;

    private static Account Read(string code, AccountDto request) =>
        new(
            0,
            code,
            request.Name?.Trim() ?? "",
            request.Role!.Value,
            [.. (request.Sites ?? []).OfType<string>().Distinct()],
            [.. (request.Machines ?? []).OfType<string>().Distinct()],
            request.Suspended
        );
}
