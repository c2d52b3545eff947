using Pyrometron.Core.Messages;

namespace Pyrometron.Formats;

/// <summary>One thing wrong with an input: where, and what to do about it.</summary>
/// <param name="Says">What, and what to do.</param>
/// <param name="Line">1-based line of a text file (the header is line 1), or null.</param>
/// <param name="Column">Column name of a CSV file, or null.</param>
/// <param name="Pointer">JSON Pointer (RFC 6901) into a document, or null.</param>
public sealed record InputProblem(Message Says, int? Line = null, string? Column = null, string? Pointer = null);

/// <summary>An input that is refused whole: nothing of it was taken.</summary>
public sealed class RefusedInputException : Exception
{
    /// <summary>Refuses with one problem.</summary>
    public RefusedInputException(InputProblem problem)
        : this([problem]) { }

    /// <summary>Refuses with several problems, at least one.</summary>
    public RefusedInputException(IReadOnlyList<InputProblem> problems)
        : base(problems[0].Says.ToString()) => Problems = problems;

    /// <summary>What is wrong, in the order of the input.</summary>
    public IReadOnlyList<InputProblem> Problems { get; }

    /// <summary>How it could be taken all the same, where somebody says so; null where nothing comes to mind.</summary>
    public InputQuestion? Question { get; init; }
}
