using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Procedures;

/// <summary>What a work card is made from.</summary>
/// <param name="Fan">The fan that is to be changed, where the level is a change of fan and the model has several.</param>
/// <param name="UnderWarranty">On the day the job was started.</param>
/// <param name="WarrantyAnswer">The recorded exception or the maker's answer, or null.</param>
/// <param name="HasPads">Whether any part of the machine sits on a pad.</param>
/// <param name="Deviations">Deviations from good practice seen on this machine before.</param>
/// <param name="Findings">Grades given so far in this job.</param>
public sealed record CardBasis(
    AssetKind Kind,
    ServiceLevel Level,
    ModelNotes Notes,
    BenchSchools Schools,
    string? Fan = null,
    bool UnderWarranty = false,
    string? WarrantyAnswer = null,
    bool HasPads = false,
    IReadOnlyList<string>? Deviations = null,
    IReadOnlyDictionary<FindingSubject, string>? Findings = null
)
{
    /// <summary>The machine that a card sits in, or null.</summary>
    public string? Host { get; init; }

    /// <summary>The other machines in its host, which go down with it.</summary>
    public IReadOnlyList<string>? HostMates { get; init; }

    /// <summary>Whether two lift it by the house's rules.</summary>
    public bool TwoPeople { get; init; }

    /// <summary>Whether it came in because it got wet.</summary>
    public bool GotWet { get; init; }

    /// <summary>What sits under the cooler; null where nobody has said yet.</summary>
    public ChipKind? Chip => Notes.Chip;

    /// <summary>Whether the cooler has come off in this job already: whatever is done from then on brings new paste.</summary>
    public bool CoolerCameOff { get; init; }

    /// <summary>Whether anything is opened.</summary>
    public bool Opens => ServiceEffects.Opens(Level) && !IsHotSwap || Wet;

    /// <summary>Whether it is only looked at, opened no further than that needs.</summary>
    public bool LooksOnly => Level == ServiceLevel.Inspect && !Wet;

    /// <summary>Whether a fan is changed while the machine runs.</summary>
    public bool IsHotSwap =>
        Kind == AssetKind.Server
        && Level == ServiceLevel.FanSwap
        && !CoolerCameOff
        && !Wet
        && Notes.Fans.Where(f => Fan is null || f.Name == Fan).ToArray() is { Length: > 0 } fans
        && fans.All(f => f.HotSwap == true);

    /// <summary>The liquid loop that cools it; null where nobody has said.</summary>
    public LoopKind? Loop => Notes.Loop;

    /// <summary>Whether a battery is in it.</summary>
    public bool HasBattery => Kind == AssetKind.Laptop;

    /// <summary>Whether a back plate comes off: on cards whose pads are renewed, or whose notes show its screws.</summary>
    public bool HasBackPlate =>
        Kind == AssetKind.GraphicsCard && LiftsCooler && (RenewsPads || Notes.Screws.Any(s => s.Place == ScrewPlace.BackPlate));

    /// <summary>
    /// Whether connectors come off: on laptops and cards always, elsewhere only with a cooler or a fan. Nobody counts what
    /// nobody pulled.
    /// </summary>
    public bool PullsConnectors => Opens && (Kind is AssetKind.Laptop or AssetKind.GraphicsCard || LiftsCooler || ChangesFan);

    /// <summary>
    /// Whether the cooler comes off: for paste and pads always, for a fan only where it does not come off alone. A fan that
    /// was not named counts as the one that sits worst.
    /// </summary>
    public bool LiftsCooler =>
        CoolerCameOff
        || ServiceEffects.LiftsCooler(Level)
        || Level == ServiceLevel.FanSwap && Notes.Fans.Where(f => Fan is null || f.Name == Fan).Any(f => !f.ComesOffAlone);

    /// <summary>
    /// Whether a fan is changed: by the level, or because it was found tired while more than that is done anyway.
    /// </summary>
    public bool ChangesFan =>
        Level == ServiceLevel.FanSwap
        || LiftsCooler
            && (Findings ?? new Dictionary<FindingSubject, string>()).Any(f => Grading.Find(f.Key, f.Value)?.Cause == Cause.Fan);

    /// <summary>Whether it came in wet, or was found so.</summary>
    public bool Wet => GotWet || Findings?.GetValueOrDefault(FindingSubject.Liquid) == "wet";

    /// <summary>Whether marks of liquid have dried in and it is open, so that they can be rinsed.</summary>
    public bool DriedIn => Opens && Findings?.GetValueOrDefault(FindingSubject.Liquid) == "dried";

    /// <summary>The screws that come out: those of cooler, back plate and board only where the cooler is lifted.</summary>
    public IReadOnlyList<Screw> Screws =>
        LiftsCooler
            ? Notes.Screws
            : [.. Notes.Screws.Where(s => s.Place is ScrewPlace.Cover or ScrewPlace.Shroud or ScrewPlace.Fan)];

    /// <summary>Whether pads stay on the chips while the cooler is off.</summary>
    public bool KeepsPads => LiftsCooler && HasPads && !RenewsPads;

    /// <summary>Whether pads are renewed: by the level, or because it is open anyway and the house then does it all.</summary>
    public bool RenewsPads =>
        ServiceEffects.RenewsPads(Level)
        || LiftsCooler && HasPads && Level == ServiceLevel.CoolerSwap
        || LiftsCooler && HasPads && (Schools.Extent == Extent.AllWhileOpen || Schools.Pads == PadSchool.AlwaysRenew);
}
