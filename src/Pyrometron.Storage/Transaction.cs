using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>One line for the change log.</summary>
/// <param name="Kind">
/// Of a job's entry, or <c>job</c>, <c>service</c>, <c>report</c>, <c>change</c>, <c>reading</c>, <c>import</c>, <c>rules</c>,
/// <c>bench-rules</c>, <c>notes</c>, <c>set-aside</c>, <c>zone</c>, <c>zone-times</c>, <c>people</c>, <c>plan</c>, <c>stores</c>,
/// <c>prices</c>, <c>account</c>, <c>sign-in</c>, <c>refused</c>, <c>export</c>.
/// </param>
/// <param name="Says">What happened, without names of people.</param>
public sealed record Change(string Kind, Message Says)
{
    /// <summary>The machine that it is about; null for the fleet, or for several.</summary>
    public long? Asset { get; init; }

    /// <summary>The job that it belongs to.</summary>
    public long? Job { get; init; }

    /// <summary>What stood there before, JSON or words; null for nothing.</summary>
    public string? Before { get; init; }

    /// <summary>What stands there now.</summary>
    public string? After { get; init; }

    /// <summary>A record as it stands before and after: JSON.</summary>
    public static string Told<T>(T record) => StoredJson.Write(record);

    /// <summary>When it happened; now where it is not told.</summary>
    public DateTimeOffset? At { get; init; }

    /// <summary>The machines that it touches, where they are several; null for the one above, or for the whole fleet.</summary>
    public IReadOnlyCollection<long>? Touches { get; init; }
}

/// <summary>
/// One use case at work on the database: all of it is stored, or nothing. What it changes is written into the change log with it.
/// </summary>
public sealed class Transaction : IDisposable
{
    private readonly Dictionary<string, SqliteCommand> _prepared = [];
    private long? _actorId;
    private (long Id, string Hash)? _last;

    internal Transaction(SqliteConnection connection, Actor actor, DateTimeOffset now) =>
        (Connection, Actor, Now) = (connection, actor, now);

    internal SqliteConnection Connection { get; }

    /// <summary>Who is at work.</summary>
    public Actor Actor { get; }

    /// <summary>The instant of the whole use case.</summary>
    public DateTimeOffset Now { get; }

    /// <summary>The number of who is at work.</summary>
    internal long ActorId =>
        _actorId ??= (long)
            Connection.Scalar(
                """
                INSERT INTO actor (kind, name) VALUES ($kind, $name)
                ON CONFLICT (kind, name) DO UPDATE SET name = excluded.name RETURNING id
                """,
                ("$kind", Words.Of(Actor.Kind)),
                ("$name", Actor.Name)
            )!;

    /// <summary>Whether anything was logged.</summary>
    public bool HasChanges { get; private set; }

    /// <summary>The same use case in somebody else's name: history that is carried over.</summary>
    internal Transaction As(Actor actor) => new(Connection, actor with { Address = Actor.Address }, Now);

    /// <summary>Runs a statement that is run again and again in this use case: prepared once.</summary>
    /// <returns>Rows that it changed.</returns>
    internal int Execute(string sql, params ReadOnlySpan<(string Name, object? Value)> parameters)
    {
        if (!_prepared.TryGetValue(sql, out var command))
            _prepared[sql] = command = Connection.Command(sql, parameters);
        else
            for (var i = 0; i < parameters.Length; i++)
                command.Parameters[i].Value = parameters[i].Value ?? DBNull.Value;
        return command.ExecuteNonQuery();
    }

    /// <summary>Has the chain of the log looked up again: its hashes were made anew.</summary>
    internal void ForgetLast() => (_last, _actorId) = (null, null);

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (var command in _prepared.Values)
            command.Dispose();
    }

    /// <summary>Writes a line into the change log.</summary>
    public void Log(Change change)
    {
        HasChanges = true;
        var (last, lastHash) =
            _last
            ?? Connection
                .Query("SELECT id, hash FROM change ORDER BY id DESC LIMIT 1", r => (r.GetInt64(0), r.GetString(1)))
                .FirstOrDefault((0L, ""));
        var line = new ChangeLine(
            last + 1,
            Sql.Text(change.At ?? Now),
            Sql.Text(Now),
            ActorId,
            change.Kind,
            change.Asset,
            change.Job,
            change.Before,
            change.After,
            change.Says.ToString(),
            StoredJson.Write(MessageRecord.Of(change.Says)),
            Actor.Address
        );
        var hash = line.HashAfter(lastHash);
        Execute(
            """
            INSERT INTO change (id, at, stored_at, actor_id, kind, asset_id, job_id, before, after, plain, says, address, hash)
            VALUES ($id, $at, $stored, $actor, $kind, $asset, $job, $before, $after, $plain, $says, $address, $hash)
            """,
            ("$id", line.Id),
            ("$at", line.At),
            ("$stored", line.StoredAt),
            ("$actor", line.ActorId),
            ("$kind", line.Kind),
            ("$asset", line.AssetId),
            ("$job", line.JobId),
            ("$before", line.Before),
            ("$after", line.After),
            ("$plain", line.Plain),
            ("$says", line.Says),
            ("$address", line.Address),
            ("$hash", hash)
        );
        _last = (line.Id, hash);
        foreach (var asset in change.Touches ?? [])
            Execute(
                "INSERT INTO change_touches (change_id, asset_id) VALUES ($change, $asset) ON CONFLICT DO NOTHING",
                ("$change", line.Id),
                ("$asset", asset)
            );
    }
}

/// <summary>A line of the change log as its hash is made from it.</summary>
internal sealed record ChangeLine(
    long Id,
    string At,
    string StoredAt,
    long ActorId,
    string Kind,
    long? AssetId,
    long? JobId,
    string? Before,
    string? After,
    string Plain,
    string Says,
    string? Address
)
{
    /// <summary>
    /// SHA-256 (FIPS 180-4) over the hash before it and all that stands in the line, lower-case hexadecimal. A line without an
    /// address is hashed as lines were before there were any.
    /// </summary>
    public string HashAfter(string before)
    {
        static string Number(long? value) => value?.ToString(CultureInfo.InvariantCulture) ?? "";
        // A length before each member: no two lines read alike.
        var text = new StringBuilder();
        foreach (
            var member in (string?[])
                [
                    before,
                    Number(Id),
                    At,
                    StoredAt,
                    Number(ActorId),
                    Kind,
                    Number(AssetId),
                    Number(JobId),
                    Before,
                    After,
                    Plain,
                    Says,
                    .. Address is { } address ? [address] : (string?[])[],
                ]
        )
            text.Append(CultureInfo.InvariantCulture, $"{member?.Length ?? -1}:{member}\n");
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text.ToString())));
    }
}
