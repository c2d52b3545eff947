using Pyrometron.Core.Units;

namespace Pyrometron.Core.Fleet;

/// <summary>
/// What a machine of a kind usually is, where nobody has said: a start that people correct. Common practice, no source; a maker's
/// limits always come first.
/// </summary>
public static class UsualMachines
{
    /// <summary>The warmest intake air of a zone.</summary>
    public static readonly Celsius DesignAmbient = new(30);

    /// <summary>
    /// Years for which makers usually give their warranty: where only its end is known, use began so long before.
    /// </summary>
    public const int WarrantyYears = 3;

    /// <summary>Years in use where nothing at all is known.</summary>
    public const int YearsInUse = 2;

    /// <summary>Hours a day under load.</summary>
    public static double DutyHours(AssetKind kind) => kind is AssetKind.Server or AssetKind.GraphicsCard ? 24 : 8;

    /// <summary>Parts with their limits, the main one first.</summary>
    public static IReadOnlyList<Part> Parts(AssetKind kind) =>
        kind switch
        {
            AssetKind.GraphicsCard =>
            [
                new("core", new Celsius(90), JointMaterial.Paste),
                new("hotspot", new Celsius(105), JointMaterial.Paste),
                new("memory", new Celsius(105), JointMaterial.Pad),
            ],
            AssetKind.Server => [new("cpu", new Celsius(95), JointMaterial.Paste)],
            AssetKind.Laptop =>
            [
                new("cpu", new Celsius(100), JointMaterial.Paste),
                new("gpu", new Celsius(87), JointMaterial.Paste),
            ],
            _ => [new("cpu", new Celsius(95), JointMaterial.Paste)],
        };
}
