using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Events;

/// <summary>What happened to many machines on one day.</summary>
public enum GroupEventKind
{
    /// <summary>All temperatures of a model by equal kelvins, as new firmware reports them: no heat, and no work.</summary>
    Readings,

    /// <summary>Dust in a zone, by building work: every machine in it is fouled from then on, and needs work.</summary>
    Dust,
}

/// <summary>One event that many machines show: told once, and one unknown for all of them.</summary>
/// <param name="Group">The model, or the code of the zone.</param>
/// <param name="Day">When, days since 1970.</param>
/// <param name="Kelvin">By how much a part at its reference point is warmer since, on the middle member.</param>
/// <param name="SigmaKelvin">Its standard uncertainty.</param>
/// <param name="SpreadKelvin">Standard deviation of it from member to member.</param>
/// <param name="Members">Tags of the machines that show it.</param>
public sealed record GroupEvent(
    GroupEventKind Kind,
    string Group,
    double Day,
    double Kelvin,
    double SigmaKelvin,
    double SpreadKelvin,
    IReadOnlyList<string> Members
)
{
    /// <summary>Whether a machine is of the group, so that it is expected to show the event.</summary>
    public bool Concerns(Asset asset) => Group == (Kind == GroupEventKind.Readings ? asset.Model : asset.Zone);
}
