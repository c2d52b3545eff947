using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using CsCheck;

namespace Pyrometron.Bench.Fuzzing;

/// <summary>A request made by chance.</summary>
/// <param name="Body">Null without one.</param>
internal sealed record FuzzedRequest(string Method, string Path, byte[]? Body, string? Type, string? Origin, string? Encoding);

/// <summary>
/// Requests drawn from an OpenAPI document: every call, with bodies that follow its schema, follow it with something wrong, or do
/// not follow it at all.
/// </summary>
internal sealed class FuzzedRequests
{
    /// <summary>How deep values are nested that are drawn by schema.</summary>
    private const int Deepest = 6;

    private static readonly Gen<string> OddText = Gen.OneOfConst(
        "\"\"",
        "\" \"",
        "\"\\u0000\"",
        "\"\\ud800\"",
        "\"../..\"",
        "\"a/b\"",
        "\"'; DROP TABLE asset; --\"",
        "\"\\u202eabc\"",
        "\"9999-12-31\"",
        "\"0001-01-01\"",
        "\"2026-02-30\"",
        "\"" + new string('x', 5000) + "\""
    );

    private static readonly Gen<string> OddNumber = Gen.OneOfConst(
        "0",
        "-1",
        "1e308",
        "-1e308",
        "1e-300",
        "1e999",
        "9223372036854775807",
        "9223372036854775808",
        "2147483648",
        "0.1",
        "NaN",
        "-0"
    );

    private static readonly Gen<string> OddValue = Gen.OneOf(
        OddText,
        OddNumber,
        Gen.OneOfConst("null", "true", "[]", "{}", "[[]]", "[null]", "{\"kind\":\"no-such-kind\"}", "{\"\\ud800\":1}"),
        Gen.Const(new string('[', 40) + new string(']', 40))
    );

    private readonly JsonObject _document;
    private readonly string[] _tags;

    /// <param name="document">The OpenAPI document.</param>
    /// <param name="tags">Machines that are there.</param>
    public FuzzedRequests(JsonObject document, string[] tags)
    {
        (_document, _tags) = (document, tags);
        var calls = document["paths"]!
            .AsObject()
            .SelectMany(p => p.Value!.AsObject().Select(m => CallOf(p.Key, m.Key, m.Value!.AsObject())))
            .ToArray();
        Any = Gen.OneOf([.. calls, Table("/api/v1/readings"), Table("/api/v1/services"), Table("/api/v1/runs/log"), Fleet]);
    }

    /// <summary>Any request.</summary>
    public Gen<FuzzedRequest> Any { get; }

    private static Gen<string?> Seldom(params string[] values) =>
        Gen.Select(Gen.Int[0, 19], Gen.OneOfConst(values), (dice, value) => dice == 0 ? value : null);

    private Gen<FuzzedRequest> CallOf(string path, string method, JsonObject call)
    {
        var parameters = (call["parameters"]?.AsArray() ?? []).Select(p => p!.AsObject()).ToArray();
        var inPath = parameters.Where(p => (string)p["in"]! == "path").ToArray();
        var inQuery = parameters.Where(p => (string)p["in"]! == "query").ToArray();
        var values = new EachOf([.. parameters.Select(p => ParameterOf(p["schema"]?.AsObject() ?? []))]);
        var body = call["requestBody"]?["content"]?["application/json"]?["schema"] is JsonObject schema
            ? ValueOf(schema, 0).Select(text => (byte[]?)Encoding.UTF8.GetBytes(text))
            : Gen.Const((byte[]?)null);
        return Gen.Select(
            values,
            Gen.Int[0, 3].Array[parameters.Length],
            body,
            Seldom("text/plain", "text/csv", "application/x-www-form-urlencoded", "x"),
            Seldom("null", "https://elsewhere.example"),
            (drawn, given, bytes, type, origin) =>
            {
                var address = path;
                foreach (var p in inPath)
                    address = address.Replace(
                        $"{{{(string)p["name"]!}}}",
                        Uri.EscapeDataString(drawn[Array.IndexOf(parameters, p)]),
                        StringComparison.Ordinal
                    );
                var query = inQuery
                    .Where(p => given[Array.IndexOf(parameters, p)] > 1)
                    .Select(p => $"{(string)p["name"]!}={Uri.EscapeDataString(drawn[Array.IndexOf(parameters, p)])}");
                return new FuzzedRequest(
                    method.ToUpperInvariant(),
                    $"{address}?{string.Join('&', query)}",
                    bytes,
                    type ?? (bytes is null ? null : "application/json"),
                    origin,
                    null
                );
            }
        );
    }

