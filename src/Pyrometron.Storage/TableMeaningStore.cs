namespace Pyrometron.Storage;

/// <summary>What somebody has said of headers and words in tables: asked once, and remembered.</summary>
public static class TableMeaningStore
{
    /// <summary>Headers of tables of machines.</summary>
    public const string MachineHeader = "machine-header";

    /// <summary>Words in tables of machines: kinds, models, the order of day and month.</summary>
    public const string MachineWord = "machine-word";

    /// <summary>Headers of sensor logs.</summary>
    public const string LogHeader = "log-header";

    /// <summary>The order of day and month in logs, by header.</summary>
    public const string LogWord = "log-word";

    /// <summary>All meanings of a kind, by text.</summary>
    public static IReadOnlyDictionary<string, string> Of(Database database, string about) =>
        database.Read(connection =>
            connection
                .Query(
                    "SELECT text, meaning FROM table_meaning WHERE about = $about",
                    r => (Text: r.GetString(0), Meaning: r.GetString(1)),
                    ("$about", about)
                )
                .ToDictionary(m => m.Text, m => m.Meaning)
        );

    /// <summary>Remembers meanings; a later one takes the place of an earlier one.</summary>
    public static void Keep(Transaction t, string about, IReadOnlyDictionary<string, string> meanings)
    {
        foreach (var (text, meaning) in meanings)
            t.Connection.Execute(
                "INSERT INTO table_meaning (about, text, meaning) VALUES ($about, $text, $meaning) ON CONFLICT DO UPDATE SET meaning = $meaning",
                ("$about", about),
                ("$text", text),
                ("$meaning", meaning)
            );
    }
}
