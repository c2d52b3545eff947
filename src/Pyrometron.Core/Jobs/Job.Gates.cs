using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Jobs;

// What is still missing before work may begin, and before it can be filed.
public sealed partial class Job
{
    /// <summary>
    /// Why work may not begin yet, or null: no before-run, no proof. A look needs none, and a wet machine is not run.
    /// </summary>
    public Message? BlockedBefore =>
        Level != ServiceLevel.Inspect && !Basis.Wet && Standing(RunPhase.Before) is null && BeforeExcuse is null
            ? "Measure before opening, or write down why not."
            : Unagreed;

    /// <summary>
    /// What the owner has not agreed to yet, where machines belong to others and it is opened; null where nothing is missing.
    /// </summary>
    public Message? Unagreed =>
        Basis.Schools.OthersMachines != true || !Basis.Opens ? null
        : Order is null ? "It belongs to somebody else: write down what was agreed before it is opened."
        : Order.MayOpen != true ? "Its owner has not agreed to its being opened."
        : null;

    /// <summary>Why the work cannot be filed as done, or null.</summary>
    public Message? BlockedFinish =>
        State != JobState.Open
            ? NotOpen
            : BlockedBefore
                ?? (
                    Steps.FirstOrDefault(s => s.IsOpen && !s.Card.Optional) is { } open
                        ? Message.Of("Still to do: {step}", Value.List("step", "", [open.Card.Do]))
                        : OpenCount(CountOf.Screws) ?? OpenCount(CountOf.Connectors)
                );

    private const string NotOpen = "This job is not open any more.";
}
