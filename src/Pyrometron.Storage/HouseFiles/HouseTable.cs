using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage.HouseFiles;

/// <summary>A table of the database as it goes into a house file.</summary>
/// <param name="Columns">Those that go along, in order.</param>
/// <param name="Pictures">Of them those that are bytes: they go as files of their own.</param>
internal sealed record HouseTable(string Name, IReadOnlyList<string> Columns, IReadOnlySet<string> Pictures)
{
    /// <summary>
    /// Who is signed in, and what lets somebody in: of no use elsewhere, and no business of a file that is handed on. Sizes are
    /// those of this disk.
    /// </summary>
    private static readonly HashSet<string> StayHere =
    [
        "session",
        "account_link",
        "sign_in_mistake",
        "api_key",
        "recovery_code",
        "size_of_day",
    ];

    private static readonly HashSet<(string, string)> SecretColumns =
    [
        ("account", "password"),
        ("account", "totp"),
        ("account", "totp_offered"),
        ("account", "totp_step"),
        ("subscription", "webhook_secret"),
    ];

    /// <summary>The numbers that SQLite gives out next; set when all rows are there.</summary>
    public const string Numbers = "sqlite_sequence";

    /// <summary>All that go along.</summary>
    public static IReadOnlyList<HouseTable> All(SqliteConnection connection) =>
        [
            .. connection
                .Query(
                    """
                    SELECT name FROM sqlite_schema
                    WHERE type = 'table' AND (name NOT LIKE 'sqlite\_%' ESCAPE '\' OR name = $numbers)
                    ORDER BY name = $numbers, name
                    """,
                    r => r.GetString(0),
                    ("$numbers", Numbers)
                )
                .Where(name => !StayHere.Contains(name))
                .Select(name => Of(connection, name)),
        ];

    private static HouseTable Of(SqliteConnection connection, string name)
    {
        var columns = connection
            .Query("SELECT name, type FROM pragma_table_info($table)", r => (r.GetString(0), r.GetString(1)), ("$table", name))
            .Where(c => !SecretColumns.Contains((name, c.Item1)))
            .ToArray();
        return new HouseTable(
            name,
            [.. columns.Select(c => c.Item1)],
            columns.Where(c => c.Item2 == "BLOB").Select(c => c.Item1).ToHashSet()
        );
    }

    /// <summary>The columns with commas between them, quoted: one is called like a word of SQL.</summary>
    public string Listed => string.Join(", ", Columns.Select(c => $"\"{c}\""));

    /// <summary>The file of its rows.</summary>
    public string File => $"tables/{Name}.jsonl";

    /// <summary>The file of a picture.</summary>
    /// <param name="key">What tells its row from others.</param>
    public string PictureOf(string column, string key) => $"{Name}s/{key}{(column == "picture" ? "" : "-" + column)}.jpg";
}
