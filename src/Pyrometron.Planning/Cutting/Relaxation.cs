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

    /// <summary>Rounds of asking for better ways after each step of rounding.</summary>
    private const int RoundsADive = 3;

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

    /// <summary>
    /// A plan by rounding: the ways used most are cut as often as they are whole, at least once, and the relaxation of what is
    /// left is solved again with ways that give no more than is left. What is left when the time is over is missing in it.
    /// </summary>
    public IReadOnlyList<Pattern> Dive(GuillotineFill fill, double seconds, CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        var (needed, stock) = (_part.Needed.ToArray(), _part.Stock.ToArray());
        var plan = new List<Pattern>();
        while (needed.Any(n => n > 0) && clock.Elapsed.TotalSeconds < seconds && !cancel.IsCancellationRequested)
        {
            LeaveOutLarger(needed);
            for (var round = 0; round < RoundsADive; round++)
                if (Solve() && !AddBetter(Within(needed, stock, fill)))
                    break;
            if (!Solve())
                break;
            var (way, times) = _ways
                .Where(w => stock[w.Way.Sheet] > 0)
                .Select(w => ((Pattern? Way, double Times))(w.Way, w.Times.SolutionValue()))
                .DefaultIfEmpty()
                .MaxBy(w => w.Times < 1 ? w.Times * (w.Way is null ? 0 : Used(w.Way)) : w.Times);
            if (way is null || times < Tolerance)
                break;
            for (var i = Math.Clamp((int)(times + Tolerance), 1, stock[way.Sheet]); i > 0; i--)
            {
                var taken = Limited(way, needed);
                if (taken.Spots.Count == 0)
                    break;
                plan.Add(taken);
                foreach (var spot in taken.Spots)
                    needed[spot.Type]--;
                _stock[way.Sheet].SetUb(--stock[way.Sheet]);
            }
            for (var t = 0; t < needed.Length; t++)
                _needed[t].SetLb(needed[t]);
        }
        return plan;
    }

    /// <summary>Ways that give more of a piece than is needed are cut down to it.</summary>
    private void LeaveOutLarger(int[] needed)
    {
        foreach (var (way, times) in _ways.ToList())
            if (times.Ub() > 0 && Limited(way, needed) is var limited && limited.Spots.Count < way.Spots.Count)
            {
                times.SetUb(0);
                if (limited.Spots.Count > 0)
                    Add(limited);
            }
    }

    /// <summary>The best ways of each sheet that give no more than is needed, as far as they are found.</summary>
    private List<(Pattern, double)> Within(int[] needed, int[] stock, GuillotineFill fill)
    {
        var worth = Prices.Select((p, t) => needed[t] > 0 ? p : 0).ToArray();
        return
        [
            .. _knapsack
                .Best(worth)
                .Select(b => Limited(b.Pattern, needed))
                .Concat(Enumerable.Range(0, stock.Length).Where(s => stock[s] > 0).Select(s => fill.Best(s, needed, worth)))
                .Select(p => (p, p.Spots.Sum(s => worth[s.Type]))),
        ];
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

    /// <summary>The share of a sheet that a way uses.</summary>
    private double Used(Pattern way) => way.Spots.Sum(s => s.Size.Area) / (double)_part.Sheets[way.Sheet].Area;

    private static Pattern Limited(Pattern way, int[] needed)
    {
        var left = needed.ToArray();
        return way with { Spots = [.. way.Spots.Where(s => left[s.Type]-- > 0)] };
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
