using System.Runtime.CompilerServices;

namespace Pyrometron.Bench.Tests;

public sealed class MessagesTests
{
    private static readonly string s_root = Path.GetFullPath(Path.Combine(Here(), "../.."));

    /// <summary>The languages of the front end know every sentence of the server as it is written today.</summary>
    [Fact]
    public void TheServersMessagesAreWrittenDown()
    {
        var written = File.ReadAllText(Path.Combine(s_root, MessagesCommand.File));
        Assert.True(
            written == MessagesCommand.Written(s_root),
            $"{MessagesCommand.File} lags behind the sources: run `Pyrometron.Bench messages .`, then `npm run languages` in web."
        );
    }

    /// <summary>One of each way in which a text becomes a key.</summary>
    [Theory]
    [InlineData("Still to confirm: {checks}.", "handed over")]
    [InlineData("Every mains plug is out", "a message by itself")]
    [InlineData("It is off, not asleep", "one branch of a choice")]
    [InlineData("{sentence} ({note})", "around another")]
    [InlineData("This job has no step ''{step}''.", "an apostrophe is doubled")]
    [InlineData("; then ", "between the messages of a list")]
    [InlineData("# step", "what is counted")]
    [InlineData("graphics-card", "a word of the API")]
    public void EachWayIsFound(string id, string how)
    {
        var file = File.ReadAllText(Path.Combine(s_root, MessagesCommand.File));
        Assert.True(file.Contains($"\"id\": \"{id}\"", StringComparison.Ordinal), how);
    }

    private static string Here([CallerFilePath] string file = "") => Path.GetDirectoryName(file)!;
}
