using Pyrometron.Core.Fleet;

namespace Pyrometron.Storage;

/// <summary>What changed of a machine's data, for its history.</summary>
internal static class FieldDifferences
{
    /// <summary>The fields that changed, in words.</summary>
    public static IEnumerable<(string Field, string? Before, string? After)> Of(Asset before, Asset after)
    {
        (string, string?, string?)[] fields =
        [
            ("kind", Words.Of(before.Kind), Words.Of(after.Kind)),
            ("model", before.Model, after.Model),
            ("zone", before.Zone, after.Zone),
            ("host", before.HostTag, after.HostTag),
            ("place", Place(before.Place), Place(after.Place)),
            ("hours a day", Number(before.DutyHoursPerDay), Number(after.DutyHoursPerDay)),
            ("in service since", Sql.Text(before.InServiceSince), Sql.Text(after.InServiceSince)),
            ("warranty until", Day(before.WarrantyUntil), Day(after.WarrantyUntil)),
            ("parts", Parts(before), Parts(after)),
        ];
        return fields.Where(f => f.Item2 != f.Item3);

        static string Number(double value) => value.ToString(System.Globalization.CultureInfo.InvariantCulture);
        static string? Place(FloorPlace? place) =>
            place is { } p ? FormattableString.Invariant($"column {p.Column}, row {p.Row}") : null;
        static string? Day(DateOnly? date) => date is { } day ? Sql.Text(day) : null;
        static string Parts(Asset a) => string.Join(", ", a.Parts.Select(p => $"{p.Name} {p.Limit} {Words.Of(p.Joint)}"));
    }
}
