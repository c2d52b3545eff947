using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Server.Bench;

/// <summary>A caution at a step.</summary>
/// <param name="Source">The published source of the figure in it, or null for common practice.</param>
/// <param name="Message">The same as template and values.</param>
public sealed record CautionAnswer(string Text, string? Source, Message Message);

/// <summary>A step of a job and how it stands.</summary>
/// <param name="Gate">What must be confirmed; empty for an ordinary step.</param>
/// <param name="ConfirmedOneByOne">Whether each of these is confirmed by itself, never all at once.</param>
/// <param name="Order">Numbers of screws or pads in the order they are dealt with.</param>
/// <param name="Message">What to do, as template and values.</param>
/// <param name="GateMessages">The same as <paramref name="Gate"/>, as templates and values.</param>
public sealed record StepAnswer(
    string Id,
    Stage Stage,
    string Do,
    IReadOnlyList<CautionAnswer> Cautions,
    IReadOnlyList<string> Gate,
    StepForm Form,
    StepTimer? Timer,
    IReadOnlyList<int> Order,
    bool Optional,
    bool MayBeSkipped,
    DateTimeOffset? DoneAt,
    string? DoneBy,
    IReadOnlyList<string> Checks,
    bool Skipped,
    string? SkippedBecause,
    Message Message,
    bool ConfirmedOneByOne,
    IReadOnlyList<Message> GateMessages
)
{
    internal static StepAnswer From(JobStep s) =>
        new(
            s.Card.Id,
            s.Card.Stage,
            s.Card.Do.ToString(),
            [.. s.Card.Cautions.Select(c => new CautionAnswer(c.Text.ToString(), c.Source, c.Text))],
            [.. s.Card.Gate.Select(g => g.ToString())],
            s.Card.Form,
            s.Card.Timer,
            s.Card.Order,
            s.Card.Optional,
            s.Card.MayBeSkipped,
            s.DoneAt,
            s.DoneBy,
            s.Checks,
            s.Skipped,
            s.SkippedBecause,
            s.Card.Do,
            s.Card.ConfirmedOneByOne,
            s.Card.Gate
        );
}
