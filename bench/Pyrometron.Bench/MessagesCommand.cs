using System.Text.Encodings.Web;
using System.Text.Json;
using Pyrometron.Bench.Messages;

namespace Pyrometron.Bench;

/// <summary>Writes the server's messages down for the catalogues of the front end.</summary>
public static class MessagesCommand
{
    /// <summary>Where they lie, from the root of the repository.</summary>
    public const string File = "web/languages/server.json";

    private static readonly JsonSerializerOptions s_readable = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>Writes them.</summary>
    /// <param name="root">The root of the repository.</param>
    /// <returns>The exit code.</returns>
    public static int Run(string root)
    {
        System.IO.File.WriteAllText(Path.Combine(root, File), Written(MessageTemplates.Of(root).Known));
        return 0;
    }

    /// <summary>The file as it should read.</summary>
    public static string Written(IReadOnlyList<Template> templates) => JsonSerializer.Serialize(templates, s_readable) + "\n";
}
