namespace Pyrometron.Storage;

/// <summary>Facts about the database itself.</summary>
public sealed class AboutStore(Database database)
{
    /// <summary>Whether the data is the demo's or the user's own: <c>demo</c> or <c>own</c>.</summary>
    public string Data
    {
        get => database.Read(connection => connection.Scalar("SELECT value FROM about WHERE name = 'data'") as string) ?? "own";
        set =>
            database.Write(connection =>
                connection.Execute(
                    "INSERT INTO about (name, value) VALUES ('data', $value) ON CONFLICT (name) DO UPDATE SET value = excluded.value",
                    ("$value", value)
                )
            );
    }
}
