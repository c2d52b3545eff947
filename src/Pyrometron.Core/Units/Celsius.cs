using System.Globalization;

namespace Pyrometron.Core.Units;

/// <summary>
/// A temperature on the Celsius scale. Two of them differ by a <see cref="KelvinDifference"/>, never by a Celsius.
/// </summary>
/// <param name="Value">Degrees Celsius.</param>
public readonly record struct Celsius(double Value) : IComparable<Celsius>
{
    /// <summary>The coldest temperature there is, −273.15 °C.</summary>
    public static readonly Celsius AbsoluteZero = new(-273.15);

    /// <summary>The difference of two temperatures, positive where <paramref name="left"/> is the warmer.</summary>
    public static KelvinDifference operator -(Celsius left, Celsius right) => new(left.Value - right.Value);

    /// <summary>A temperature moved by a difference.</summary>
    public static Celsius operator +(Celsius left, KelvinDifference right) => new(left.Value + right.Value);

    /// <summary>A temperature moved down by a difference.</summary>
    public static Celsius operator -(Celsius left, KelvinDifference right) => new(left.Value - right.Value);

    /// <inheritdoc/>
    public int CompareTo(Celsius other) => Value.CompareTo(other.Value);

    /// <summary>Whether the left is colder.</summary>
    public static bool operator <(Celsius left, Celsius right) => left.Value < right.Value;

    /// <summary>Whether the left is warmer.</summary>
    public static bool operator >(Celsius left, Celsius right) => left.Value > right.Value;

    /// <summary>Whether the left is colder or equal.</summary>
    public static bool operator <=(Celsius left, Celsius right) => left.Value <= right.Value;

    /// <summary>Whether the left is warmer or equal.</summary>
    public static bool operator >=(Celsius left, Celsius right) => left.Value >= right.Value;

    /// <summary>The absolute temperature, in kelvin.</summary>
    public double ToAbsoluteKelvin() => Value - AbsoluteZero.Value;

    /// <inheritdoc/>
    public override string ToString() => Value.ToString("0.#", CultureInfo.InvariantCulture) + " °C";
}
