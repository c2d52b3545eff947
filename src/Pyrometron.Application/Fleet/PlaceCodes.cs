using Pyrometron.Formats.Tables;

namespace Pyrometron.Application.Fleet;

/// <summary>Codes for sites and zones that people only give a name.</summary>
public static class PlaceCodes
{
    /// <summary>A short code of a name that is not taken yet.</summary>
    public static string Of(string name, Func<string, string> whole, Func<string, bool> isTaken)
    {
        var letters = TableMeanings.KeyOf(name).ToUpperInvariant().Replace(' ', '-');
        var code = letters.Length == 0 ? "PLACE" : letters[..Math.Min(24, letters.Length)].Trim('-');
        for (var n = 1; ; n++)
            if (whole(n == 1 ? code : $"{code}-{n}") is var free && !isTaken(free))
                return free;
    }
}
