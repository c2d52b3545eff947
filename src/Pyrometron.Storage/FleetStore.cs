using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>What an import of a fleet document did, in machines.</summary>
/// <param name="Changes">What changed of machines that were known.</param>
public sealed record FleetChange(int Created, int Updated, int Unchanged, IReadOnlyList<MachineChange> Changes);

/// <summary>One field of a machine that changed.</summary>
public sealed record MachineChange(long AssetId, string Field, string? Before, string? After);

/// <summary>A machine as stored: its row, its part slots and what has become of it.</summary>
/// <param name="Slots">Slot of each part, in the register's order.</param>
/// <param name="RetiredOn">Last day of use, or null.</param>
public sealed record StoredAsset(long Id, Asset Asset, IReadOnlyList<int> Slots, DateOnly? RetiredOn, string? RetiredReason)
{
    /// <summary>What of it could not be read, or null: the file is damaged there, and the rest stands without it.</summary>
    public string? Damage { get; init; }
}

/// <summary>One change of a machine's data.</summary>
public sealed record AssetChange(DateTimeOffset MadeAt, string Field, string? Before, string? After);

/// <summary>Sites, zones, machines and their services.</summary>
public sealed class FleetStore(Database database)
{
    /// <summary>Takes a whole fleet document, or nothing of it. Sending the same one again changes nothing.</summary>
    /// <param name="import">The import that what is created belongs to; null for none that can be undone.</param>
    public static FleetChange Import(
        Transaction t,
        Register register,
        long? import = null,
        CancellationToken cancellation = default
    )
    {
        var connection = t.Connection;
        var changes = new List<MachineChange>();
        var sites = SiteStore.All(connection);
        foreach (var site in register.Sites)
            SiteStore.Save(connection, site, import);
        var before = All(connection).ToDictionary(a => a.Asset.Tag);
        var (created, updated) = (0, new List<StoredAsset>());
        foreach (var sent in register.Assets)
        {
            cancellation.ThrowIfCancellationRequested();
            var known = before.GetValueOrDefault(sent.Tag);
            // Who does not tell where it stands leaves it there, unless it was moved.
            var asset = sent.Place is null && sent.Zone == known?.Asset.Zone ? sent with { Place = known.Asset.Place } : sent;
            if (known is null)
                created++;
            else if (Same(known.Asset, asset))
                continue;
            else
                updated.Add(known);
            changes.AddRange(Save(t, asset, known, import));
        }
        if (import is { } id)
        {
            ImportStore.Add(t, id, created, updated.Count, updated.Select(a => a.Id));
            connection.Execute(
                "UPDATE import SET form = $form, before = $before WHERE id = $id",
                ("$form", FleetBeforeRecord.Form),
                ("$before", StoredJson.Write(FleetBeforeRecord.Of(sites, updated.Select(a => a.Asset), register))),
                ("$id", id)
            );
        }
        return new FleetChange(created, updated.Count, register.Assets.Count - created - updated.Count, changes);
    }

    /// <summary>Puts a machine's data back as it was; its services and readings stay.</summary>
    internal static void Restore(Transaction t, Asset asset) => Save(t, asset, Find(t, asset.Tag)!, null);

    /// <summary>The register as it stands, in document order; retired machines are part of it only on request.</summary>
    public Register Register(bool withRetired = true) =>
        database.Read(connection => new Register(
            SiteStore.All(connection),
            [.. All(connection).Where(a => withRetired || a.RetiredOn is null).Select(a => a.Asset)]
        ));

    /// <summary>Sites with their zones.</summary>
    public IReadOnlyList<Site> Sites() => database.Read(SiteStore.All);

    /// <summary>All machines as stored.</summary>
    public IReadOnlyList<StoredAsset> All() => database.Read(All);

    /// <summary>One machine, or null.</summary>
    public StoredAsset? Find(string tag) => database.Read(connection => All(connection, tag).FirstOrDefault());

    /// <summary>One machine within a use case, or null.</summary>
    public static StoredAsset? Find(Transaction t, string tag) => All(t.Connection, tag).FirstOrDefault();

    /// <summary>All machines within a use case.</summary>
    public static IReadOnlyList<StoredAsset> All(Transaction t) => All(t.Connection);

    /// <summary>The register within a use case.</summary>
    public static Register Register(Transaction t) =>
        new(SiteStore.All(t.Connection), [.. All(t.Connection).Select(a => a.Asset)]);

    /// <summary>Saves a machine's edited data; what changed is kept in its history.</summary>
    public static IReadOnlyList<MachineChange> Update(Transaction t, StoredAsset known, Asset asset) =>
        Same(known.Asset, asset) ? [] : Save(t, asset, known, null);

    /// <summary>Takes a machine out of use; its history stays. A null day puts it back.</summary>
    public static MachineChange Retire(Transaction t, StoredAsset known, DateOnly? on, string? reason)
    {
        t.Connection.Execute(
            "UPDATE asset SET retired_on = $on, retired_reason = $reason WHERE id = $id",
            ("$on", on is { } day ? Sql.Text(day) : null),
            ("$reason", reason),
            ("$id", known.Id)
        );
        return Note(
            t,
            known.Id,
            "retired",
            known.RetiredOn is { } before ? Sql.Text(before) : null,
            on is { } after ? $"{Sql.Text(after)} {reason}" : null
        );
    }

    /// <summary>The changes of a machine's data, newest first.</summary>
    public IReadOnlyList<AssetChange> Changes(long assetId) =>
        database.Read(connection =>
            connection.Query(
                "SELECT made_at, field, before, after FROM asset_change WHERE asset_id = $id ORDER BY id DESC",
                r => new AssetChange(Sql.ReadInstant(r.GetString(0)), r.GetString(1), r.TextOrNull(2), r.TextOrNull(3)),
                ("$id", assetId)
            )
        );

