using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Assessments;

/// <summary>What raises temperatures without any service being able to help, K.</summary>
/// <param name="Room">The zone's air beyond its sensors.</param>
/// <param name="Settings">More heat under the present settings than under earlier ones.</param>
public readonly record struct OutsideCauses(double Room, double Settings)
{
    /// <summary>
    /// Less than this is not told, K: two runs at the same bench differ by as much (k = 2 of the repeatability).
    /// </summary>
    public const double NotableKelvin = 2;

    /// <summary>What explains a warm machine that no service helps, the larger first; null where neither is notable.</summary>
    public Cause? Notable =>
        Room >= NotableKelvin && Room >= Settings ? Cause.Room
        : Settings >= NotableKelvin ? Cause.Settings
        : null;
}

/// <summary>A sudden change in a machine's history.</summary>
/// <param name="Kind">
/// <c>mount</c> where a cooler was lifted, <c>sensor</c> where a sensor jumped, <c>unexplained</c> where neither explains it.
/// </param>
public sealed record StepFinding(DateOnly Date, string Part, double Kelvin, string Kind);
