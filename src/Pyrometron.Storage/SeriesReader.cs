using System.Collections.Concurrent;
using Microsoft.Data.Sqlite;
using Pyrometron.Core.Readings;
using SQLitePCL;

namespace Pyrometron.Storage;

/// <summary>
/// Reads many machines' readings for a judgement, from several threads: each keeps its connection and its prepared statement,
/// and rows go straight into columns. Dispose it when the judgement is done.
/// </summary>
public sealed class SeriesReader(Database database, long untilUnixMilliseconds) : IDisposable
{
    private readonly ConcurrentBag<Lane> _idle = [];

    /// <summary>A machine's readings up to the instant, oldest first, voided ones left out.</summary>
    public ReadingSeries Read(StoredAsset asset)
    {
        if (!_idle.TryTake(out var lane))
            lane = new Lane(database.Connect(), untilUnixMilliseconds);
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

    private sealed class Lane(SqliteConnection connection, long until) : IDisposable
    {
        private const int FirstPart = 8;

        /// <summary>One statement for each set of part slots met: most machines of a fleet have the same.</summary>
        private readonly Dictionary<string, SqliteCommand> _commands = [];

        private int _expected = 1500;

        public ReadingSeries Read(StoredAsset asset)
        {
            var parts = asset.Slots.Count;
            var command = CommandFor(asset.Slots);
            command.Parameters[0].Value = asset.Id;
            using var reader = command.ExecuteReader();
            var builder = new ReadingSeries.Builder(parts, _expected);
            // The provider asks for the type of each value again and again; straight from the statement it is asked once.
            var row = reader.Handle!;
            while (reader.Read())
            {
                builder.Begin(raw.sqlite3_column_int64(row, 0), Label(row, 1), Label(row, 2));
                builder.Measured(Number(row, 3), Number(row, 4), Number(row, 5), Number(row, 6), Number(row, 7) > 0);
                for (var p = 0; p < parts; p++)
                    builder.Part(p, Number(row, FirstPart + p));
            }
            var series = builder.Build();
            _expected = Math.Max(64, series.Count + series.Count / 8);
            return series;
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
                    """, ("$asset", 0L), ("$until", until));
                command.Prepare();
                _commands[columns] = command;
            }
            return command;
        }

        private static long Label(sqlite3_stmt row, int column) => raw.sqlite3_column_type(row, column) == raw.SQLITE_NULL ? -1 : raw.sqlite3_column_int64(row, column);

        private static double Number(sqlite3_stmt row, int column) => raw.sqlite3_column_type(row, column) == raw.SQLITE_NULL ? double.NaN : raw.sqlite3_column_double(row, column);

        public void Dispose()
        {
            foreach (var command in _commands.Values)
                command.Dispose();
            connection.Dispose();
        }
    }
}
