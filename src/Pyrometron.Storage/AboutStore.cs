namespace Pyrometron.Storage;

/// <summary>Facts about the database itself.</summary>
public sealed class AboutStore(Database database)
{
    /// <summary>Whether the data is the demo's or the user's own: <c>demo</c> or <c>own</c>.</summary>
    public string Data =>
        database.Read(connection => connection.Scalar("SELECT value FROM about WHERE name = 'data'") as string) ?? "own";

    /// <summary>Says that the data is the demo's.</summary>
    public static void MarkAsDemo(Transaction t) => Set(t, "data", "demo");

    /// <summary>The version up to which stored history has been carried over into the forms of today; 0 for none.</summary>
    internal static int CarriedOver(Transaction t) =>
        t.Connection.Scalar("SELECT value FROM about WHERE name = 'carried-over'") is string text
            ? int.Parse(text, System.Globalization.CultureInfo.InvariantCulture)
            : 0;

    internal static void SetCarriedOver(Transaction t, int version) =>
        Set(t, "carried-over", version.ToString(System.Globalization.CultureInfo.InvariantCulture));

    /// <summary>The day from which on the house is watched for news; null before that.</summary>
    public static DateOnly? WatchedSince(Transaction t) => WatchedSince(t.Connection);

    /// <summary>Begins to watch the house.</summary>
    public static void SetWatchedSince(Transaction t, DateOnly day) => Set(t, "watched-since", Sql.Text(day));

    internal static DateOnly? WatchedSince(Microsoft.Data.Sqlite.SqliteConnection connection) =>
        connection.Query("SELECT value FROM about WHERE name = 'watched-since'", r => (DateOnly?)r.Date(0)).FirstOrDefault();

    private static void Set(Transaction t, string name, string value) =>
        t.Connection.Execute(
            "INSERT INTO about (name, value) VALUES ($name, $value) ON CONFLICT (name) DO UPDATE SET value = excluded.value",
            ("$name", name),
            ("$value", value)
        );
}
