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
    /// <summary>Whether the cooler has come off in this job already: whatever is done from then on brings new paste.</summary>
    public bool CoolerCameOff { get; init; }

    /// <summary>Whether anything is opened.</summary>
    public bool Opens => Level >= ServiceLevel.DustOut;

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
        || Level > ServiceLevel.FanSwap
            && (Findings ?? new Dictionary<FindingSubject, string>()).Any(f => Grading.Find(f.Key, f.Value)?.Cause == Cause.Fan);

    /// <summary>Whether it was found wet.</summary>
    public bool Wet => Findings?.GetValueOrDefault(FindingSubject.Liquid) == "wet";

    /// <summary>The screws that come out: those of cooler, back plate and board only where the cooler is lifted.</summary>
    public IReadOnlyList<Screw> Screws =>
        LiftsCooler
            ? Notes.Screws
            : [.. Notes.Screws.Where(s => s.Place is ScrewPlace.Cover or ScrewPlace.Shroud or ScrewPlace.Fan)];

    /// <summary>Whether pads are renewed: by the level, or because it is open anyway and the house then does it all.</summary>
    public bool RenewsPads =>
        Level == ServiceLevel.Repad
        || LiftsCooler && HasPads && (Schools.Extent == Extent.AllWhileOpen || Schools.Pads == PadSchool.AlwaysRenew);
}
