using System.Diagnostics;
using Google.OrTools.LinearSolver;
using Pyrometron.Core.Cutting;

namespace Pyrometron.Planning.Cutting;

/// <summary>
/// The linear relaxation of a cutting problem: how often each way to cut a sheet is used, in fractions. It begins with some ways
/// and asks for those that would make it better.
/// </summary>
internal sealed class Relaxation : IDisposable
{
    /// <summary>A sheet beyond the stock, so dear that it is bought only where the stock does not do.</summary>
    private const double OfPurchase = 1000;

    private const double Tolerance = 1e-6;

    private readonly OneThickness _part;
    private readonly GuillotineKnapsack _knapsack;
    private readonly Solver _solver = new("", Solver.OptimizationProblemType.GLOP_LINEAR_PROGRAMMING);
    private readonly Constraint[] _needed,
        _stock;
    private readonly Variable[] _bought;
    private readonly List<(Pattern Way, Variable Times)> _ways = [];

    public Relaxation(OneThickness part, GuillotineKnapsack knapsack, IEnumerable<Pattern> ways)
    {
        (_part, _knapsack) = (part, knapsack);
        _solver.Objective().SetMinimization();
        _needed = [.. part.Needed.Select(n => _solver.MakeConstraint(n, double.PositiveInfinity))];
        _stock = [.. part.Stock.Select(n => _solver.MakeConstraint(double.NegativeInfinity, n))];
        _bought =
        [
            .. _stock.Select(row =>
            {
                var bought = _solver.MakeNumVar(0, double.PositiveInfinity, "");
                row.SetCoefficient(bought, -1);
                _solver.Objective().SetCoefficient(bought, OfPurchase);
                return bought;
            }),
        ];
        // A way for each piece that may be missing in all others, so that there is always an answer.
        foreach (var way in ways.Concat(Singles(part)))
            Add(way);
    }

    /// <summary>All ways known.</summary>
    public IEnumerable<Pattern> Ways => _ways.Select(w => w.Way);

    /// <summary>So many sheets at least; 0 where the stock does not do.</summary>
    public int Bound { get; private set; }

    /// <summary>The dual price of each type of piece, in sheets, as it was last solved.</summary>
    public double[] Prices { get; private set; } = [];

    /// <summary>What a sheet of each type is worth: a way worth more makes the relaxation better.</summary>
    private double[] SheetPrices { get; set; } = [];

    /// <summary>Adds ways until none is missing, the bound cannot rise any more, or the time is over.</summary>
    public void Settle(double seconds, CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        while (Solve())
        {
            var best = _knapsack.Best(Prices);
            Raise([.. best.Select(b => b.Value)]);
            if (Bound >= WholeSheets(_solver.Objective().Value()) || !AddBetter(best))
                return;
            if (clock.Elapsed.TotalSeconds > seconds || cancel.IsCancellationRequested)
                return;
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _solver.Dispose();

    private bool Solve()
    {
        if (_solver.Solve() != Solver.ResultStatus.OPTIMAL)
            return false;
        Prices = [.. _needed.Select(row => Math.Max(0, row.DualValue()))];
        SheetPrices = [.. _stock.Select(row => 1 - Math.Min(0, row.DualValue()))];
        return true;
    }

    private bool AddBetter(IReadOnlyList<(Pattern Pattern, double Value)> best)
    {
        var better = best.Where(b => b.Value > SheetPrices[b.Pattern.Sheet] + Tolerance).ToList();
        better.ForEach(b => Add(b.Pattern));
        return better.Count > 0;
    }

    /// <summary>
    /// Raises the bound by the current prices, made so low that no way is worth more than its sheet (Farley 1990): it holds
    /// before the last way is found.
    /// </summary>
    /// <param name="best">The value of the best way of each type of sheet, by the current prices.</param>
    private void Raise(IReadOnlyList<double> best)
    {
        if (_bought.Any(b => b.SolutionValue() > Tolerance))
            return;
        var over = Math.Max(1, best.Select((value, s) => value / SheetPrices[s]).Max());
        var pieces = Prices.Select((p, t) => p * _part.Needed[t]).Sum() / over;
        var stock = SheetPrices.Select((p, s) => (1 - p) * _part.Stock[s]).Sum();
        Bound = Math.Max(Bound, WholeSheets(pieces + stock));
    }

    private void Add(Pattern way)
    {
        var times = _solver.MakeNumVar(0, double.PositiveInfinity, "");
        _solver.Objective().SetCoefficient(times, 1);
        _stock[way.Sheet].SetCoefficient(times, 1);
        _ways.Add((way, times));
        var counts = way.Counts(_part.Needed.Count);
        for (var t = 0; t < counts.Length; t++)
            if (counts[t] > 0)
                _needed[t].SetCoefficient(times, counts[t]);
    }

    private static int WholeSheets(double sheets) => (int)Math.Ceiling(sheets - Tolerance);

    private static IEnumerable<Pattern> Singles(OneThickness part) =>
        part.Pieces.Select(
            (_, t) =>
                part
                    .Sheets.SelectMany(
                        (sheet, s) => part.Ways(t).Where(w => w.Within(sheet)).Select(w => new Pattern(s, [new Spot(t, 0, 0, w)]))
                    )
                    .First()
        );
}
