namespace Pyrometron.Server.Hosting;

/// <summary>How the server was started.</summary>
/// <param name="DataFolder">Where the database lies.</param>
/// <param name="Port">Port on 127.0.0.1.</param>
/// <param name="Demo">Whether a new database is filled with the demo.</param>
public sealed record ServerOptions(string DataFolder, int Port, bool Demo)
{
    /// <summary>Name of the database file in its folder.</summary>
    public const string DatabaseFile = "pyrometron.db";

    /// <summary>Reads <c>--data</c>, <c>--port</c> and <c>--demo</c>.</summary>
    /// <exception cref="InvalidDataException">The port is none.</exception>
    public static ServerOptions From(IConfiguration configuration)
    {
        var demo = bool.TryParse(configuration["demo"], out var wanted) && wanted;
        var port =
            configuration["port"] is not { } text ? 5117
            : int.TryParse(text, out var number) && number is >= 0 and <= 65535 ? number
            : throw new InvalidDataException($"--port {text} is no port; use a number from 1 to 65535.");
        return new ServerOptions(configuration["data"] ?? Path.Combine("data", demo ? "demo" : "own"), port, demo);
    }
}
