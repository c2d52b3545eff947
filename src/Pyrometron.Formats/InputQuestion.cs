namespace Pyrometron.Formats;

/// <summary>Something that a table does not say by itself.</summary>
/// <param name="About">The header or the word in question: what an answer names.</param>
/// <param name="Choices">Words that can be answered.</param>
public sealed record InputQuestion(string About, string Ask, IReadOnlyList<string> Choices);
