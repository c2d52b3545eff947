using System.Text.Json;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Units;

namespace Pyrometron.Formats.Fleet;

/// <summary>One document being read.</summary>
internal sealed class FleetReader(ReadOnlyMemory<byte> utf8, DateOnly today)
{
    /// <summary>The most services of one machine.</summary>
    private const int MostServices = 2_000;

    /// <summary>With so many problems a document is given up: whoever mends it sends it again.</summary>
    private const int MostProblems = 100;

    private static readonly JsonDocumentOptions Strict = new() { MaxDepth = 16, AllowDuplicateProperties = false };

    private readonly List<InputProblem> _problems = [];
    private readonly List<Message> _warnings = [];
    private readonly List<Site> _sites = [];
    private readonly List<Asset> _assets = [];
    private int _zones;

    public (Register, IReadOnlyList<Message>) Read()
    {
        if (utf8.Span.StartsWith("\uFEFF"u8))
            utf8 = utf8[3..];
        var json = new Utf8JsonReader(utf8.Span, new JsonReaderOptions { MaxDepth = Strict.MaxDepth });
        if (!json.Read() || json.TokenType != JsonTokenType.StartObject)
            throw new RefusedInputException(new InputProblem("A fleet document is a JSON object.", Pointer: ""));
        string? format = null;
        var seen = new HashSet<string>();
        while (json.Read() && json.TokenType == JsonTokenType.PropertyName)
        {
            var name = NameOf(ref json);
            if (!seen.Add(name))
                throw new RefusedInputException(new InputProblem($"{name} stands in the document twice", Pointer: $"/{name}"));
            json.Read();
            if (name == "format")
                format = json.TokenType == JsonTokenType.String ? TextOf(ref json) : null;
            else if (name == "sites")
                ReadAll(ref json, name, FleetDocument.MostZones, item => _sites.Add(ReadSite(item)));
            else if (name == "assets")
                ReadAll(ref json, name, FleetDocument.MostAssets, item => _assets.Add(ReadAsset(item, today)));
            else
                JsonWalker.WarnOf($"/{name}", _warnings);
            json.Skip();
        }
        // Whatever follows the object is no JSON.
        json.Read();
        if (format != FleetDocument.Format)
            throw new RefusedInputException(new InputProblem($"format must be \"{FleetDocument.Format}\".", Pointer: "/format"));
        foreach (var missing in (string[])["sites", "assets"])
            if (!seen.Contains(missing))
                _problems.Add(new InputProblem($"{missing} must be an array", Pointer: $"/{missing}"));
        Check();
        return _problems.Count > 0 ? throw new RefusedInputException(_problems) : (new Register(_sites, _assets), _warnings);
    }

    private void ReadAll(ref Utf8JsonReader json, string name, int most, Action<JsonWalker> read)
    {
        if (json.TokenType != JsonTokenType.StartArray)
        {
            _problems.Add(new InputProblem($"{name} must be an array", Pointer: $"/{name}"));
            return;
        }
        for (var index = 0; json.Read() && json.TokenType != JsonTokenType.EndArray; index++)
        {
            if (index == most)
                throw new RefusedInputException(
                    new InputProblem($"{name} lists more than {most:#,0}; send them in parts.", Pointer: $"/{name}")
                );
            var start = (int)json.TokenStartIndex;
            json.Skip();
            JsonWalker.Item(utf8[start..(int)json.BytesConsumed], Strict, $"/{name}/{index}", (_problems, _warnings), read);
            StopAtTooMany();
        }
    }

    private Site ReadSite(JsonWalker w)
    {
        var site = new Site(
            w.Text("code"),
            w.Text("name"),
            w.Number("altitudeMetres", -500, 9000),
            w.Items(
                "zones",
                FleetDocument.MostZones,
                z => new Zone(
                    z.Text("code"),
                    z.Text("name"),
                    z.Word<DustClass>("dust"),
                    new Celsius(z.Number("designAmbientCelsius", -40, 80))
                )
            )
        )
        {
            TimeZone =
                w.OptionalText("timeZone") is not { } zone ? null
                : TimeZoneInfo.TryFindSystemTimeZoneById(zone, out _) ? zone
                : w.Wrong("timeZone", "timeZone must be a time zone such as Europe/Lisbon", ""),
        };
        _zones += site.Zones.Count;
        if (_zones > FleetDocument.MostZones)
            throw new RefusedInputException(
                new InputProblem($"The document lists more than {FleetDocument.MostZones:#,0} zones.", Pointer: "/sites")
            );
        return site;
    }

