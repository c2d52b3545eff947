using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>Sites with their zones.</summary>
public static class SiteStore
{
    /// <summary>Sites with their zones within a use case.</summary>
    public static IReadOnlyList<Site> All(Transaction t) => All(t.Connection);

    /// <summary>The code of the site that a zone belongs to; null where there is no such zone.</summary>
    public static string? Of(Transaction t, string zone) =>
        (string?)
            t.Connection.Scalar(
                "SELECT site.code FROM zone JOIN site ON site.id = zone.site_id WHERE zone.code = $zone",
                ("$zone", zone)
            );

    /// <summary>Saves a site and its zones as edited.</summary>
    public static void Update(Transaction t, Site site) => Save(t.Connection, site, null);

    /// <summary>Removes a zone that no machine belongs to, and its site with its last zone.</summary>
    public static void RemoveZone(Transaction t, string code)
    {
        t.Connection.Execute("DELETE FROM zone WHERE code = $code", ("$code", code));
        t.Connection.Execute("DELETE FROM site WHERE id NOT IN (SELECT site_id FROM zone)");
    }

    /// <summary>Saves a site and its zones.</summary>
    internal static void Save(SqliteConnection connection, Site site, long? import)
    {
        var id = connection.Scalar(
            """
            INSERT INTO site (code, name, altitude_m, time_zone, import_id) VALUES ($code, $name, $altitude, $zone, $import)
            ON CONFLICT (code) DO UPDATE SET name = excluded.name, altitude_m = excluded.altitude_m,
                time_zone = CASE WHEN $import IS NULL THEN excluded.time_zone ELSE coalesce(excluded.time_zone, time_zone) END
            RETURNING id
            """,
            ("$code", site.Code),
            ("$name", site.Name),
            ("$altitude", site.AltitudeMetres),
            ("$zone", site.TimeZone),
            ("$import", import)
        );
        foreach (var zone in site.Zones)
            connection.Execute(
                """
                INSERT INTO zone (site_id, code, name, dust, design_ambient_c, import_id)
                VALUES ($site, $code, $name, $dust, $ambient, $import)
                ON CONFLICT (code) DO UPDATE SET site_id = excluded.site_id, name = excluded.name, dust = excluded.dust,
                    design_ambient_c = excluded.design_ambient_c
                """,
                ("$site", id),
                ("$code", zone.Code),
                ("$name", zone.Name),
                ("$dust", Words.Of(zone.Dust)),
                ("$ambient", zone.DesignAmbient.Value),
                ("$import", import)
            );
    }

    internal static List<Site> All(SqliteConnection connection)
    {
        var zones = connection
            .Query(
                "SELECT site_id, code, name, dust, design_ambient_c FROM zone ORDER BY id",
                r =>
                    (
                        Site: r.GetInt64(0),
                        Zone: new Zone(
                            r.GetString(1),
                            r.GetString(2),
                            StoredWords.Read<DustClass>(r.GetString(3)),
                            new Celsius(r.GetDouble(4))
                        )
                    )
            )
            .ToLookup(z => z.Site, z => z.Zone);
        return connection.Query(
            "SELECT id, code, name, altitude_m, time_zone FROM site ORDER BY id",
            r => new Site(r.GetString(1), r.GetString(2), r.GetDouble(3), [.. zones[r.GetInt64(0)]])
            {
                TimeZone = r.TextOrNull(4),
            }
        );
    }
}
