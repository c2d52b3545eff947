using System.Globalization;

namespace Pyrometron.Formats.Tables;

/// <summary>A number in a cell: decimal point or comma, perhaps with its unit. Thousands separators are not taken.</summary>
internal static class CellNumber
{
    /// <summary>Reads a number.</summary>
    /// <param name="fahrenheit">Whether the cell itself says that it is in °F.</param>
    /// <returns>Null where it is none.</returns>
    public static double? Read(string cell, out bool fahrenheit)
    {
        var text = cell.Trim();
        var end = text.Length;
        while (end > 0 && !char.IsAsciiDigit(text[end - 1]))
            end--;
        var unit = text[end..].Trim();
        fahrenheit =
            unit.EndsWith("°F", StringComparison.OrdinalIgnoreCase) || unit.Equals("F", StringComparison.OrdinalIgnoreCase);
        var number = text[..end].Replace('\u2212', '-').Replace(',', '.');
        return
            unit.Length <= 12
            && double.TryParse(
                number,
                NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var value
            )
            && double.IsFinite(value)
            ? value
            : null;
    }

    /// <summary>°F to °C.</summary>
    public static double ToCelsius(double fahrenheit) => (fahrenheit - 32) / 1.8;
}
