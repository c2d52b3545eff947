using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>What the hash chain of the change log shows.</summary>
/// <param name="Lines">That were looked at.</param>
/// <param name="FirstBroken">The first line that is not as it was written, or whose forerunner is missing; null for none.</param>
public sealed record ChainCheck(long Lines, long? FirstBroken);

/// <summary>Whether the change log is as it was written: each line's hash is made from the line and the hash before it.</summary>
public static class ChangeChain
{
    /// <summary>Looks through all of it. O(lines).</summary>
    public static ChainCheck Check(Database database) => database.Read(Check);

    private static ChainCheck Check(SqliteConnection connection)
    {
        using var command = connection.Command(
            """
            SELECT id, at, stored_at, actor_id, kind, asset_id, job_id, before, after, plain, says, hash FROM change ORDER BY id
            """
        );
        using var r = command.ExecuteReader();
        var (lines, before) = (0L, "");
        while (r.Read())
        {
            lines++;
            var line = new ChangeLine(
                r.GetInt64(0),
                r.GetString(1),
                r.GetString(2),
                r.GetInt64(3),
                r.GetString(4),
                r.LongOrNull(5),
                r.LongOrNull(6),
                r.TextOrNull(7),
                r.TextOrNull(8),
                r.GetString(9),
                r.GetString(10)
            );
            var hash = r.GetString(11);
            if (line.Id != lines || line.HashAfter(before) != hash)
                return new ChainCheck(lines, line.Id);
            before = hash;
        }
        return new ChainCheck(lines, null);
    }
}
