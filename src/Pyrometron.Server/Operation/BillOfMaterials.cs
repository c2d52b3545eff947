using System.Text.Json;

namespace Pyrometron.Server.Operation;

/// <summary>A package that ships with the program.</summary>
/// <param name="Kind">As CycloneDX names it: <c>library</c>, <c>framework</c>, <c>data</c>.</param>
/// <param name="Licence">By its name in the list of SPDX, where it has one there.</param>
/// <param name="Copyright">Whose it is, as its package says; null where it does not.</param>
/// <param name="Text">The licence, as its package ships it or else as SPDX has it.</param>
public sealed record PackageAnswer(string Name, string Version, string Kind, string Licence, string? Copyright, string Text);

/// <summary>What ships with the program, as the build wrote it down: CycloneDX 1.6.</summary>
internal static class BillOfMaterials
{
    /// <summary>As the media type is registered.</summary>
    public const string ContentType = "application/vnd.cyclonedx+json";

    /// <summary>Beside the program.</summary>
    public static string Path { get; } = System.IO.Path.Combine(AppContext.BaseDirectory, "bill-of-materials.cdx.json");

    /// <summary>The packages of a bill of materials, by name; null where the build wrote none.</summary>
    public static PackageAnswer[]? Read(string file)
    {
        if (!File.Exists(file))
            return null;
        using var document = JsonDocument.Parse(File.ReadAllBytes(file));
        return
        [
            .. document
                .RootElement.GetProperty("components")
                .EnumerateArray()
                .Select(Package)
                .OrderBy(p => p.Name, StringComparer.OrdinalIgnoreCase),
        ];
    }

    private static PackageAnswer Package(JsonElement component)
    {
        var licence = component.GetProperty("licenses")[0].GetProperty("license");
        return new PackageAnswer(
            Text(component, "name")!,
            Text(component, "version") ?? "",
            Text(component, "type")!,
            Text(licence, "id") ?? Text(licence, "name")!,
            Text(component, "copyright"),
            Text(licence.GetProperty("text"), "content")!
        );
    }

    private static string? Text(JsonElement of, string name) => of.TryGetProperty(name, out var value) ? value.GetString() : null;
}
