using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Access;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Operation;

/// <summary>The house as whoever keeps it looks after it.</summary>
/// <param name="People">Null where one person works at this machine alone.</param>
/// <param name="Keys">Null likewise.</param>
/// <param name="Browsers">All that are signed in; who was seen last comes first.</param>
/// <param name="Days">How large it was, the oldest day first.</param>
public sealed record HousekeepingAnswer(
    PeopleCounts? People,
    KeyCounts? Keys,
    IReadOnlyList<SignedInBrowser> Browsers,
    BackupCounts Backups,
    HouseSize Size,
    long FreeBytes,
    IReadOnlyList<SizeOfDay> Days,
    Versions Versions
);

/// <summary>Accounts, counted.</summary>
/// <param name="Waiting">Those who have a link and have not come in yet.</param>
/// <param name="Shut">Without a password, and no link counts any more.</param>
/// <param name="PasswordOnly">Those who come in without a second factor.</param>
public sealed record PeopleCounts(int All, int Suspended, int Waiting, int Shut, int PasswordOnly);

/// <summary>Keys of programs, counted.</summary>
/// <param name="Ended">Those whose day is over.</param>
/// <param name="EndSoon">Those that end within <see cref="Housekeeping.Soon"/>.</param>
/// <param name="Unused">Those that no program has used yet.</param>
public sealed record KeyCounts(int All, int Ended, int EndSoon, int Unused);

/// <summary>A browser that is signed in, and whose.</summary>
/// <param name="Here">Whether it is the one that asks.</param>
public sealed record SignedInBrowser(
    long Id,
    string Account,
    string Name,
    string Device,
    string Address,
    DateTimeOffset BegunAt,
    DateTimeOffset SeenAt,
    bool Here
);

/// <summary>A name that is to go.</summary>
public sealed record NameToErase(string? Name);

/// <summary>Backups, counted.</summary>
/// <param name="LastGood">When the newest that was found whole was made; null for none.</param>
public sealed record BackupCounts(int All, long Bytes, DateTimeOffset? LastGood, string? Failure);

/// <summary>What runs.</summary>
/// <param name="Schema">The version of the database's tables.</param>
/// <param name="Solver">Whether plans are solved to a bound; without its native library they are made greedily.</param>
public sealed record Versions(
    string Program,
    string Runtime,
    string Sqlite,
    int Schema,
    string System,
    bool Solver,
    DateTimeOffset StartedAt
);

/// <summary>The page on which the house is looked after.</summary>
internal static class HousekeepingEndpoints
{
    public static void MapHousekeeping(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/housekeeping").WithTags("Housekeeping").Needs(Right.KeepHouse);
        group
            .MapGet("", (Caller caller, Housekeeping house) => house.Look(caller.Session))
            .WithSummary("People, keys, browsers, backups, sizes and versions at a glance.");
        group.MapDelete("/browsers/{id:long}", EndBrowser);
        group
            .MapGet("/names", (Database database) => NameErasure.Names(database))
            .WithSummary("All people whose name stands in the house.");
        group.MapPost("/names/erase", Erase);
        group.MapGet("/packages", Packages);
        group
            .MapGet("/bill-of-materials.cdx.json", Bill)
            .Produces(StatusCodes.Status200OK, contentType: BillOfMaterials.ContentType);
    }

    /// <summary>Signs one browser out, whosoever it is: a lost phone.</summary>
    internal static NoContent EndBrowser(long id, Caller caller, AccountUseCases accounts)
    {
        accounts.EndSession(caller.Actor, id);
        return TypedResults.NoContent();
    }

    /// <summary>Takes the name of a person out of the house; what they did stays. It cannot be taken back.</summary>
    internal static Results<Ok<ErasedName>, ProblemHttpResult> Erase(
        NameToErase request,
        Caller caller,
        ErasureUseCases erasure
    ) =>
        request.Name is { Length: > 0 and <= 200 } name
            ? TypedResults.Ok(erasure.Erase(caller.Actor, name))
            : Problems.Input("/name", "name is needed: as it stands in the list of names.");

    /// <summary>The packages that ship with the program, by name, each with the text of its licence.</summary>
    internal static Results<Ok<PackageAnswer[]>, ProblemHttpResult> Packages() =>
        BillOfMaterials.Read(BillOfMaterials.Path) is { } packages ? TypedResults.Ok(packages) : NoBill();

    /// <summary>The bill of materials as the build wrote it: CycloneDX 1.6, JSON.</summary>
    internal static Results<PhysicalFileHttpResult, ProblemHttpResult> Bill() =>
        File.Exists(BillOfMaterials.Path)
            ? TypedResults.PhysicalFile(BillOfMaterials.Path, BillOfMaterials.ContentType, "bill-of-materials.cdx.json")
            : NoBill();

    private static ProblemHttpResult NoBill() =>
        Problems.Missing($"This build has no bill of materials. ./run.sh and deploy/package.sh write one beside the program.");
}
