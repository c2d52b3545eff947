using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Notices;

/// <summary>What a notice is about.</summary>
public enum NoticeKind
{
    /// <summary>A machine that needs work now.</summary>
    Now,

    /// <summary>A machine that is next.</summary>
    Next,

    /// <summary>Work that is to be done within a week.</summary>
    DueThisWeek,

    /// <summary>Something that happened to many machines at once.</summary>
    GroupEvent,

    /// <summary>A zone whose air is too warm.</summary>
    WarmRoom,

    /// <summary>A machine whose readings have stopped.</summary>
    Silent,

    /// <summary>A job that nobody has touched for long.</summary>
    Forgotten,

    /// <summary>Work for which the shelf does not hold enough.</summary>
    StockShort,
}

/// <summary>Something that is so today and that somebody may want to be told of.</summary>
/// <param name="Key">The same as long as it is the same thing, whatever its numbers.</param>
/// <param name="Says">One sentence.</param>
/// <param name="Tag">The machine that it is about; null for several or none.</param>
/// <param name="Zone">Code of the zone that it is about; null for the whole house.</param>
/// <param name="IsNews">False for what follows from something worse, which is told by itself.</param>
public sealed record Condition(NoticeKind Kind, string Key, Message Says, string? Tag, string? Zone, bool IsNews = true);