    /// <summary>What can only be seen on the whole: codes and tags twice, zones and hosts that are none.</summary>
    private void Check()
    {
        var zones = Unique(_sites.SelectMany(s => s.Zones), z => z.Code, "zone");
        Unique(_sites, s => s.Code, "site");
        var tags = Unique(_assets, a => a.Tag, "asset");
        for (var i = 0; i < _assets.Count; i++)
        {
            var asset = _assets[i];
            if (asset.Zone.Length > 0 && !zones.Contains(asset.Zone))
                _problems.Add(new InputProblem($"zone '{asset.Zone}' is no zone of this document", Pointer: $"/assets/{i}/zone"));
            if (asset.HostTag is { Length: > 0 } host && (host == asset.Tag || !tags.Contains(host)))
                _problems.Add(
                    new InputProblem(
                        $"hostTag '{host}' of '{asset.Tag}' is no other machine of this document",
                        Pointer: $"/assets/{i}/hostTag"
                    )
                );
            StopAtTooMany();
        }
    }

    private HashSet<string> Unique<T>(IEnumerable<T> items, Func<T, string> key, string what)
    {
        var seen = new HashSet<string>();
        foreach (var item in items)
            if (key(item).Length > 0 && !seen.Add(key(item)))
            {
                _problems.Add(
                    new InputProblem(
                        $"The {what} '{key(item)}' stands in the document twice",
                        Pointer: what == "asset" ? "/assets" : "/sites"
                    )
                );
                StopAtTooMany();
            }
        return seen;
    }

    private void StopAtTooMany()
    {
        if (_problems.Count >= MostProblems)
            throw new RefusedInputException([.. _problems.Take(MostProblems)]);
    }

    private static string NameOf(ref Utf8JsonReader json) =>
        TextOf(ref json) ?? throw new RefusedInputException(new InputProblem("A name in it is no Unicode text.", Pointer: ""));

    private static string? TextOf(ref Utf8JsonReader json)
    {
        try
        {
            return json.GetString();
        }
        catch (InvalidOperationException)
        {
            return null;
        }
    }

    private static Asset ReadAsset(JsonWalker w, DateOnly today)
    {
        var parts = w.Items("parts", Asset.MaxParts, ReadPart);
        if (parts.DistinctBy(p => p.Name).Count() != parts.Count)
            w.Wrong("parts", "names a part twice", 0);
        var services = w.Items("services", MostServices, s => ReadService(s, today), optional: true);
        return new Asset(
            w.Tag("tag"),
            w.Word<AssetKind>("kind"),
            w.Text("model"),
            w.Text("zone"),
            w.OptionalText("hostTag"),
            w.Number("dutyHoursPerDay", 0, 24),
            w.Date("inServiceSince", Asset.EarliestDay, Asset.LatestDay),
            w.OptionalDate("warrantyUntil", Asset.EarliestDay, Asset.LatestDay),
            parts,
            [.. services.DistinctBy(s => (s.Date, s.Level)).OrderBy(s => s.Date).ThenBy(s => s.Level)]
        )
        {
            Place = w.OptionalItem("place", ReadPlace),
        };
    }

    private static FloorPlace ReadPlace(JsonWalker w) =>
        new FloorPlace((int)w.Number("column", 0, FloorPlace.Most - 1), (int)w.Number("row", 0, FloorPlace.Most - 1));

    private static ServiceDone ReadService(JsonWalker w, DateOnly today)
    {
        var date = w.Date("date", DateOnly.MinValue, DateOnly.MaxValue);
        if (!ServiceDone.IsPossible(date, today))
            w.Wrong("date", "is not a day on which a service can have been done", 0);
        var service = new ServiceDone(date, w.Word<ServiceLevel>("level"));
        return service with
        {
            LiftedCooler = w.OptionalFlag("coolerLifted") ?? service.LiftedCooler,
            Renewed = w.OptionalItem("renewed", ReadShares) ?? service.Renewed,
            FanFailed = w.OptionalFlag("fanFailed"),
        };
    }

    private static RenewedShares ReadShares(JsonWalker w) =>
        new(
            w.Number("dust", 0, 1),
            w.Number("paste", 0, 1),
            w.Number("pads", 0, 1),
            w.Number("fan", 0, 1),
            w.Number("mount", 0, 1)
        );

    private static Part ReadPart(JsonWalker w)
    {
        var name = w.Text("part", PartNames.Longest);
        if (name.Length > 0 && !PartNames.IsName(name))
            w.Wrong("part", PartNames.Rule, 0);
        return new Part(name, new Celsius(w.Number("limitCelsius", 20, 300)), w.Word<JointMaterial>("interface"));
    }
}
