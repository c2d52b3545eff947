namespace Pyrometron.Core.Cutting;

/// <summary>The size of a rectangle, in hundredths of a millimetre, so that sums of lengths are exact.</summary>
public readonly record struct Size(int Width, int Height)
{
    /// <summary>Hundredths of a millimetre in one.</summary>
    public const int PerMillimetre = 100;

    /// <summary>Its area, in square hundredths of a millimetre.</summary>
    public long Area => (long)Width * Height;

    /// <summary>The same lying on its other side.</summary>
    public Size Turned => new(Height, Width);

    /// <summary>Whether it lies inside another as it is.</summary>
    public bool Within(Size other) => Width <= other.Width && Height <= other.Height;
}

/// <summary>Sheets of pad in stock that are alike; an off-cut is a sheet like any other.</summary>
/// <param name="Thickness">In hundredths of a millimetre.</param>
/// <param name="Count">How many there are.</param>
public sealed record PadSheet(string Id, Size Size, int Thickness, int Count);

/// <summary>Pieces that are needed and are alike.</summary>
/// <param name="Thickness">In hundredths of a millimetre; a piece is cut from a sheet of just this thickness.</param>
/// <param name="Count">How many are needed.</param>
public sealed record PadPiece(string Name, Size Size, int Thickness, int Count);

/// <summary>Pieces to be cut from sheets, each cut from edge to edge of what it divides, as a knife on a ruler does.</summary>
/// <param name="Kerf">What each cut takes away, in hundredths of a millimetre.</param>
/// <param name="Rotate">Whether a piece may lie on its other side.</param>
public sealed record CuttingProblem(IReadOnlyList<PadSheet> Sheets, IReadOnlyList<PadPiece> Pieces, int Kerf, bool Rotate);

/// <summary>A piece in its place on a sheet.</summary>
/// <param name="Piece">Its place among <see cref="CuttingProblem.Pieces"/>.</param>
/// <param name="X">From the left edge to its left side, in hundredths of a millimetre.</param>
/// <param name="Y">From the upper edge to its upper side.</param>
/// <param name="Size">As it lies.</param>
public readonly record struct PlacedPiece(int Piece, int X, int Y, Size Size);

/// <summary>One sheet and what is cut from it.</summary>
/// <param name="Sheet">Its place among <see cref="CuttingProblem.Sheets"/>.</param>
/// <param name="Index">Which of the sheets that are alike, from 0.</param>
public sealed record CutSheet(int Sheet, int Index, IReadOnlyList<PlacedPiece> Pieces);

/// <summary>Why pieces are not in a plan.</summary>
public enum NotCut
{
    /// <summary>No sheet has their thickness.</summary>
    NoThickness,

    /// <summary>Every sheet of their thickness is too small for them.</summary>
    TooLarge,

    /// <summary>The sheets are used up.</summary>
    UsedUp,
}

/// <summary>Pieces that are not in a plan.</summary>
/// <param name="Piece">Their place among <see cref="CuttingProblem.Pieces"/>.</param>
/// <param name="Count">How many of them.</param>
public readonly record struct LeftPieces(int Piece, int Count, NotCut Why);

/// <summary>Which piece is cut where.</summary>
/// <param name="LowerBound">
/// So many sheets at least: proven by area, by pieces of which no two share a sheet, by the linear relaxation over all ways
/// to cut
/// one sheet, or by trying everything. Of pieces that fit a sheet; where the stock is too small for them, what would be needed.
/// </param>
public sealed record CuttingPlan(IReadOnlyList<CutSheet> Sheets, IReadOnlyList<LeftPieces> Left, int LowerBound);
