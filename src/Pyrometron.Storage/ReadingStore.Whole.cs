using System.Globalization;
using Pyrometron.Core.Readings;

namespace Pyrometron.Storage;

/// <summary>All readings, for whoever takes them along.</summary>
public sealed partial class ReadingStore
{
    /// <summary>A machine's readings, oldest first, voided ones left out.</summary>
    public IReadOnlyList<Reading> All(StoredAsset asset) =>
        database.Read(connection =>
            Load(connection, asset, long.MinValue, long.MaxValue, "AND amended <> 2 ORDER BY at_ms").ConvertAll(r => r.Reading)
        );

    /// <summary>How many fans a machine reports apart at most.</summary>
    public int MostFans() =>
        database.Read(connection =>
            Convert.ToInt32(
                connection.Scalar(
                    "SELECT coalesce(max(length(fans_rpm) - length(replace(fans_rpm, ';', '')) + 1), 0) FROM reading"
                ),
                CultureInfo.InvariantCulture
            )
        );
}
