namespace Pyrometron.Storage;

/// <summary>A machine that somebody looked at and found nothing to do on.</summary>
public sealed record SetAside(string Tag, string Reason, DateOnly Until, DateTimeOffset MadeAt);

/// <summary>Machines taken out of the queue until a day, with the reason.</summary>
public sealed class SetAsideStore(Database database)
{
    /// <summary>Those that are aside on a day, by tag.</summary>
    public IReadOnlyDictionary<string, SetAside> On(DateOnly day) =>
        database.Read(connection =>
            connection
                .Query(
                    "SELECT a.tag, s.reason, s.until, s.made_at FROM set_aside s JOIN asset a ON a.id = s.asset_id WHERE s.until > $day",
                    r => new SetAside(r.GetString(0), r.GetString(1), r.Date(2), Sql.ReadInstant(r.GetString(3))),
                    ("$day", Sql.Text(day))
                )
                .ToDictionary(s => s.Tag)
        );

    /// <summary>Sets a machine aside; it comes back on the day.</summary>
    public static void Put(Transaction t, long assetId, string reason, DateOnly until) =>
        t.Connection.Execute(
            """
            INSERT INTO set_aside (asset_id, reason, until, made_at) VALUES ($asset, $reason, $until, $now)
            ON CONFLICT (asset_id) DO UPDATE SET reason = excluded.reason, until = excluded.until, made_at = excluded.made_at
            """,
            ("$asset", assetId),
            ("$reason", reason),
            ("$until", Sql.Text(until)),
            ("$now", Sql.Text(t.Now))
        );

    /// <summary>Puts a machine back into the queue.</summary>
    /// <returns>Whether it was aside.</returns>
    public static bool TakeBack(Transaction t, long assetId) =>
        t.Connection.Scalar("DELETE FROM set_aside WHERE asset_id = $asset RETURNING asset_id", ("$asset", assetId)) is not null;
}
