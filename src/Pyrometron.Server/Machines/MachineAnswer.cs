using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Units;
using Pyrometron.Formats;
using Pyrometron.Server.Bench;
using Pyrometron.Storage;

namespace Pyrometron.Server.Machines;

/// <summary>A part as it is sent.</summary>
public sealed record PartDto(string? Part, double? LimitCelsius, JointMaterial? Interface);

/// <summary>A part of a machine.</summary>
public sealed record MachinePart(string Part, double LimitCelsius, JointMaterial Interface);

/// <summary>A service in a machine's book.</summary>
/// <param name="At">When it was filed; null where only the day is known.</param>
/// <param name="LiftedCooler">Whether the cooler came off: then new paste came with it.</param>
/// <param name="Renewed">Share of each cause that it took away, 0 to 1; those of which it took nothing are left out.</param>
/// <param name="Proven">What the runs before and after it showed; null while it is not measured.</param>
/// <param name="FanFailed">Whether the fan that was changed had failed; null where nobody said, or none was changed.</param>
public sealed record ServiceEntry(
    long Id,
    DateOnly Date,
    ServiceLevel Level,
    string? VoidedReason,
    long? JobId,
    DateTimeOffset? At,
    bool LiftedCooler,
    IReadOnlyDictionary<string, double> Renewed,
    VerdictOutcome? Proven,
    string? By,
    bool? FanFailed
)
{
    internal static ServiceEntry From(StoredService s) =>
        new(
            s.Id,
            s.Service.Date,
            s.Service.Level,
            s.VoidedReason,
            s.Service.Job,
            s.Service.At,
            s.Service.LiftedCooler,
            Enum.GetValues<Cause>().Where(c => s.Service.Renewed.Of(c) > 0).ToDictionary(Words.Of, s.Service.Renewed.Of),
            s.Service.Proven,
            s.Service.By,
            s.Service.FanFailed
        );
}

/// <summary>A report in a machine's book.</summary>
public sealed record SymptomEntry(
    long Id,
    DateOnly Date,
    SymptomKind Kind,
    string? Note,
    string? WithdrawnReason,
    double? MinutesToFailure
);

/// <summary>A machine in a list.</summary>
public sealed record MachineSummary(string Tag, AssetKind Kind, string Model, string Zone, DateOnly? RetiredOn);

/// <summary>A machine with its book.</summary>
/// <param name="Levels">What can be done to a machine of its kind.</param>
public sealed record MachineAnswer(
    string Tag,
    AssetKind Kind,
    string Model,
    string Zone,
    string ZoneName,
    string Site,
    string? HostTag,
    double DutyHoursPerDay,
    DateOnly InServiceSince,
    DateOnly? WarrantyUntil,
    DateOnly? RetiredOn,
    string? RetiredReason,
    IReadOnlyList<MachinePart> Parts,
    IReadOnlyList<ServiceEntry> Services,
    IReadOnlyList<AssetChange> Changes,
    IReadOnlyList<ReadingAmendment> Amendments,
    IReadOnlyList<JobSummary> Jobs,
    IReadOnlyList<SymptomEntry> Symptoms,
    IReadOnlyList<string> Deviations,
    IReadOnlyList<ServiceLevel> Levels
);

