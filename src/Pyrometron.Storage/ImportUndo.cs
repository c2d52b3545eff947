using Pyrometron.Core.Messages;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>
/// Takes an import back as a whole: what it created goes, what it changed comes back. As soon as something was built on it, it
/// stays, and what stands on it is told.
/// </summary>
public static class ImportUndo
{
    private const string Created = "FROM asset a WHERE a.import_id = $import";

    /// <summary>What was built on what an import brought: each a query for a tag, and the sentence that tells it.</summary>
    /// <summary>What would stand in the way: a query for the machine, and the template of what it says.</summary>
    private sealed record Hindrance(string Sql, string Template);

    private static readonly Dictionary<ImportKind, Hindrance[]> Obstacles = new()
    {
        [ImportKind.Readings] =
        [
            new(
                """
                SELECT a.tag FROM import_asset i
                JOIN reading r ON r.asset_id = i.asset_id AND r.import_id = $import AND r.amended > 0
                JOIN asset a ON a.id = i.asset_id WHERE i.import_id = $import LIMIT 1
                """,
                "A reading of {asset} was corrected or voided since."
            ),
            new(
                """
                SELECT a.tag FROM import_asset i JOIN job j ON j.asset_id = i.asset_id JOIN job_entry e ON e.job_id = j.id
                JOIN asset a ON a.id = i.asset_id
                WHERE i.import_id = $import AND e.kind = 'run-measured' AND e.stored_at > $at
                    AND e.entry ->> '$.run.source' = 'readings' LIMIT 1
                """,
                "A run of a job on {asset} was taken from readings since."
            ),
        ],
        [ImportKind.Services] =
        [
            new(
                """
                SELECT a.tag FROM service s JOIN asset a ON a.id = s.asset_id
                WHERE s.import_id = $import AND (s.voided_at IS NOT NULL OR s.job_id IS NOT NULL) LIMIT 1
                """,
                "A service of {asset} was struck out, or filed by a job, since."
            ),
        ],
        [ImportKind.Fleet] =
        [
            new(
                $"SELECT a.tag {Created} AND EXISTS (SELECT 1 FROM reading r WHERE r.asset_id = a.id) LIMIT 1",
                "{asset} has readings. Undo their import first."
            ),
            new($"SELECT a.tag {Created} AND EXISTS (SELECT 1 FROM job j WHERE j.asset_id = a.id) LIMIT 1", "{asset} has jobs."),
            new(
                $"SELECT a.tag {Created} AND EXISTS (SELECT 1 FROM symptom s WHERE s.asset_id = a.id) LIMIT 1",
                "{asset} has reports."
            ),
            new(
                $"""
                SELECT o.tag FROM asset o WHERE o.import_id IS NOT $import AND o.host_tag IN (SELECT a.tag {Created})
                    AND o.id NOT IN (SELECT asset_id FROM import_asset WHERE import_id = $import) LIMIT 1
                """,
                "{asset} stands in one of its machines since."
            ),
            new(
                $"""
                SELECT a.tag {Created} AND (
                    EXISTS (SELECT 1 FROM service s WHERE s.asset_id = a.id AND s.import_id IS NOT $import)
                    OR EXISTS (SELECT 1 FROM change c WHERE c.asset_id = a.id)
                    OR EXISTS (SELECT 1 FROM set_aside x WHERE x.asset_id = a.id)) LIMIT 1
                """,
                "Something was written into the book of {asset} since. Retire the machine instead."
            ),
            new(
                """
                SELECT a.tag FROM import_asset i JOIN asset a ON a.id = i.asset_id JOIN asset_change c ON c.asset_id = a.id
                WHERE i.import_id = $import AND c.made_at > $at LIMIT 1
                """,
                "{asset} was changed since."
            ),
            new(
                """
                SELECT a.tag FROM service s JOIN asset a ON a.id = s.asset_id
                WHERE s.import_id = $import AND (s.voided_at IS NOT NULL OR s.job_id IS NOT NULL) LIMIT 1
                """,
                "A service of {asset} was struck out, or filed by a job, since."
            ),
            new(
                """
                SELECT a.tag FROM zone z JOIN asset a ON a.zone_id = z.id
                WHERE z.import_id = $import AND a.import_id IS NOT $import
                    AND a.id NOT IN (SELECT asset_id FROM import_asset WHERE import_id = $import) LIMIT 1
                """,
                "{asset} was put into one of its zones since."
            ),
            new("SELECT after FROM change WHERE kind = 'zone' AND stored_at > $at LIMIT 1", "A zone was changed since: {asset}."),
        ],
    };

