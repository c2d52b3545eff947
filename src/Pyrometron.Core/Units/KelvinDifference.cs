using System.Globalization;

namespace Pyrometron.Core.Units;

/// <summary>A difference of two temperatures. Not a temperature: 5 K of drift is not 5 °C and not 278 K.</summary>
/// <param name="Value">Kelvin.</param>
public readonly record struct KelvinDifference(double Value) : IComparable<KelvinDifference>
{
    /// <summary>No difference.</summary>
    public static readonly KelvinDifference Zero = new(0);

    /// <summary>The sum of two differences.</summary>
    public static KelvinDifference operator +(KelvinDifference left, KelvinDifference right) => new(left.Value + right.Value);

    /// <summary>How much the left exceeds the right.</summary>
    public static KelvinDifference operator -(KelvinDifference left, KelvinDifference right) => new(left.Value - right.Value);

    /// <summary>The difference turned round.</summary>
    public static KelvinDifference operator -(KelvinDifference value) => new(-value.Value);

    /// <inheritdoc/>
    public int CompareTo(KelvinDifference other) => Value.CompareTo(other.Value);

    /// <summary>Whether the left is smaller.</summary>
    public static bool operator <(KelvinDifference left, KelvinDifference right) => left.Value < right.Value;

    /// <summary>Whether the left is larger.</summary>
    public static bool operator >(KelvinDifference left, KelvinDifference right) => left.Value > right.Value;

    /// <summary>Whether the left is smaller or equal.</summary>
    public static bool operator <=(KelvinDifference left, KelvinDifference right) => left.Value <= right.Value;

    /// <summary>Whether the left is larger or equal.</summary>
    public static bool operator >=(KelvinDifference left, KelvinDifference right) => left.Value >= right.Value;

    /// <inheritdoc/>
    public override string ToString() => Value.ToString("0.#", CultureInfo.InvariantCulture) + " K";
}
