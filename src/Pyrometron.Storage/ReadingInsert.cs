using System.Globalization;
using Microsoft.Data.Sqlite;
using Pyrometron.Core.Readings;

namespace Pyrometron.Storage;

/// <summary>
/// The prepared insert of a batch. It names only the columns that the batch has anything for: binding a parameter (the
/// provider looks each up by name, one after the other) costs more than storing it, and several rows a statement cost
/// more still; most files measure a third of what can be measured.
/// </summary>
internal sealed class ReadingInsert : IDisposable
{
    private const int Fixed = 4;

    private readonly SqliteCommand _command;
    private readonly SqliteParameter[] _parameters;
    private readonly int[] _numbers;
    private readonly bool _fans,
        _spread;
    private readonly int _firstSlot;

    public ReadingInsert(
        SqliteConnection connection,
        IReadOnlyList<(string Tag, Reading Reading)> batch,
        IReadOnlyDictionary<string, StoredAsset> assets,
        long? import
    )
    {
        _numbers =
        [
            .. Enumerable
                .Range(0, ReadingStore.CorrectableColumns.Count)
                .Where(i => batch.Any(b => !double.IsNaN(NumberOf(b.Reading, i)))),
        ];
        _fans = batch.Any(b => b.Reading.FansRpm is not null);
        _spread = batch.Any(b => b.Reading.Samples > 0 || !double.IsNaN(b.Reading.SpreadKelvin));
        _firstSlot = Fixed + _numbers.Length + (_fans ? 1 : 0) + (_spread ? 2 : 0);
        var slots = batch.SelectMany(b => assets[b.Tag].Slots).DefaultIfEmpty(0).Max() + 1;
        string[] columns =
        [
            "asset_id",
            "at_ms",
            "settings",
            "workload",
            .. _numbers.Select(i => ReadingStore.CorrectableColumns[i]),
            .. (_spread ? ["samples", "spread_k"] : (string[])[]),
            .. (_fans ? ["fans_rpm"] : (string[])[]),
            .. Enumerable.Range(0, slots).Select(slot => $"p{slot}_c"),
        ];
        _command = connection.Command(
            // The import is the same for all: a constant of the statement, and nothing to bind.
            $"INSERT INTO reading ({string.Join(", ", columns)}, import_id) VALUES ({string.Join(", ", columns.Select((_, c) => $"$c{c}"))}, {import?.ToString(CultureInfo.InvariantCulture) ?? "NULL"}) ON CONFLICT DO NOTHING"
        );
        _parameters =
        [
            .. columns.Select(
                (name, c) =>
                    _command.Parameters.Add(
                        $"$c{c}",
                        c < Fixed || name == "samples" ? SqliteType.Integer
                            : name == "fans_rpm" ? SqliteType.Text
                            : SqliteType.Real
                    )
            ),
        ];
        _command.Prepare();
    }

    public bool Run(StoredAsset asset, Reading reading, long? settings, long? workload)
    {
        _parameters[0].Value = asset.Id;
        _parameters[1].Value = reading.UnixMilliseconds;
        _parameters[2].Value = (object?)settings ?? DBNull.Value;
        _parameters[3].Value = (object?)workload ?? DBNull.Value;
        for (var n = 0; n < _numbers.Length; n++)
            _parameters[Fixed + n].Value = OrNull(NumberOf(reading, _numbers[n]));
        if (_spread)
        {
            _parameters[Fixed + _numbers.Length].Value = reading.Samples > 0 ? reading.Samples : DBNull.Value;
            _parameters[Fixed + _numbers.Length + 1].Value = OrNull(reading.SpreadKelvin);
        }
        if (_fans)
            _parameters[_firstSlot - 1].Value = (object?)reading.FansRpm ?? DBNull.Value;
        for (var slot = _firstSlot; slot < _parameters.Length; slot++)
            _parameters[slot].Value = DBNull.Value;
        for (var p = 0; p < reading.PartsC.Length; p++)
            _parameters[_firstSlot + asset.Slots[p]].Value = OrNull(reading.PartsC[p]);
        return _command.ExecuteNonQuery() > 0;
    }

    public void Dispose() => _command.Dispose();

    /// <summary>In the order of <see cref="ReadingStore.CorrectableColumns"/>.</summary>
    private static double NumberOf(Reading r, int column) =>
        column switch
        {
            0 => r.AmbientC,
            1 => r.OutletC,
            2 => r.PowerW,
            3 => r.FanRpm,
            4 => r.FanPct,
            5 => r.ClockMhz,
            6 => r.Throttled,
            _ => r.Score,
        };

    private static object OrNull(double value) => double.IsNaN(value) ? DBNull.Value : value;
}
