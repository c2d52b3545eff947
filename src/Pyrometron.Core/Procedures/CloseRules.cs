using Pyrometron.Core.Fleet;
using static Pyrometron.Core.Procedures.CardRule;

namespace Pyrometron.Core.Procedures;

/// <summary>Reconnected and counted, looked at before it is closed, and closed.</summary>
internal static class CloseRules
{
    private static bool IsCard(CardBasis c) => c.Kind == AssetKind.GraphicsCard;

    private const string SameWayRound = "Fans and shrouds sit the way round they did";

    public static readonly CardRule[] All =
    [
        new(
            "leads-on",
            Stage.Reconnect,
            c => c.PullsConnectors,
            _ => "Plug every connector back and count: as many in as came out."
        )
        {
            Form = StepForm.ConnectorsIn,
            Gate = c =>
                c.HasBattery
                    ? ["Every fan lead is plugged", "The battery is plugged in, last of all"]
                    : ["Every fan lead is plugged"],
        },
        // A card is whole before it goes back: it is powered in its host, or on a test place.
        new(
            "back-plate-on",
            Stage.Reconnect,
            c => c.HasBackPlate,
            _ => "Put the back plate on: its pads in their places, nothing between."
        ),
        new(
            "screws-in",
            Stage.Reconnect,
            c => IsCard(c) && c.Opens,
            _ => "Close the card: every screw back to where it came from, none left on the tray."
        )
        {
            Form = StepForm.ScrewsIn,
            Gate = _ => [SameWayRound],
        },
        new("card-in", Stage.Reconnect, c => IsCard(c) && c.Opens, CardWords.CardIn)
        {
            Gate = _ =>
                ["The slot's latch has clicked", "Every power plug is in to its latch", "Bracket screw and support hold it"],
        },
        new(
            "loop-refill",
            Stage.Reconnect,
            OpensLoop,
            _ => "Couple the loop again, refill it and bleed it, the pump running by itself and the machine without power."
        )
        {
            Gate = _ => ["It is filled to its mark", "No air is left in it", "The pump runs and the liquid moves"],
            Cautions = _ => [Caution.Loop],
        },
        new(
            "loop-leak-test",
            Stage.Reconnect,
            OpensLoop,
            _ => "Test the loop for leaks without power, for as long as its maker names, paper under every joint."
        )
        {
            Gate = _ => ["The time that its maker names is over", "Every paper is dry"],
        },
        new(
            "boot-look",
            Stage.TestBeforeClosing,
            Opens,
            c =>
                IsCard(c)
                    ? "Power its host up with the side panel still off, and look."
                    : "Power it up before the last screws, and look."
        )
        {
            Gate = c => WorkCard.BootChecks(c),
            Cautions = _ => [Caution.FansBite],
        },
        new("log-clear", Stage.Close, c => c.IsHotSwap, _ => "Clear the fan's error in the machine's log.")
        {
            Gate = _ => ["The log shows no fan error"],
        },
        new(
            "fan-beside",
            Stage.Close,
            c => c.IsHotSwap,
            _ => "Read its speed beside its neighbours': at the same command they turn alike."
        )
        {
            Gate = _ => ["Its speed is that of its neighbours"],
        },
        new(
            "screws-in",
            Stage.Close,
            c => c.Opens && !IsCard(c),
            _ => "Power it down again and close it: every screw back to where it came from, none left on the tray."
        )
        {
            Form = StepForm.ScrewsIn,
            Gate = _ => [SameWayRound],
        },
        new(
            "host-closed",
            Stage.Close,
            c => IsCard(c) && c.Opens,
            _ => "Power the host down again, close its side panel, and bring it and its other cards back into work."
        )
        {
            Gate = _ => ["The host runs again", "Its other cards are seen"],
        },
        new(
            "power-up",
            Stage.Close,
            c => c.Level == ServiceLevel.BlowOut && !c.Wet || c.LooksOnly,
            c => c.LooksOnly ? "Close what was opened, plug it in and power it up." : "Plug it in and power it up."
        )
        {
            Gate = c => WorkCard.BootChecks(c),
        },
        new(
            "wet-later",
            Stage.Close,
            c => c.Wet,
            _ => "Write down for its owner: new paste within a few weeks, and a look at the contacts again then."
        )
        {
            Optional = Always,
        },
    ];
}
