using System.Text.Json;
using System.Text.RegularExpressions;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Formats.Fleet;

/// <summary>Reads and writes the fleet document <c>pyrometron-fleet/1</c>. Reading is all or nothing.</summary>
public static partial class FleetDocument
{
    /// <summary>The value of the document's <c>format</c> member.</summary>
    public const string Format = "pyrometron-fleet/1";

    /// <summary>The longest document that is read, in bytes (20,000 machines take about 10 MB).</summary>
    public const long LongestBytes = 128L * 1024 * 1024;

    private const int MostProblems = 100;

    private static readonly JsonDocumentOptions Strict = new() { MaxDepth = 32, AllowDuplicateProperties = false };

    /// <summary>Reads a document; unknown members are kept out with a warning.</summary>
    /// <exception cref="RefusedInputException">Not JSON, or anything in it missing, wrong or contradictory.</exception>
    public static (Register Register, IReadOnlyList<string> Warnings) Read(Stream json)
    {
        try
        {
            using var document = JsonDocument.Parse(json, Strict);
            return Read(document.RootElement);
        }
        catch (JsonException error)
        {
            var line = error.LineNumber is { } zeroBased ? (int?)(zeroBased + 1) : null;
            throw new RefusedInputException(
                new InputProblem($"This is no usable JSON: {error.Message.Split(" LineNumber")[0]}", line, Pointer: "")
            );
        }
    }

    private static (Register, IReadOnlyList<string>) Read(JsonElement root)
    {
        var (problems, warnings) = (new List<InputProblem>(), new List<string>());
        if (root.ValueKind != JsonValueKind.Object)
            throw new RefusedInputException(new InputProblem("A fleet document is a JSON object.", Pointer: ""));
        var walker = new JsonWalker(root, "", problems, warnings);
        if (walker.Text("format") is var format && format != Format)
            throw new RefusedInputException(new InputProblem($"format must be \"{Format}\".", Pointer: "/format"));
        var sites = walker.Items("sites", ReadSite);
        var zones = Unique(sites.SelectMany(s => s.Zones), z => z.Code, "zone", problems);
        Unique(sites, s => s.Code, "site", problems);
        var assets = walker.Items("assets", w => ReadAsset(w, zones));
        var tags = Unique(assets, a => a.Tag, "asset", problems);
        foreach (var asset in assets.Where(a => a.HostTag is { } host && (host == a.Tag || !tags.Contains(host))))
            problems.Add(
                new InputProblem(
                    $"hostTag '{asset.HostTag}' of '{asset.Tag}' is no other machine of this document",
                    Pointer: "/assets"
                )
            );
        walker.WarnOfUnknown();
        if (problems.Count > 0)
            throw new RefusedInputException(problems.Take(MostProblems).ToList());
        return (new Register(sites, assets), warnings);
    }

    private static Site ReadSite(JsonWalker w) =>
        new(
            w.Text("code"),
            w.Text("name"),
            w.Number("altitudeMetres", -500, 9000),
            w.Items(
                "zones",
                z => new Zone(
                    z.Text("code"),
                    z.Text("name"),
                    z.Word<DustClass>("dust"),
                    new Celsius(z.Number("designAmbientCelsius", -40, 80))
                )
            )
        );

    private static Asset ReadAsset(JsonWalker w, HashSet<string> zones)
    {
        var zone = w.Text("zone");
        if (!zones.Contains(zone))
            w.Wrong("zone", $"'{zone}' is no zone of this document", 0);
        var parts = w.Items("parts", ReadPart);
        if (parts.Count > Asset.MaxParts)
            w.Wrong("parts", $"lists more than {Asset.MaxParts} measured parts", 0);
        if (parts.DistinctBy(p => p.Name).Count() != parts.Count)
            w.Wrong("parts", "names a part twice", 0);
        var services = w.Items("services", s => new ServiceDone(s.Date("date"), s.Word<ServiceLevel>("level")), optional: true);
        return new Asset(
            w.Text("tag"),
            w.Word<AssetKind>("kind"),
            w.Text("model"),
            zone,
            w.OptionalText("hostTag"),
            w.Number("dutyHoursPerDay", 0, 24),
            w.Date("inServiceSince"),
            w.OptionalDate("warrantyUntil"),
            parts,
            [.. services.Distinct().OrderBy(s => s.Date).ThenBy(s => s.Level)]
        );
    }

