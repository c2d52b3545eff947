using System.Globalization;
using System.Reflection;
using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>
/// The database file: opened, brought up to the newest schema, and shared. One writer at a time; readers never wait for it
/// (write-ahead log). A commit is on disk before it returns (synchronous = FULL).
/// </summary>
public sealed class Database : IDisposable
{
    /// <summary>
    /// Each connection is used by one thread at a time, so the library need not lock for every value it hands out. Has to be
    /// said before the library is first used; where it has been already, it goes on locking, which is only slower.
    /// </summary>
    static Database()
    {
        const int multiThread = 2;
        SQLitePCL.Batteries_V2.Init();
        _ = SQLitePCL.raw.sqlite3_config(multiThread);
    }

    private readonly string _connectionString;
    private readonly SemaphoreSlim _writer = new(1, 1);

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

    /// <summary>The copy that was laid aside before an older schema was migrated, or null.</summary>
    public string? CopyLaidAside { get; private set; }

    /// <summary>Opens a database, making it when it is not there; an older one is copied aside and then migrated.</summary>
    /// <param name="clock">Null for the system's.</param>
    /// <exception cref="InvalidDataException">
    /// The file is no database of this program, damaged, or newer than this program.
    /// </exception>
    public static Database Open(string path, TimeProvider? clock = null)
    {
        Directory.CreateDirectory(System.IO.Path.GetDirectoryName(System.IO.Path.GetFullPath(path))!);
        var database = new Database(path);
        try
        {
            using (var connection = database.Connect())
                database.Migrate(connection);
            CarryOver.Run(database, (clock ?? TimeProvider.System).GetUtcNow());
        }
        catch (SqliteException error) when (error.SqliteErrorCode is 11 or 26)
        {
            throw new InvalidDataException(
                $"{path} is no Pyrometron database, or it is damaged. Lay back a copy, or start with another --data folder.",
                error
            );
        }
        return database;
    }

    /// <summary>A connection for reading; dispose it when done.</summary>
    public SqliteConnection Connect()
    {
        var connection = new SqliteConnection(_connectionString);
        connection.Open();
        connection.Execute(
            "PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA temp_store = MEMORY; PRAGMA cache_size = -65536; PRAGMA wal_autocheckpoint = 4000"
        );
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
                var transaction = new Transaction(connection, actor, now);
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

    /// <summary>The numbered migrations, oldest first.</summary>
    public static IReadOnlyList<(int Number, string Name, string Sql)> Migrations { get; } = [.. LoadMigrations()];

    private void Migrate(SqliteConnection connection)
    {
        var version = Convert.ToInt32(connection.Scalar("PRAGMA user_version"), CultureInfo.InvariantCulture);
        var newest = Migrations[^1].Number;
        if (version > newest)
            throw new InvalidDataException(
                $"{Path} was written by a newer Pyrometron (schema {version}, this one knows {newest}). Start the newer program."
            );
        if (version == newest)
            return;
        if (version > 0)
        {
            CopyLaidAside =
                $"{Path}.schema-{version}.{DateTime.UtcNow.ToString("yyyyMMdd-HHmmss", CultureInfo.InvariantCulture)}";
            using var copy = connection.Command("VACUUM INTO $copy", ("$copy", CopyLaidAside));
            copy.ExecuteNonQuery();
        }
        foreach (var (number, _, sql) in Migrations.Where(m => m.Number > version))
            connection.Execute($"BEGIN IMMEDIATE; {sql}; PRAGMA user_version = {number}; COMMIT");
    }

    private static IEnumerable<(int, string, string)> LoadMigrations()
    {
        var assembly = Assembly.GetExecutingAssembly();
        const string folder = ".Migrations.";
        foreach (
            var resource in assembly
                .GetManifestResourceNames()
                .Where(n => n.Contains(folder, StringComparison.Ordinal))
                .Order(StringComparer.Ordinal)
        )
        {
            var name = resource[(resource.IndexOf(folder, StringComparison.Ordinal) + folder.Length)..];
            using var reader = new StreamReader(assembly.GetManifestResourceStream(resource)!);
            yield return (int.Parse(name[..4], CultureInfo.InvariantCulture), name, reader.ReadToEnd());
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
