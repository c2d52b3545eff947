using System.Text.Json.Serialization;

namespace Pyrometron.Core.Fleet;

/// <summary>
/// Where a machine stands on its zone's floor plan, in cells: columns to the right and rows downwards, both from 0. A row may be
/// an aisle, a rack or a shelf.
/// </summary>
public readonly record struct FloorPlace([property: JsonRequired] int Column, [property: JsonRequired] int Row)
{
    /// <summary>A plan has no more columns and no more rows.</summary>
    public const int Most = 200;

    /// <summary>Whether it lies on a plan.</summary>
    public bool IsOnPlan => Column is >= 0 and < Most && Row is >= 0 and < Most;
}
