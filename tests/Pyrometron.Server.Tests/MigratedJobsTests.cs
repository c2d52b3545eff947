using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Pyrometron.Server.Tests;

/// <summary>
/// A database as the version before cards were frozen wrote it (schema 6), with jobs of every state and entries of every kind,
/// and what that version answered about them.
/// </summary>
public sealed class MigratedJobsTests : IDisposable
{
    // Cards were not stored then: an old job's steps read as the rules make them today. One sentence was made plainer since.
    private const string Then = "to its place on the tray, in reverse order of the numbers.",
        Now = "to its place on the tray, the highest number first.";

    private readonly Server _server = new(Lay);

    public void Dispose() => _server.Dispose();

    private static void Lay(string folder)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "pyrometron.db")};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = File.ReadAllText(Server.OfRepository("tests/golden/schema-6/database.sql"));
        command.ExecuteNonQuery();
    }

    [Fact]
    public async Task Jobs_of_every_kind_read_the_same_after_the_migration()
    {
        using var before = JsonDocument.Parse(File.ReadAllText(Server.OfRepository("tests/golden/schema-6/jobs.json")));
        var differing = new List<string>();
        foreach (var job in before.RootElement.EnumerateArray())
        {
            var (status, now) = await _server.Get($"/api/v1/jobs/{job.GetProperty("id").GetInt64()}");
            Assert.Equal(200, status);
            Differences($"job {job.GetProperty("id")}", job, now, differing);
        }
        Assert.Empty(differing);
    }

    /// <summary>Everything that was told before has to be told alike; more may be told.</summary>
    private static void Differences(string at, JsonElement before, JsonElement now, List<string> differing)
    {
        if (before.ValueKind != now.ValueKind)
            differing.Add($"{at}: {before} is now {now}");
        else if (before.ValueKind == JsonValueKind.Object)
            foreach (var member in before.EnumerateObject())
                if (now.TryGetProperty(member.Name, out var value))
                    Differences($"{at}.{member.Name}", member.Value, value, differing);
                else if (member.Value.ValueKind != JsonValueKind.Null)
                    differing.Add($"{at}.{member.Name}: gone");
                else if (before.ValueKind == JsonValueKind.Array)
                {
                    var (a, b) = (before.EnumerateArray().ToArray(), now.EnumerateArray().ToArray());
                    if (a.Length != b.Length)
                        differing.Add($"{at}: {a.Length} are now {b.Length}: {before} / {now}");
                    else
                        for (var i = 0; i < a.Length; i++)
                            Differences($"{at}[{i}]", a[i], b[i], differing);
                }
                else if (before.ToString().Replace(Then, Now, StringComparison.Ordinal) != now.ToString())
                    differing.Add($"{at}: '{before}' is now '{now}'");
    }
}
