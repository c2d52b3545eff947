using Microsoft.Data.Sqlite;
using Pyrometron.Core.Events;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>
/// What happened to machines besides readings and services: runs, reports, looks, and how jobs ended. What the judgement reads.
/// </summary>
public sealed class HistoryStore(Database database)
{
    /// <summary>
    /// The histories of all machines of which anything is known, by the machine's number. Each is read when it is asked for:
    /// damage in one of them is no other's.
    /// </summary>
    public IReadOnlyDictionary<long, Lazy<MachineHistory>> All() =>
        database.Read(connection =>
        {
            var jobs = Jobs(connection, null).ToLookup(j => j.Asset);
            var symptoms = Symptoms(connection, null).ToLookup(s => s.Asset, s => s.Symptom);
            return jobs.Select(j => j.Key)
                .Union(symptoms.Select(s => s.Key))
                .ToDictionary(asset => asset, asset => new Lazy<MachineHistory>(() => Of(jobs[asset], symptoms[asset])));
        });

    /// <summary>The history of one machine.</summary>
    public MachineHistory Of(long assetId) =>
        database.Read(connection => Of(Jobs(connection, assetId), Symptoms(connection, assetId).Select(s => s.Symptom)));

    private static MachineHistory Of(IEnumerable<(long Asset, long Job, string Record)> jobs, IEnumerable<Symptom> symptoms)
    {
        var known = jobs.Select(j => (j.Job, Record: StoredJson.Read<HistoryRecord>(j.Record))).ToArray();
        return new MachineHistory(
            [.. known.SelectMany(j => j.Record.RunsOf(j.Job)).OrderBy(r => r.At)],
            [.. symptoms],
            [.. known.SelectMany(j => j.Record.AllLooks).OrderBy(l => l.At)],
            [.. known.Select(j => j.Record.ResultOf(j.Job)).OfType<JobResult>().OrderBy(r => r.At)]
        );
    }

    private static List<(long Asset, long Job, string Record)> Jobs(SqliteConnection connection, long? assetId) =>
        connection.Query(
            "SELECT asset_id, id, history FROM job WHERE history IS NOT NULL AND ($asset IS NULL OR asset_id = $asset) ORDER BY id",
            r => (r.GetInt64(0), r.GetInt64(1), r.GetString(2)),
            ("$asset", assetId)
        );

    private static IEnumerable<(long Asset, Symptom Symptom)> Symptoms(SqliteConnection connection, long? assetId) =>
        connection
            .Query(
                "SELECT DISTINCT asset_id FROM symptom WHERE withdrawn_at IS NULL AND ($asset IS NULL OR asset_id = $asset)",
                r => r.GetInt64(0),
                ("$asset", assetId)
            )
            .SelectMany(asset =>
                SymptomStore.Of(connection, asset).Where(s => s.WithdrawnReason is null).Reverse().Select(s => (asset, s.Symptom))
            );
}
