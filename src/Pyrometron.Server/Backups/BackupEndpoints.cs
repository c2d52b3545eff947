using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.HouseFiles;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage.Backups;

namespace Pyrometron.Server.Backups;

/// <summary>A backup.</summary>
/// <param name="CheckedAt">When it was opened and found whole; null where nothing tells.</param>
/// <param name="Damage">Why it cannot be laid back, as far as its size and manifest tell; null for nothing.</param>
public sealed record BackupAnswer(
    string Name,
    DateTimeOffset? MadeAt,
    long? Bytes,
    bool Encrypted,
    DateTimeOffset? CheckedAt,
    string? Damage,
    DatabaseContents? Contents
);

/// <summary>The backups of the house.</summary>
/// <param name="Folder">Where they lie.</param>
/// <param name="Hours">How often one is made by itself; 0 for never.</param>
/// <param name="Failure">Why the last one was not made; null where nothing went wrong.</param>
/// <param name="RestoreNext">The one that is laid back at the next start; null for none.</param>
/// <param name="Backups">The newest first.</param>
public sealed record BackupsAnswer(
    string Folder,
    int Hours,
    bool Sealed,
    bool Busy,
    string? Failure,
    string? RestoreNext,
    IReadOnlyList<BackupAnswer> Backups
);

/// <summary>What laying a backup back would change.</summary>
public sealed record RestoreAnswer(
    string Name,
    DateTimeOffset MadeAt,
    DatabaseContents? Now,
    DatabaseContents Then,
    bool OtherHouse
);

/// <summary>Backups: made, looked at, laid back at the next start.</summary>
internal static class BackupEndpoints
{
    public static void MapBackups(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/backups").WithTags("Backups").Needs(Right.KeepHouse);
        group.MapGet("/house.zip", HouseFile).Produces(200, contentType: "application/zip");
        group.MapGet("", All);
        group.MapPost("", Make);
        group.MapGet("/{name}/restore", Preview);
        group.MapPost("/{name}/restore", AskFor);
        group.MapDelete("/restore", TakeBack);
    }

    /// <summary>All backups, and whether one is being made.</summary>
    internal static BackupsAnswer All(BackupDesk desk, BackupSettings settings) =>
        new(
            desk.Folder.Path,
            settings.Hours,
            settings.Passphrase is not null,
            desk.IsBusy,
            desk.Failure,
            desk.Restore.AskedFor,
            [
                .. desk
                    .Folder.All()
                    .Select(b => new BackupAnswer(
                        b.Name,
                        b.Manifest?.MadeAt,
                        b.Manifest?.Bytes,
                        b.Manifest?.Encrypted ?? false,
                        b.Manifest?.CheckedAt,
                        b.Damage,
                        b.Manifest?.Contents
                    )),
            ]
        );

    /// <summary>Begins a backup; <c>GET /backups</c> tells when it is done.</summary>
    internal static Accepted Make(BackupDesk desk)
    {
        desk.Start();
        return TypedResults.Accepted("/api/v1/backups");
    }

    /// <summary>Looks through a backup and tells what laying it back would change; changes nothing.</summary>
    internal static Results<Ok<RestoreAnswer>, ProblemHttpResult> Preview(string name, BackupDesk desk, BackupSettings settings)
    {
        if (desk.Folder.Find(name) is null)
            return Problems.Missing($"There is no backup '{name}'.");
        try
        {
            var p = desk.Restore.Preview(name, settings.Passphrase);
            return TypedResults.Ok(new RestoreAnswer(name, p.Backup.Manifest!.MadeAt, p.Now, p.Then, p.OtherHouse));
        }
        catch (InvalidDataException error)
        {
            return Problems.Conflict(Core.Messages.Message.Verbatim(error.Message));
        }
    }

    /// <summary>Has a backup laid back when the program starts next; what stands there then is copied aside first.</summary>
    internal static Results<NoContent, ProblemHttpResult> AskFor(string name, BackupDesk desk, BackupSettings settings)
    {
        if (desk.Folder.Find(name) is null)
            return Problems.Missing($"There is no backup '{name}'.");
        try
        {
            if (desk.Restore.Preview(name, settings.Passphrase).OtherHouse)
                return Problems.Conflict(
                    $"'{name}' is of another house. Lay it into an empty folder with the command restore instead."
                );
        }
        catch (InvalidDataException error)
        {
            return Problems.Conflict(Core.Messages.Message.Verbatim(error.Message));
        }
        desk.Restore.AskFor(name);
        return TypedResults.NoContent();
    }

    /// <summary>Lays nothing back after all.</summary>
    internal static NoContent TakeBack(BackupDesk desk)
    {
        desk.Restore.TakeBack();
        return TypedResults.NoContent();
    }

    /// <summary>All that the house knows in one file of open formats, written while it is sent.</summary>
    internal static PushStreamHttpResult HouseFile(
        Caller caller,
        HttpContext context,
        HouseFileUseCases house,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        // The ZIP writer knows no other way.
        context.Features.GetRequiredFeature<IHttpBodyControlFeature>().AllowSynchronousIO = true;
        return TypedResults.Stream(
            stream => Task.Run(() => house.Export(caller.Actor, stream, _ => { }, cancellation), CancellationToken.None),
            "application/zip",
            FormattableString.Invariant($"pyrometron-{clock.GetUtcNow().UtcDateTime:yyyyMMdd}.zip")
        );
    }
}
