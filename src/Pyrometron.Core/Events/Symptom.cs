using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Events;

/// <summary>What somebody saw or heard a machine do.</summary>
public enum SymptomKind
{
    /// <summary>It hangs or restarts under load.</summary>
    Crash,

    /// <summary>It switches itself off.</summary>
    Shutdown,

    /// <summary>It gets slow under load.</summary>
    Throttling,

    /// <summary>A fan is loud, rattles or grinds.</summary>
    Noise,
}

/// <summary>A report of a symptom. It stands until a service answers it or somebody withdraws it.</summary>
/// <param name="Note">In the reporter's words, or null.</param>
public sealed record Symptom(DateOnly Date, SymptomKind Kind, string? Note)
{
    /// <summary>Those not answered by a service on the same day or later, newest first.</summary>
    public static IReadOnlyList<Symptom> Standing(IEnumerable<Symptom> symptoms, Asset asset, DateOnly asOf)
    {
        // Looking in answers nothing by itself.
        var served = asset
            .Services.Where(s => s.Date <= asOf && s.Level != ServiceLevel.Inspect)
            .Select(s => s.Date)
            .DefaultIfEmpty(DateOnly.MinValue)
            .Max();
        return [.. symptoms.Where(s => s.Date <= asOf && s.Date > served).OrderByDescending(s => s.Date)];
    }
}
