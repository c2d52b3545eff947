using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Pyrometron.Server.Access;
using Pyrometron.Server.Commands;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

if (CommandLine.IsFor(args))
    return CommandLine.Run(args);
try
{
    var builder = WebApplication.CreateBuilder(args);
    builder.AddPyrometron(ServerOptions.From(builder.Configuration));
    var app = builder.Build();
    // Opened before anything listens: a database that cannot be used is one clear line, not a page of errors.
    app.Services.GetRequiredService<Database>();
    app.UsePyrometron();
    // The build starts it without listening, to write down what the API is.
    if (app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>() is { } listening)
        app.Lifetime.ApplicationStarted.Register(() => app.TellWhere(listening.Addresses.First()));
    app.Run();
    return 0;
}
catch (Exception error)
    when (error is InvalidDataException or UnauthorizedAccessException or IOException || StorageFailure.Of(error) is not null)
{
    var port =
        error.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException
            ? " Stop the other program, or name another port with --port."
            : "";
    Console.Error.WriteLine($"Pyrometron cannot start: {StorageFailure.Of(error)?.ToString() ?? error.Message}{port}");
    return 1;
}

/// <summary>The entry point, visible so that tests can host the real server.</summary>
public partial class Program;
