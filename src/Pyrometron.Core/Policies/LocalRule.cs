using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Policies;

/// <summary>For which machines a rule holds; each is nearer than the one before it, and the nearest wins.</summary>
public enum RuleScope
{
    House,
    Site,
    Zone,
    Kind,

    /// <summary>Machines of one kind in one zone.</summary>
    ZoneKind,
    Model,
    Machine,
}

/// <summary>What a local rule sets; null leaves it to the next wider rule.</summary>
/// <param name="School">When machines are served.</param>
/// <param name="Warranty">What may be done under warranty.</param>
/// <param name="Extent">How much is done once a machine is open.</param>
/// <param name="Paste">How paste goes on.</param>
/// <param name="Pads">What happens to pads.</param>
/// <param name="ActionMarginKelvin">The action line lies this far below a part's limit.</param>
/// <param name="WorthKelvin">Less than this is not worth opening a machine for.</param>
/// <param name="MuchKelvin">This much to win is worth opening a machine at once.</param>
/// <param name="LookMonths">Months between looks; 0 for never.</param>
/// <param name="DustOutMonths">Months between dust-outs; 0 for never.</param>
/// <param name="RepasteMonths">Months between new pastes; 0 for never.</param>
/// <param name="UsedHard">Loaded for hours every day.</param>
/// <param name="PetsOrSmoke">Pets or smoke about it.</param>
/// <param name="SaltAir">By the sea.</param>
/// <param name="DryAir">In air that is dry all year.</param>
/// <param name="MachineHour">What an hour of the machine's full work is worth.</param>
/// <param name="Replacement">What a new one costs.</param>
/// <param name="DowntimeShare">Share of a machine-hour that is lost while it stands for a service.</param>
/// <param name="Alcohol">What is in the bottle.</param>
/// <param name="Air">Where the air for blowing comes from.</param>
/// <param name="Opening">In which order screws come out.</param>
/// <param name="DownHours">When machines may be down for work.</param>
/// <param name="SparesQuarterEnd">Whether none may in the last week of a quarter.</param>
/// <param name="TwoPeople">Whether it takes two to open one.</param>
/// <param name="FanMonths">Age at which a fan is changed before it fails, months; 0 for never.</param>
public sealed record RuleChange(
    School? School = null,
    WarrantySchool? Warranty = null,
    Extent? Extent = null,
    PasteSchool? Paste = null,
    PadSchool? Pads = null,
    double? ActionMarginKelvin = null,
    double? WorthKelvin = null,
    double? MuchKelvin = null,
    double? LookMonths = null,
    double? DustOutMonths = null,
    double? RepasteMonths = null,
    bool? UsedHard = null,
    bool? PetsOrSmoke = null,
    bool? SaltAir = null,
    bool? DryAir = null,
    double? MachineHour = null,
    double? Replacement = null,
    double? DowntimeShare = null,
    AlcoholStrength? Alcohol = null,
    AirSource? Air = null,
    OpeningOrder? Opening = null,
    DownHours? DownHours = null,
    bool? SparesQuarterEnd = null,
    bool? TwoPeople = null,
    double? FanMonths = null
)
{
    /// <summary>All that holds for machines of a kind; 0 months where the calendar does not ask.</summary>
    public static RuleChange InForce(JudgementPolicy policy, BenchSchools bench, AssetKind kind)
    {
        var (months, worth, around) = (policy.Intervals.Of(kind), policy.Values.Of(kind), policy.Surroundings);
        return new RuleChange(
            policy.School,
            policy.Warranty,
            policy.Extent,
            bench.Paste,
            bench.Pads,
            policy.ActionMarginKelvin,
            policy.WorthKelvin,
            policy.MuchKelvin,
            months.Look ?? 0,
            months.DustOut ?? 0,
            months.Repaste ?? 0,
            around.UsedHard,
            around.PetsOrSmoke,
            around.SaltAir,
            around.DryAir,
            worth.MachineHour,
            worth.Replacement,
            policy.Values.DowntimeShare,
            bench.Alcohol,
            bench.Air,
            bench.Opening,
            policy.Downtime.Hours,
            policy.Downtime.SparesQuarterEnd,
            policy.TwoPeople,
            months.Fan ?? 0
        );
    }

    /// <summary>Whether it sets nothing.</summary>
    public bool IsEmpty() => this == new RuleChange();

    /// <summary>A policy for machines of a kind with this over it.</summary>
    public JudgementPolicy Over(JudgementPolicy policy, AssetKind kind)
    {
        var (around, intervals, worth) = (policy.Surroundings, policy.Intervals.Of(kind), policy.Values.Of(kind));
        return policy with
        {
            School = School ?? policy.School,
            Warranty = Warranty ?? policy.Warranty,
            Extent = Extent ?? policy.Extent,
            ActionMarginKelvin = ActionMarginKelvin ?? policy.ActionMarginKelvin,
            WorthKelvin = WorthKelvin ?? policy.WorthKelvin,
            MuchKelvin = MuchKelvin ?? policy.MuchKelvin,
            Intervals = policy.Intervals.With(kind, Over(intervals)),
            Surroundings = new Surroundings(
                UsedHard ?? around.UsedHard,
                PetsOrSmoke ?? around.PetsOrSmoke,
                SaltAir ?? around.SaltAir,
                DryAir ?? around.DryAir
            ),
            Values = policy.Values.With(
                kind,
                new KindValues(MachineHour ?? worth.MachineHour, Replacement ?? worth.Replacement)
            ) with
            {
                DowntimeShare = DowntimeShare ?? policy.Values.DowntimeShare,
            },
            Downtime = new DowntimeRules(
                DownHours ?? policy.Downtime.Hours,
                SparesQuarterEnd ?? policy.Downtime.SparesQuarterEnd
            ),
            TwoPeople = TwoPeople ?? policy.TwoPeople,
        };
    }

    /// <summary>The ways at the bench with this over them.</summary>
    public BenchSchools Over(BenchSchools bench) =>
        bench with
        {
            Warranty = Warranty ?? bench.Warranty,
            Extent = Extent ?? bench.Extent,
            Paste = Paste ?? bench.Paste,
            Pads = Pads ?? bench.Pads,
            Alcohol = Alcohol ?? bench.Alcohol,
            Air = Air ?? bench.Air,
            Opening = Opening ?? bench.Opening,
        };

    /// <summary>
    /// Who sets an interval means it: a longest one, or a shorter one for hard use, of a wider rule does not come over it.
    /// </summary>
    private KindIntervals Over(KindIntervals wider) =>
        new(
            Months(LookMonths, wider.Look),
            Months(DustOutMonths, wider.DustOut),
            Months(RepasteMonths, wider.Repaste),
            DustOutMonths is null ? wider.LongestDustOut : null,
            RepasteMonths is null ? wider.RepasteUsedHard : null,
            Months(FanMonths, wider.Fan)
        );

    private static double? Months(double? set, double? wider) =>
        set is not { } months ? wider
        : months > 0 ? months
        : null;
}

