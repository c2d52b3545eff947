using Microsoft.OpenApi;

namespace Pyrometron.Server.Hosting;

/// <summary>
/// Says of records that are only ever sent that a member which may be null may as well be missing: that is how they are read. In
/// answers every member stands, null or not.
/// </summary>
internal static class RequestSchemas
{
    public static void LetNullsBeMissing(OpenApiDocument document)
    {
        var operations = document.Paths.Values.SelectMany(p => p.Operations!.Values).ToList();
        var sent = Reached(document, operations.SelectMany(o => o.RequestBody?.Content?.Values.Select(c => c.Schema) ?? []));
        var answered = Reached(
            document,
            operations.SelectMany(o => o.Responses!.Values).SelectMany(r => r.Content?.Values.Select(c => c.Schema) ?? [])
        );
        foreach (var name in sent.Except(answered))
            if (
                document.Components!.Schemas![name] is OpenApiSchema { Required: { } required, Properties: { } properties } schema
            )
                schema.Required = required.Where(member => !MayBeNull(properties[member])).ToHashSet();
    }

    private static bool MayBeNull(IOpenApiSchema schema) =>
        schema.Type?.HasFlag(JsonSchemaType.Null) == true || schema.OneOf?.Any(s => s.Type == JsonSchemaType.Null) == true;

    /// <summary>The names of all records that these are made of.</summary>
    private static HashSet<string> Reached(OpenApiDocument document, IEnumerable<IOpenApiSchema?> from)
    {
        var names = new HashSet<string>();
        var open = new Stack<IOpenApiSchema>(from.OfType<IOpenApiSchema>());
        while (open.TryPop(out var schema))
        {
            if (schema is OpenApiSchemaReference { Reference.Id: { } name })
            {
                if (names.Add(name) && document.Components!.Schemas!.TryGetValue(name, out var named))
                    open.Push(named);
                continue;
            }
            IEnumerable<IOpenApiSchema?> inside =
            [
                .. schema.Properties?.Values ?? [],
                .. schema.OneOf ?? [],
                .. schema.AnyOf ?? [],
                .. schema.AllOf ?? [],
                schema.Items,
                schema.AdditionalProperties,
            ];
            foreach (var part in inside.OfType<IOpenApiSchema>())
                open.Push(part);
        }
        return names;
    }
}
