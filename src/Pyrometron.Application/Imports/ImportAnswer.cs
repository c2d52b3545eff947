using Pyrometron.Core.Messages;
using Pyrometron.Formats;

namespace Pyrometron.Application.Imports;

/// <summary>A line that was not taken.</summary>
/// <param name="Message">Why, in plain English.</param>
/// <param name="Says">The same as template and values.</param>
public sealed record RefusedLine(int Line, string? Column, string Message, Message Says)
{
    internal static RefusedLine Of(int line, string? column, Message says) => new(line, column, says.ToString(), says);

    /// <summary>A problem of a text file as a line of it that was not taken.</summary>
    public static RefusedLine Of(InputProblem problem) => Of(problem.Line ?? 1, problem.Column, problem.Says);
}

/// <summary>What became of a readings or services file.</summary>
/// <param name="RejectedCount">
/// All refused lines; <paramref name="Rejected"/> lists the first hundred, or as many as <c>listed</c> asks for.
/// </param>
public sealed record ImportAnswer(
    long Accepted,
    long Duplicates,
    long RejectedCount,
    IReadOnlyList<RefusedLine> Rejected,
    IReadOnlyList<string> Warnings,
    IReadOnlyList<Message> WarningMessages
);
