using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Pyrometron.Core.Jobs;
using Pyrometron.Server.Proof;

namespace Pyrometron.Server.Hosting;

/// <summary>
/// How JSON is written and read everywhere in the API: camel case, values as lower-case words, numbers as numbers.
/// </summary>
public static class ApiJson
{
    /// <summary>The one set of options.</summary>
    public static JsonSerializerOptions Options { get; } = Configure(new JsonSerializerOptions(JsonSerializerDefaults.Web));

    /// <summary>Applies the rules to options of the framework's.</summary>
    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        options.NumberHandling = JsonNumberHandling.Strict;
        options.RespectNullableAnnotations = true;
        options.MaxDepth = 32;
        options.AllowOutOfOrderMetadataProperties = true;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false));
        options.Converters.Add(new RunConverter());
        options.TypeInfoResolver = (options.TypeInfoResolver ?? new DefaultJsonTypeInfoResolver()).WithAddedModifier(
            RequireTexts
        );
        return options;
    }

    /// <summary>
    /// What an entry cannot be without must be there: a missing text or list is a refusal, not a null further in.
    /// </summary>
    private static void RequireTexts(JsonTypeInfo type)
    {
        if (!typeof(JobEntry).IsAssignableFrom(type.Type))
            return;
        foreach (var property in type.Properties)
            if (
                property is
                { PropertyType.IsValueType: false, AssociatedParameter: { HasDefaultValue: false, IsNullable: false } }
            )
                property.IsRequired = true;
    }
}
