using System.Text.Json.Serialization;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Assessments;

/// <summary>What is measured of a machine, from best to least; the uncertainty grows with it.</summary>
public enum EvidenceGrade
{
    /// <summary>Power, fan speed and its own intake air.</summary>
    [JsonStringEnumMemberName("A")]
    A,

    /// <summary>Power; fan speed or its own intake air is missing.</summary>
    [JsonStringEnumMemberName("B")]
    B,

    /// <summary>Fan and air, power only by the workload's name.</summary>
    [JsonStringEnumMemberName("C")]
    C,

    /// <summary>Either fan or air.</summary>
    [JsonStringEnumMemberName("D")]
    D,

    /// <summary>Temperature alone.</summary>
    [JsonStringEnumMemberName("E")]
    E,
}

/// <summary>What is measured of a machine beside its temperatures: how far its judgement can be trusted hangs on it.</summary>
/// <param name="Power">Heat, in watts.</param>
/// <param name="Fan">Fan speed, in rpm or per cent.</param>
/// <param name="OwnAir">The air at its own intake, not only its zone's.</param>
public readonly record struct MeasuredChannels(bool Power, bool Fan, bool OwnAir)
{
    /// <summary>The grade of evidence that this makes.</summary>
    public EvidenceGrade Grade =>
        (Power, Fan, OwnAir) switch
        {
            (true, true, true) => EvidenceGrade.A,
            (true, _, _) => EvidenceGrade.B,
            (false, true, true) => EvidenceGrade.C,
            (false, false, false) => EvidenceGrade.E,
            _ => EvidenceGrade.D,
        };

    /// <summary>The grade in words, with what makes it.</summary>
    public Message Words =>
        (Power, Fan, OwnAir) switch
        {
            (true, true, true) => "very good: power, fan and air measured",
            (true, true, false) => "good: power and fan measured, its own air not",
            (true, false, true) => "good: power and air measured, fan not",
            (true, false, false) => "good: power measured, fan and its own air not",
            (false, true, true) => "fair: fan and air measured, power not",
            (false, true, false) => "weak: fan measured, power and its own air not",
            (false, false, true) => "weak: air measured, power and fan not",
            _ => "poor: temperatures alone measured",
        };

    /// <summary>What would raise the grade; null where nothing is missing.</summary>
    public Message? ToRaise =>
        Message.Join(
            Power ? null : "Power in the readings would tell more heat from worse cooling.",
            Fan ? null : "Fan speed in the readings would show wear that an automatic fan hides.",
            OwnAir ? null : "The air at its intake in the readings would tell the room from wear."
        );
}
