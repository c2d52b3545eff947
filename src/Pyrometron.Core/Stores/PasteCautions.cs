using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Stores;

/// <summary>Where a paste is to be used.</summary>
/// <param name="OpenPartsBeside">Whether contacts lie open beside the chip, as they do beside a bare one.</param>
/// <param name="Aluminium">Whether the cooler's plate, or the lid, is of aluminium; null where nobody knows.</param>
/// <param name="TimesRedone">How often this machine got new paste in three years.</param>
public sealed record PasteUse(bool OpenPartsBeside, bool? Aluminium, int TimesRedone);

/// <summary>What is to be minded of a paste at a place.</summary>
/// <param name="Forbids">Whether it must not be used there.</param>
public sealed record PasteCaution(bool Forbids, Message Says);

/// <summary>Cautions for pastes. Common practice, no source; what the paste's maker says comes first.</summary>
public static class PasteCautions
{
    /// <summary>Redone so often within three years, a machine wears from a paste that scratches.</summary>
    private const int Often = 3;

    /// <summary>What is to be minded, what forbids it first.</summary>
    public static IReadOnlyList<PasteCaution> Of(ProductFacts paste, PasteUse use) =>
        [.. All(paste, use).OrderByDescending(c => c.Forbids)];

    private static IEnumerable<PasteCaution> All(ProductFacts paste, PasteUse use)
    {
        var conducts = paste.Nature is PasteNature.Conducting or PasteNature.LiquidMetal;
        if (conducts && use.OpenPartsBeside)
            yield return new(
                true,
                "It conducts, and contacts lie open beside the chip: what squeezes out shorts them. Take another paste."
            );
        else if (conducts)
            yield return new(false, "It conducts: nothing of it may get beside the lid. Trained hands only.");
        if (paste.Nature == PasteNature.Capacitive && use.OpenPartsBeside)
            yield return new(false, "It holds charge: wipe off all that squeezes out beside the chip.");
        if (paste.Nature == PasteNature.LiquidMetal || paste.NotOnAluminium)
            yield return use.Aluminium switch
            {
                true => new(true, "It eats aluminium, and the plate is of aluminium. Take another paste."),
                null => new(false, "It eats aluminium: make sure that neither plate nor lid is of aluminium."),
                _ => new(false, "It eats aluminium: keep it off fins and frame."),
            };
        if (paste.Abrasive && use.TimesRedone >= Often)
            yield return new(
                true,
                Message.Of(
                    "It scratches chip and plate each time, and this machine got new paste {times} times in three years. Take another paste.",
                    Value.Count("times", use.TimesRedone)
                )
            );
        else if (paste.Abrasive)
            yield return new(false, "It scratches: do not rub it in, and not on a mirror finish.");
        if (paste.NeedsWarming)
            yield return new(false, "It is stiff when cold: warm the closed tube in warm water first.");
    }
}
