using CsCheck;
using Pyrometron.Core.Cutting;
using Pyrometron.Planning.Cutting;
using Size = Pyrometron.Core.Cutting.Size;

namespace Pyrometron.Planning.Tests.Cutting;

public sealed class CutterTests
{
    private const int One = Size.PerMillimetre;

    private static CuttingProblem Problem(
        (int W, int H) sheet,
        bool rotate,
        int kerf,
        params (int W, int H, int Count)[] pieces
    ) =>
        new(
            [new PadSheet("pad", new(sheet.W * One, sheet.H * One), One, 99)],
            [.. pieces.Select((p, i) => new PadPiece($"p{i}", new(p.W * One, p.H * One), One, p.Count))],
            kerf * One,
            rotate
        );

    private static CuttingPlan Cut(ICutter cutter, CuttingProblem problem)
    {
        var plan = cutter.Cut(problem, default);
        CuttingCheck.Holds(problem, plan);
        Assert.True(plan.LowerBound <= plan.Sheets.Count || plan.Left.Count > 0, "a bound above its plan");
        return plan;
    }

    private static readonly (int, int, int)[] First = [(45, 30, 2), (40, 25, 1), (25, 20, 2), (20, 10, 1)],
        Second = [(40, 25, 3), (20, 15, 2)],
        Pinwheel = [(30, 20, 4), (10, 10, 1)],
        Large = [(60, 30, 2), (55, 26, 1), (50, 20, 1), (40, 20, 1), (40, 18, 1), (30, 12, 1)];

    /// <summary>
    /// Known fewest sheets (reference sheet, section 12, by two methods that try everything): with and without rotation.
    /// </summary>
    public static TheoryData<string, int, int, int, int> Known =>
        new()
        {
            { nameof(First), 85, 45, 2, 2 },
            { nameof(Second), 60, 40, 2, 3 },
            { nameof(Pinwheel), 50, 50, 2, 2 },
            { nameof(Large), 100, 50, 3, 3 },
        };

    [Theory, MemberData(nameof(Known))]
    public void Few_pieces_take_the_known_fewest_sheets_and_it_is_proven(
        string name,
        int width,
        int height,
        int turned,
        int asTheyAre
    )
    {
        var pieces = name switch
        {
            nameof(First) => First,
            nameof(Second) => Second,
            nameof(Pinwheel) => Pinwheel,
            _ => Large,
        };
        foreach (var (rotate, sheets) in new[] { (true, turned), (false, asTheyAre) })
        {
            var plan = Cut(new GreedyCutter(), Problem((width, height), rotate, 0, pieces));
            Assert.Equal((sheets, sheets), (plan.Sheets.Count, plan.LowerBound));
        }
    }

    /// <summary>Section 12.5: four 50 × 25 from 100 × 50 fill it; with a kerf of 1 mm they do not.</summary>
    [Theory]
    [InlineData(0, 1)]
    [InlineData(1, 2)]
    public void What_the_knife_takes_away_counts(int kerf, int sheets) =>
        Assert.Equal(sheets, Cut(new GreedyCutter(), Problem((100, 50), true, kerf, (50, 25, 4))).Sheets.Count);

    /// <summary>
    /// Section 12.6: the most equal pieces from one sheet by cuts from edge to edge (by two methods that try everything).
    /// </summary>
    [Theory]
    [InlineData(85, 45, 14, 12, 21)]
    [InlineData(100, 100, 14, 12, 58)]
    [InlineData(120, 20, 14, 12, 10)]
    [InlineData(145, 95, 28, 12, 39)]
    [InlineData(50, 50, 30, 20, 3)]
    public void The_most_pieces_of_one_size_come_from_a_sheet(int width, int height, int w, int h, int most)
    {
        var part = OneThickness.Of(Problem((width, height), true, 0, (w, h, 99))).Single();
        var (pattern, value) = GuillotineKnapsack.For(part)!.Best([1])[0];
        Assert.Equal((most, most), ((int)value, pattern.Spots.Count));
        var limited = LimitedKnapsack.For(part)!;
        Assert.Equal(most, limited.Best([1], [99], [0])[0].Spots.Count);
        Assert.Equal(2, limited.Best([1], [2], [0])[0].Spots.Count);
        Assert.Empty(limited.Best([1], [0], [0]));
    }

    /// <summary>The bounds of section 12.1 to 12.4, by area and by large pieces.</summary>
    [Fact]
    public void Bounds_without_a_plan()
    {
        (int, int, (int, int, int)[])[] sheets = [(85, 45, First), (60, 40, Second), (50, 50, Pinwheel), (100, 50, Large)];
        var parts = sheets.Select(s => OneThickness.Of(Problem((s.Item1, s.Item2), true, 0, s.Item3)).Single()).ToList();
        Assert.Equal([2, 2, 1, 2], parts.Select(SheetBounds.ByArea));
        Assert.Equal(3, SheetBounds.ByLargePieces(parts[3]));
    }

