using Microsoft.Data.Sqlite;
using Pyrometron.Core.Planning;
using Pyrometron.Core.Weeks;

namespace Pyrometron.Storage;

/// <summary>When machines may be worked on: of zones, and single machines that wait for something.</summary>
public sealed class ZoneTimesStore(Database database)
{
    /// <summary>Of those zones that somebody has said something of.</summary>
    public IReadOnlyList<ZoneTimes> All() => database.Read(All);

    /// <summary>Within a use case.</summary>
    public static IReadOnlyList<ZoneTimes> All(Transaction t) => All(t.Connection);

    /// <summary>The way between zones; the usual one until somebody has said.</summary>
    public Walking Walking() => database.Read(Walking);

    /// <summary>The way between zones within a use case.</summary>
    public static Walking Walking(Transaction t) => Walking(t.Connection);

    private static Walking Walking(SqliteConnection connection) =>
        connection
            .Query("SELECT within_site, between_sites FROM walking", r => new Walking(r.GetInt32(0), r.GetInt32(1)))
            .Append(Core.Planning.Walking.Usual)
            .First();

    /// <summary>Keeps the way between zones.</summary>
    public static void Keep(Transaction t, Walking walking) =>
        t.Connection.Execute(
            "INSERT OR REPLACE INTO walking (id, within_site, between_sites) VALUES (1, $within, $between)",
            ("$within", walking.WithinSite),
            ("$between", walking.BetweenSites)
        );

    /// <summary>Machines that wait, by tag.</summary>
    public IReadOnlyDictionary<string, Hold> Holds() =>
        database.Read(connection =>
            connection
                .Query(
                    "SELECT a.tag, h.until_day, h.reason FROM hold h JOIN asset a ON a.id = h.asset_id",
                    r => new Hold(r.GetString(0), r.Date(1), r.GetString(2))
                )
                .ToDictionary(h => h.Tag)
        );

    /// <summary>Keeps what is said of a zone; replaces what was said before.</summary>
    public static void Keep(Transaction t, ZoneTimes times)
    {
        var zone = t.Connection.Scalar("SELECT id FROM zone WHERE code = $code", ("$code", times.Zone));
        t.Connection.Execute(
            """
            INSERT INTO zone_times (zone_id, setup_minutes, max_down) VALUES ($zone, $setup, $most)
            ON CONFLICT (zone_id) DO UPDATE SET setup_minutes = excluded.setup_minutes, max_down = excluded.max_down
            """,
            ("$zone", zone),
            ("$setup", times.SetupMinutes),
            ("$most", times.MaxDown)
        );
        t.Connection.Execute("DELETE FROM zone_hours WHERE zone_id = $zone", ("$zone", zone));
        t.Connection.Execute("DELETE FROM zone_closed WHERE zone_id = $zone", ("$zone", zone));
        foreach (var time in times.Open)
            t.Connection.Execute(
                "INSERT INTO zone_hours (zone_id, weekday, from_minute, to_minute) VALUES ($zone, $day, $from, $to)",
                ("$zone", zone),
                ("$day", (int)time.Day),
                ("$from", time.From),
                ("$to", time.To)
            );
        foreach (var closed in times.Closed)
            t.Connection.Execute(
                "INSERT INTO zone_closed (zone_id, from_day, to_day, reason) VALUES ($zone, $from, $to, $reason)",
                ("$zone", zone),
                ("$from", Sql.Text(closed.From)),
                ("$to", Sql.Text(closed.To)),
                ("$reason", closed.Reason)
            );
    }

    /// <summary>Lets a machine wait until a day.</summary>
    public static void Hold(Transaction t, long assetId, DateOnly until, string reason) =>
        t.Connection.Execute(
            """
            INSERT INTO hold (asset_id, until_day, reason) VALUES ($asset, $until, $reason)
            ON CONFLICT (asset_id) DO UPDATE SET until_day = excluded.until_day, reason = excluded.reason
            """,
            ("$asset", assetId),
            ("$until", Sql.Text(until)),
            ("$reason", reason)
        );

    /// <summary>A machine waits no longer.</summary>
    public static void Release(Transaction t, long assetId) =>
        t.Connection.Execute("DELETE FROM hold WHERE asset_id = $asset", ("$asset", assetId));

    private static List<ZoneTimes> All(SqliteConnection connection)
    {
        var open = connection
            .Query(
                "SELECT zone_id, weekday, from_minute, to_minute FROM zone_hours ORDER BY weekday, from_minute",
                r => (Zone: r.GetInt64(0), Time: new WeeklyTime((DayOfWeek)r.GetInt32(1), r.GetInt32(2), r.GetInt32(3)))
            )
            .ToLookup(h => h.Zone, h => h.Time);
        var closed = connection
            .Query(
                "SELECT zone_id, from_day, to_day, reason FROM zone_closed ORDER BY from_day",
                r => (Zone: r.GetInt64(0), Days: new ClosedDays(r.Date(1), r.Date(2), r.GetString(3)))
            )
            .ToLookup(h => h.Zone, h => h.Days);
        return connection.Query(
            """
            SELECT z.id, z.code, t.setup_minutes, t.max_down FROM zone_times t JOIN zone z ON z.id = t.zone_id ORDER BY z.id
            """,
            r => new ZoneTimes(
                r.GetString(1),
                r.GetInt32(2),
                r.IsDBNull(3) ? null : r.GetInt32(3),
                [.. open[r.GetInt64(0)]],
                [.. closed[r.GetInt64(0)]]
            )
        );
    }
}
