using System.Globalization;
using System.Text;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats.Csv;

namespace Pyrometron.Formats.Tables;

/// <summary>
/// The fleet as a table, in the form in which it is taken: changed in a spreadsheet and brought back, it says what was changed.
/// Comma and decimal point, UTF-8 with its mark, so that spreadsheets read its letters right.
/// </summary>
public static class MachineTableWriter
{
    private static readonly MachineField[] Fields = [.. Enum.GetValues<MachineField>().Where(f => f != MachineField.Ignore)];

    private static readonly string Header = CsvWriter.Record([.. Fields.Select(MachineTable.NameOf)]);

    /// <summary>Two lines to begin from.</summary>
    public static string Template { get; } =
        "\uFEFF"
        + Header
        + CsvWriter.Record([
            "DT-001",
            "desktop",
            "Petrel desktop",
            "Harbour office",
            "Chart room",
            "normal",
            "30",
            "12",
            "8",
            "2023-04-01",
            "2026-03-31",
            "",
            "2025-02-14",
            "dust-out",
            "95",
        ])
        + CsvWriter.Record([
            "LT-014",
            "laptop",
            "Gannet field laptop",
            "Harbour office",
            "Boat store",
            "heavy",
            "32",
            "12",
            "6.5",
            "2024-01-15",
            "",
            "",
            "",
            "",
            "",
        ]);

    /// <summary>All machines.</summary>
    public static string Write(Register register)
    {
        var places = register.Sites.SelectMany(s => s.Zones, (s, z) => (s, z)).ToDictionary(p => p.z.Code);
        var table = new StringBuilder("\uFEFF").Append(Header);
        foreach (var a in register.Assets)
        {
            var (site, zone) = places[a.Zone];
            var last = a.Services.Count > 0 ? a.Services[^1] : null;
            table.Append(
                CsvWriter.Record([
                    a.Tag,
                    Words.Of(a.Kind),
                    a.Model,
                    site.Code,
                    zone.Code,
                    Words.Of(zone.Dust),
                    Number(zone.DesignAmbient.Value),
                    Number(site.AltitudeMetres),
                    Number(a.DutyHoursPerDay),
                    Day(a.InServiceSince),
                    Day(a.WarrantyUntil),
                    a.HostTag,
                    Day(last?.Date),
                    last is null ? null : Words.Of(last.Level),
                    a.Parts.Count > 0 ? Number(a.Parts[0].Limit.Value) : null,
                ])
            );
        }
        return table.ToString();
    }

    private static string Number(double value) => value.ToString("0.##", CultureInfo.InvariantCulture);

    private static string? Day(DateOnly? day) => day?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
