using Pyrometron.Core.Events;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.GroupEvents;

/// <summary>Says what happened to many machines, and what follows for whoever sends somebody.</summary>
public static class EventWords
{
    /// <summary>What all of them show, said once.</summary>
    /// <param name="name">The name of the zone, or the model.</param>
    public static Message Of(GroupEvent e, string name) =>
        Message.Of(
            e.Kind switch
            {
                GroupEventKind.Dust =>
                    "Since {day} dust has come over {zone}: {machines} gained {kelvin} together within four months. They need cleaning; look for what raises it.",
                _ => e.Kelvin > 0
                    ? "Since {day} every part of {model} reads {kelvin} more, on {machines}, wherever they stand: new firmware, most likely. It is taken out."
                    : "Since {day} every part of {model} reads {kelvin} less, on {machines}, wherever they stand: new firmware, most likely. It is taken out.",
            },
            Value.Day("day", UnixDay.DateOf(e.Day)),
            Value.Text(e.Kind == GroupEventKind.Dust ? "zone" : "model", name),
            Value.Counted("machines", e.Members.Count, "machine"),
            Value.Kelvin("kelvin", Math.Abs(e.Kelvin))
        );

    /// <summary>What a member's own page says of it.</summary>
    public static Message OfMember(GroupEvent e) =>
        Message.Of(
            e.Kelvin > 0
                ? "All machines of its model read {kelvin} more since {day}, every part alike: that is no heat, and is taken out."
                : "All machines of its model read {kelvin} less since {day}, every part alike: that is no heat, and is taken out.",
            Value.Kelvin("kelvin", Math.Abs(e.Kelvin)),
            Value.Day("day", UnixDay.DateOf(e.Day))
        );
}
