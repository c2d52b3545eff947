using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Pyrometron.Server.Tests;

/// <summary>What is damaged of one machine is that machine's row, and everybody else is judged.</summary>
public sealed class DamagedDataTests
{
    private const string Damage = "It cannot be judged";

    /// <summary>A server on a small fleet in whose database something of GC-2 was changed by hand.</summary>
    private static async Task<Server> WithDamage(string sql)
    {
        using var whole = new Server();
        await whole.LoadSmallFleet();
        await whole.Post("/api/v1/assets/GC-2/services", new { date = "2026-01-10", level = "dust-out" });
        var job = (await whole.Post("/api/v1/jobs", new { asset = "GC-2", level = "dust-out" })).Body;
        Assert.Equal(JsonValueKind.Number, job.GetProperty("id").ValueKind);
        return new Server(folder =>
        {
            foreach (var file in Directory.EnumerateFiles(whole.Folder, "pyrometron.db*"))
                File.Copy(file, Path.Combine(folder, Path.GetFileName(file)));
            using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "pyrometron.db")};Pooling=False");
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA ignore_check_constraints = 1; " + sql;
            Assert.True(command.ExecuteNonQuery() > 0, "nothing was damaged");
        });
    }

    [Theory]
    [InlineData("UPDATE asset SET in_service_since = '9999-12-31' WHERE tag = 'GC-2'")]
    [InlineData("UPDATE asset SET in_service_since = '0001-01-01' WHERE tag = 'GC-2'")]
    [InlineData("UPDATE asset SET warranty_until = '9999-12-31' WHERE tag = 'GC-2'")]
    [InlineData("UPDATE asset SET warranty_until = 'soon' WHERE tag = 'GC-2'")]
    [InlineData("UPDATE asset SET kind = 'toaster' WHERE tag = 'GC-2'")]
    [InlineData("UPDATE part SET joint = 'glue' WHERE name = 'core' AND asset_id = (SELECT id FROM asset WHERE tag = 'GC-2')")]
    [InlineData("UPDATE service SET date = '9999-12-31' WHERE asset_id = (SELECT id FROM asset WHERE tag = 'GC-2')")]
    [InlineData("UPDATE service SET level = 'hammer' WHERE asset_id = (SELECT id FROM asset WHERE tag = 'GC-2')")]
    [InlineData("UPDATE job SET history = '{', history_form = 1 WHERE asset_id = (SELECT id FROM asset WHERE tag = 'GC-2')")]
    [InlineData("UPDATE job SET verdict = '{' WHERE asset_id = (SELECT id FROM asset WHERE tag = 'GC-2')")]
    public async Task One_machines_damage_stops_nobody_else(string sql)
    {
        using var server = await WithDamage(sql);
        var (status, queue) = await server.Get("/api/v1/queue?limit=all&wait=60");
        Assert.Equal((200, 8), (status, queue.GetProperty("items").GetArrayLength()));
        foreach (var item in queue.GetProperty("items").EnumerateArray())
            Assert.True(
                item.GetProperty("asset").GetString() == "GC-2"
                    || !item.GetProperty("reason").GetString()!.Contains(Damage, StringComparison.Ordinal)
            );
        Assert.NotEqual("unknown", queue.GetProperty("items")[0].GetProperty("urgency").GetString());
        Assert.Equal(200, (await server.Get("/api/v1/assets/GC-1/assessment?wait=60")).Status);
        Assert.Equal(200, (await server.Get("/api/v1/zones?wait=60")).Status);
        Assert.Equal(200, (await server.Get("/api/v1/fleet")).Status);
        Assert.True((await server.Get("/api/v1/assets/GC-2/assessment?wait=60")).Status < 500);
    }

    [Fact]
    public async Task What_cannot_be_read_of_a_machine_is_told_in_its_row()
    {
        using var server = await WithDamage(
            "UPDATE service SET level = 'hammer' WHERE asset_id = (SELECT id FROM asset WHERE tag = 'GC-2')"
        );
        var queue = (await server.Get("/api/v1/queue?limit=all&wait=60")).Body;
        var row = queue.GetProperty("items").EnumerateArray().Single(i => i.GetProperty("asset").GetString() == "GC-2");
        Assert.Equal("unknown", row.GetProperty("urgency").GetString());
        Assert.StartsWith(Damage, row.GetProperty("reason").GetString(), StringComparison.Ordinal);
    }
}
