using Microsoft.AspNetCore.OpenApi;
using Pyrometron.Core.Events;
using Pyrometron.Server.Proof;

namespace Pyrometron.Server.Hosting;

/// <summary>The OpenAPI document that the front end's types are made from.</summary>
internal static class ApiDocument
{
    public static void Configure(OpenApiOptions options)
    {
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info.Title = "Pyrometron";
                document.Info.Version = "v1";
                document.Info.Description =
                    "Which machine needs cleaning, repasting or repadding next, and why. Errors are RFC 9457 problem documents.";
                return Task.CompletedTask;
            }
        );
        // Runs inside entries are spoken like runs of their own.
        options.AddSchemaTransformer(
            async (schema, context, cancellation) =>
            {
                if (
                    context.JsonTypeInfo.Type == typeof(Run)
                    && await context.GetOrCreateSchemaAsync(typeof(RunDto), null, cancellation) is { } run
                )
                    (schema.Type, schema.Properties, schema.Required) = (run.Type, run.Properties, run.Required);
            }
        );
        // A nullable use of an enumeration must not make null one of its words everywhere.
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                if (
                    schema.Enum is { Count: > 0 } words
                    && (Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type).IsEnum
                )
                    schema.Enum = [.. words.Where(word => word is not null)];
                return Task.CompletedTask;
            }
        );
    }
}
