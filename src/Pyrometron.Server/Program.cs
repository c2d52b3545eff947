using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Pyrometron.Server.Access;
using Pyrometron.Server.Commands;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

return CommandLine.IsFor(args) ? CommandLine.Run(args, Serve) : Serve(args);

static int Serve(string[] options)
{
    try
    {
        var builder = WebApplication.CreateBuilder(options);
        builder.AddPyrometron(ServerOptions.From(builder.Configuration));
        var app = builder.Build();
        // Opened before anything listens: a database that cannot be used is one clear line, not a page of errors.
        app.Services.GetRequiredService<Database>();
        app.UsePyrometron();
        var listening = app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>();
        app.Lifetime.ApplicationStarted.Register(() =>
        {
            // The build, and tests, start it without listening.
            if (listening?.Addresses.FirstOrDefault() is { } address)
                app.TellWhere(address);
        });
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
}

/// <summary>The entry point, visible so that tests can host the real server.</summary>
public partial class Program;
