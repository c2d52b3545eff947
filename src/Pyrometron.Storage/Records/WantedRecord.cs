using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Weeks;

namespace Pyrometron.Storage.Records;

/// <summary>Work of a plan as stored.</summary>
internal sealed record WantedRecord(
    string Id,
    WantedKind Kind,
    string? Title,
    string Zone,
    IReadOnlyList<WantedStepRecord> Steps,
    IReadOnlyList<Skill>? Skills,
    DateOnly? NotBefore,
    string? WaitsFor,
    DateOnly? DueBy,
    double Weight,
    string? Campaign = null,
    bool? TakesTwo = null,
    DownHours? DownHours = null,
    bool? SparesQuarterEnd = null
)
{
    public static WantedRecord Of(Wanted work) =>
        new(
            work.Id,
            work.Kind,
            work.Title.Length > 0 ? work.Title : null,
            work.Zone,
            [.. work.Steps.Select(s => new WantedStepRecord(s.Tag, s.Level, s.Minutes, s.Cause, s.Kelvin))],
            work.Skills.Count > 0 ? [.. work.Skills.Order()] : null,
            work.NotBefore,
            work.WaitsFor.Length > 0 ? work.WaitsFor : null,
            work.DueBy,
            work.Weight,
            work.Campaign,
            work.TakesTwo ? true : null,
            work.Downtime?.Hours,
            work.Downtime?.SparesQuarterEnd
        );

    public Wanted ToWanted() =>
        new(
            Id,
            Kind,
            Title ?? "",
            Zone,
            [.. Steps.Select(s => new WantedStep(s.Tag, s.Level, s.Minutes, s.Cause, s.Kelvin))],
            (Skills ?? []).ToHashSet(),
            NotBefore,
            WaitsFor ?? "",
            DueBy,
            Weight,
            Campaign,
            TakesTwo ?? false,
            DownHours is { } hours ? new DowntimeRules(hours, SparesQuarterEnd ?? false) : null
        );
}

/// <summary>What is done to one machine, as stored.</summary>
internal sealed record WantedStepRecord(string Tag, ServiceLevel? Level, int Minutes, Cause Cause, double? Kelvin);