    private static Part ReadPart(JsonWalker w)
    {
        var name = w.Text("part", 40);
        if (!PartName().IsMatch(name) || name is "ambient" or "outlet")
            w.Wrong("part", "must be a lower-case word such as core or memory, and not ambient or outlet", 0);
        return new Part(name, new Celsius(w.Number("limitCelsius", 20, 300)), w.Word<JointMaterial>("interface"));
    }

    private static HashSet<string> Unique<T>(IEnumerable<T> items, Func<T, string> key, string what, List<InputProblem> problems)
    {
        var seen = new HashSet<string>();
        foreach (var item in items)
            if (!seen.Add(key(item)))
                problems.Add(
                    new InputProblem(
                        $"The {what} '{key(item)}' stands in the document twice",
                        Pointer: what == "asset" ? "/assets" : "/sites"
                    )
                );
        return seen;
    }

    /// <summary>Writes a document that reads back as the same register.</summary>
    public static void Write(Stream json, Register register)
    {
        using var w = new Utf8JsonWriter(json, new JsonWriterOptions { Indented = true });
        w.WriteStartObject();
        w.WriteString("format", Format);
        WriteAll(
            w,
            "sites",
            register.Sites,
            site =>
            {
                w.WriteString("code", site.Code);
                w.WriteString("name", site.Name);
                w.WriteNumber("altitudeMetres", site.AltitudeMetres);
                WriteAll(
                    w,
                    "zones",
                    site.Zones,
                    zone =>
                    {
                        w.WriteString("code", zone.Code);
                        w.WriteString("name", zone.Name);
                        w.WriteString("dust", Words.Of(zone.Dust));
                        w.WriteNumber("designAmbientCelsius", zone.DesignAmbient.Value);
                    }
                );
            }
        );
        WriteAll(w, "assets", register.Assets, asset => WriteAsset(w, asset));
        w.WriteEndObject();
    }

    private static void WriteAsset(Utf8JsonWriter w, Asset asset)
    {
        w.WriteString("tag", asset.Tag);
        w.WriteString("kind", Words.Of(asset.Kind));
        w.WriteString("model", asset.Model);
        w.WriteString("zone", asset.Zone);
        if (asset.HostTag is { } host)
            w.WriteString("hostTag", host);
        w.WriteNumber("dutyHoursPerDay", asset.DutyHoursPerDay);
        w.WriteString("inServiceSince", Iso(asset.InServiceSince));
        if (asset.WarrantyUntil is { } warranty)
            w.WriteString("warrantyUntil", Iso(warranty));
        else
            w.WriteNull("warrantyUntil");
        WriteAll(
            w,
            "parts",
            asset.Parts,
            part =>
            {
                w.WriteString("part", part.Name);
                w.WriteNumber("limitCelsius", part.Limit.Value);
                w.WriteString("interface", Words.Of(part.Joint));
            }
        );
        WriteAll(
            w,
            "services",
            asset.Services,
            service =>
            {
                w.WriteString("date", Iso(service.Date));
                w.WriteString("level", Words.Of(service.Level));
            }
        );
    }

    private static string Iso(DateOnly date) => date.ToString("O", System.Globalization.CultureInfo.InvariantCulture);

    private static void WriteAll<T>(Utf8JsonWriter w, string name, IReadOnlyList<T> items, Action<T> write)
    {
        w.WriteStartArray(name);
        foreach (var item in items)
        {
            w.WriteStartObject();
            write(item);
            w.WriteEndObject();
        }
        w.WriteEndArray();
    }

    [GeneratedRegex("^[a-z][a-z0-9_-]*$")]
    private static partial Regex PartName();
}
