using System.Text.Json;
using System.Text.Json.Serialization;
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
        return options;
    }
}
