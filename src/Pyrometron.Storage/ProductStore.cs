using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Stores;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>What the stores keep.</summary>
public sealed class ProductStore(Database database)
{
    /// <summary>All products, by kind and name.</summary>
    public IReadOnlyList<Product> All() => database.Read(All);

    /// <summary>The same within a use case.</summary>
    public static IReadOnlyList<Product> All(Transaction t) => All(t.Connection);

    /// <summary>Adds a product, or changes what is known of it.</summary>
    public static void Keep(Transaction t, Product product)
    {
        var facts = product.Facts;
        var id = t.Connection.Scalar(
            """
            INSERT INTO product (code, kind, name, conductivity, density, viscosity, nature, abrasive, needs_warming,
                not_on_aluminium, thickness_mm, sheet_width_mm, sheet_height_mm, most_compression, strength_percent,
                shelf_months, open_months, note, pack_amount, pack_price, lead_days, low_at)
            VALUES ($code, $kind, $name, $conductivity, $density, $viscosity, $nature, $abrasive, $warming,
                $aluminium, $thickness, $width, $height, $compression, $strength,
                $shelf, $open, $note, $amount, $price, $lead, $low)
            ON CONFLICT (code) DO UPDATE SET kind = excluded.kind, name = excluded.name,
                conductivity = excluded.conductivity, density = excluded.density, viscosity = excluded.viscosity,
                nature = excluded.nature, abrasive = excluded.abrasive, needs_warming = excluded.needs_warming,
                not_on_aluminium = excluded.not_on_aluminium, thickness_mm = excluded.thickness_mm,
                sheet_width_mm = excluded.sheet_width_mm, sheet_height_mm = excluded.sheet_height_mm,
                most_compression = excluded.most_compression, strength_percent = excluded.strength_percent,
                shelf_months = excluded.shelf_months, open_months = excluded.open_months, note = excluded.note,
                pack_amount = excluded.pack_amount, pack_price = excluded.pack_price, lead_days = excluded.lead_days,
                low_at = excluded.low_at
            RETURNING id
            """,
            ("$code", product.Code),
            ("$kind", Words.Of(product.Kind)),
            ("$name", product.Name),
            ("$conductivity", facts.ConductivityWPerMK),
            ("$density", facts.DensityGPerCm3),
            ("$viscosity", facts.Viscosity is { } viscosity ? Words.Of(viscosity) : null),
            ("$nature", facts.Nature is { } nature ? Words.Of(nature) : null),
            ("$abrasive", facts.Abrasive ? 1 : 0),
            ("$warming", facts.NeedsWarming ? 1 : 0),
            ("$aluminium", facts.NotOnAluminium ? 1 : 0),
            ("$thickness", facts.ThicknessMm),
            ("$width", facts.SheetWidthMm),
            ("$height", facts.SheetHeightMm),
            ("$compression", facts.MostCompression),
            ("$strength", facts.StrengthPercent),
            ("$shelf", facts.ShelfMonths),
            ("$open", facts.OpenMonths),
            ("$note", facts.Note),
            ("$amount", product.Pack.Amount),
            ("$price", product.Pack.Price),
            ("$lead", product.Pack.LeadDays),
            ("$low", product.LowAt)
        );
        t.Connection.Execute("DELETE FROM product_fits WHERE product_id = $id", ("$id", id));
        foreach (var model in product.Fits)
            t.Connection.Execute(
                "INSERT INTO product_fits (product_id, model) VALUES ($id, $model)",
                ("$id", id),
                ("$model", model)
            );
    }

    /// <summary>Takes a product off the list; it has no lots.</summary>
    public static void Remove(Transaction t, string code) =>
        t.Connection.Execute("DELETE FROM product WHERE code = $code", ("$code", code));

    internal static List<Product> All(SqliteConnection connection)
    {
        var fits = connection
            .Query(
                "SELECT product_id, model FROM product_fits ORDER BY model",
                r => (Product: r.GetInt64(0), Model: r.GetString(1))
            )
            .ToLookup(f => f.Product, f => f.Model);
        return connection.Query(
            """
            SELECT id, code, kind, name, conductivity, density, viscosity, nature, abrasive, needs_warming,
                not_on_aluminium, thickness_mm, sheet_width_mm, sheet_height_mm, most_compression, strength_percent,
                shelf_months, open_months, note, pack_amount, pack_price, lead_days, low_at
            FROM product ORDER BY kind, thickness_mm, name
            """,
            r => new Product(
                r.GetString(1),
                StoredWords.Read<ProductKind>(r.GetString(2)),
                r.GetString(3),
                new ProductFacts(
                    r.NumberOrNull(4),
                    r.NumberOrNull(5),
                    r.TextOrNull(6) is { } viscosity ? StoredWords.Read<Viscosity>(viscosity) : null,
                    r.TextOrNull(7) is { } nature ? StoredWords.Read<PasteNature>(nature) : null,
                    r.GetBoolean(8),
                    r.GetBoolean(9),
                    r.GetBoolean(10),
                    r.NumberOrNull(11),
                    r.NumberOrNull(12),
                    r.NumberOrNull(13),
                    r.NumberOrNull(14),
                    r.NumberOrNull(15),
                    (int?)r.LongOrNull(16),
                    (int?)r.LongOrNull(17),
                    r.TextOrNull(18)
                ),
                new Pack(r.GetDouble(19), r.NumberOrNull(20), r.GetInt32(21)),
                [.. fits[r.GetInt64(0)]],
                r.NumberOrNull(22)
            )
        );
    }
}
