using Pyrometron.Core.Assessments;
using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Statistics;
using Pyrometron.Core.Units;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>What one machine shows, whatever the house's rules make of it: <see cref="MachineRuling"/> does that.</summary>
/// <param name="Machine">Its facts, without their model.</param>
/// <param name="Site">Where its zone is.</param>
internal sealed record MachineFindings(MachineFacts Machine, Site Site, Zone Zone)
{
    /// <summary>Its judged parts, their action lines at their limits; empty where too little was measured.</summary>
    public IReadOnlyList<PartAssessment> Parts { get; init; } = [];

    /// <summary>What is measured.</summary>
    public MeasuredChannels Channels { get; init; }

    /// <summary>The operating point it was compared at.</summary>
    public ReferencePoint? Reference { get; init; }

    /// <summary>What no service can remove.</summary>
    public OutsideCauses Outside { get; init; }

    /// <summary>Whether enough machines of its zone report to know what its room adds.</summary>
    public bool RoomKnown { get; init; }

    /// <summary>Whether its settings changed in what was measured.</summary>
    public bool SettingsChanged { get; init; }

    /// <summary>Channels not believed.</summary>
    public IReadOnlyList<SensorFinding> Sensors { get; init; } = [];

    /// <summary>Sudden changes; looked for where its past is told.</summary>
    public IReadOnlyList<StepFinding> Steps { get; init; } = [];

    /// <summary>What happened to all machines of its model on one day.</summary>
    public IReadOnlyList<GroupEvent> Events { get; init; } = [];

    /// <summary>A service since it was measured last.</summary>
    public ServiceDone? Unmeasured { get; init; }

    /// <summary>Whether its siblings tell what it is like when fresh.</summary>
    public bool FreshFromSiblings { get; init; }

    /// <summary>The air of the year ahead; empty where nothing is to win by any house's rules.</summary>
    public IReadOnlyList<(float DaysAhead, float AirC)> Year { get; init; } = [];

    /// <summary>What its fan makes of kelvins that are won.</summary>
    public FanAtWork Fan { get; init; }

    /// <summary>Where it works, to be compared with its siblings.</summary>
    public OperatingRise? Operating { get; init; }

    /// <summary>How long an automatic fan can go on hiding wear.</summary>
    public FanEnd? FanEnd { get; init; }

    /// <summary>Readings since its newest job ended.</summary>
    public int ReadingsSinceResult { get; init; }

    /// <summary>Whether its past is told too: for one machine's page.</summary>
    public bool WithHistory { get; init; }

    /// <summary>The part with most to win.</summary>
    public PartAssessment Worst => Parts.MaxBy(p => p.Split.Total)!;
}

/// <summary>Examines one fitted machine: what is wrong, and how sure that is.</summary>
/// <param name="before">What is known of it before its model is read.</param>
internal sealed class MachineExaminer(MachineFindings before, WearModel model, ZoneRoom room, ProvenGains proven)
{
    private readonly MachineFacts _machine = before.Machine;
    private readonly Asset _asset = before.Machine.Asset;
    private readonly UnmeasuredServices _since = new(before.Machine.Asset, model.LastDay, proven);

    /// <summary>All that it shows.</summary>
    /// <param name="scatter">
    /// How sure each part's causes are: then every part's past is told too. For one machine's page; null for a whole fleet.
    /// </param>
    public MachineFindings Examine(WearScatter[]? scatter)
    {
        var channels = new MeasuredChannels(model.Reference.HasPower, model.Reference.FanSpeed > 0, _machine.OwnAir);
        var judge = new PartJudge(_machine, model, before.Zone, room, channels.Grade, _since);
        // Models are large, and read by now.
        var findings = before with
        {
            Machine = _machine with { Model = null },
        };
        if (judge.Measured.Count == 0 || !(_machine.IsKnown || model.FreshFromSiblings))
            return findings;
        var known = findings with { Parts = [.. judge.Measured.Select(p => judge.Judge(p, scatter?[p]))] };
        var worst = known.Worst;
        return known with
        {
            Channels = channels,
            Reference = model.Reference,
            Outside = new OutsideCauses(judge.RoomNow, SettingsNow(judge.Measured)),
            RoomKnown = room.Bins.Any(),
            SettingsChanged = model.Cells.OfReadings.Select(c => c.Settings).Where(s => s >= 0).Distinct().Skip(1).Any(),
            Sensors =
            [
                .. _machine.Findings,
                .. model.SensorSteps.Select(s =>
                    s.Implausible is { } kelvin
                        ? SensorFinding.TooMuch(_asset.Parts[s.Part].Name, s.Day, kelvin)
                        : SensorFinding.Jumped(_asset.Parts[s.Part].Name, s.Day)
                ),
            ],
            Steps = [.. StepSearch.Of(_asset, model, room, scatter is not null ? judge.Measured : [])],
            Events = model.Events,
            Unmeasured = _since.Newest,
            FreshFromSiblings = model.FreshFromSiblings,
            Year = worst.Split.Total >= JudgementPolicy.LeastWorthKelvin || scatter is not null ? YearAhead.Of(model.Cells) : [],
            Fan = FanAtWork.Of(model, worst),
            Operating = Operating(known.Parts),
            FanEnd = model.Reference.FanFixed
                ? null
                : FanEnd.Of(
                    _machine.AsOf,
                    model.Reference.FanPct,
                    _machine.Latest!.FanPct,
                    worst.FreshRiseKelvin - worst.FreshJointKelvin + worst.Split.Dust,
                    known.Parts.Max(p => p.PaceKelvinPerDay)
                ),
            ReadingsSinceResult = _machine.History.Results is [.., var result]
                ? model.Cells.OfReadings.Where(c => c.Day > UnixDay.Of(result.At)).Sum(c => c.Count)
                : 0,
            WithHistory = scatter is not null,
        };
    }

    private OperatingRise Operating(IReadOnlyList<PartAssessment> judged)
    {
        var (rise, air) = (new double[_asset.Parts.Count], new double[_asset.Parts.Count]);
        Array.Fill(rise, double.NaN);
        foreach (var part in judged)
        {
            var p = _asset.Parts.TakeWhile(x => x != part.Part).Count();
            (rise[p], air[p]) = (
                part.PresentRiseKelvin,
                (part.FreshRiseKelvin - part.FreshJointKelvin + part.Split.Dust) / part.PresentRiseKelvin
            );
        }
        return new OperatingRise(
            model.Reference.PowerW,
            model.Reference.HasPower,
            model.Reference.FanSpeed,
            model.Reference.SpeedIsRpm,
            rise,
            air
        );
    }

    /// <summary>Kelvins that more heat or other settings add against the settings before.</summary>
    private double SettingsNow(IReadOnlyList<int> measured)
    {
        var reference = model.Reference;
        var before = model.Cells.OfReadings.Select(c => c.Settings).LastOrDefault(s => s != reference.Settings && s >= 0, -1);
        if (before < 0)
            return 0;
        if (!reference.HasPower)
            return -measured.Select(p => model.SettingsOffset(p, before)).DefaultIfEmpty(0).MinBy(k => -Math.Abs(k));
        var earlier = model
            .Cells.OfReadings.Where(c => c.Settings == before && c.Workload == reference.Workload)
            .Select(c => c.Heat)
            .ToArray();
        return earlier.Length == 0 ? 0 : measured.Select(model.FreshRise).DefaultIfEmpty(0).Max() * (1 - Robust.Median(earlier));
    }
}
