using Pyrometron.Core.Fleet;

namespace Pyrometron.Storage;

/// <summary>
/// The slots of a machine's parts: readings are stored by slot. A part that has gone keeps its slot as long as there is another
/// free one, so that its readings are not taken for another's; after that they are moved aside, and its slot is given away.
/// </summary>
internal static class PartSlots
{
    /// <summary>Puts parts in order of the register, each into a slot of its own.</summary>
    public static void Save(Transaction t, long asset, IReadOnlyList<Part> parts)
    {
        t.Execute("UPDATE part SET position = NULL WHERE asset_id = $id", ("$id", asset));
        for (var position = 0; position < parts.Count; position++)
        {
            var part = parts[position];
            var known =
                t.Execute(
                    "UPDATE part SET position = $position, limit_c = $limit, joint = $joint WHERE asset_id = $id AND name = $name",
                    ("$position", position),
                    ("$limit", part.Limit.Value),
                    ("$joint", Words.Of(part.Joint)),
                    ("$id", asset),
                    ("$name", part.Name)
                ) > 0;
            if (known)
                continue;
            var slot = FreeSlot(t, asset, parts);
            t.Execute(
                "INSERT INTO part (asset_id, slot, position, name, limit_c, joint) VALUES ($id, $slot, $position, $name, $limit, $joint)",
                ("$id", asset),
                ("$slot", slot),
                ("$position", position),
                ("$name", part.Name),
                ("$limit", part.Limit.Value),
                ("$joint", Words.Of(part.Joint))
            );
            BringBack(t, asset, part.Name, slot);
        }
    }

    private static int FreeSlot(Transaction t, long asset, IReadOnlyList<Part> parts)
    {
        var taken = t.Connection.Query(
            "SELECT slot, name FROM part WHERE asset_id = $id",
            r => (Slot: r.GetInt32(0), Name: r.GetString(1)),
            ("$id", asset)
        );
        foreach (var slot in Enumerable.Range(0, Asset.MaxParts))
            if (taken.All(p => p.Slot != slot))
                return slot;
        var gone = taken.First(p => parts.All(part => part.Name != p.Name));
        MoveAside(t, asset, gone.Name, gone.Slot);
        return gone.Slot;
    }

    private static void MoveAside(Transaction t, long asset, string name, int slot)
    {
        (string, object?)[] of = [("$id", asset), ("$name", name)];
        t.Connection.Execute(
            $"INSERT INTO gone_part_reading SELECT asset_id, $name, at_ms, p{slot}_c FROM reading WHERE asset_id = $id AND p{slot}_c IS NOT NULL",
            of
        );
        t.Connection.Execute(
            $"UPDATE reading SET p{slot}_c = NULL WHERE asset_id = $id AND p{slot}_c IS NOT NULL",
            ("$id", asset)
        );
        t.Connection.Execute(
            $"UPDATE reading_amendment SET \"column\" = $name WHERE asset_id = $id AND \"column\" = 'p{slot}_c'",
            of
        );
        t.Connection.Execute("DELETE FROM part WHERE asset_id = $id AND name = $name", of);
    }

    private static void BringBack(Transaction t, long asset, string name, int slot)
    {
        (string, object?)[] of = [("$id", asset), ("$name", name)];
        t.Connection.Execute(
            $"""
            UPDATE reading SET p{slot}_c = g.celsius FROM gone_part_reading g
            WHERE reading.asset_id = $id AND g.asset_id = $id AND g.name = $name AND g.at_ms = reading.at_ms
            """,
            of
        );
        t.Connection.Execute("DELETE FROM gone_part_reading WHERE asset_id = $id AND name = $name", of);
        t.Connection.Execute(
            $"UPDATE reading_amendment SET \"column\" = 'p{slot}_c' WHERE asset_id = $id AND \"column\" = $name",
            of
        );
    }
}
