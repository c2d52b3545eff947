using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>
/// The database file: opened, brought up to the newest schema, and shared. One writer at a time; readers never wait for it
/// (write-ahead log). A commit is on disk before it returns (synchronous = FULL).
/// </summary>
public sealed class Database : IDisposable
{
    private readonly string _connectionString;
    private readonly SemaphoreSlim _writer = new(1, 1);
    private int? _mostPages;

    private Database(string path) =>
        (Path, _connectionString) = (
            path,
            new SqliteConnectionStringBuilder
            {
                DataSource = path,
                ForeignKeys = true,
                DefaultTimeout = 30,
            }.ToString()
        );

    /// <summary>Where the file is.</summary>
    public string Path { get; }

    /// <summary>The version of SQLite that works here.</summary>
    public string SqliteVersion
    {
        get
        {
            using var connection = Connect();
            return connection.ServerVersion;
        }
    }

    /// <summary>The copy that was laid aside before an older schema was migrated, or null.</summary>
    public string? CopyLaidAside { get; private set; }

    /// <summary>Opens a database, making it when it is not there; an older one is copied aside and then migrated.</summary>
    /// <param name="clock">Null for the system's.</param>
    /// <param name="tell">Told in words what takes long.</param>
    /// <exception cref="InvalidDataException">
    /// The file is no database of this program, damaged, newer than this program, or cannot be written; the message says what to
    /// do.
    /// </exception>
    public static Database Open(string path, TimeProvider? clock = null, Action<string>? tell = null) =>
        Open(path, clock, tell, mostPages: null);

    /// <param name="mostPages">How many pages the file may have: a disk that is full beyond them.</param>
    internal static Database Open(string path, TimeProvider? clock, Action<string>? tell, int? mostPages)
    {
        tell ??= _ => { };
        if (Directory.Exists(path))
            throw new InvalidDataException($"{path} is a folder where the database file should be. Move it away.");
        Directory.CreateDirectory(System.IO.Path.GetDirectoryName(System.IO.Path.GetFullPath(path))!);
        var database = new Database(path) { _mostPages = mostPages };
        try
        {
            using (var connection = database.Connect())
            {
                DatabaseCheck.Run(connection, path, tell);
                database.CopyLaidAside = SchemaMigration.Run(connection, path, tell);
            }
            CarryOver.Run(database, (clock ?? TimeProvider.System).GetUtcNow(), tell);
        }
        catch (SqliteException error)
        {
            throw new InvalidDataException(WhyNot(path, error), error);
        }
        return database;
    }

    private static string WhyNot(string path, SqliteException error) =>
        error.SqliteErrorCode switch
        {
            5 or 6 => $"{path} is in use by another program. Stop it, or name another folder with --data.",
            8 => $"{path} may not be written to. Give this user the right to, or name another folder with --data.",
            11 or 26 => $"{path} is no Pyrometron database, or it is damaged. {DatabaseCheck.WayOn}",
            13 => $"The disk that {path} lies on is full. Make room, or name another folder with --data.",
            14 => $"{path} cannot be opened. Look at its rights and those of its folder, or name another folder with --data.",
            _ => $"{path} cannot be used ({error.Message}). Mend that, or name another folder with --data.",
        };

    /// <summary>A connection for reading; dispose it when done.</summary>
    public SqliteConnection Connect()
    {
        var connection = new SqliteConnection(_connectionString);
        connection.Open();
        connection.Execute(
            "PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA temp_store = MEMORY; PRAGMA cache_size = -65536; PRAGMA wal_autocheckpoint = 4000"
        );
        if (_mostPages is { } pages)
            connection.Execute($"PRAGMA max_page_count = {pages}");
        return connection;
    }

    /// <summary>Called after a commit that wrote into the change log; in the thread that committed.</summary>
    public event Action? Changed;

    /// <summary>Runs one use case in one transaction: all of it is stored, or nothing.</summary>
    /// <param name="actor">Who changes something.</param>
    /// <param name="now">The instant of the use case.</param>
    public T Write<T>(Actor actor, DateTimeOffset now, Func<Transaction, T> work, CancellationToken cancellation = default)
    {
        var done = Locked(
            connection =>
            {
                using var transaction = new Transaction(connection, actor, now);
                return (Result: work(transaction), Transaction: transaction);
            },
            cancellation
        );
        if (done.Transaction.HasChanges)
            Changed?.Invoke();
        return done.Result;
    }

    /// <summary>As above, for work without a result.</summary>
    public void Write(Actor actor, DateTimeOffset now, Action<Transaction> work) =>
        Write<object?>(
            actor,
            now,
            t =>
            {
                work(t);
                return null;
            }
        );

    private T Locked<T>(Func<SqliteConnection, T> work, CancellationToken cancellation)
    {
        _writer.Wait(cancellation);
        try
        {
            using var connection = Connect();
            connection.Execute("BEGIN IMMEDIATE");
            try
            {
                var result = work(connection);
                connection.Execute("COMMIT");
                return result;
            }
            catch
            {
                TryRollBack(connection);
                throw;
            }
        }
        finally
        {
            _writer.Release();
        }
    }

    /// <summary>What a roll-back itself throws must not hide why it was needed.</summary>
    private static void TryRollBack(SqliteConnection connection)
    {
        try
        {
            connection.Execute("ROLLBACK");
        }
        catch (SqliteException)
        {
            // The library has rolled back by itself: after a full disk, for one.
        }
    }

    /// <summary>Runs a read on a connection of its own, all of it on one state of the database.</summary>
    public T Read<T>(Func<SqliteConnection, T> work)
    {
        using var connection = Connect();
        connection.Execute("BEGIN");
        try
        {
            return work(connection);
        }
        finally
        {
            connection.Execute("ROLLBACK");
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        using (var connection = new SqliteConnection(_connectionString))
            SqliteConnection.ClearPool(connection);
        _writer.Dispose();
    }
}
