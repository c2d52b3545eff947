using System.Text.Json;
using Pyrometron.Server.Commands;
using Pyrometron.Storage;
using Pyrometron.Storage.Backups;

namespace Pyrometron.Server.Tests;

/// <summary>Backups as a client and as a command see them.</summary>
public sealed class BackupTests
{
    private static async Task<JsonElement> Made(Server server)
    {
        Assert.Equal(202, (await server.Post("/api/v1/backups", new { })).Status);
        for (var i = 0; i < 200; i++, await Task.Delay(50))
        {
            var (_, all) = await server.Get("/api/v1/backups");
            if (!all.GetProperty("busy").GetBoolean())
                return all;
        }
        throw new TimeoutException("The backup takes longer than ten seconds.");
    }

    private static (int Code, string Said) Run(params string[] arguments)
    {
        using var said = new StringWriter();
        return (CommandLine.Run(arguments, _ => 0, said, said), said.ToString());
    }

    [Fact]
    public async Task One_is_made_looked_at_and_asked_for()
    {
        using var server = new Server();
        await server.LoadSmallFleet();
        var all = await Made(server);
        Assert.Equal(JsonValueKind.Null, all.GetProperty("failure").ValueKind);
        var backup = Assert.Single(all.GetProperty("backups").EnumerateArray());
        Assert.Equal(8, backup.GetProperty("contents").GetProperty("machines").GetInt64());
        var restore = $"/api/v1/backups/{backup.GetProperty("name").GetString()}/restore";
        var (status, preview) = await server.Get(restore);
        Assert.Equal((200, false), (status, preview.GetProperty("otherHouse").GetBoolean()));
        Assert.Equal(2880, preview.GetProperty("then").GetProperty("readings").GetInt64());
        Assert.Equal(204, (await server.Post(restore, new { })).Status);
        var (_, asked) = await server.Get("/api/v1/backups");
        Assert.Equal(backup.GetProperty("name").GetString(), asked.GetProperty("restoreNext").GetString());
        var back = new HttpRequestMessage(HttpMethod.Delete, "/api/v1/backups/restore");
        Assert.True((await server.Raw(back)).IsSuccessStatusCode);
        Assert.Equal(404, (await server.Get("/api/v1/backups/pyrometron-1.db/restore")).Status);
        Assert.Equal(404, (await server.Post("/api/v1/backups/..%2Fpyrometron.db/restore", new { })).Status);
    }

    /// <summary>A house whose data changed since its backup; the backup is asked for.</summary>
    private static void Lay(string folder, bool otherHouse)
    {
        var path = Path.Combine(folder, "pyrometron.db");
        var backups = new BackupFolder(Path.Combine(folder, "backups"));
        using (Database.Open(path)) { }
        var backup = backups.Make(path, null, DateTimeOffset.UtcNow, CancellationToken.None);
        if (otherHouse)
            File.Delete(path);
        using (var database = Database.Open(path))
            database.Write(Actor.Program, DateTimeOffset.UtcNow, t => AboutStore.MarkAsDemo(t));
        new Restore(path, backups).AskFor(backup.Name);
    }

    [Theory]
    [InlineData(false, "own")]
    [InlineData(true, "demo")]
    public async Task What_was_asked_for_is_laid_back_at_the_next_start_unless_it_is_of_another_house(bool other, string data)
    {
        using var server = new Server(folder => Lay(folder, other));
        Assert.Equal(data, (await server.Get("/api/v1/health")).Body.GetProperty("data").GetString());
        Assert.Equal(JsonValueKind.Null, (await server.Get("/api/v1/backups")).Body.GetProperty("restoreNext").ValueKind);
    }

    [Fact]
    public void Commands_make_list_verify_and_lay_back()
    {
        var folder = Directory.CreateTempSubdirectory("pyrometron-");
        try
        {
            var path = Path.Combine(folder.FullName, "pyrometron.db");
            string[] At(params string[] more) => [.. more, "--data", folder.FullName];
            Assert.Equal((1, true), (Run(At("backup")).Code, Run(At("backup")).Said.Contains("There is no database")));
            using (Database.Open(path)) { }
            Assert.Contains("no backups yet", Run(At("backups")).Said);
            var (code, said) = Run(At("backup", "--json"));
            Assert.Equal(0, code);
            var name = JsonDocument.Parse(said).RootElement.GetProperty("manifest").GetProperty("file").GetString()!;
            Assert.Contains(name, Run(At("backups")).Said);
            Assert.Equal((0, true), (Run(At("verify")).Code, Run(At("verify")).Said.Contains("as written")));
            Assert.Equal(0, Run(At("restore", name, "--dry-run")).Code);
            Assert.False(Directory.EnumerateFiles(folder.FullName, "*before-restore*").Any());
            Assert.Equal(0, Run(At("restore", name)).Code);
            Assert.True(Directory.EnumerateFiles(folder.FullName, "*before-restore*").Any());
            Assert.Equal(1, Run(At("restore", "pyrometron-none.db")).Code);

            // A byte of the backup turns over: the command says which one, and nothing else is called damaged.
            var file = Path.Combine(folder.FullName, "backups", name);
            var octets = File.ReadAllBytes(file);
            octets[octets.Length / 2] ^= 1;
            File.WriteAllBytes(file, octets);
            (code, said) = Run(At("verify"));
            Assert.Equal(1, code);
            Assert.Contains($"{name} is damaged", said);
            Assert.Contains("pyrometron.db: whole", said);
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    [Theory]
    [InlineData("nonsense")]
    [InlineData("restore")]
    [InlineData("backup", "--what")]
    public void What_is_asked_wrongly_ends_with_2(params string[] arguments) => Assert.Equal(2, Run(arguments).Code);

    [Theory]
    [InlineData(false)]
    [InlineData(false, "--port", "5117")]
    [InlineData(true, "backup")]
    [InlineData(true, "--help")]
    [InlineData(true, "nonsense")]
    public void A_word_is_a_command_and_options_are_the_servers(bool command, params string[] arguments) =>
        Assert.Equal(command, CommandLine.IsFor(arguments));

    [Fact]
    public async Task A_house_at_work_is_not_laid_back_by_a_command()
    {
        using var server = new Server();
        await server.Get("/api/v1/health");
        var backup = (await Made(server)).GetProperty("backups")[0].GetProperty("name").GetString()!;
        var (code, said) = Run("restore", backup, "--data", server.Folder);
        Assert.Equal(1, code);
        Assert.Contains("Another Pyrometron is at work", said);
    }
}