    private static readonly Gen<CuttingProblem> Any =
        from kerf in Gen.Int[0, 2]
        from rotate in Gen.Bool
        from sheets in Gen.Select(Gen.Int[20, 150], Gen.Int[20, 120], Gen.Int[1, 2], Gen.Int[0, 30]).Array[1, 4]
        from pieces in Gen.Select(Gen.Int[4, 70], Gen.Int[4, 50], Gen.Int[1, 2], Gen.Int[0, 12]).Array[1, 8]
        select new CuttingProblem(
            [.. sheets.Select((s, i) => new PadSheet($"s{i}", new(s.Item1 * One, s.Item2 * One), s.Item3 * One, s.Item4))],
            [.. pieces.Select((p, i) => new PadPiece($"p{i}", new(p.Item1 * One, p.Item2 * One), p.Item3 * One, p.Item4))],
            kerf * One / 2,
            rotate
        );

    [Fact]
    public void Any_problem_gets_a_plan_that_can_be_cut_and_says_what_is_missing() =>
        Any.Sample(
            problem =>
            {
                var greedy = Cut(new GreedyCutter(), problem);
                var solved = Cut(new SolverCutter(), problem);
                Assert.True(solved.Left.Sum(l => l.Count) <= greedy.Left.Sum(l => l.Count));
                if (solved.Left.Sum(l => l.Count) == greedy.Left.Sum(l => l.Count))
                    Assert.True(solved.Sheets.Count <= greedy.Sheets.Count);
                Assert.True(greedy.LowerBound <= solved.Sheets.Count || solved.Left.Count > 0);
            },
            iter: 60,
            threads: 1
        );

    /// <summary>Within what is needed; worth no more than without that limit, and no less than the best single piece.</summary>
    [Fact]
    public void A_sheet_cut_within_what_is_needed_takes_no_more_and_overlaps_nowhere() =>
        Any.Sample(
            problem =>
            {
                foreach (var part in OneThickness.Of(problem))
                {
                    var worth = part.Pieces.Select(p => (double)p.Area).ToArray();
                    var sheets = Enumerable.Range(0, part.Sheets.Count).ToList();
                    var most = GuillotineKnapsack.For(part)!.Best(worth);
                    foreach (var pattern in LimitedKnapsack.For(part)!.Best(worth, part.Needed, sheets))
                    {
                        var sheet = part.Sheets[pattern.Sheet];
                        var counts = pattern.Counts(part.Needed.Count);
                        Assert.All(counts, (n, type) => Assert.True(n <= part.Needed[type]));
                        Assert.All(
                            pattern.Spots,
                            s => Assert.True(s.X + s.Size.Width <= sheet.Width && s.Y + s.Size.Height <= sheet.Height)
                        );
                        foreach (var (a, i) in pattern.Spots.Select((s, i) => (s, i)))
                            Assert.DoesNotContain(pattern.Spots.Skip(i + 1), b => Overlap(a, b));
                        var value = pattern.Spots.Sum(s => worth[s.Type]);
                        Assert.True(value <= most[pattern.Sheet].Value * (1 + 1e-9));
                        Assert.True(value >= worth.Where((_, t) => part.Fits(part.Pieces[t], sheet)).DefaultIfEmpty().Max());
                    }
                }
            },
            iter: 60,
            threads: 1
        );

    private static bool Overlap(Spot a, Spot b) =>
        a.X < b.X + b.Size.Width && b.X < a.X + a.Size.Width && a.Y < b.Y + b.Size.Height && b.Y < a.Y + a.Size.Height;

    /// <summary>Trying everything, and the relaxation with its choice, agree on problems small enough for both.</summary>
    [Fact]
    public void The_relaxation_never_lies_above_what_trying_everything_finds() =>
        Any.Where(p => p.Pieces.Sum(q => q.Count) is > 0 and <= 9)
            .Sample(
                problem =>
                {
                    foreach (var part in OneThickness.Of(problem))
                        if (SmallCutting.Best(part) is { } best)
                        {
                            using var relaxation = new Relaxation(part, GuillotineKnapsack.For(part)!, best);
                            relaxation.Settle(5, default);
                            Assert.InRange(relaxation.Bound, 0, best.Count);
                            Assert.True(SheetBounds.ByArea(part) <= best.Count && SheetBounds.ByLargePieces(part) <= best.Count);
                        }
                },
                iter: 60,
                threads: 1
            );

    /// <summary>Three hundred pads as cards take them, from sheets of three sizes: at most one sheet above the bound.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(4)]
    [InlineData(31)]
    public void Three_hundred_pieces_take_at_most_one_sheet_more_than_the_bound(int seed)
    {
        var random = new Random(seed);
        var problem = new CuttingProblem(
            [
                new PadSheet("large", new(145 * One, 95 * One), One, 12),
                new PadSheet("square", new(100 * One, 100 * One), One, 6),
                new PadSheet("small", new(85 * One, 45 * One), One, 60),
            ],
            [
                .. Enumerable
                    .Range(0, 15)
                    .Select(i => new PadPiece($"p{i}", new(random.Next(7, 45) * One, random.Next(7, 30) * One), One, 20)),
            ],
            One / 2,
            true
        );
        // What it reaches in its usual time is measured in bench/; here a busy machine has time enough.
        var plan = Cut(new SolverCutter { Patience = 8 }, problem);
        Assert.Empty(plan.Left);
        Assert.InRange(plan.Sheets.Count, plan.LowerBound, plan.LowerBound + 1);
    }
}
