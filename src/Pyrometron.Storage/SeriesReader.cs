using System.Collections.Concurrent;
using System.Runtime.InteropServices;
using Microsoft.Data.Sqlite;
using Pyrometron.Core.Readings;

namespace Pyrometron.Storage;

/// <summary>
/// Reads many machines' readings for a judgement, from several threads: each keeps its connection and its prepared statement,
/// and rows go straight into columns. Dispose it when the judgement is done.
/// </summary>
public sealed class SeriesReader(Database database, long untilUnixMilliseconds) : IDisposable
{
    private readonly ConcurrentBag<Lane> _idle = [];

    private readonly Lazy<IReadOnlyDictionary<long, string>> _labels = new(() =>
        database.Read(connection =>
            connection.Query("SELECT id, text FROM label", r => (r.GetInt64(0), r.GetString(1))).ToDictionary()
        )
    );

    /// <summary>A machine's readings up to the instant, oldest first, voided ones left out.</summary>
    public ReadingSeries Read(StoredAsset asset)
    {
        if (!_idle.TryTake(out var lane))
            lane = new Lane(database.Connect(), untilUnixMilliseconds, _labels);
        var series = lane.Read(asset);
        _idle.Add(lane);
        return series;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        while (_idle.TryTake(out var lane))
            lane.Dispose();
    }

    private sealed class Lane(SqliteConnection connection, long until, Lazy<IReadOnlyDictionary<long, string>> labels)
        : IDisposable
    {
        private const int FirstPart = 8;

        /// <summary>One statement for each set of part slots met: most machines of a fleet have the same.</summary>
        private readonly Dictionary<string, SqliteCommand> _commands = [];

        private readonly Dictionary<int, ReadingSeries.Builder> _builders = [];

        public ReadingSeries Read(StoredAsset asset)
        {
            var parts = asset.Slots.Count;
            var command = CommandFor(asset.Slots);
            command.Parameters[0].Value = asset.Id;
            using var reader = command.ExecuteReader();
            if (!_builders.TryGetValue(parts, out var builder))
                _builders[parts] = builder = new ReadingSeries.Builder(parts);
            builder.Clear();
            var row = reader.Handle!.DangerousGetHandle();
            while (reader.Read())
            {
                builder.Begin(Native.sqlite3_column_int64(row, 0), Label(row, 1), Label(row, 2));
                builder.Measured(Number(row, 3), Number(row, 4), Number(row, 5), Number(row, 6), Number(row, 7) > 0);
                for (var p = 0; p < parts; p++)
                    builder.Part(p, Number(row, FirstPart + p));
            }
            return builder.Build(labels.Value.GetValueOrDefault);
        }

        private SqliteCommand CommandFor(IReadOnlyList<int> slots)
        {
            var columns = string.Concat(slots.Select(s => $", p{s}_c"));
            if (!_commands.TryGetValue(columns, out var command))
            {
                command = connection.Command(
                    $"""
                    SELECT at_ms, settings, workload, ambient_c, power_w, fan_rpm, fan_pct, throttled{columns}
                    FROM reading WHERE asset_id = $asset AND at_ms <= $until AND amended < 2 ORDER BY at_ms
                    """,
                    ("$asset", 0L),
                    ("$until", until)
                );
                command.Prepare();
                _commands[columns] = command;
            }
            return command;
        }

        /// <summary>Labels are numbered from 1: zero is NULL.</summary>
        private static long Label(nint row, int column) =>
            Native.sqlite3_column_int64(row, column) is var label && label == 0 ? -1 : label;

        /// <summary>NULL reads as zero: only a zero is asked what it is.</summary>
        private static double Number(nint row, int column) =>
            Native.sqlite3_column_double(row, column) is var value
            && value == 0
            && Native.sqlite3_column_type(row, column) == SqliteNull
                ? double.NaN
                : value;

        public void Dispose()
        {
            foreach (var command in _commands.Values)
                command.Dispose();
            connection.Dispose();
        }
    }

    private const int SqliteNull = 5;

    /// <summary>
    /// The values of the row that a statement stands on, straight from the library that the provider has loaded. Its own
    /// wrappers take about 150 ns a value, fifteen thousand of them a machine; these calls neither block nor call back.
    /// The reader keeps the statement alive as long as they are used.
    /// </summary>
    private static class Native
    {
        private const string Library = "e_sqlite3";

        [DllImport(Library), SuppressGCTransition, DefaultDllImportSearchPaths(DllImportSearchPath.AssemblyDirectory)]
        public static extern double sqlite3_column_double(nint statement, int column);

        [DllImport(Library), SuppressGCTransition, DefaultDllImportSearchPaths(DllImportSearchPath.AssemblyDirectory)]
        public static extern long sqlite3_column_int64(nint statement, int column);

        [DllImport(Library), SuppressGCTransition, DefaultDllImportSearchPaths(DllImportSearchPath.AssemblyDirectory)]
        public static extern int sqlite3_column_type(nint statement, int column);
    }
}
