using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.OpenApi;

namespace Pyrometron.Server.Hosting;

/// <summary>What one call may be sent, as it stands in the description of the API.</summary>
/// <param name="Path">Values of its parameters, in the path and behind it, by name; null for a call without.</param>
/// <param name="Type">Of the body.</param>
/// <param name="Body">A JSON value, or a string of another text; null for a call without, and for one of bytes.</param>
/// <param name="Bytes">The body where it is no text.</param>
public sealed record ApiExample(
    IReadOnlyDictionary<string, string>? Path,
    JsonNode? Body,
    byte[]? Bytes,
    string Type = "application/json"
);

/// <summary>An example of every call that takes something; tests send each of them, in this order.</summary>
public static class ApiExamples
{
    /// <summary>By <c>operationId</c>, in an order in which they can be sent.</summary>
    public static IReadOnlyList<KeyValuePair<string, ApiExample>> All { get; } = Read();

    private static readonly Dictionary<string, ApiExample> ByCall = All.ToDictionary();

    /// <summary>Puts the example of a call into its description, and the body of a call that reads its own.</summary>
    internal static void Put(OpenApiOperation operation)
    {
        if (!ByCall.TryGetValue(operation.OperationId!, out var example))
            return;
        foreach (var parameter in operation.Parameters?.OfType<OpenApiParameter>() ?? [])
            if (example.Path?.GetValueOrDefault(parameter.Name!) is { } value)
                parameter.Example = InType(parameter.Schema, value);
        if (example.Body is null && example.Bytes is null)
            return;
        operation.RequestBody ??= new OpenApiRequestBody
        {
            Required = true,
            Content = new Dictionary<string, OpenApiMediaType> { [example.Type] = new() { Schema = SchemaOf(example) } },
        };
        if (example.Body is { } body && operation.RequestBody.Content!.TryGetValue(example.Type, out var content))
            content.Example = body.DeepClone();
    }

    private static JsonValue InType(IOpenApiSchema? schema, string value)
    {
        var type = schema?.Type ?? JsonSchemaType.String;
        return type.HasFlag(JsonSchemaType.Integer) && long.TryParse(value, CultureInfo.InvariantCulture, out var number)
                ? JsonValue.Create(number)
            : type.HasFlag(JsonSchemaType.Boolean) && bool.TryParse(value, out var yes) ? JsonValue.Create(yes)
            : JsonValue.Create(value);
    }

    private static OpenApiSchema SchemaOf(ApiExample example) =>
        example.Body is JsonObject ? new OpenApiSchema { Type = JsonSchemaType.Object }
        : example.Bytes is null ? new OpenApiSchema { Type = JsonSchemaType.String }
        : new OpenApiSchema { Type = JsonSchemaType.String, Format = "binary" };

    private static List<KeyValuePair<string, ApiExample>> Read()
    {
        using var stream = typeof(ApiExamples).Assembly.GetManifestResourceStream("api-examples.json")!;
        return
        [
            .. JsonSerializer
                .Deserialize<JsonObject>(stream)!
                .Select(call => KeyValuePair.Create(call.Key, call.Value.Deserialize<ApiExample>(JsonSerializerOptions.Web)!)),
        ];
    }
}
