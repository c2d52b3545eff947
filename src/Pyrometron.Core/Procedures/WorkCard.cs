using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Procedures;

/// <summary>
/// Work cards made by rules, in the order of the trade. A rule is one step and when it belongs to a card; a lifted cooler
/// always brings new paste.
/// </summary>
public static class WorkCard
{
    /// <summary>The power button is held so long to drain what is left (common practice, no source).</summary>
    public const int DrainSeconds = 15;

    /// <summary>A cold joint lets go after it has run so long (common practice, no source).</summary>
    public const int WarmUpSeconds = 270;

    /// <summary>Paste remover soaks so long (30–60 s; common practice, no source).</summary>
    public const int SoakSeconds = 45;

    private static readonly CardRule[] Rules = [.. MakeSafeRules.All, .. OpenRules.All, .. CleanRules.All, .. CloseRules.All];

    /// <summary>The steps of a card.</summary>
    public static IReadOnlyList<CardStep> For(CardBasis basis) => [.. Rules.Where(r => r.When(basis)).Select(r => r.On(basis))];

    /// <summary>What is seen when a machine is powered up.</summary>
    internal static IReadOnlyList<Message> BootChecks(CardBasis c) =>
        c.Loop is LoopKind.Closed or LoopKind.Opened ? [.. OfKind(c), "The pump runs"] : OfKind(c);

    private static IReadOnlyList<Message> OfKind(CardBasis c) =>
        c.Kind switch
        {
            AssetKind.Laptop => ["Display", "Fans turn", "Keys and pad", "Drives seen"],
            AssetKind.Desktop => ["Display", "Fans turn", "Drives seen"],
            AssetKind.Server => ["Fans turn", "Drives seen", "Network link"],
            _ =>
            [
                "The card is seen by its host",
                c.Notes.FansStopAtIdle == false
                    ? "Every fan turns"
                    : "Every fan turns, under load or forced: some stand still at idle",
                "Display or link",
            ],
        };
}
