using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Jobs;

/// <summary>The stages of a job, in the order of the trade.</summary>
public enum Stage { MeasureBefore, MakeSafe, Open, Inspect, Clean, Joint, Close, MeasureAfter }

/// <summary>One step at the bench.</summary>
/// <param name="Id">Stable word; what is ticked is kept under it.</param>
/// <param name="Do">What to do, one sentence or two.</param>
/// <param name="Caution">What can go wrong just here, or null.</param>
public sealed record Step(string Id, Stage Stage, string Do, string? Caution = null);

/// <summary>
/// The short checklist of a job. Cautions stand at the step where they matter; local codes, the maker's instructions and
/// licensed practice come first.
/// </summary>
public static class Checklist
{
    /// <summary>A rule: the kinds of machine and the levels of service that a step belongs to.</summary>
    private sealed record Rule(Step Step, Func<AssetKind, ServiceLevel, bool> Applies);

    private static readonly Rule[] Rules =
    [
        new(new("owner-told", Stage.MakeSafe, "Move its work off and tell its owner that it goes down."), (_, _) => true),
        new(new("power-off", Stage.MakeSafe, "Shut it down (no standby), unplug everything, and hold the power button for 15 seconds.",
            "Capacitors keep charge. Never open a power supply unit; mains and fixed wiring are a licensed electrician's. Lock out where the site demands it."),
            (_, level) => level != ServiceLevel.Inspect),
        new(new("battery-out", Stage.MakeSafe, "Disconnect the battery before anything else is touched.",
            "Swollen, hot or leaking: stop, do not press or pierce it, make the area safe and follow the site's procedure."),
            (kind, level) => kind == AssetKind.Laptop && level >= ServiceLevel.DustOut),
        new(new("ground", Stage.MakeSafe, "Put on the wrist strap or stand on the grounded mat; let the cooler cool down to the hand.",
            "Static kills quietly: no fingers on contacts. Hot coolers burn."), (_, level) => level >= ServiceLevel.DustOut),
        new(new("lift", Stage.Open, "Pull it out of its rack with two people or a lift.", "Heavy servers hurt backs and feet."),
            (kind, level) => kind == AssetKind.Server && level >= ServiceLevel.DustOut),
        new(new("screws-out", Stage.Open, "Take the screws out and lay them as they sat; count them.",
            "Lengths differ: a long screw in a short hole ruins the board."), (_, level) => level >= ServiceLevel.DustOut),
        new(new("leads-off", Stage.Open, "Unplug fan leads by the housing, never by the wire, before the cooler or shroud comes away. Count them."),
            (_, level) => level >= ServiceLevel.DustOut),
        new(new("cooler-off", Stage.Open, "Lift the cooler straight off: wiggle, never pry. Unwilling? Look for a forgotten screw, or warm the paste by running it a few minutes.",
            "Bare chips chip: no tool near the die."), (_, level) => level >= ServiceLevel.Repaste),
        new(new("inspect", Stage.Inspect, "Look and write down: dust in fins and mesh, fan free and quiet, liquid marks, seals. Photograph damage that was there before you."),
            (_, _) => true),
        new(new("inspect-joint", Stage.Inspect, "Look at the paste (dry, cracked, uncovered spots) and at every pad (elastic, hard, torn, oily)."),
            (_, level) => level >= ServiceLevel.Repaste),
        new(new("blow", Stage.Clean, "Hold each fan still and blow the dust out, intake meshes and grilles too, outdoors or extracted.",
            "Eye protection and dust mask; regulated air, below 30 psi (29 CFR 1910.242(b), from memory: check the current edition). A free fan over-speeds and generates."),
            (_, level) => level >= ServiceLevel.BlowOut),
        new(new("brush", Stage.Clean, "Brush fins and blades clean down to the metal.", "Fins cut. Dust in the fins costs everything, on the blades little."),
            (_, level) => level >= ServiceLevel.DustOut),
        new(new("fan-swap", Stage.Clean, "Change the fan; the new one the same way round as the old.", "Fans bite: nothing powered while fingers are near."),
            (_, level) => level == ServiceLevel.FanSwap),
        new(new("paste-off", Stage.Joint, "Take the old paste off both faces, first dry, then with alcohol on the cloth. Wait until it is dry.",
            "Alcohol vapour burns: ventilate, no flame or hot surface, gloves. Never pour it; keep it off polycarbonate; dry before power."),
            (_, level) => level >= ServiceLevel.Repaste),
        new(new("pads-on", Stage.Joint, "Cut the new pads to size, same thickness as the gap asks, and take both films off each.",
            "Too thick lifts the cooler off the chip, too thin does not touch."), (_, level) => level == ServiceLevel.Repad),
        new(new("paste-on", Stage.Joint, "Put on new paste, thin, in this model's pattern.",
            "Conductive paste or liquid metal: trained hands only, never near open parts, never on aluminium."), (_, level) => level >= ServiceLevel.Repaste),
        new(new("cooler-on", Stage.Joint, "Set the cooler down once, straight. Tighten a few turns each, crosswise or by the maker's numbers, to snug and no further.",
            "Lifted again means new paste again."), (_, level) => level >= ServiceLevel.Repaste),
        new(new("leads-on", Stage.Close, "Plug every fan lead and connector back and count: as many in as came out.", "A forgotten fan lead costs the job again."),
            (_, level) => level >= ServiceLevel.DustOut),
        new(new("boot-look", Stage.Close, "Power it up before the last screws: display, fans, keys, drives."), (_, level) => level >= ServiceLevel.DustOut),
        new(new("screws-in", Stage.Close, "Close it. Nothing left in the tray?"), (_, level) => level >= ServiceLevel.DustOut),
    ];

    /// <summary>The steps of a level on a kind of machine, in the order of the trade.</summary>
    public static IReadOnlyList<Step> For(AssetKind kind, ServiceLevel level) => [.. Rules.Where(r => r.Applies(kind, level)).Select(r => r.Step)];
}
