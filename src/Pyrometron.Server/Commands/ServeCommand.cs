using System.CommandLine;

namespace Pyrometron.Server.Commands;

/// <summary>Starts the server: the same as without a command, but its options are known, told by --help, and completed.</summary>
internal static class ServeCommand
{
    /// <summary>The command's name.</summary>
    public const string Name = "serve";

    private static readonly Option[] Options =
    [
        new Option<int?>("--port") { Description = "The port that it listens on; by default 5117." },
        new Option<bool?>("--demo") { Description = "Fills a new database with the demo: true or false." },
        new Option<bool?>("--solo")
        {
            Description = "true for one person at this machine, without accounts; false for a house. By default true.",
        },
        new Option<string?>("--listen")
        {
            Description = "The address that it listens on, such as 0.0.0.0 for all networks; by default 127.0.0.1.",
        },
        new Option<string?>("--name") { Description = "Names under which it answers, with commas between them." },
        new Option<string?>("--certificate")
        {
            Description = "The house's own certificate, PEM or PFX; by default one is made here.",
        },
        new Option<string?>("--certificate-key") { Description = "Its key, where it is in a file of its own." },
        new Option<string?>("--proxy") { Description = "Addresses of reverse proxies that speak HTTPS for it." },
        new Option<string?>("--log") { Description = "How the log is written: text, json or journal." },
        new Option<string?>("--contentRoot") { Description = "The folder with wwwroot, the front end." },
    ];

    /// <summary>The command.</summary>
    /// <param name="data">The option that names the folder with the database.</param>
    /// <param name="start">Starts the server with options as they were typed, and ends when it does.</param>
    public static Command Command(Option<string> data, Func<string[], int> start)
    {
        var command = new Command(Name, "Starts the server. Ctrl-C ends it.") { data };
        foreach (var option in Options)
            command.Add(option);
        command.SetAction(parsed => start([.. parsed.Tokens.Skip(1).Select(t => t.Value)]));
        return command;
    }
}
