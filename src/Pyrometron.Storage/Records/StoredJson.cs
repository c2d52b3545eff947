using System.Text.Json;
using System.Text.Json.Serialization;
using Pyrometron.Core.Messages;

namespace Pyrometron.Storage.Records;

/// <summary>
/// How records are written into the database. They are read for as long as databases live: a form is added, never changed.
/// </summary>
internal static class StoredJson
{
    public static JsonSerializerOptions Options { get; } =
        new(JsonSerializerDefaults.Web)
        {
            NumberHandling = JsonNumberHandling.Strict,
            DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
            Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
            Converters = { new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false) },
        };

    public static string Write<T>(T record) => JsonSerializer.Serialize(record, Options);

    public static T Read<T>(string json) =>
        JsonSerializer.Deserialize<T>(json, Options) ?? throw new InvalidDataException("An empty record stands in the database.");
}

/// <summary>A sentence as stored: template and values beside the plain English.</summary>
internal sealed record MessageRecord(string Template, IReadOnlyList<MessageValueRecord>? Values)
{
    public static MessageRecord Of(Message message) =>
        new(message.Template, message.Values.Count == 0 ? null : [.. message.Values.Select(MessageValueRecord.Of)]);

    public Message ToMessage() => new(Template, [.. (Values ?? []).Select(v => v.ToValue())]);
}

/// <summary>A value of a stored sentence.</summary>
internal sealed record MessageValueRecord(
    string Name,
    string Unit,
    double? Number,
    string? Text,
    IReadOnlyList<MessageRecord>? Messages,
    string Plain
)
{
    public static MessageValueRecord Of(MessageValue v) =>
        new(v.Name, v.Unit, v.Number, v.Text, v.Messages is { } m ? [.. m.Select(MessageRecord.Of)] : null, v.Plain);

    public MessageValue ToValue() => new(Name, Unit, Number, Text, Messages?.Select(m => m.ToMessage()).ToArray(), Plain);
}
