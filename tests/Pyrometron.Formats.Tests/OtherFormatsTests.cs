using System.IO.Compression;
using System.Text;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats.Csv;
using Pyrometron.Formats.Fleet;

namespace Pyrometron.Formats.Tests;

public class OtherFormatsTests
{
    private const string Document = """
        { "format": "pyrometron-fleet/1", "mood": "good",
          "sites": [ { "code": "QUAY", "name": "Quay House", "altitudeMetres": 12,
            "zones": [ { "code": "QUAY-2", "name": "Second floor", "dust": "normal", "designAmbientCelsius": 32 } ] } ],
          "assets": [ { "tag": "GC-1", "kind": "graphics-card", "model": "Sorrel", "zone": "QUAY-2", "dutyHoursPerDay": 24,
            "inServiceSince": "2024-01-10", "warrantyUntil": null,
            "parts": [ { "part": "core", "limitCelsius": 90, "interface": "paste" }, { "part": "memory", "limitCelsius": 105, "interface": "pad" } ],
            "services": [ { "date": "2025-10-01", "level": "dust-out" } ] } ] }
        """;

    private static MemoryStream Bytes(string text) => new(Encoding.UTF8.GetBytes(text));

    [Fact]
    public void A_document_is_read_with_its_unknown_members_kept_out()
    {
        var (register, warnings) = FleetDocument.Read(Bytes(Document));
        Assert.Equal("Unknown member '/mood' was kept out.", Assert.Single(warnings));
        var asset = Assert.Single(register.Assets);
        Assert.Equal((AssetKind.GraphicsCard, "QUAY-2", 24.0), (asset.Kind, asset.Zone, asset.DutyHoursPerDay));
        Assert.Equal(new ServiceDone(new(2025, 10, 1), ServiceLevel.DustOut), Assert.Single(asset.Services));
        Assert.Equal(JointMaterial.Pad, asset.Parts[1].Joint);
    }

    [Fact]
    public void What_is_written_reads_back_the_same()
    {
        var register = FleetDocument.Read(Bytes(Document)).Register;
        using var written = new MemoryStream();
        FleetDocument.Write(written, register);
        written.Position = 0;
        var (again, warnings) = FleetDocument.Read(written);
        Assert.Empty(warnings);
        using var twice = new MemoryStream();
        FleetDocument.Write(twice, again);
        Assert.Equal(written.ToArray(), twice.ToArray());
    }

    [Theory]
    [InlineData("\"QUAY-2\", \"dutyHours", "\"ATTIC\", \"dutyHours", "/assets/0/zone")]
    [InlineData("\"graphics-card\"", "\"toaster\"", "/assets/0/kind")]
    [InlineData("\"limitCelsius\": 90", "\"limitCelsius\": 1e9", "/assets/0/parts/0/limitCelsius")]
    [InlineData("\"2024-01-10\"", "\"2024-02-30\"", "/assets/0/inServiceSince")]
    [InlineData("\"memory\"", "\"core\"", "/assets/0/parts")]
    [InlineData("\"dust-out\"", "\"hammer\"", "/assets/0/services/0/level")]
    [InlineData("\"dutyHoursPerDay\": 24", "\"dutyHoursPerDay\": 25", "/assets/0/dutyHoursPerDay")]
    [InlineData("\"tag\": \"GC-1\", ", "", "/assets/0/tag")]
    [InlineData("\"normal\"", "5", "/sites/0/zones/0/dust")]
    [InlineData("\"pyrometron-fleet/1\"", "\"pyrometron-fleet/2\"", "/format")]
    public void One_wrong_value_refuses_the_document_and_names_its_place(string from, string to, string pointer)
    {
        var refused = Assert.Throws<RefusedInputException>(() =>
            FleetDocument.Read(Bytes(Document.Replace(from, to, StringComparison.Ordinal)))
        );
        Assert.Contains(refused.Problems, p => p.Pointer == pointer);
    }

    [Fact]
    public void What_is_no_json_or_ten_thousand_levels_deep_is_refused()
    {
        foreach (
            var text in (string[])
                [
                    "",
                    "[1]",
                    "{",
                    "\"x\"",
                    new string('[', 10_000),
                    Document.Replace("\"mood\": \"good\"", "\"mood\": " + new string('[', 10_000), StringComparison.Ordinal),
                    "{\"format\":\"a\",\"format\":\"b\"}",
                ]
        )
            Assert.Throws<RefusedInputException>(() => FleetDocument.Read(Bytes(text)));
    }

    [Fact]
    public void Services_are_read_and_refused_line_by_line()
    {
        var lines = ServicesCsv
            .Read(
                Bytes(
                    "level,date,asset\ndust-out,2025-10-01,GC-1\nhammer,2025-10-01,GC-1\nrepad,2025-13-01,GC-1\nrepad,2030-01-01,GC-1\nrepad,2025-10-02,GC-2\n"
                ),
                tag => tag == "GC-1",
                new(2026, 5, 1)
            )
            .ToList();
        Assert.Equal(new ServiceDone(new(2025, 10, 1), ServiceLevel.DustOut), lines[0].Service);
        Assert.Equal(["level", "date", "date", "asset"], lines.Skip(1).Select(l => l.Problem!.Column));
        Assert.Throws<RefusedInputException>(() => ServicesCsv.Read(Bytes("date,asset\n"), _ => true, new(2026, 5, 1)).ToList());
    }

    [Fact]
    public async Task A_gzip_cut_short_anywhere_or_damaged_is_refused_whole()
    {
        var packed = new MemoryStream();
        using (var gzip = new GZipStream(packed, CompressionLevel.Optimal, leaveOpen: true))
            gzip.Write(Encoding.UTF8.GetBytes(string.Concat(Enumerable.Range(0, 500).Select(i => $"line {i}\n"))));
        var bytes = packed.ToArray();
        using (var whole = await GzipSpool.TakeAsync(new MemoryStream(bytes), default))
            Assert.Equal(whole.PlainLength, new StreamReader(whole.Open()).ReadToEnd().Length);
        for (var length = 2; length < bytes.Length; length++)
            await Assert.ThrowsAsync<RefusedInputException>(() =>
                GzipSpool.TakeAsync(new MemoryStream(bytes[..length]), default)
            );
        bytes[^6] ^= 1;
        await Assert.ThrowsAsync<RefusedInputException>(() => GzipSpool.TakeAsync(new MemoryStream(bytes), default));
    }
}
