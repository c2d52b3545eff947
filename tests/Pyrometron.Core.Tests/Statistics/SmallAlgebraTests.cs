using CsCheck;
using MathNet.Numerics.LinearAlgebra;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Tests.Statistics;

/// <summary>
/// The algebra written here for the judgement's innermost loop, held against a library's and against brute force.
/// </summary>
public class SmallAlgebraTests
{
    private static readonly Gen<double[]> Entries = Gen.Double[-2, 2].Array[36];

    [Fact]
    public void Cholesky_solves_as_the_library_does() =>
        Entries
            .Select(Gen.Double[-3, 3].Array[6])
            .Sample(
                (entries, right) =>
                {
                    var a = Matrix<double>.Build.Dense(6, 6, entries);
                    var h = a.TransposeThisAndMultiply(a) + Matrix<double>.Build.DenseIdentity(6);
                    var factor = h.ToRowMajorArray();
                    Assert.True(Cholesky.Factor(factor, 6));
                    var x = (double[])right.Clone();
                    Cholesky.SolveLower(factor, 6, x);
                    Cholesky.SolveUpper(factor, 6, x);
                    var expected = h.Cholesky().Solve(Vector<double>.Build.Dense(right));
                    return Enumerable.Range(0, 6).All(i => Math.Abs(x[i] - expected[i]) < 1e-9);
                },
                iter: 200
            );

    [Fact]
    public void A_matrix_that_is_not_positive_definite_is_said_to_be_none()
    {
        Assert.False(Cholesky.Factor([1, 2, 2, 1], 2));
        Assert.False(Cholesky.Factor([double.NaN, 0, 0, 1], 2));
    }

    [Fact]
    public void Tridiagonal_solves_as_the_full_matrix_does() =>
        Gen.Double[-0.9, 0.9]
            .Array[7]
            .Select(Gen.Double[-3, 3].Array[8])
            .Sample(
                (off, right) =>
                {
                    var diagonal = Enumerable.Range(0, 8).Select(i => 2.0 + 0.1 * i).ToArray();
                    var full = Matrix<double>.Build.Dense(
                        8,
                        8,
                        (i, j) =>
                            i == j ? diagonal[i]
                            : Math.Abs(i - j) == 1 ? off[Math.Min(i, j)]
                            : 0
                    );
                    var solver = new Tridiagonal();
                    solver.Factor(diagonal, off);
                    var x = (double[])right.Clone();
                    solver.Solve(x);
                    var expected = full.Solve(Vector<double>.Build.Dense(right));
                    return Enumerable.Range(0, 8).All(i => Math.Abs(x[i] - expected[i]) < 1e-9);
                },
                iter: 200
            );

    [Fact]
    public void A_smaller_problem_after_a_larger_one_is_not_disturbed_by_it()
    {
        var solver = new Tridiagonal();
        solver.Factor([2, 2, 2, 2], [1, 1, 1]);
        solver.Factor([4], []);
        Assert.Equal(1, solver.Count);
        double[] x = [8];
        solver.Solve(x);
        Assert.Equal(2, x[0]);
    }

    private static double[] AllSlopes(double[] t, double[] y) =>
        [
            .. from i in Enumerable.Range(0, t.Length)
            from j in Enumerable.Range(0, i)
            where t[i] != t[j]
            orderby (y[i] - y[j]) / (t[i] - t[j])
            select (y[i] - y[j]) / (t[i] - t[j]),
        ];

    /// <summary>Whole degrees and repeated times make most slopes equal: the hard case for counting by order.</summary>
    [Theory]
    [InlineData(1, false, false)]
    [InlineData(2, true, false)]
    [InlineData(3, false, true)]
    [InlineData(4, true, true)]
    public void Order_statistics_of_the_slopes_are_those_of_all_pairs(int seed, bool wholeDegrees, bool repeatedTimes)
    {
        var random = new Random(seed);
        var t = Enumerable.Range(0, 400).Select(i => repeatedTimes ? Math.Floor(i / 3.0) : i + random.NextDouble()).ToArray();
        var y = t.Select(x => 0.02 * x + 3 * random.NextDouble()).Select(v => wholeDegrees ? Math.Round(v) : v).ToArray();
        var all = AllSlopes(t, y);
        var fast = new PairSlopes(t, y);
        Assert.Equal(all.Length, fast.Count);
        foreach (var share in (double[])[0, 0.001, 0.2, 0.47, 0.5, 0.53, 0.9, 1])
        {
            var rank = (long)Math.Round(share * (all.Length - 1));
            Assert.Equal(all[rank], fast.Select(rank), 1e-12);
        }
    }

    [Fact]
    public void Theil_Sen_of_many_points_keeps_its_slope_when_a_quarter_is_wrong()
    {
        var random = new Random(9);
        var t = Enumerable.Range(0, 1400).Select(i => i / 4.0).ToArray();
        var y = t.Select((x, i) => i % 4 == 0 ? 300 * random.NextDouble() : 50 + 0.03 * x + random.NextDouble()).ToArray();
        var line = TheilSen.Fit(t, y)!.Value;
        Assert.InRange(line.Slope, 0.02, 0.05);
        Assert.True(line.Low < line.Slope && line.Slope < line.High);
    }

    [Fact]
    public void Two_time_constants_are_given_back_by_the_curve_they_made()
    {
        var t = Enumerable.Range(0, 150).Select(i => i * 8 / 60.0).ToArray();
        var y = t.Select(x => 74 - 18 * Math.Exp(-x / 0.15) - 30 * Math.Exp(-x / 4.5)).ToArray();
        var fit = StepResponse.FitTwo(t, y)!.Value;
        Assert.Equal(74, fit.Settled, 0.01);
        Assert.Equal(4.5, fit.SlowTau, 0.02);
        Assert.Equal(0.15, fit.FastTau, 0.01);
        Assert.Null(StepResponse.FitTwo([0, 1, 2], [1, 2, 3]));
    }
}
