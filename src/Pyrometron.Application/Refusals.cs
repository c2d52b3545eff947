using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;

namespace Pyrometron.Application;

/// <summary>What a use case is about is not there.</summary>
public sealed class NotThereException(Message what) : Exception(what.ToString())
{
    /// <summary>What is missing.</summary>
    public Message Says { get; } = what;
}

/// <summary>A use case cannot be done as things stand.</summary>
/// <param name="why">What stands in the way, and what to do.</param>
/// <param name="rule">A word for programs where a rule of the house forbids it; else null.</param>
public sealed class NotPossibleException(Message why, string? rule = null) : Exception(why.ToString())
{
    /// <summary>Why.</summary>
    public Message Says { get; } = why;

    /// <summary>The rule that forbids it, or null.</summary>
    public string? Rule { get; } = rule;
}

/// <summary>An entry was made without having seen another device's entry about the same thing.</summary>
/// <param name="theirs">What the other devices wrote since, with what it says.</param>
public sealed class ConflictingEntryException(IReadOnlyList<(StampedEntry Entry, Message Says)> theirs)
    : Exception("Somebody else has changed the same thing meanwhile.")
{
    /// <summary>The entries that had not been seen.</summary>
    public IReadOnlyList<(StampedEntry Entry, Message Says)> Theirs { get; } = theirs;
}

/// <summary>Storage failed in the middle of a file: what was stored before stays.</summary>
/// <param name="kept">Lines that are kept.</param>
/// <param name="cause">What failed.</param>
public sealed class ImportBrokenOffException(long kept, Exception cause) : Exception(cause.Message, cause)
{
    /// <summary>Lines that are kept.</summary>
    public long Kept { get; } = kept;
}
