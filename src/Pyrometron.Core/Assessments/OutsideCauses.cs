namespace Pyrometron.Core.Assessments;

/// <summary>What raises temperatures without any service being able to help, K.</summary>
/// <param name="Room">The zone's air beyond its sensors.</param>
/// <param name="Settings">More heat under the present settings than under earlier ones.</param>
public readonly record struct OutsideCauses(double Room, double Settings);

/// <summary>A sudden change in a machine's history.</summary>
/// <param name="Kind"><c>mount</c> where a cooler was lifted, <c>sensor</c> where a sensor jumped, <c>unexplained</c> where neither explains it.</param>
public sealed record StepFinding(DateOnly Date, string Part, double Kelvin, string Kind);
