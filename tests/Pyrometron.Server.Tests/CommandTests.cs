using System.Net;
using System.Net.Sockets;
using System.Text.Json;
using Pyrometron.Server.Commands;
using Pyrometron.Storage;

namespace Pyrometron.Server.Tests;

/// <summary>Commands of whoever runs a house.</summary>
public sealed class CommandTests : IDisposable
{
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("pyrometron-command-");

    public void Dispose() => _folder.Delete(recursive: true);

    private (int Code, string Said) Run(params string[] arguments)
    {
        using var said = new StringWriter();
        return (CommandLine.Run([.. arguments, "--data", _folder.FullName], _ => 0, said, said), said.ToString());
    }

    private void LayDatabase()
    {
        using (Database.Open(Path.Combine(_folder.FullName, "pyrometron.db"))) { }
    }

    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }

    [Fact]
    public void Accounts_are_added_listed_and_let_in_again()
    {
        Assert.Equal(1, Run("user", "list").Code);
        LayDatabase();
        var (code, said) = Run("user", "add", "mira", "--name", "Mira Larkspur", "--role", "administrator");
        Assert.Equal((0, true), (code, said.Contains("/enter#")));
        Assert.Contains("has not come in", Run("user", "list").Said);
        Assert.Equal(1, Run("user", "add", "mira", "--name", "Another").Code);
        Assert.Equal(1, Run("user", "add", "juno", "--name", "Juno", "--role", "captain").Code);
        Assert.Equal(2, Run("user", "add", "juno").Code);
        Assert.Equal((0, true), (Run("user", "reset", "mira").Code, Run("user", "reset", "mira").Said.Contains("/enter#")));
        (code, said) = Run("user", "reset", "nobody");
        Assert.Equal((1, true), (code, said.Contains("There is no account 'nobody'")));
    }

    [Fact]
    public void A_house_that_is_well_is_called_so_once_it_has_a_backup()
    {
        LayDatabase();
        var port = FreePort().ToString(System.Globalization.CultureInfo.InvariantCulture);
        var (code, said) = Run("doctor", "--port", port);
        Assert.Equal(1, code);
        Assert.Contains("the command backup makes one", said);
        // Beside the database only what SQLite lays there for whoever reads it.
        Assert.All(
            Directory.GetFileSystemEntries(_folder.FullName),
            e => Assert.StartsWith("pyrometron.db", Path.GetFileName(e))
        );
        Run("backup");
        (code, said) = Run("doctor", "--port", port, "--json");
        Assert.True(code == 0, said);
        var lines = said.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(
            ["folder", "disk", "database", "port", "certificate", "backups"],
            lines.Select(l => JsonDocument.Parse(l).RootElement.GetProperty("what").GetString())
        );
    }

    [Fact]
    public void What_is_wrong_is_told_with_what_to_do()
    {
        File.WriteAllText(
            Path.Combine(_folder.FullName, "pyrometron.db"),
            "no database at all, but long enough to look like one"
        );
        using var other = new TcpListener(IPAddress.Loopback, 0);
        other.Start();
        var port = ((IPEndPoint)other.LocalEndpoint).Port.ToString(System.Globalization.CultureInfo.InvariantCulture);
        var (code, said) = Run("doctor", "--port", port, "--certificate", Path.Combine(_folder.FullName, "none.pem"));
        Assert.Equal(1, code);
        Assert.Contains("another program listens there", said);
        Assert.Contains("none.pem cannot be used", said);
        Assert.Contains("The database is damaged here", said);
        if (OperatingSystem.IsWindows())
            return;
        Directory.CreateDirectory(
            Path.Combine(_folder.FullName, "keys"),
            UnixFileMode.UserRead | UnixFileMode.UserExecute | UnixFileMode.GroupRead
        );
        Assert.Contains("chmod 700", Run("doctor", "--port", port).Said);
    }

    /// <summary>Stored by a clock that was ahead: what comes now would stand before it.</summary>
    [Fact]
    public void A_clock_that_is_behind_the_house_is_told()
    {
        using (var database = Database.Open(Path.Combine(_folder.FullName, "pyrometron.db")))
            database.Write(Actor.Program, DateTimeOffset.UtcNow.AddDays(2), t => t.Log(new Change("notes", "Written tomorrow")));
        var (code, said) = Run("doctor", "--port", FreePort().ToString(System.Globalization.CultureInfo.InvariantCulture));
        Assert.Equal(1, code);
        Assert.Contains("ahead of this machine's clock", said);
    }
}
