namespace Pyrometron.Server.Operation;

/// <summary>What the log is written as.</summary>
internal enum LogForm
{
    /// <summary>One line an event, for people at a terminal.</summary>
    Text,

    /// <summary>One JSON object a line, with the trace of each request.</summary>
    Json,

    /// <summary>Lines that a systemd journal knows the priority of.</summary>
    Journal,
}

/// <summary>The log of the program, on standard output.</summary>
internal static class Logs
{
    /// <summary>Writes it as <c>--log</c> says; without it as a journal where one listens, else as text.</summary>
    /// <exception cref="InvalidDataException">It is no form.</exception>
    public static void Configure(ILoggingBuilder logging, IConfiguration configuration)
    {
        logging.Configure(options => options.ActivityTrackingOptions = ActivityTrackingOptions.TraceId);
        switch (FormOf(configuration["log"], configuration["JOURNAL_STREAM"] is not null))
        {
            case LogForm.Json:
                logging.AddJsonConsole(json =>
                {
                    json.IncludeScopes = true;
                    json.UseUtcTimestamp = true;
                    json.TimestampFormat = "yyyy-MM-dd'T'HH:mm:ss.fff'Z'";
                });
                break;
            case LogForm.Journal:
                logging.AddSystemdConsole();
                break;
            default:
                logging.AddSimpleConsole(console =>
                {
                    console.SingleLine = true;
                    console.TimestampFormat = "HH:mm:ss ";
                });
                break;
        }
    }

    /// <summary>
    /// Where is written what is meant for people at a terminal alone: not between the objects of a log in JSON, which programs
    /// read. A link that works once belongs into no log.
    /// </summary>
    public static TextWriter ConsoleFor(IConfiguration configuration) =>
        FormOf(configuration["log"], journal: false) == LogForm.Json ? Console.Error : Console.Out;

    /// <summary>The form that is asked for.</summary>
    internal static LogForm FormOf(string? said, bool journal) =>
        said switch
        {
            null => journal ? LogForm.Journal : LogForm.Text,
            "text" => LogForm.Text,
            "json" => LogForm.Json,
            "journal" => LogForm.Journal,
            _ => throw new InvalidDataException($"--log {said} is no form of a log; use text, json or journal."),
        };
}
