using Pyrometron.Server.Hosting;

var builder = WebApplication.CreateBuilder(args);
var options = ServerOptions.From(builder.Configuration);
builder.AddPyrometron(options);
var app = builder.Build();
app.UsePyrometron();
app.Run();

/// <summary>The entry point, visible so that tests can host the real server.</summary>
public partial class Program;