    /// <summary>Whether a machine brings nothing new to one that is known.</summary>
    public static bool Same(Asset known, Asset asset) =>
        known with { Parts = [], Services = [] } == asset with { Parts = [], Services = [] }
        && known.Parts.SequenceEqual(asset.Parts)
        && asset.Services.All(s => known.Services.Any(s.IsSameAs));

    private static List<MachineChange> Save(Transaction t, Asset asset, StoredAsset? known, long? import)
    {
        var connection = t.Connection;
        var id = (long)
            connection.Scalar(
                """
                INSERT INTO asset (tag, kind, model, zone_id, host_tag, duty_hours, in_service_since, warranty_until,
                    place_column, place_row, import_id)
                VALUES ($tag, $kind, $model, (SELECT id FROM zone WHERE code = $zone), $host, $hours, $since, $warranty, $column,
                    $row, $import)
                ON CONFLICT (tag) DO UPDATE SET kind = excluded.kind, model = excluded.model, zone_id = excluded.zone_id,
                    host_tag = excluded.host_tag, duty_hours = excluded.duty_hours, in_service_since = excluded.in_service_since,
                    warranty_until = excluded.warranty_until, place_column = excluded.place_column, place_row = excluded.place_row
                RETURNING id
                """,
                ("$tag", asset.Tag),
                ("$kind", Words.Of(asset.Kind)),
                ("$model", asset.Model),
                ("$zone", asset.Zone),
                ("$host", asset.HostTag),
                ("$hours", asset.DutyHoursPerDay),
                ("$since", Sql.Text(asset.InServiceSince)),
                ("$warranty", asset.WarrantyUntil is { } day ? Sql.Text(day) : null),
                ("$column", asset.Place?.Column),
                ("$row", asset.Place?.Row),
                ("$import", import)
            )!;
        PartSlots.Save(t, id, asset.Parts);
        foreach (var service in asset.Services)
            ServiceStore.Add(t, id, service, import);
        return known is null
            ? []
            : [.. FieldDifferences.Of(known.Asset, asset).Select(d => Note(t, id, d.Field, d.Before, d.After))];
    }

    private static MachineChange Note(Transaction t, long id, string field, string? before, string? after)
    {
        t.Connection.Execute(
            "INSERT INTO asset_change (asset_id, made_at, field, before, after) VALUES ($id, $at, $field, $before, $after)",
            ("$id", id),
            ("$at", Sql.Text(t.Now)),
            ("$field", field),
            ("$before", before),
            ("$after", after)
        );
        return new MachineChange(id, field, before, after);
    }

    internal static List<StoredAsset> All(SqliteConnection connection) => All(connection, null);

    internal static List<StoredAsset> All(SqliteConnection connection, string? tag)
    {
        var filter = tag is null ? "" : "WHERE a.tag = $tag";
        var damage = new Dictionary<long, string>();
        var parts = connection
            .QueryReadable(
                $"SELECT p.asset_id, p.slot, p.name, p.limit_c, p.joint FROM part p JOIN asset a ON a.id = p.asset_id {filter} {(tag is null ? "WHERE" : "AND")} p.position IS NOT NULL ORDER BY p.asset_id, p.position",
                r =>
                    (
                        Asset: r.GetInt64(0),
                        Slot: r.GetInt32(1),
                        Part: new Part(r.GetString(2), new Celsius(r.GetDouble(3)), Read<JointMaterial>(r.GetString(4)))
                    ),
                (r, _) => damage[r.GetInt64(0)] = "a part",
                ("$tag", tag)
            )
            .ToLookup(p => p.Asset);
        var services = ServiceStore.Standing(connection, tag, asset => damage[asset] = "a service");
        return connection.Query(
            $"""
            SELECT a.id, a.tag, a.kind, a.model, z.code, a.host_tag, a.duty_hours, a.in_service_since, a.warranty_until,
                a.retired_on, a.retired_reason, a.place_column, a.place_row
            FROM asset a JOIN zone z ON z.id = a.zone_id {filter} ORDER BY a.id
            """,
            r =>
            {
                var id = r.GetInt64(0);
                T? Readable<T>(string what, Func<T> read)
                {
                    try
                    {
                        return read();
                    }
                    catch (Exception error) when (error is FormatException or InvalidDataException or InvalidCastException)
                    {
                        damage[id] = what;
                        return default;
                    }
                }
                var asset = new Asset(
                    r.GetString(1),
                    Readable("its kind", () => Read<AssetKind>(r.GetString(2))),
                    r.GetString(3),
                    r.GetString(4),
                    r.TextOrNull(5),
                    r.GetDouble(6),
                    Readable("the day it came into service", () => r.Date(7)),
                    Readable("the end of its warranty", () => r.DateOrNull(8)),
                    [.. parts[id].Select(p => p.Part)],
                    [.. services[id].OrderBy(s => s.Date).ThenBy(s => s.Level)]
                )
                {
                    Place = r.IsDBNull(11) || r.IsDBNull(12) ? null : new FloorPlace(r.GetInt32(11), r.GetInt32(12)),
                };
                return new StoredAsset(
                    id,
                    asset,
                    [.. parts[id].Select(p => p.Slot)],
                    Readable("the day it was retired", () => r.DateOrNull(9)),
                    r.TextOrNull(10)
                )
                {
                    Damage = damage.GetValueOrDefault(id),
                };
            },
            ("$tag", tag)
        );
    }

    private static T Read<T>(string word)
        where T : struct, Enum =>
        Words.TryRead<T>(word, out var value)
            ? value
            : throw new InvalidDataException($"The database holds '{word}', which is no {typeof(T).Name}.");
}
