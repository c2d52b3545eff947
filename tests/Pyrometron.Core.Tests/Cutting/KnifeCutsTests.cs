using CsCheck;
using Pyrometron.Core.Cutting;
using Size = Pyrometron.Core.Cutting.Size;

namespace Pyrometron.Core.Tests.Cutting;

/// <summary>The order of cuts against a knife that knows nothing of how they were found.</summary>
public sealed class KnifeCutsTests
{
    private static readonly Size Sheet = new(12_000, 8_500);

    [Fact]
    public void One_piece_takes_two_cuts_and_leaves_two_offcuts()
    {
        var order = KnifeCuts.Of(Sheet, 0, [new PlacedPiece(0, 0, 0, new(5_000, 3_000))], 1_000);
        Assert.Equal(2, order.Cuts.Count);
        Assert.Equal(2, order.OffCuts.Count);
        // The larger part is set free first: 70 × 85 beside it, not 120 × 55 below.
        Assert.Equal(new KnifeCut(0, 3_000, 12_000, 3_000), order.Cuts[0]);
        Assert.Equal(Sheet.Area - (5_000L * 3_000), order.OffCuts.Sum(o => o.Size.Area));
    }

    [Fact]
    public void A_piece_as_large_as_its_sheet_needs_no_cut()
    {
        var order = KnifeCuts.Of(Sheet, 50, [new PlacedPiece(0, 0, 0, Sheet)], 1_000);
        Assert.Empty(order.Cuts);
        Assert.Empty(order.OffCuts);
    }

    /// <summary>A strip thinner than the knife's cut goes with it.</summary>
    [Fact]
    public void A_sliver_is_trimmed()
    {
        var order = KnifeCuts.Of(new(1_000, 1_000), 50, [new PlacedPiece(0, 0, 0, new(980, 1_000))], 500);
        Assert.Equal(new KnifeCut(980, 0, 980, 1_000), Assert.Single(order.Cuts));
        Assert.Empty(order.OffCuts);
    }

    /// <summary>Four pieces around a middle, as in case 12.3 of the reference sheet: no cut passes from edge to edge.</summary>
    [Fact]
    public void A_pinwheel_cannot_be_cut()
    {
        PlacedPiece[] pinwheel =
        [
            new(0, 0, 0, new(3_000, 2_000)),
            new(0, 3_000, 0, new(2_000, 3_000)),
            new(0, 2_000, 3_000, new(3_000, 2_000)),
            new(0, 0, 2_000, new(2_000, 3_000)),
        ];
        Assert.Throws<ArgumentException>(() => KnifeCuts.Of(new(5_000, 5_000), 0, pinwheel, 1_000));
    }

    /// <summary>
    /// Two pieces whose left edges lie half a cut apart: set free together, the second would keep a strip that no knife takes
    /// off. Each is set free by itself.
    /// </summary>
    [Fact]
    public void No_strip_is_left_that_is_thinner_than_the_cut()
    {
        PlacedPiece[] pieces = [new(0, 5_000, 0, new(7_000, 4_000)), new(0, 5_050, 4_100, new(6_950, 4_400))];
        var order = KnifeCuts.Of(Sheet, 100, pieces, 1_000);
        Assert.Equal(new KnifeCut(0, 4_000, 12_000, 4_000), order.Cuts[0]);
        Check(pieces, 100);
    }

    /// <summary>Off-cuts that are too narrow are waste.</summary>
    [Fact]
    public void Narrow_rests_are_not_kept()
    {
        var order = KnifeCuts.Of(new(5_000, 5_000), 0, [new PlacedPiece(0, 0, 0, new(4_500, 5_000))], 1_000);
        Assert.Empty(order.OffCuts);
    }

    /// <summary>
    /// Every plan of the planner can be cut: each cut crosses what the cuts before left whole, pieces come out as they were
    /// placed,
    /// off-cuts hold no piece, nothing overlaps, and pieces, off-cuts and cuts never take more than the sheet.
    /// </summary>
    [Fact]
    public void Whatever_is_planned_can_be_cut()
    {
        var cutter = new GreedyCutter();
        Gen.Select(Gen.Int[0, 2], Gen.Int[1, 5], Gen.Int[1, 100_000])
            .Sample(
                (kerf, kinds, seed) =>
                {
                    var random = new Random(seed);
                    PadPiece[] pieces =
                    [
                        .. Enumerable
                            .Range(0, kinds)
                            .Select(i => new PadPiece(
                                $"p{i}",
                                new(random.Next(500, 5_000), random.Next(500, 4_000)),
                                100,
                                random.Next(1, 6)
                            )),
                    ];
                    var problem = new CuttingProblem([new("s", Sheet, 100, 9)], pieces, kerf * 50, Rotate: true);
                    foreach (var sheet in cutter.Cut(problem, CancellationToken.None).Sheets)
                        Check(sheet.Pieces, problem.Kerf);
                },
                iter: 60,
                threads: 1
            );
    }

    private static void Check(IReadOnlyList<PlacedPiece> pieces, int kerf)
    {
        var order = KnifeCuts.Of(Sheet, kerf, pieces, 1_000);
        // A knife: every cut divides exactly one of the parts that there are.
        var parts = new List<(int X, int Y, int Right, int Bottom)> { (0, 0, Sheet.Width, Sheet.Height) };
        foreach (var cut in order.Cuts)
        {
            var upright = cut.FromX == cut.ToX;
            var part = Assert.Single(
                parts,
                p =>
                    upright
                        ? p.X < cut.FromX && cut.FromX < p.Right && p.Y == cut.FromY && p.Bottom == cut.ToY
                        : p.Y < cut.FromY && cut.FromY < p.Bottom && p.X == cut.FromX && p.Right == cut.ToX
            );
            parts.Remove(part);
            parts.Add(upright ? part with { Right = cut.FromX } : part with { Bottom = cut.FromY });
            var rest = upright ? part with { X = cut.FromX + kerf } : part with { Y = cut.FromY + kerf };
            if (rest.X < rest.Right && rest.Y < rest.Bottom)
                parts.Add(rest);
        }
        foreach (var p in pieces)
            Assert.Contains((p.X, p.Y, p.X + p.Size.Width, p.Y + p.Size.Height), parts);
        foreach (var o in order.OffCuts)
        {
            Assert.Contains((o.X, o.Y, o.X + o.Size.Width, o.Y + o.Size.Height), parts);
            Assert.DoesNotContain(
                pieces,
                p =>
                    p.X < o.X + o.Size.Width && o.X < p.X + p.Size.Width && p.Y < o.Y + o.Size.Height && o.Y < p.Y + p.Size.Height
            );
        }
    }
}
