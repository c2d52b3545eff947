using Pyrometron.Core.Materials;
using Pyrometron.Core.Stores;
using Pyrometron.Formats;

namespace Pyrometron.Server.Materials;

/// <summary>Paste that a cooler presses flat.</summary>
/// <param name="ChipWidthMm">1 to 100 mm.</param>
/// <param name="ChipHeightMm">1 to 100 mm.</param>
/// <param name="Pattern">How it is laid on; dot where missing.</param>
/// <param name="VolumeMm3">Of the paste, above 0 to 5,000 mm³.</param>
/// <param name="Viscosity">How thick it is; medium where missing.</param>
/// <param name="Newtons">With which the cooler presses on this chip, 1 to 2,000 N; 150 where missing.</param>
/// <param name="LeastMicrometres">The layer below which its grains go no further, 5 to 200 µm; 30 where missing.</param>
/// <param name="Frames">How many pictures, 2 to 60; 40 where missing.</param>
public sealed record SpreadRequest(
    double? ChipWidthMm,
    double? ChipHeightMm,
    PastePattern? Pattern,
    double? VolumeMm3,
    Viscosity? Viscosity,
    double? Newtons,
    double? LeastMicrometres,
    int? Frames
)
{
    private const int UsualFrames = 40,
        MostFrames = 60;

    private const double UsualNewtons = 150,
        UsualLeast = 30;

    /// <summary>Nobody looks on for longer.</summary>
    private const double MostSeconds = 24 * 3600;

    internal IReadOnlyList<InputProblem> Problems()
    {
        var problems = new List<InputProblem>();
        void Within(string name, double? value, double least, double most)
        {
            if (!(value >= least && value <= most))
                problems.Add(new InputProblem($"{name} must be a number from {least} to {most}", Pointer: $"/{name}"));
        }
        Within("chipWidthMm", ChipWidthMm, 1, 100);
        Within("chipHeightMm", ChipHeightMm, 1, 100);
        Within("volumeMm3", VolumeMm3, 0.01, 5_000);
        Within("newtons", Newtons ?? UsualNewtons, 1, 2_000);
        Within("leastMicrometres", LeastMicrometres ?? UsualLeast, 5, 200);
        Within("frames", Frames ?? UsualFrames, 2, MostFrames);
        return problems;
    }

    internal IEnumerable<PasteFrame> Play(CancellationToken cancel) =>
        SqueezeFlow.Frames(
            new PastePressed(
                new PasteSpot(Pattern ?? PastePattern.Dot, ChipWidthMm!.Value, ChipHeightMm!.Value),
                VolumeMm3!.Value,
                PascalSeconds(Viscosity ?? Core.Stores.Viscosity.Medium),
                Newtons ?? UsualNewtons,
                LeastMicrometres ?? UsualLeast
            ),
            Frames ?? UsualFrames,
            MostSeconds,
            cancel
        );

    /// <summary>Viscosity of pastes, Pa·s. Common practice, no source; real pastes thin as they are sheared.</summary>
    private static double PascalSeconds(Viscosity viscosity) =>
        viscosity switch
        {
            Core.Stores.Viscosity.Thin => 50,
            Core.Stores.Viscosity.Medium => 150,
            _ => 400,
        };
}

/// <summary>A picture of paste under the cooler.</summary>
/// <param name="Seconds">Since the cooler touched it.</param>
/// <param name="Coverage">The share of the chip that is covered.</param>
/// <param name="SqueezedOut">The share of the paste that has left the chip.</param>
/// <param name="Fill">
/// Base64 of one byte a cell, 0 empty to 255 full, row by row, of the quarter from the chip's middle to its right and lower edge;
/// the others mirror it.
/// </param>
public sealed record SpreadFrameAnswer(double Seconds, double GapMicrometres, double Coverage, double SqueezedOut, string Fill);

/// <summary>How paste spreads.</summary>
/// <param name="Cells">Cells along each side of the quarter.</param>
public sealed record SpreadAnswer(int Cells, IReadOnlyList<SpreadFrameAnswer> Frames)
{
    internal static SpreadAnswer From(IEnumerable<PasteFrame> frames) =>
        new(
            SqueezeFlow.Half,
            [
                .. frames.Select(f => new SpreadFrameAnswer(
                    f.Seconds,
                    f.GapMicrometres,
                    f.Coverage,
                    f.SqueezedOut,
                    Convert.ToBase64String(f.Fill)
                )),
            ]
        );
}
