using System.Runtime.CompilerServices;
using Pyrometron.Bench.Messages;

namespace Pyrometron.Bench.Tests;

public sealed class MessagesTests
{
    private static readonly string s_root = Path.GetFullPath(Path.Combine(Here(), "../.."));

    private static readonly Lazy<(IReadOnlyList<Template> Known, IReadOnlyList<string> Unknown)> s_read = new(() =>
        MessageTemplates.Of(s_root)
    );

    /// <summary>The languages of the front end know every sentence of the server as it is written today.</summary>
    [Fact]
    public void TheServersMessagesAreWrittenDown()
    {
        var written = File.ReadAllText(Path.Combine(s_root, MessagesCommand.File));
        Assert.True(
            written == MessagesCommand.Written(s_read.Value.Known),
            $"{MessagesCommand.File} lags behind the sources: run `Pyrometron.Bench messages .`, then `npm run languages` in web."
        );
    }

    /// <summary>
    /// A sentence that is put together before it becomes a message has no key under which a language could find it.
    /// </summary>
    [Fact]
    public void NoSentenceIsMadeOfATextThatNobodyKnowsBefore() => Assert.Equal("", string.Join("\n", s_read.Value.Unknown));

    /// <summary>One of each way in which a text becomes a key.</summary>
    [Theory]
    [InlineData("Still to confirm: {checks}.", "handed over")]
    [InlineData("Every mains plug is out", "a message by itself")]
    [InlineData("It is off, not asleep", "one branch of a choice")]
    [InlineData("{sentence} ({note})", "around another")]
    [InlineData("This job has no step ''{step}''.", "an apostrophe is doubled")]
    [InlineData("; then ", "between the messages of a list")]
    [InlineData("# step", "what is counted")]
    [InlineData("''{0}'' stands here twice", "an interpolated text")]
    [InlineData("graphics-card", "a word of the API")]
    public void EachWayIsFound(string id, string how)
    {
        var file = File.ReadAllText(Path.Combine(s_root, MessagesCommand.File));
        Assert.True(file.Contains($"\"id\": \"{id}\"", StringComparison.Ordinal), how);
    }

    private static string Here([CallerFilePath] string file = "") => Path.GetDirectoryName(file)!;
}
