using Pyrometron.Core.Messages;

namespace Pyrometron.Formats;

/// <summary>Something that a table does not say by itself.</summary>
/// <param name="About">The header or the word in question: what an answer names.</param>
/// <param name="Ask">The question, in plain English.</param>
/// <param name="Says">The same as template and values.</param>
/// <param name="Choices">Words that can be answered.</param>
public sealed record InputQuestion(string About, string Ask, Message Says, IReadOnlyList<string> Choices)
{
    /// <summary>A question.</summary>
    public static InputQuestion Of(string about, Message says, IReadOnlyList<string> choices) =>
        new(about, says.ToString(), says, choices);
}
