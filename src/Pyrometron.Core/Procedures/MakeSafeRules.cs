using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using static Pyrometron.Core.Procedures.CardRule;

namespace Pyrometron.Core.Procedures;

/// <summary>What comes before a machine is opened: a joint warmed, things laid out, power off and gone.</summary>
internal static class MakeSafeRules
{
    private static bool PowersDown(CardBasis c) => !c.IsHotSwap && !ChangeRules.FromOutside(c);

    public static readonly CardRule[] All =
    [
        new(
            "warm-joint",
            Stage.Prepare,
            c => c.LiftsCooler && !c.Wet,
            _ =>
                "Right after the run, while it is still plugged in: if it has cooled down, run it for 4 to 5 minutes, so that a joint of old paste lets go."
        )
        {
            Timer = _ => new("warm-up of the joint", WorkCard.WarmUpSeconds, Required: false),
            Optional = Always,
        },
        new("prepare", Stage.Prepare, c => c.Opens && !c.Wet || c.IsHotSwap, CardWords.Outfit) { Optional = Always },
        .. ChangeRules.Before,
        new("warranty", Stage.MakeSafe, c => c.Opens && c.UnderWarranty, CardWords.Warranty)
        {
            Gate = _ => ["Local law and its maker's terms allow this", "Its owner agrees"],
        },
        new("owner-told", Stage.MakeSafe, c => !c.Wet && !c.IsHotSwap, CardWords.OwnerTold)
        {
            Gate = c =>
                [
                    .. c.Kind == AssetKind.Laptop || !PowersDown(c) ? (Message[])[] : ["Its work is moved off"],
                    "Its owner knows",
                    .. c.Host is not null && c.HostMates is { Count: > 0 }
                        ? (Message[])["The owners of the other cards in its host know"]
                        : [],
                    .. c.Kind == AssetKind.Laptop && c.Opens ? (Message[])["Its owner says that the data is backed up"] : [],
                ],
        },
        new(
            "power-off",
            Stage.MakeSafe,
            PowersDown,
            c =>
                c.Wet ? "It got wet: switch it off and unplug it at once. Do not start it to see what happens."
                : c.Host is { } host
                    ? Message.Of("Shut its host {host} down, no standby, and unplug everything.", Value.Text("host", host))
                : c.Kind == AssetKind.GraphicsCard ? "Shut its host down, no standby, and unplug everything."
                : "Shut it down, no standby, and unplug everything."
        )
        {
            Gate = c =>
                [
                    c.Kind == AssetKind.GraphicsCard ? "Its host is off, not asleep" : "It is off, not asleep",
                    "Every mains plug is out",
                ],
            Cautions = _ => [Caution.Mains],
        },
        new(
            "drain",
            Stage.MakeSafe,
            c => PowersDown(c) && !c.HasBattery && !c.LooksOnly,
            _ => Message.Of("Hold the power button for {seconds}.", Value.Seconds("seconds", WorkCard.DrainSeconds))
        )
        {
            Timer = _ => new("drain", WorkCard.DrainSeconds, Required: true),
        },
        new(
            "ground",
            Stage.MakeSafe,
            c => c.Opens || c.LooksOnly,
            _ =>
                "Put on the wrist strap or stand on the grounded mat, before the cover comes off; let the cooler cool down to the hand."
        )
        {
            Cautions = _ => [Caution.Static, Caution.Burn],
        },
    ];
}
