using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Procedures;

/// <summary>One step and when it belongs to a card.</summary>
internal sealed record CardRule(string Id, Stage Stage, Func<CardBasis, bool> When, Func<CardBasis, Message> Do)
{
    public Func<CardBasis, IReadOnlyList<Caution>> Cautions { get; init; } = _ => [];

    public Func<CardBasis, IReadOnlyList<Message>> Gate { get; init; } = _ => [];

    public StepForm Form { get; init; }

    public Func<CardBasis, StepTimer?> Timer { get; init; } = _ => null;

    public Func<CardBasis, IReadOnlyList<int>> Order { get; init; } = _ => [];

    public Func<CardBasis, bool> Optional { get; init; } = _ => false;

    public static bool Always(CardBasis _) => true;

    public static bool Opens(CardBasis c) => c.Opens;

    public static bool Lifts(CardBasis c) => c.LiftsCooler;

    public static bool OpensLoop(CardBasis c) => c.LiftsCooler && c.Loop == LoopKind.Opened;

    /// <summary>The step on a card.</summary>
    public CardStep On(CardBasis c) => new(Id, Stage, Do(c), Cautions(c), Gate(c), Form, Timer(c), Order(c), Optional(c));
}
