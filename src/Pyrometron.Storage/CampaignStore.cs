using Microsoft.Data.Sqlite;
using Pyrometron.Core.Campaigns;
using Pyrometron.Core.Fleet;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>Campaigns with their machines.</summary>
public sealed class CampaignStore(Database database)
{
    /// <summary>All of them, newest first.</summary>
    public IReadOnlyList<Campaign> All() => database.Read(All);

    /// <summary>The same within a use case.</summary>
    public static IReadOnlyList<Campaign> All(Transaction t) => All(t.Connection);

    /// <summary>Adds one.</summary>
    /// <param name="assets">Its machines, the pilot first.</param>
    /// <returns>Its number.</returns>
    public static long Add(Transaction t, Campaign campaign, IReadOnlyList<long> assets)
    {
        var id = (long)
            t.Connection.Scalar(
                """
                INSERT INTO campaign (name, level, pilot, least_kelvin, scatter_kelvin, state, begun_on, due_by)
                VALUES ($name, $level, $pilot, $least, $scatter, $state, $begun, $due) RETURNING id
                """,
                ("$name", campaign.Name),
                ("$level", Words.Of(campaign.Level)),
                ("$pilot", campaign.Pilot),
                ("$least", campaign.Test.LeastKelvin),
                ("$scatter", campaign.Test.ScatterKelvin),
                ("$state", Words.Of(campaign.State)),
                ("$begun", Sql.Text(campaign.Begun)),
                ("$due", campaign.DueBy is { } due ? Sql.Text(due) : null)
            )!;
        AddMachines(t, id, assets);
        return id;
    }

    /// <summary>Takes machines in, behind those that are in it.</summary>
    public static void AddMachines(Transaction t, long id, IReadOnlyList<long> assets)
    {
        foreach (var asset in assets)
            t.Execute(
                """
                INSERT INTO campaign_machine (campaign_id, asset_id, place)
                SELECT $campaign, $asset, coalesce(max(place) + 1, 0) FROM campaign_machine WHERE campaign_id = $campaign
                """,
                ("$campaign", id),
                ("$asset", asset)
            );
    }

    /// <summary>Says whether it goes on, and who went on before the proof said so.</summary>
    public static void Set(Transaction t, long id, CampaignState state, string? goneOnBy) =>
        t.Connection.Execute(
            "UPDATE campaign SET state = $state, gone_on_by = $by WHERE id = $id",
            ("$id", id),
            ("$state", Words.Of(state)),
            ("$by", goneOnBy)
        );

    /// <summary>Ends it.</summary>
    public static void End(Transaction t, long id, DateOnly on, string because) =>
        t.Connection.Execute(
            "UPDATE campaign SET state = $state, ended_on = $on, ended_because = $because WHERE id = $id",
            ("$id", id),
            ("$state", Words.Of(CampaignState.Ended)),
            ("$on", Sql.Text(on)),
            ("$because", because)
        );

    /// <summary>Takes a machine out.</summary>
    public static void Remove(Transaction t, long id, long assetId) =>
        t.Connection.Execute(
            "DELETE FROM campaign_machine WHERE campaign_id = $id AND asset_id = $asset",
            ("$id", id),
            ("$asset", assetId)
        );

    private static List<Campaign> All(SqliteConnection connection)
    {
        var tags = connection
            .Query(
                "SELECT m.campaign_id, a.tag FROM campaign_machine m JOIN asset a ON a.id = m.asset_id ORDER BY m.place",
                r => (Campaign: r.GetInt64(0), Tag: r.GetString(1))
            )
            .ToLookup(m => m.Campaign, m => m.Tag);
        return connection.QueryReadable(
            """
            SELECT id, name, level, pilot, least_kelvin, scatter_kelvin, state, begun_on, due_by, ended_on, ended_because,
                gone_on_by
            FROM campaign ORDER BY id DESC
            """,
            r => new Campaign(
                r.GetInt64(0),
                r.GetString(1),
                StoredWords.Read<ServiceLevel>(r.GetString(2)),
                r.GetInt32(3),
                new SequentialTest(r.GetDouble(4), r.GetDouble(5)),
                StoredWords.Read<CampaignState>(r.GetString(6)),
                r.Date(7),
                r.IsDBNull(8) ? null : r.Date(8),
                r.IsDBNull(9) ? null : r.Date(9),
                r.TextOrNull(10),
                r.TextOrNull(11),
                [.. tags[r.GetInt64(0)]]
            ),
            (_, _) => { }
        );
    }
}
