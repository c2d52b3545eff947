using System.Text.Json.Nodes;

namespace Pyrometron.Server.Tests;

/// <summary>
/// The job calls only grow: what a program wrote against the document of 2026-11-26 is taken and answered as then. Members,
/// kinds, words and calls are added; nothing is taken away, renamed or newly asked for.
/// </summary>
public sealed class JobCallsTests : IDisposable
{
    private readonly Server _server = new();
    private readonly List<string> _broken = [];
    private readonly HashSet<(string, bool)> _seen = [];
    private JsonObject _then = [],
        _now = [];

    public void Dispose() => _server.Dispose();

    [Fact]
    public async Task What_was_accepted_and_answered_still_is()
    {
        _then = (JsonObject)
            JsonNode.Parse(await File.ReadAllTextAsync(Server.OfRepository("tests/golden/openapi-jobs-2026-11-26.json")))!;
        _now = (JsonObject)JsonNode.Parse((await _server.Get("/openapi/v1.json")).Body.GetRawText())!;
        foreach (var (path, methods) in _then["paths"]!.AsObject())
        foreach (var (method, call) in methods!.AsObject())
            if (_now["paths"]![path]?[method] is JsonObject present)
                Compare($"{method} {path}", call!.AsObject(), present);
            else
                _broken.Add($"{method} {path} is gone");
        Assert.True(_seen.Count > 50, "the walk must reach the schemas of the entries");
        Assert.True(_broken.Count == 0, string.Join("\n", _broken));
    }

    private void Compare(string at, JsonObject then, JsonObject now)
    {
        var before = then["parameters"]?.AsArray().Select(p => p!.AsObject()).ToArray() ?? [];
        var present = now["parameters"]?.AsArray().Select(p => p!.AsObject()).ToArray() ?? [];
        foreach (var parameter in before)
            if (!present.Any(p => SameName(p, parameter)))
                _broken.Add($"{at}: parameter {Name(parameter)} is gone");
        foreach (var added in present.Where(p => p["required"]?.GetValue<bool>() == true && !before.Any(b => SameName(b, p))))
            _broken.Add($"{at}: parameter {Name(added)} is newly needed");
        Walk($"{at} request", Body(then["requestBody"]), Body(now["requestBody"]), asked: true);
        foreach (var (status, answer) in then["responses"]!.AsObject())
            if (status.StartsWith('2'))
                Walk($"{at} {status}", Body(answer), Body(now["responses"]?[status]), asked: false);
    }

    private static string Name(JsonObject parameter) => (string)parameter["name"]!;

    private static bool SameName(JsonObject a, JsonObject b) => Name(a).Equals(Name(b), StringComparison.OrdinalIgnoreCase);

    private static JsonObject? Body(JsonNode? of) =>
        of?["content"] is JsonObject { Count: > 0 } content ? content.First().Value!["schema"] as JsonObject : null;

    /// <param name="asked">Whether callers send it; else they read it.</param>
    private void Walk(string at, JsonObject? then, JsonObject? now, bool asked)
    {
        if (then is null)
            return;
        if (now is null)
        {
            _broken.Add($"{at} is gone");
            return;
        }
        if (then["$ref"] is { } reference && !_seen.Add(((string)reference!, asked)))
            return;
        (then, now) = (Resolved(then, _then), Resolved(now, _now));
        foreach (var word in Texts(then["enum"]).Except(Texts(now["enum"])))
            _broken.Add($"{at}: '{word}' is gone");
        // A value that is read may not turn into another kind; one that is sent may be more kinds.
        foreach (var type in Types(then).Except(Types(now)))
            if (asked || type != "null")
                _broken.Add($"{at}: is no {type} any more");
        var properties = then["properties"]?.AsObject() ?? [];
        foreach (var (name, schema) in properties)
            Walk($"{at}.{name}", schema!.AsObject(), now["properties"]?[name] as JsonObject, asked);
        if (asked)
            foreach (var needed in Texts(now["required"]).Except(Texts(then["required"])))
                if (properties.ContainsKey(needed) && !IsUnusable(then, needed))
                    _broken.Add($"{at}: {needed} is newly needed");
        if (!asked)
            foreach (var sure in Texts(then["required"]).Except(Texts(now["required"])))
                _broken.Add($"{at}: {sure} is not sure any more");
        Walk($"{at}[]", then["items"] as JsonObject, now["items"] as JsonObject, asked);
        foreach (var list in (string[])["anyOf", "oneOf"])
        {
            var present = (now[list]?.AsArray() ?? []).Select(n => n!.AsObject()).ToArray();
            foreach (var of in (then[list]?.AsArray() ?? []).Select(n => n!.AsObject()))
                if ((string?)of["$ref"] is { } kind)
                {
                    // What is read and could be null before may be sure now: then it stands there by itself.
                    var same = present.FirstOrDefault(p => (string?)p["$ref"] == kind);
                    Walk($"{at} {kind[21..]}", of, same ?? (!asked && present.Length == 0 ? now : null), asked);
                }
        }
    }

    /// <summary>Without it the call was answered 500 before: that was never accepted.</summary>
    private static bool IsUnusable(JsonObject then, string member) =>
        then["properties"]?["kind"] is not null && then["properties"]![member]!["type"] is not JsonArray;

    private static JsonObject Resolved(JsonObject schema, JsonObject document) =>
        (string?)schema["$ref"] is { } reference
            ? document["components"]!["schemas"]![reference.Split('/')[^1]]!.AsObject()
            : schema;

    private static string[] Texts(JsonNode? list) =>
        list is JsonArray array
            ? [.. array.Where(n => n?.GetValueKind() == System.Text.Json.JsonValueKind.String).Select(n => (string)n!)]
            : [];

    private static string[] Types(JsonObject schema) =>
        schema["type"] switch
        {
            JsonArray several => [.. several.Select(t => (string)t!)],
            { } one => [(string)one!],
            null => [],
        };
}