/// <summary>A rule for some machines.</summary>
/// <param name="Key">
/// Code of the site or zone, word of the kind, <see cref="ZoneKind"/>, name of the model, or tag of the machine.
/// </param>
public sealed record LocalRule(RuleScope Scope, string Key, RuleChange Change)
{
    /// <summary>The key of a rule for machines of a kind in a zone: <c>Z2/laptop</c>. No zone's code holds a slash.</summary>
    public static string ZoneKind(string zone, AssetKind kind) => $"{zone}/{Words.Of(kind)}";

    /// <summary>Zone and kind of such a key; null where it is none.</summary>
    public static (string Zone, AssetKind Kind)? ReadZoneKind(string key) =>
        key.LastIndexOf('/') is > 0 and var at && Words.TryRead<AssetKind>(key[(at + 1)..], out var kind)
            ? (key[..at], kind)
            : null;

    /// <summary>Whether it holds for a machine.</summary>
    /// <param name="site">Code of the site that it stands on.</param>
    public bool HoldsFor(Asset asset, string site) =>
        Scope switch
        {
            RuleScope.Site => site == Key,
            RuleScope.Zone => asset.Zone == Key,
            RuleScope.Kind => Words.Of(asset.Kind) == Key,
            RuleScope.ZoneKind => ZoneKind(asset.Zone, asset.Kind) == Key,
            RuleScope.Model => asset.Model == Key,
            RuleScope.Machine => asset.Tag == Key,
            _ => true,
        };
}