    /// <summary>What stands on an import; null when it can be undone.</summary>
    public static Message? Obstacle(Transaction t, StoredImport import)
    {
        foreach (var (sql, template) in Obstacles[import.Kind])
            if (t.Connection.Scalar(sql, Parameters(sql, import)) is string tag)
                return Message.Of(template, Value.Text("asset", tag));
        return null;
    }

    /// <summary>Undoes an import; what stands on it must have been looked for.</summary>
    public static void Run(Transaction t, StoredImport import)
    {
        (string, object?)[] of = [("$import", import.Id)];
        switch (import.Kind)
        {
            case ImportKind.Readings:
                t.Connection.Execute(
                    """
                    DELETE FROM reading WHERE import_id = $import
                        AND asset_id IN (SELECT asset_id FROM import_asset WHERE import_id = $import)
                    """,
                    of
                );
                break;
            case ImportKind.Services:
                t.Connection.Execute("DELETE FROM service WHERE import_id = $import", of);
                break;
            default:
                UndoFleet(t, import, of);
                break;
        }
        t.Connection.Execute(
            "UPDATE import SET undone_at = $at WHERE id = $import",
            ("$at", Sql.Text(t.Now)),
            ("$import", import.Id)
        );
    }

    private static void UndoFleet(Transaction t, StoredImport import, (string, object?)[] of)
    {
        var before = StoredJson.Read<FleetBeforeRecord>(
            (string)t.Connection.Scalar("SELECT before FROM import WHERE id = $import", of)!
        );
        t.Connection.Execute("DELETE FROM service WHERE import_id = $import", of);
        foreach (var table in (string[])["part", "gone_part_reading", "change_touches"])
            t.Connection.Execute($"DELETE FROM {table} WHERE asset_id IN (SELECT a.id {Created})", of);
        t.Connection.Execute("DELETE FROM asset WHERE import_id = $import", of);
        foreach (var site in before.Sites)
            t.Connection.Execute(
                "UPDATE site SET name = $name, altitude_m = $altitude WHERE code = $code",
                ("$name", site.Name),
                ("$altitude", site.AltitudeMetres),
                ("$code", site.Code)
            );
        foreach (var zone in before.Zones)
            t.Connection.Execute(
                """
                UPDATE zone SET site_id = (SELECT id FROM site WHERE code = $site), name = $name, dust = $dust,
                    design_ambient_c = $ambient WHERE code = $code
                """,
                ("$site", zone.Site),
                ("$name", zone.Name),
                ("$dust", zone.Dust),
                ("$ambient", zone.DesignAmbientCelsius),
                ("$code", zone.Code)
            );
        foreach (var asset in before.Assets.Select(a => a.ToAsset()))
            FleetStore.Restore(t, asset);
        t.Connection.Execute("DELETE FROM zone WHERE import_id = $import", of);
        t.Connection.Execute(
            "DELETE FROM site WHERE import_id = $import AND NOT EXISTS (SELECT 1 FROM zone z WHERE z.site_id = site.id)",
            of
        );
    }

    private static (string, object?)[] Parameters(string sql, StoredImport import) =>
        sql.Contains("$at", StringComparison.Ordinal)
            ? [("$import", import.Id), ("$at", Sql.Text(import.At))]
            : [("$import", import.Id)];
}
