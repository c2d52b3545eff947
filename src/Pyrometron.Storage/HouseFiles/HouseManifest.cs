namespace Pyrometron.Storage.HouseFiles;

/// <summary>A file within a house file.</summary>
/// <param name="Rows">Rows of a table; null for what is no table.</param>
/// <param name="Sha256">Of its bytes (FIPS 180-4), lower-case hexadecimal.</param>
public sealed record HousePart(string File, long? Rows, string Sha256);

/// <summary>What a house file is, written last: one without it was not finished.</summary>
/// <param name="Format"><c>pyrometron-house/1</c>.</param>
/// <param name="Schema">Number of the newest migration of the database that it was made from: it says what the columns mean.</param>
/// <param name="Parts">All files but this one.</param>
public sealed record HouseManifest(string Format, int Schema, DateTimeOffset MadeAt, IReadOnlyList<HousePart> Parts)
{
    /// <summary>The only form there is.</summary>
    public const string CurrentFormat = "pyrometron-house/1";

    /// <summary>Where it stands.</summary>
    public const string File = "manifest.json";
}