    private Gen<string> ParameterOf(JsonObject schema)
    {
        var usual = (string?)schema["format"] switch
        {
            "date" => Gen.Date.Select(d => d.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)),
            "uuid" => Gen.Guid.Select(g => g.ToString()),
            _ when TypeOf(schema) is "integer" or "number" => Gen.Int[1, 12]
                .Select(i => i.ToString(CultureInfo.InvariantCulture)),
            _ => Gen.OneOfConst([.. _tags, "all", "before", "dust-out"]),
        };
        return Gen.OneOf(
            usual,
            usual,
            Gen.OneOf(OddText, OddNumber).Select(t => t.Trim('"').Replace("\\u0000", "", StringComparison.Ordinal))
        );
    }

    /// <summary>JSON text of a value: by its schema most of the time.</summary>
    private Gen<string> ValueOf(JsonObject schema, int depth)
    {
        if (depth > Deepest)
            return Gen.Const("null");
        var usual = UsualOf(Resolved(schema), depth);
        return Gen.Select(Gen.Int[0, 49], usual, OddValue, (dice, good, odd) => dice == 0 ? odd : good);
    }

    private Gen<string> UsualOf(JsonObject schema, int depth)
    {
        if (schema["enum"] is JsonArray words)
            return Gen.OneOfConst([.. words.Select(w => w?.ToJsonString() ?? "null")]);
        foreach (var choice in (string[])["oneOf", "anyOf"])
            if (schema[choice] is JsonArray { Count: > 0 } kinds)
                return Gen.OneOf([.. kinds.Select(k => ValueOf(k!.AsObject(), depth))]);
        return TypeOf(schema) switch
        {
            "object" => ObjectOf(schema, depth),
            "array" => (schema["items"] is JsonObject items ? ValueOf(items, depth + 1) : Gen.Const("null"))
                .Array[0, 4]
                .Select(all => $"[{string.Join(',', all)}]"),
            "integer" => Gen.Int[0, 200].Select(i => i.ToString(CultureInfo.InvariantCulture)),
            "number" => Gen.Double[0, 120].Select(d => d.ToString("R", CultureInfo.InvariantCulture)),
            "boolean" => Gen.Bool.Select(b => b ? "true" : "false"),
            _ => (string?)schema["format"] switch
            {
                "date" => Gen.Date.Select(d => $"\"{d:yyyy-MM-dd}\""),
                "date-time" => Gen.DateTime.Select(d => $"\"{d:yyyy-MM-ddTHH:mm:ss}Z\""),
                "uuid" => Gen.Guid.Select(g => $"\"{g}\""),
                _ => Gen.OneOfConst([.. _tags, "stock", "steady", "core", "cpu", "prepare", "bench"]).Select(t => $"\"{t}\""),
            },
        };
    }

    private Gen<string> ObjectOf(JsonObject schema, int depth)
    {
        var members = (schema["properties"]?.AsObject() ?? []).ToArray();
        return Gen.Select(
            new EachOf([.. members.Select(m => ValueOf(m.Value!.AsObject(), depth + 1))]),
            Gen.Int[0, 19].Array[members.Length],
            (values, dice) =>
                $"{{{string.Join(',', members.Select((m, i) => (m.Key, Value: values[i], Dice: dice[i])).Where(m => m.Dice > 0).Select(m => $"\"{m.Key}\":{m.Value}"))}}}"
        );
    }

    private static string? TypeOf(JsonObject schema) =>
        schema["type"] switch
        {
            JsonArray several => (string?)several.FirstOrDefault(t => (string?)t != "null"),
            { } one => (string?)one,
            null => schema["properties"] is null ? null : "object",
        };

    private JsonObject Resolved(JsonObject schema) =>
        (string?)schema["$ref"] is { } reference
            ? _document["components"]!["schemas"]![reference.Split('/')[^1]]!.AsObject()
            : schema;

    private Gen<FuzzedRequest> Table(string path)
    {
        var cell = Gen.OneOf(
            Gen.OneOfConst([.. _tags]),
            Gen.OneOfConst(
                "2026-05-01T10:00Z",
                "2026-05-01",
                "71",
                "-300",
                "1e999",
                "",
                "\"",
                "\"\"\"",
                "NaN",
                "core_c",
                "dust-out",
                "\0",
                "é"
            ),
            OddText.Select(t => t.Trim('"'))
        );
        var header = Gen.OneOfConst(
            "time,asset,ambient_c,core_c",
            "date,asset,level",
            "seconds,core_c,power_w",
            "time,asset,asset",
            "\uFEFFtime;asset",
            "",
            new string(',', 6000)
        );
        return Gen.Select(
            header,
            cell.Array[0, 6].Array[0, 12],
            Gen.Int[0, 5],
            (first, rows, dice) =>
            {
                var text = first + "\n" + string.Join('\n', rows.Select(r => string.Join(',', r)));
                return new FuzzedRequest(
                    "POST",
                    path,
                    dice == 0 ? [0x1f, 0x8b, .. Encoding.UTF8.GetBytes(text)] : Encoding.UTF8.GetBytes(text),
                    dice == 1 ? null : "text/csv",
                    null,
                    dice == 2 ? "gzip" : null
                );
            }
        );
    }

    private static Gen<FuzzedRequest> Fleet =>
        Gen.Select(
            OddValue,
            OddValue,
            Gen.OneOfConst(
                "tag",
                "kind",
                "zone",
                "inServiceSince",
                "warrantyUntil",
                "parts",
                "services",
                "dutyHoursPerDay",
                "\\ud800"
            ),
            Gen.Int[0, 3],
            (first, second, member, dice) =>
                new FuzzedRequest(
                    "POST",
                    "/api/v1/fleet",
                    Encoding.UTF8.GetBytes(
                        dice switch
                        {
                            0 => $$"""{"format":"pyrometron-fleet/1","sites":{{first}},"assets":{{second}}}""",
                            1 =>
                                $$"""{"format":"pyrometron-fleet/1","sites":[],"assets":[{"{{member}}":{{first}}},{{second}}]}""",
                            2 => $$"""{"format":{{first}},"{{member}}":{{second}}}""",
                            _ => first,
                        }
                    ),
                    "application/json",
                    null,
                    null
                )
        );

    /// <summary>One text of each of several kinds.</summary>
    private sealed class EachOf(Gen<string>[] kinds) : Gen<string[]>
    {
        public override string[] Generate(PCG pcg, Size? min, out Size size)
        {
            size = new Size(0);
            return [.. kinds.Select(kind => kind.Generate(pcg, null, out _))];
        }
    }
}
