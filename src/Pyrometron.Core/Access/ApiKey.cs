namespace Pyrometron.Core.Access;

/// <summary>What a program may with its key.</summary>
public enum KeyScope
{
    /// <summary>Send readings and sensor logs, nothing else.</summary>
    Readings,

    /// <summary>Look at what a reader sees, and change nothing.</summary>
    Look,

    /// <summary>Read the calendar, where its address is all that a program of calendars takes.</summary>
    Calendar,
}

/// <summary>A key by which a program comes in: a source of readings, a report, a calendar.</summary>
/// <param name="Name">Of the program; stands in the log beside what it sent.</param>
/// <param name="Begins">How it begins, by which it is told from others; the rest is kept as a hash alone.</param>
/// <param name="Until">When it ends; null for never.</param>
/// <param name="UsedAt">When it was last used, to the hour; null for never.</param>
/// <param name="UsedFrom">From which address.</param>
public sealed record ApiKey(
    long Id,
    string Name,
    KeyScope Scope,
    string Begins,
    DateTimeOffset MadeAt,
    DateTimeOffset? Until,
    DateTimeOffset? UsedAt,
    string? UsedFrom
)
{
    /// <summary>
    /// The program as who acts. What it may is bound to some calls besides: the right to work is there for readings alone.
    /// </summary>
    public Actor Actor =>
        new(ActorKind.Device, Name)
        {
            Rights = new(
                Scope == KeyScope.Readings ? new HashSet<Right> { Right.Look, Right.Work } : new HashSet<Right> { Right.Look },
                []
            ),
        };
}
