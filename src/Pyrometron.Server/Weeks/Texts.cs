namespace Pyrometron.Server.Weeks;

/// <summary>What a typed text must be like.</summary>
internal static class Texts
{
    /// <summary>Whether it says something on one line.</summary>
    public static bool IsLine(string? text, int longest) =>
        !string.IsNullOrWhiteSpace(text) && text.Length <= longest && !text.Any(char.IsControl);

    /// <summary>Whether it stands in an address as it is.</summary>
    public static bool IsCode(string? text, int longest) =>
        text is { Length: > 0 } && text.Length <= longest && text.All(c => char.IsAsciiLetterOrDigit(c) || c == '-');
}
