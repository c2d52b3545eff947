using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using static Pyrometron.Core.Procedures.CardRule;

namespace Pyrometron.Core.Procedures;

/// <summary>Cleaning, pads, paste and the cooler back on, or the fan changed.</summary>
internal static class CleanRules
{
    private static bool Blows(CardBasis c) => c.Schools.Air != AirSource.BrushOnly;

    private static bool CleansInside(CardBasis c) => c.Opens && ServiceEffects.CleansInside(c.Level);

    private static bool CleansDesktop(CardBasis c) => c.Kind == AssetKind.Desktop && CleansInside(c);

    public static readonly CardRule[] All =
    [
        new(
            "hot-swap",
            Stage.Clean,
            c => c.IsHotSwap,
            c =>
                Message.Of(
                    "By its maker's procedure and while it runs: pull {fan}, and put the new one in within the time the maker allows.",
                    Value.List("fan", "", [CardWords.FanNamed(c)])
                )
        )
        {
            Gate = _ =>
                [
                    "The bay is the one that the log names",
                    "Part number and direction of air are those of the old one",
                    "It has clicked in",
                ],
            Cautions = _ => [Caution.FansBite, Caution.Noise],
        },
        new(
            "pads-off",
            Stage.Clean,
            c => c.RenewsPads,
            c =>
                c.HasBackPlate
                    ? "Take the old pads off, front and back apart; measure each with the caliper or by its imprint, and wipe off their oil."
                    : "Take the old pads off; measure each with the caliper or by its imprint, and wipe off their oil."
        )
        {
            Gate = _ => ["Each old pad was measured, place by place", "Their oil is wiped off chips and cooler"],
            Cautions = _ => [Caution.PadThickness],
        },
        new(
            "pads-shield",
            Stage.Clean,
            c => c.KeepsPads,
            _ => "Cover the pads that stay with film or paper, so that no dust is blown onto them."
        ),
        new(
            "filters",
            Stage.Clean,
            CleansDesktop,
            _ => "Take the dust filters out, wash or blow them, and let them dry before they go back."
        )
        {
            Optional = Always,
        },
        new("blow", Stage.Clean, c => (c.Level == ServiceLevel.BlowOut || CleansInside(c)) && Blows(c), CardWords.Blow)
        {
            Cautions = c => [c.Schools.Air == AirSource.Can ? Caution.CanAir : Caution.CompressedAir, Caution.Dust],
        },
        new(
            "brush-outside",
            Stage.Clean,
            c => c.Level == ServiceLevel.BlowOut && !Blows(c),
            _ => "Brush meshes and grilles clean from outside, with the extractor beside them."
        )
        {
            Cautions = _ => [Caution.Dust],
        },
        new("brush", Stage.Clean, CleansInside, _ => "Brush fins and blades clean down to the metal, meshes and grilles too.")
        {
            Cautions = _ => [Caution.Fins],
        },
        new("card-fins", Stage.Clean, CleansDesktop, _ => "A graphics card in it: its fins and fans too, each fan held still.")
        {
            Optional = Always,
        },
        new(
            "supply-grille",
            Stage.Clean,
            CleansDesktop,
            _ =>
                "Blow or brush the grille of the closed power supply from outside, its fan held still with a stick of plastic or wood."
        )
        {
            Cautions = _ => [Caution.Mains],
            Optional = Always,
        },
        new("fan-swap", Stage.Clean, c => c.ChangesFan && !c.IsHotSwap, CardWords.FanSwap) { Cautions = _ => [Caution.FansBite] },
        .. ChangeRules.Change,
        new(
            "paste-off",
            Stage.Clean,
            Lifts,
            c =>
                c.Level == ServiceLevel.CoolerSwap
                    ? "Take the old paste off the chip in two passes: the first solvent dissolves it, the second, fresh on a new cloth, takes the film. The new cooler's face is wiped too."
                : c.Chip == ChipKind.Lidded
                    ? "Take the old paste off the lid and the cooler, first dry, then with alcohol on the cloth, swabs at the edges. Paste remover soaks before it is wiped."
                : "Take the old paste off both faces, first dry, then with alcohol on the cloth, swabs at the edges. Paste remover soaks before it is wiped."
        )
        {
            Gate = c =>
                [
                    c.Chip == ChipKind.Lidded ? "The lid is mirror-clean" : "The chip is mirror-clean",
                    "The cooler's face is clean",
                    "No fibres are left",
                ],
            Cautions = _ => [Caution.Alcohol],
            Timer = _ => new("paste remover", WorkCard.SoakSeconds, Required: false),
        },
        new("alcohol-dry", Stage.Clean, Lifts, CardWords.AlcoholDry)
        {
            Gate = _ => ["Both faces are dry"],
            Timer = c => new("alcohol drying", BenchSchools.DryingSeconds(c.Schools.Alcohol), Required: true),
        },
        .. ChangeRules.Fitting,
        new(
            "pads-keep",
            Stage.Pads,
            c => c.KeepsPads,
            _ =>
                "Uncover the pads that stay: elastic, whole, clean and in their places. Hard, torn or oily ones make this a repad."
        )
        {
            Cautions = _ => [Caution.PadThickness],
        },
        new(
            "pads-on",
            Stage.Pads,
            c => c.RenewsPads,
            c =>
                c.Schools.Pads == PadSchool.Putty
                    ? "Lay putty on every chip that had a pad, a little higher than the old pad."
                    : "Cut the new pads to size, same thickness as the gap asks, and lay them on."
        )
        {
            Gate = CardWords.PadChecks,
            Cautions = _ => [Caution.PadThickness],
            Order = c => [.. c.Notes.Pads.OrderBy(p => p.Number).Select(p => p.Number)],
        },
        new("paste-on", Stage.Paste, Lifts, CardWords.Paste) { Cautions = _ => [Caution.LiquidMetal] },
        new(
            "cooler-on",
            Stage.Paste,
            Lifts,
            _ =>
                "Set the cooler down once, straight. Lifted again means both faces cleaned and new paste: then do this step twice."
        )
        {
            Cautions = c =>
                c.Chip == ChipKind.Bare ? [Caution.BareChip]
                : c.Chip is null ? [Caution.PerhapsBareChip]
                : [],
        },
        new("tighten", Stage.Tighten, Lifts, CardWords.Tighten)
        {
            Order = c => [.. c.Notes.CoolerScrewsInOrder.Select(s => s.Number)],
        },
    ];
}
