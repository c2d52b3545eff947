namespace Pyrometron.Application.Imports;

/// <summary>A line that was not taken.</summary>
public sealed record RefusedLine(int Line, string? Column, string Message);

/// <summary>What became of a readings or services file.</summary>
/// <param name="RejectedCount">
/// All refused lines; <paramref name="Rejected"/> lists the first hundred, or as many as <c>listed</c> asks for.
/// </param>
public sealed record ImportAnswer(
    long Accepted,
    long Duplicates,
    long RejectedCount,
    IReadOnlyList<RefusedLine> Rejected,
    IReadOnlyList<string> Warnings
);
