using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;

namespace Pyrometron.Storage;

/// <summary>A report as stored.</summary>
public sealed record StoredSymptom(long Id, Symptom Symptom, string? WithdrawnReason);

/// <summary>What people reported of machines.</summary>
public sealed class SymptomStore(Database database, TimeProvider clock)
{
    /// <summary>Adds a report.</summary>
    /// <returns>Its number.</returns>
    public long Add(long assetId, Symptom symptom) =>
        database.Write(connection =>
            (long)
                connection.Scalar(
                    "INSERT INTO symptom (asset_id, date, kind, note, made_at) VALUES ($asset, $date, $kind, $note, $made) RETURNING id",
                    ("$asset", assetId),
                    ("$date", Sql.Text(symptom.Date)),
                    ("$kind", Words.Of(symptom.Kind)),
                    ("$note", symptom.Note),
                    ("$made", Sql.Text(clock.GetUtcNow()))
                )!
        );

    /// <summary>Withdraws a report, which stays in the book.</summary>
    /// <returns>False when the machine has no such report standing.</returns>
    public bool Withdraw(long assetId, long id, string reason) =>
        database.Write(connection =>
            connection.Scalar(
                "UPDATE symptom SET withdrawn_at = $now, withdrawn_reason = $reason WHERE id = $id AND asset_id = $asset AND withdrawn_at IS NULL RETURNING id",
                ("$now", Sql.Text(clock.GetUtcNow())),
                ("$reason", reason),
                ("$id", id),
                ("$asset", assetId)
            )
                is not null
        );

    /// <summary>All reports of a machine, newest first.</summary>
    public IReadOnlyList<StoredSymptom> Of(long assetId) =>
        database.Read(connection =>
            connection.Query(
                "SELECT id, date, kind, note, withdrawn_reason FROM symptom WHERE asset_id = $asset ORDER BY date DESC, id DESC",
                r => new StoredSymptom(
                    r.GetInt64(0),
                    new Symptom(r.Date(1), Kind(r.GetString(2)), r.TextOrNull(3)),
                    r.TextOrNull(4)
                ),
                ("$asset", assetId)
            )
        );

    /// <summary>Reports not withdrawn, by tag of the machine.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<Symptom>> Standing() =>
        database.Read(connection =>
            connection
                .Query(
                    "SELECT a.tag, s.date, s.kind, s.note FROM symptom s JOIN asset a ON a.id = s.asset_id WHERE s.withdrawn_at IS NULL ORDER BY s.date",
                    r => (Tag: r.GetString(0), Symptom: new Symptom(r.Date(1), Kind(r.GetString(2)), r.TextOrNull(3)))
                )
                .GroupBy(s => s.Tag)
                .ToDictionary(g => g.Key, g => (IReadOnlyList<Symptom>)[.. g.Select(s => s.Symptom)])
        );

    private static SymptomKind Kind(string word) =>
        Words.TryRead<SymptomKind>(word, out var kind) ? kind : throw new InvalidDataException($"symptom kind '{word}'");
}
