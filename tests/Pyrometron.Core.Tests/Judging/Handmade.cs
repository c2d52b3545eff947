using Pyrometron.Core.Fleet;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>Single machines and readings written by hand, where a test needs figures that it can name.</summary>
internal static class Handmade
{
    /// <summary>A desktop with one part, in the hall's only zone.</summary>
    public static Asset Desktop { get; } = With(AssetKind.Desktop, "DT-1", "Petrel", 95, 400);

    /// <summary>A laptop of the same kind.</summary>
    public static Asset Laptop(double limitC, int daysOld) => With(AssetKind.Laptop, "LT-1", "Gannet", limitC, daysOld);

    private static Asset With(AssetKind kind, string tag, string model, double limitC, int daysOld) =>
        new(
            tag,
            kind,
            model,
            "ROW",
            null,
            8,
            Hall.Today.AddDays(-daysOld),
            null,
            [new("cpu", new(limitC), JointMaterial.Paste)],
            []
        );

    /// <summary>A reading so many days before the hall's present.</summary>
    public static Reading At(
        double daysAgo,
        double cpu = 70,
        double ambient = 24,
        double power = double.NaN,
        double rpm = double.NaN,
        double pct = double.NaN
    ) => On((long)((Hall.Now - daysAgo) * 86_400_000), cpu, ambient, power, rpm, pct);

    /// <summary>A reading at an instant.</summary>
    public static Reading On(
        long unixMilliseconds,
        double cpu = 70,
        double ambient = 24,
        double power = double.NaN,
        double rpm = double.NaN,
        double pct = double.NaN
    ) =>
        new(
            unixMilliseconds,
            ambient,
            double.NaN,
            power,
            rpm,
            pct,
            double.NaN,
            double.NaN,
            double.NaN,
            "stock",
            "full",
            null,
            [cpu]
        );
}
