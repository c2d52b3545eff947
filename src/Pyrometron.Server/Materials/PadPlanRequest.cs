using Pyrometron.Core.Cutting;
using Pyrometron.Server.Hosting;

namespace Pyrometron.Server.Materials;

/// <summary>Pads to be cut from sheets in stock. Lengths are in millimetres, in steps of 0.01 mm.</summary>
/// <param name="Sheets">What is in stock; an off-cut is a sheet of which there is one.</param>
/// <param name="Pieces">What is needed; a piece is cut from a sheet of just its thickness.</param>
/// <param name="KerfMm">What each cut takes away; 0 where it is missing.</param>
/// <param name="Rotate">Whether a piece may be turned by 90°; true where it is missing.</param>
public sealed record PadPlanRequest(
    IReadOnlyList<PadSheetDto?>? Sheets,
    IReadOnlyList<PadPieceDto?>? Pieces,
    double? KerfMm,
    bool? Rotate
);

/// <summary>Sheets that are alike.</summary>
/// <param name="Id">By which the plan names them.</param>
/// <param name="Count">How many there are.</param>
public sealed record PadSheetDto(string? Id, double? WidthMm, double? HeightMm, double? ThicknessMm, int? Count);

/// <summary>Pieces that are alike.</summary>
/// <param name="Name">By which the plan names them.</param>
/// <param name="Count">How many are needed.</param>
public sealed record PadPieceDto(string? Name, double? WidthMm, double? HeightMm, double? ThicknessMm, int? Count);

/// <summary>Makes a cutting problem of what was sent, and says of all that is wrong where and what.</summary>
internal sealed class PadPlanReader(PadPlanRequest request) : RequestReader
{
    private const int MostSheets = 60,
        MostPieces = 200,
        MostOfASheet = 10_000,
        MostInAll = 2_000;

    private const double LongestMm = 2_000,
        ThickestMm = 50;

    /// <summary>The problem; null where anything is wrong with it.</summary>
    public CuttingProblem? Read()
    {
        var names = new HashSet<string>();
        var sheets = All(
            "/sheets",
            request.Sheets,
            MostSheets,
            (dto, at) =>
            {
                if (dto.Id is not null && !names.Add(dto.Id))
                    Wrong($"{at}/id", $"'{dto.Id}' stands here twice", 0);
                return new PadSheet(
                    Name($"{at}/id", dto.Id),
                    new(Length($"{at}/widthMm", dto.WidthMm, LongestMm), Length($"{at}/heightMm", dto.HeightMm, LongestMm)),
                    Length($"{at}/thicknessMm", dto.ThicknessMm, ThickestMm),
                    Within($"{at}/count", dto.Count, 0, MostOfASheet)
                );
            }
        );
        var pieces = All(
            "/pieces",
            request.Pieces,
            MostPieces,
            (dto, at) =>
                new PadPiece(
                    Name($"{at}/name", dto.Name),
                    new(Length($"{at}/widthMm", dto.WidthMm, LongestMm), Length($"{at}/heightMm", dto.HeightMm, LongestMm)),
                    Length($"{at}/thicknessMm", dto.ThicknessMm, ThickestMm),
                    Within($"{at}/count", dto.Count, 0, MostInAll)
                )
        );
        if (pieces.Sum(p => (long)p.Count) > MostInAll)
            Wrong("/pieces", $"pieces may be {MostInAll} in all: plan them in parts", 0);
        var kerf = request.KerfMm is null or 0 ? 0 : Length("/kerfMm", request.KerfMm, ThickestMm);
        return Problems.Count == 0 ? new CuttingProblem(sheets, pieces, kerf, request.Rotate ?? true) : null;
    }

    /// <summary>A length in hundredths of a millimetre.</summary>
    private int Length(string at, double? sent, double most)
    {
        var hundredths = (sent ?? 0) * Size.PerMillimetre;
        return sent <= most && hundredths >= 1 && Math.Abs(hundredths - Math.Round(hundredths)) < 1e-6
            ? (int)Math.Round(hundredths)
            : Wrong(at, $"{Member(at)} must lie above 0 and up to {most} mm, in steps of 0.01 mm", 1);
    }
}
