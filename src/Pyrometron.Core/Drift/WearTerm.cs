namespace Pyrometron.Core.Drift;

/// <summary>What a column of the wear model stands for.</summary>
public enum WearTerm
{
    /// <summary>J: the joint side of a part, chip to cooler.</summary>
    Joint,

    /// <summary>J's difference under another workload.</summary>
    WorkloadOffset,

    /// <summary>More or less heat under other settings, as a share of every part's rise, where power is not measured.</summary>
    SettingsHeat,

    /// <summary>What other settings change on one part alone.</summary>
    SettingsOffset,

    /// <summary>What an automatic fan that nobody measures takes off the rise for every kelvin of warmer air.</summary>
    UnseenFan,

    /// <summary>F: the fresh air side, shared.</summary>
    Air,

    /// <summary>What a stand or a filter has made of the fresh air side, shared.</summary>
    AirChange,

    /// <summary>
    /// Less heat since a machine was undervolted, as a share of every part's rise, where power is not measured and the readings
    /// tell of no other settings.
    /// </summary>
    HeatChange,

    /// <summary>S: fouling of the air side, shared.</summary>
    Shared,

    /// <summary>O: what one part alone has lost.</summary>
    Own,

    /// <summary>M: a step where the cooler was lifted.</summary>
    Mount,

    /// <summary>A jump of one sensor.</summary>
    SensorOffset,

    /// <summary>All temperatures of a model reported otherwise from a day on.</summary>
    ReadingsOffset,
}

/// <summary>One sensor that jumped by more than heat could.</summary>
/// <param name="Day">When, days since 1970.</param>
/// <param name="Implausible">By how many kelvins, where that alone says that it is the sensor; else null.</param>
public sealed record SensorStep(int Part, double Day, double? Implausible = null);
