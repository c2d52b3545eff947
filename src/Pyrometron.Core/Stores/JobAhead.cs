using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Stores;

/// <summary>Why a job is expected.</summary>
public enum AheadBy
{
    /// <summary>It is begun.</summary>
    Bench,

    /// <summary>It has a day in the plan.</summary>
    Plan,

    /// <summary>The judgement advises it.</summary>
    Queue,

    /// <summary>A campaign has it ahead, and no plan yet.</summary>
    Campaign,
}

/// <summary>A job that will take from the shelf.</summary>
/// <param name="Day">The day on which it is done; null where it has none.</param>
/// <param name="DueBy">The day by which it should be done; null for none.</param>
/// <param name="Job">Its number at the bench; null where it is not begun.</param>
public sealed record JobAhead(
    string Asset,
    string Model,
    ServiceLevel Level,
    AheadBy By,
    DateOnly? Day,
    DateOnly? DueBy,
    long? Job,
    IReadOnlyList<Need> Needs
)
{
    /// <summary>The day on which its material has to be there; null where none is known.</summary>
    public DateOnly? NeededOn => Day ?? DueBy;
}
