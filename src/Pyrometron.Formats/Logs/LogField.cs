namespace Pyrometron.Formats.Logs;

/// <summary>What a column of a sensor log can hold besides a part's temperature.</summary>
public enum LogRole
{
    /// <summary>Day and time of day.</summary>
    Time,

    /// <summary>The day alone.</summary>
    Date,

    /// <summary>The time of day alone.</summary>
    ClockTime,

    /// <summary>The tag of the machine, in a log of several.</summary>
    Asset,
    Part,
    Ambient,
    Power,
    Clock,
    Load,
    FanRpm,
    FanPercent,
    Ignore,
}

/// <summary>The unit a column is written in.</summary>
public enum LogUnit
{
    None,
    Celsius,
    Fahrenheit,
    Kelvin,
    Watt,
    Megahertz,
    Gigahertz,
    Rpm,
    Percent,
}

/// <summary>What a column holds.</summary>
/// <param name="Part">The part's name, for a temperature.</param>
public readonly record struct LogField(LogRole Role, string? Part = null)
{
    /// <summary>Left out.</summary>
    public static LogField Ignore { get; } = new(LogRole.Ignore);

    /// <summary>As the API names it: a part's name, or <c>time</c>, <c>asset</c>, <c>fanRpm</c>, <c>ignore</c> …</summary>
    public string Name => Role == LogRole.Part ? Part! : System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(Role.ToString());

    /// <summary>The field of a name; any other word is a part.</summary>
    public static LogField Of(string name) =>
        Enum.GetValues<LogRole>().Cast<LogRole?>().FirstOrDefault(r => r != LogRole.Part && new LogField(r!.Value).Name == name)
            is { } role
            ? new LogField(role)
            : new LogField(LogRole.Part, name);
}

/// <summary>What a column of a log was taken for.</summary>
/// <param name="Guessed">Whether nobody has settled it.</param>
public sealed record LogColumn(string Header, LogField Field, LogUnit Unit, bool Guessed);