/// <summary>What can be edited of a machine.</summary>
public sealed record MachineEdit(
    string? Model,
    AssetKind? Kind,
    string? Zone,
    string? HostTag,
    double? DutyHoursPerDay,
    DateOnly? InServiceSince,
    DateOnly? WarrantyUntil,
    IReadOnlyList<PartDto>? Parts
)
{
    /// <summary>The machine with the edit applied.</summary>
    /// <exception cref="RefusedInputException">It cannot be taken.</exception>
    internal Asset Apply(Asset asset, Register register)
    {
        var problems = new List<InputProblem>();
        var zones = register.Sites.SelectMany(s => s.Zones).Select(z => z.Code).ToHashSet();
        var tags = register.Assets.Select(a => a.Tag).ToHashSet();
        void Check(bool good, string at, Message message)
        {
            if (!good)
                problems.Add(new InputProblem(message, Pointer: "/" + at));
        }
        Check(
            Model is { Length: > 0 and <= 80 } && !Model.Any(char.IsControl),
            "model",
            "model is needed: 80 characters at most"
        );
        Check(Kind is not null, "kind", $"kind is needed: one of {Words.List<AssetKind>()}");
        Check(Zone is not null && zones.Contains(Zone), "zone", $"'{Zone}' is no zone");
        Check(HostTag is null || (HostTag != asset.Tag && tags.Contains(HostTag)), "hostTag", $"'{HostTag}' is no other machine");
        Check(DutyHoursPerDay is >= 0 and <= 24, "dutyHoursPerDay", "dutyHoursPerDay is needed: 0 to 24");
        static bool IsPossible(DateOnly day) => day >= Asset.EarliestDay && day <= Asset.LatestDay;
        Check(
            InServiceSince is { } since && IsPossible(since),
            "inServiceSince",
            $"inServiceSince is needed: a date from {Asset.EarliestDay} to {Asset.LatestDay}"
        );
        Check(
            WarrantyUntil is not { } until || IsPossible(until),
            "warrantyUntil",
            $"warrantyUntil lies between {Asset.EarliestDay} and {Asset.LatestDay}"
        );
        Check(Parts is { Count: > 0 and <= Asset.MaxParts }, "parts", $"parts is needed: 1 to {Asset.MaxParts}");
        for (var i = 0; i < Parts?.Count && i < Asset.MaxParts; i++)
        {
            Check(
                Parts[i]?.Part is { } name && (asset.Parts.Any(p => p.Name == name) || PartNames.IsName(name)),
                $"parts/{i}/part",
                PartNames.RuleOfPart
            );
            Check(Parts[i]?.LimitCelsius is >= 20 and <= 300, $"parts/{i}/limitCelsius", "limitCelsius is needed: 20 to 300 °C");
            Check(Parts[i]?.Interface is not null, $"parts/{i}/interface", "interface is needed: paste or pad");
        }
        Check(
            Parts is null || Parts.DistinctBy(p => p?.Part).Count() == Parts.Count,
            "parts",
            "every part is named once: its readings carry its name"
        );
        return problems.Count > 0
            ? throw new RefusedInputException(problems)
            : asset with
            {
                Model = Model!,
                Kind = Kind!.Value,
                Zone = Zone!,
                HostTag = HostTag,
                DutyHoursPerDay = DutyHoursPerDay!.Value,
                InServiceSince = InServiceSince!.Value,
                WarrantyUntil = WarrantyUntil,
                Place = Zone == asset.Zone ? asset.Place : null,
                Parts = [.. Parts!.Select(p => new Part(p.Part!, new Celsius(p.LimitCelsius!.Value), p.Interface!.Value))],
            };
    }
}

/// <summary>A reading as listed on a machine's page; null is "not measured".</summary>
/// <param name="Amended">0 as imported, 1 corrected, 2 voided.</param>
/// <param name="Samples">Of a log, of which it is the median; null where nobody said.</param>
/// <param name="SpreadKelvin">Largest standard deviation of a part among them; null where nobody said.</param>
public sealed record ReadingEntry(
    DateTimeOffset At,
    double? AmbientC,
    double? PowerW,
    double? FanRpm,
    double? FanPct,
    string? Settings,
    string? Workload,
    IReadOnlyList<double?> PartsC,
    int Amended,
    int? Samples,
    double? SpreadKelvin
)
{
    internal static ReadingEntry From(StoredReading stored)
    {
        var r = stored.Reading;
        static double? Known(double value) => double.IsNaN(value) ? null : value;
        return new ReadingEntry(
            DateTimeOffset.FromUnixTimeMilliseconds(r.UnixMilliseconds),
            Known(r.AmbientC),
            Known(r.PowerW),
            Known(r.FanRpm),
            Known(r.FanPct),
            r.Settings,
            r.Workload,
            [.. r.PartsC.Select(Known)],
            stored.Amended,
            r.Samples > 0 ? r.Samples : null,
            Known(r.SpreadKelvin)
        );
    }
}
