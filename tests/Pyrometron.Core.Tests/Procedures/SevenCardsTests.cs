using System.Text;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Tests.Procedures;

/// <summary>
/// Seven cards as a person reads them, in <c>docs/cards.md</c>: whoever changes a rule sees what becomes of them. Order and
/// content are common practice, no source.
/// </summary>
public class SevenCardsTests
{
    private static readonly ModelNotes Nothing = ModelNotes.Empty("Sorrel");

    private static CardBasis Basis(AssetKind kind, ServiceLevel level, ModelNotes? notes = null) =>
        new(kind, level, notes ?? Nothing, BenchSchools.Default, HasPads: kind == AssetKind.GraphicsCard);

    private static readonly (string Title, CardBasis Basis)[] Cards =
    [
        (
            "Laptop, repaste",
            Basis(
                AssetKind.Laptop,
                ServiceLevel.Repaste,
                Nothing with
                {
                    Chip = ChipKind.Bare,
                    Screws =
                    [
                        .. Enumerable
                            .Range(1, 4)
                            .Select(n => new Screw(n, ScrewPlace.Cooler, 100 + n % 2 * 30, 40 + n / 3 * 30, 4, "PH1")),
                    ],
                }
            )
        ),
        (
            "Graphics card in a host, paste and pads",
            Basis(
                AssetKind.GraphicsCard,
                ServiceLevel.Repad,
                Nothing with
                {
                    Chip = ChipKind.Bare,
                    FansStopAtIdle = true,
                    Pads = [new(1, "memory", 40, 20, 14, 12, 1.5), new(2, "memory", 40, 60, 14, 12, 1.5, PadSide.Back)],
                }
            ) with
            {
                Host = "KR-01",
                HostMates = ["GC-0002", "GC-0003"],
            }
        ),
        ("Desktop, dust-out", Basis(AssetKind.Desktop, ServiceLevel.DustOut)),
        (
            "Server, hot-swap fan",
            Basis(
                AssetKind.Server,
                ServiceLevel.FanSwap,
                Nothing with
                {
                    Fans = [new("3", true, HotSwap: true, PartNumber: "F-77")],
                }
            ) with
            {
                Fan = "3",
            }
        ),
        (
            "Graphics card under warranty, its seller agreed, repaste",
            Basis(AssetKind.GraphicsCard, ServiceLevel.Repaste, Nothing with { Chip = ChipKind.Bare }) with
            {
                UnderWarranty = true,
                WarrantyAnswer = "Seller agreed by letter, seals to be renewed.",
            }
        ),
        ("Laptop that got wet", Basis(AssetKind.Laptop, ServiceLevel.Inspect) with { GotWet = true }),
        (
            "Graphics card with a liquid loop, repaste",
            Basis(AssetKind.GraphicsCard, ServiceLevel.Repaste, Nothing with { Chip = ChipKind.Bare, Loop = LoopKind.Opened })
        ),
    ];

    [Fact]
    public void The_seven_cards_read_as_they_are_written_down()
    {
        var text = new StringBuilder(
            "# Seven cards\n\nWritten by the rules of `Procedures`, with the house's default ways. "
                + "Set `WRITE_CARDS=1` and run the tests of the core to write this page anew.\n"
        );
        foreach (var (title, basis) in Cards)
            Write(text, title, basis);
        var path = Path.Combine(Reference.Root, "docs", "cards.md");
        if (Environment.GetEnvironmentVariable("WRITE_CARDS") == "1")
            File.WriteAllText(path, text.ToString());
        Assert.Equal(text.ToString(), File.ReadAllText(path));
    }

    private static void Write(StringBuilder text, string title, CardBasis basis)
    {
        text.Append($"\n## {title}\n");
        Stage? stage = null;
        foreach (var step in WorkCard.For(basis))
        {
            if (step.Stage != stage)
                text.Append($"\n**{Words.Of(step.Stage)}**\n\n");
            stage = step.Stage;
            text.Append($"- {step.Do}{(step.Optional ? " *(may be left out)*" : "")}\n");
            if (step.Timer is { } timer)
                text.Append($"  - Timer: {timer.Name}, {timer.Seconds} s{(timer.Required ? ", has to ring" : "")}\n");
            if (step.Form != StepForm.Tick)
                text.Append($"  - Asks for: {Words.Of(step.Form)}\n");
            foreach (var check in step.Gate)
                text.Append($"  - [ ] {check}\n");
            foreach (var caution in step.Cautions)
                text.Append($"  - Mind: {caution.Text}{(caution.Source is { } source ? $" ({source})" : "")}\n");
        }
    }
}
