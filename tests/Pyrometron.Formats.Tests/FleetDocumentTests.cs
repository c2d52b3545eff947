using System.Text;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats.Fleet;

namespace Pyrometron.Formats.Tests;

/// <summary>The fleet document: read whole or not at all, bounded, and written so that it reads back the same.</summary>
public class FleetDocumentTests
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

    private static readonly DateOnly Today = new(2026, 5, 1);

    private static (Register Register, string[] Warnings) Read(string text)
    {
        var (register, warnings) = FleetDocument.Read(Encoding.UTF8.GetBytes(text), Today);
        return (register, [.. warnings.Select(w => w.ToString())]);
    }

    [Fact]
    public void A_document_is_read_with_its_unknown_members_kept_out()
    {
        var (register, warnings) = Read(Document);
        Assert.Equal("Unknown member '/mood' was kept out.", Assert.Single(warnings));
        var asset = Assert.Single(register.Assets);
        Assert.Equal((AssetKind.GraphicsCard, "QUAY-2", 24.0), (asset.Kind, asset.Zone, asset.DutyHoursPerDay));
        Assert.Equal(new ServiceDone(new(2025, 10, 1), ServiceLevel.DustOut), Assert.Single(asset.Services));
        Assert.Equal(JointMaterial.Pad, asset.Parts[1].Joint);
    }

    [Fact]
    public void What_is_written_reads_back_the_same()
    {
        var register = Read(Document).Register;
        using var written = new MemoryStream();
        FleetDocument.Write(written, register);
        var (again, warnings) = FleetDocument.Read(written.ToArray(), Today);
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
    [InlineData("\"2024-01-10\"", "\"9999-12-31\"", "/assets/0/inServiceSince")]
    [InlineData("\"warrantyUntil\": null", "\"warrantyUntil\": \"0001-01-01\"", "/assets/0/warrantyUntil")]
    [InlineData("\"2025-10-01\"", "\"2027-10-01\"", "/assets/0/services/0/date")]
    [InlineData("\"GC-1\"", "\"GC/1\"", "/assets/0/tag")]
    [InlineData("\"GC-1\"", "\" GC-1\"", "/assets/0/tag")]
    [InlineData("\"GC-1\"", "\"GC\\u0007\"", "/assets/0/tag")]
    [InlineData("\"GC-1\"", "\"..\"", "/assets/0/tag")]
    [InlineData("\"GC-1\"", "\"\\ud800\"", "/assets/0")]
    [InlineData("\"model\": \"Sorrel\"", "\"\\ud800\": \"Sorrel\"", "/assets/0")]
    [InlineData("\"level\": \"dust-out\"", "\"level\": \"dust-out\", \"coolerLifted\": 1", "/assets/0/services/0/coolerLifted")]
    [InlineData("\"pyrometron-fleet/1\"", "\"pyrometron-fleet/2\"", "/format")]
    public void One_wrong_value_refuses_the_document_and_names_its_place(string from, string to, string pointer)
    {
        var refused = Assert.Throws<RefusedInputException>(() => Read(Document.Replace(from, to, StringComparison.Ordinal)));
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
            Assert.Throws<RefusedInputException>(() => Read(text));
    }

    [Fact]
    public void A_service_that_did_more_than_its_level_comes_back_the_same()
    {
        var more = Document.Replace(
            "\"level\": \"dust-out\"",
            "\"level\": \"dust-out\", \"coolerLifted\": true, \"renewed\": { \"dust\": 0.85, \"paste\": 1, \"pads\": 0, \"fan\": 1, \"mount\": 1 }",
            StringComparison.Ordinal
        );
        var service = Assert.Single(Read(more).Register.Assets[0].Services);
        Assert.True(service.LiftedCooler && service.Renews(Cause.Paste) && service.Renews(Cause.Fan));
        using var written = new MemoryStream();
        FleetDocument.Write(written, Read(more).Register);
        Assert.Equal(service.Renewed, FleetDocument.Read(written.ToArray(), Today).Register.Assets[0].Services[0].Renewed);
    }

    /// <summary>A few bytes of gzip can hold millions of empty machines: after a hundred problems nobody reads on.</summary>
    [Fact]
    public void A_document_of_millions_of_empty_machines_is_given_up_after_a_hundred_problems()
    {
        var empty =
            "{\"format\":\"pyrometron-fleet/1\",\"sites\":[],\"assets\":["
            + string.Join(',', Enumerable.Repeat("{}", 2_000_000))
            + "]}";
        var utf8 = Encoding.UTF8.GetBytes(empty);
        var before = GC.GetAllocatedBytesForCurrentThread();
        Assert.Equal(100, Assert.Throws<RefusedInputException>(() => FleetDocument.Read(utf8, Today)).Problems.Count);
        Assert.True(GC.GetAllocatedBytesForCurrentThread() - before < 10_000_000);
    }

    [Fact]
    public void More_machines_or_zones_than_the_bounds_are_refused_whole_and_as_many_are_read()
    {
        string Zones(int count) =>
            string.Join(
                ',',
                Enumerable
                    .Range(0, count)
                    .Select(i => $$"""{"code":"Z{{i}}","name":"Z","dust":"clean","designAmbientCelsius":30}""")
            );
        string Assets(int count) =>
            string.Join(
                ',',
                Enumerable
                    .Range(0, count)
                    .Select(i =>
                        $$"""{"tag":"D{{i}}","kind":"desktop","model":"M","zone":"Z0","dutyHoursPerDay":8,"inServiceSince":"2024-01-10","parts":[]}"""
                    )
            );
        string With(int zones, int assets) =>
            $$"""{"format":"pyrometron-fleet/1","sites":[{"code":"S","name":"S","altitudeMetres":1,"zones":[{{Zones(zones)}}]}],"assets":[{{Assets(assets)}}]}""";
        Assert.Equal(100_000, Read(With(2_000, 100_000)).Register.Assets.Count);
        Assert.Equal("/assets", Assert.Throws<RefusedInputException>(() => Read(With(1, 100_001))).Problems[0].Pointer);
        Assert.Equal("/sites/0/zones", Assert.Throws<RefusedInputException>(() => Read(With(2_001, 1))).Problems[0].Pointer);
    }
}
