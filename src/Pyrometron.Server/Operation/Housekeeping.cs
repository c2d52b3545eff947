using System.Runtime.InteropServices;
using Pyrometron.Planning;
using Pyrometron.Server.Access;
using Pyrometron.Server.Backups;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Operation;

/// <summary>Looks over the house: who comes in, what is kept, how large it is, what runs.</summary>
internal sealed class Housekeeping(
    AccountStore accounts,
    SessionStore sessions,
    KeyStore keys,
    SizeStore sizes,
    BackupDesk backups,
    Database database,
    Door door,
    TimeProvider clock
)
{
    /// <summary>A key that ends within this time is worth a word.</summary>
    public static readonly TimeSpan Soon = TimeSpan.FromDays(30);

    private readonly DateTimeOffset _startedAt = clock.GetUtcNow();

    /// <summary>How it is now.</summary>
    /// <param name="own">The browser that asks; null without accounts.</param>
    public HousekeepingAnswer Look(Session? own)
    {
        var now = clock.GetUtcNow();
        var made = backups.Folder.All();
        return new HousekeepingAnswer(
            door.Solo ? null : People(now),
            door.Solo ? null : Keys(now),
            [
                .. sessions
                    .All(now)
                    .Select(s => new SignedInBrowser(
                        s.Id,
                        s.Account.Code,
                        s.Account.Name,
                        s.Device,
                        s.Address,
                        s.BegunAt,
                        s.SeenAt,
                        s.Id == own?.Id
                    )),
            ],
            new BackupCounts(
                made.Count,
                made.Sum(b => b.Manifest?.Bytes ?? 0),
                made.Where(b => b.Damage is null).Max(b => b.Manifest?.MadeAt),
                backups.Failure
            ),
            sizes.Now(),
            HouseMetrics.FreeBytes(database),
            sizes.Days(),
            new Versions(
                Setup.Version,
                RuntimeInformation.FrameworkDescription,
                database.SqliteVersion,
                SchemaMigration.All[^1].Number,
                RuntimeInformation.OSDescription,
                SolverPlanner.Available,
                _startedAt
            )
        );
    }

    private PeopleCounts People(DateTimeOffset now)
    {
        var (all, ready, links) = (accounts.All(), accounts.Ready(), accounts.Links(now));
        var without = all.Where(a => !ready[a.Id].Password).ToArray();
        return new PeopleCounts(
            all.Count,
            all.Count(a => a.Suspended),
            without.Count(a => links.ContainsKey(a.Id)),
            without.Count(a => !links.ContainsKey(a.Id)),
            all.Count(a => !a.Suspended && ready[a.Id] is { Password: true, Totp: false })
        );
    }

    private KeyCounts Keys(DateTimeOffset now)
    {
        var all = keys.All();
        return new KeyCounts(
            all.Count,
            all.Count(k => k.Until <= now),
            all.Count(k => k.Until > now && k.Until <= now + Soon),
            all.Count(k => k.UsedAt is null)
        );
    }
}
