namespace Pyrometron.Core.Judging;

/// <summary>Parts of the method that can be left out, to measure what each is worth.</summary>
[Flags]
internal enum Ablation
{
    None = 0,
    Room = 1,
    Fan = 2,
    Siblings = 4,
    SensorSteps = 8,
    GroupEvents = 16,
    Noise = 32,
}
