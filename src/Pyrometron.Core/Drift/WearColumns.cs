using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Drift;

/// <summary>What a column of the wear model stands for.</summary>
public enum WearTerm
{
    /// <summary>J: the joint side of a part, chip to cooler.</summary>
    Joint,

    /// <summary>J's difference under another workload.</summary>
    WorkloadOffset,

    /// <summary>More or less heat under other settings, as a share of every part's rise, where power is not measured.</summary>
    SettingsHeat,

    /// <summary>What other settings change on one part alone.</summary>
    SettingsOffset,

    /// <summary>What an automatic fan that nobody measures takes off the rise for every kelvin of warmer air.</summary>
    UnseenFan,

    /// <summary>F: the fresh air side, shared.</summary>
    Air,

    /// <summary>S: fouling of the air side, shared.</summary>
    Shared,

    /// <summary>O: what one part alone has lost.</summary>
    Own,

    /// <summary>M: a step where the cooler was lifted.</summary>
    Mount,

    /// <summary>A jump of one sensor.</summary>
    SensorOffset,
}

/// <summary>One sensor that jumped by more than heat could.</summary>
/// <param name="Day">When, days since 1970.</param>
public sealed record SensorStep(int Part, double Day);

/// <summary>The columns of one machine's wear model: meaning, span in time, prior.</summary>
internal sealed class WearColumns
{
    /// <summary>Prior share of the air side in a part's rise when nothing better is known, and its spread.</summary>
    private const double AirShareOfRise = 0.48,
        AirSpread = 0.15;

    /// <summary>
    /// Prices of a kelvin of wear, in log-likelihood: an exponential prior, under which no wear is likelier than any. Shared by
    /// all parts is one cause and cheapest; what was there before the first reading, or came with a lifted cooler, is dearer.
    /// </summary>
    private const double SharedPrice = 0.15,
        OwnPrice = 0.3,
        MountPrice = 0.4,
        CarriedPrice = 1;

    /// <summary>
    /// How much a pace of wear changes from one piece of its curve to the next, K a piece: dust that closes fins and paste that
    /// pumps out go slowly at first and fast at the end.
    /// </summary>
    private const double PaceSigma = 1;

    /// <summary>Length of a piece of the growing curves, days.</summary>
    private const double PieceDays = 60;

    /// <summary>Spread of the prior of wear, K: wide, the prices decide.</summary>
    private const double WearSigma = 30;

    /// <summary>A service that takes wear away.</summary>
    /// <param name="Left">Share of what was there before that stays.</param>
    /// <param name="Eased">Whether what stays is not known beforehand: it is then a column of its own, and the share 0.</param>
    private readonly record struct Renewal(double Day, double Left, bool Eased);

    /// <param name="Part">−1 for all parts.</param>
    /// <param name="From">Start of the growth, days since 1970; before it the column is 0.</param>
    /// <param name="Full">Where it reaches 1.</param>
    /// <param name="Ends">When it is renewed, and the share that is left then, ascending.</param>
    /// <param name="Label">Workload or settings index, −1 for none.</param>
    /// <param name="Workload">Workload index besides a settings index.</param>
    private readonly record struct Column(
        WearTerm Term,
        int Part,
        double From,
        double Full,
        Renewal[] Ends,
        int Label,
        int Workload,
        double Mean,
        double Sigma,
        double Price
    )
    {
        public double Height(double day)
        {
            if (day < From)
                return 0;
            // Columns that do not depend on time began at minus infinity.
            var height = day >= Full ? 1 : (day - From) / (Full - From);
            for (var i = 0; i < Ends.Length && day >= Ends[i].Day; i++)
                height *= Ends[i].Left;
            return height;
        }
    }

    private readonly Column[] _columns;
    private readonly (int, int)[] _successive;
    private readonly int[][] _byPart;
    private readonly double[] _levels;

    private WearColumns(List<Column> columns, List<(int, int)> successive, double[] levels)
    {
        _columns = [.. columns];
        _successive = [.. successive];
        _levels = levels;
        AirSide = [.. Enumerable.Range(0, _columns.Length).Where(i => _columns[i].Term is WearTerm.Air or WearTerm.Shared)];
        NonNegative = [.. _columns.Select(c => c.Price > 0)];
        _byPart =
        [
            .. levels.Select(
                (_, p) => Enumerable.Range(0, _columns.Length).Where(i => _columns[i].Part < 0 || _columns[i].Part == p).ToArray()
            ),
        ];
    }

    public int Count => _columns.Length;

    /// <summary>The columns of the air side: F, which stands before all others, then the pieces of S.</summary>
    public int[] AirSide { get; }

    /// <summary>How much of each column is there on a day, 0 to 1; 1 for those that do not depend on time.</summary>
    public void Heights(double day, Span<double> heights)
    {
        for (var i = 0; i < _columns.Length; i++)
            heights[i] = _columns[i].Height(day);
    }

    public bool[] NonNegative { get; }

    /// <summary>The columns that can matter to a part, ascending.</summary>
    public ReadOnlySpan<int> Of(int part) => _byPart[part];

    public static WearColumns For(
        Asset asset,
        ReferencePoint reference,
        CellTable cells,
        double asOf,
        double[] levels,
        double[] share,
        IReadOnlyList<SensorStep> sensorSteps
    )
    {
        var columns = new List<Column>();
        var successive = new List<(int, int)>();
        void Plain(WearTerm term, int part, int label, double mean, double sigma, int workload = -1) =>
            columns.Add(
                new Column(term, part, double.NegativeInfinity, double.NegativeInfinity, [], label, workload, mean, sigma, 0)
            );

        var workloads = cells.All.Select(c => c.Workload).Distinct().Where(w => w != reference.Workload).ToArray();
        var settings = cells.All.Select(c => c.Settings).Distinct().Where(s => s != reference.Settings).ToArray();
        // Parts on one cooler stand on the same air rise: it is part of the least of theirs.
        var least = levels.Select((level, p) => level / share[p]).Min();
        Plain(WearTerm.Air, -1, -1, AirShareOfRise * least, Math.Max(0.5, AirSpread * least));
        for (var p = 0; p < asset.Parts.Count; p++)
        {
            Plain(WearTerm.Joint, p, -1, levels[p] - share[p] * AirShareOfRise * least, Math.Max(5, 0.5 * levels.Max()));
            foreach (var w in workloads)
                Plain(WearTerm.WorkloadOffset, p, w, 0, reference.HasPower ? 15 : 30);
            foreach (var s in settings)
                Plain(WearTerm.SettingsOffset, p, s, 0, 0.5);
        }
        if (!reference.HasPower)
            foreach (var s in settings)
            foreach (var w in cells.All.Where(c => c.Settings == s).Select(c => c.Workload).Distinct())
                Plain(WearTerm.SettingsHeat, -1, s, 0, 0.3, w);
        if (double.IsNaN(reference.FanSpeed))
            foreach (var w in workloads.Append(reference.Workload))
                Plain(WearTerm.UnseenFan, -1, w, 0, 0.2);
        foreach (var step in sensorSteps)
            columns.Add(new Column(WearTerm.SensorOffset, step.Part, step.Day, step.Day, [], -1, -1, 0, 20, 0));

        var (first, last) = (cells[0].Day, cells[cells.Count - 1].Day);
        var inService = UnixDay.Noon(asset.InServiceSince);
        Growth(columns, successive, WearTerm.Shared, -1, Renewals(asset, Cause.Dust, asOf), inService, first, last, SharedPrice);
        for (var p = 0; p < asset.Parts.Count; p++)
        {
            Growth(
                columns,
                successive,
                WearTerm.Own,
                p,
                Renewals(asset, asset.Parts[p].Joint == JointMaterial.Pad ? Cause.Pads : Cause.Paste, asOf),
                inService,
                first,
                last,
                OwnPrice
            );
            // A lifted cooler can sit badly afterwards, on every part it covers, until it is lifted again.
            var lifts = asset
                .Services.Where(s => ServiceEffects.LiftsCooler(s.Level))
                .Select(s => UnixDay.Noon(s.Date))
                .Where(d => d > first && d <= last)
                .Distinct()
                .ToArray();
            for (var l = 0; l < lifts.Length; l++)
                columns.Add(
                    new Column(
                        WearTerm.Mount,
                        p,
                        lifts[l],
                        lifts[l],
                        [.. lifts[(l + 1)..].Select(day => new Renewal(day, 0, false))],
                        -1,
                        -1,
                        0,
                        WearSigma,
                        MountPrice
                    )
                );
        }
        return new WearColumns(columns, successive, levels);
    }

    /// <summary>
    /// Pieces of growth in every span between renewals; before the first one in the history also what was there already. How much a
    /// service that only eases leaves, loose dust blown out, the readings tell: it begins a column like what was there already.
    /// </summary>
    /// <param name="renewals">All that are known, ascending.</param>
    private static void Growth(
        List<Column> columns,
        List<(int, int)> successive,
        WearTerm term,
        int part,
        Renewal[] renewals,
        double inService,
        double first,
        double last,
        double price
    )
    {
        var marks = renewals.Where(r => r.Day > first && r.Day <= last).ToArray();
        // What had time to gather before the first reading; with no renewal to show it, only siblings can.
        if (
            marks.Length > 0
            || first
                - Math.Max(
                    inService,
                    renewals
                        .Where(r => !r.Eased && r.Day <= first)
                        .Select(r => r.Day)
                        .DefaultIfEmpty(double.NegativeInfinity)
                        .Max()
                )
                >= PieceDays
        )
            columns.Add(
                new Column(
                    term,
                    part,
                    double.NegativeInfinity,
                    double.NegativeInfinity,
                    marks,
                    -1,
                    -1,
                    0,
                    WearSigma,
                    CarriedPrice
                )
            );
        var (from, before) = (first, -1);
        for (var m = 0; m <= marks.Length; m++)
        {
            var end = m < marks.Length ? marks[m].Day : last;
            var pieces = Math.Max(1, (int)Math.Round((end - from) / PieceDays));
            var length = Math.Max(1, (end - from) / pieces);
            for (var k = 0; k < pieces; k++)
            {
                // The same air goes on depositing at its pace after a cleaning, and the next paste is pumped by the same joint.
                if (before >= 0)
                    successive.Add((before, columns.Count));
                before = columns.Count;
                columns.Add(
                    new Column(term, part, from + k * length, from + (k + 1) * length, marks[m..], -1, -1, 0, WearSigma, price)
                );
            }
            if (m < marks.Length && marks[m].Eased)
                columns.Add(new Column(term, part, end, end, marks[(m + 1)..], -1, -1, 0, WearSigma, price));
            from = end;
        }
    }

    /// <summary>The services that took some of a cause away, one a day: the one that left least.</summary>
    private static Renewal[] Renewals(Asset asset, Cause cause, double asOf) =>
        [
            .. asset
                .Services.Where(s => ServiceEffects.RemovedShare(s.Level, cause) > 0 && UnixDay.Noon(s.Date) <= asOf)
                .GroupBy(
                    s => s.Date,
                    (date, same) =>
                        (Day: UnixDay.Noon(date), Level: same.MaxBy(s => ServiceEffects.RemovedShare(s.Level, cause)).Level)
                )
                .OrderBy(r => r.Day)
                .Select(r =>
                    ServiceEffects.Eases(r.Level, cause)
                        ? new Renewal(r.Day, 0, true)
                        : new Renewal(r.Day, 1 - ServiceEffects.RemovedShare(r.Level, cause), false)
                ),
        ];

    public IEnumerable<(double Day, int Part, double Kelvin)> Steps(WearTerm term, double[] x) =>
        _columns.Select((c, i) => (c, i)).Where(c => c.c.Term == term).Select(c => (c.c.From, c.c.Part, x[c.i]));

    /// <summary>Replaces the prior of the fresh air side by what siblings of the same model have shown.</summary>
    public void SetAirPrior(double mean, double sigma)
    {
        _columns[AirSide[0]] = _columns[AirSide[0]] with { Mean = mean, Sigma = sigma };
    }

    /// <summary>Replaces the prior of a part's fresh joint likewise.</summary>
    public void SetJointPrior(int part, double mean, double sigma)
    {
        var joint = Array.FindIndex(_columns, c => c.Term == WearTerm.Joint && c.Part == part);
        _columns[joint] = _columns[joint] with { Mean = mean, Sigma = sigma };
    }

    public double[] Start() => [.. _columns.Select(c => c.Mean)];

    /// <summary>Adds the Gaussian priors: means and spreads, and that a pace of wear seldom changes much.</summary>
    public void AddPriors(Span<double> hessian, Span<double> gradient)
    {
        var n = _columns.Length;
        for (var i = 0; i < n; i++)
        {
            var precision = 1 / (_columns[i].Sigma * _columns[i].Sigma);
            hessian[i * n + i] += precision;
            gradient[i] += precision * _columns[i].Mean;
        }
        const double steady = 1 / (PaceSigma * PaceSigma);
        foreach (var (i, j) in _successive)
        {
            hessian[i * n + i] += steady;
            hessian[j * n + j] += steady;
            hessian[i * n + j] -= steady;
            hessian[j * n + i] -= steady;
        }
    }

    /// <summary>Takes the prices of wear off the gradient.</summary>
    public void AddPrices(Span<double> gradient)
    {
        for (var i = 0; i < _columns.Length; i++)
            gradient[i] -= _columns[i].Price;
    }

    /// <summary>What a column adds to a part's rise in a cell, K a unit.</summary>
    /// <param name="column">One of <see cref="Of"/> the part.</param>
    /// <param name="height">How much of it is there on the cell's day.</param>
    public double Entry(int column, double height, Cell cell, int part, double share)
    {
        ref readonly var c = ref _columns[column];
        return height == 0
            ? 0
            : c.Term switch
            {
                WearTerm.Joint => cell.JointHeat(part),
                WearTerm.WorkloadOffset => c.Label == cell.Workload ? cell.AirHeat(part) : 0,
                WearTerm.SettingsOffset => c.Label == cell.Settings ? cell.AirHeat(part) : 0,
                WearTerm.SettingsHeat => c.Label == cell.Settings && c.Workload == cell.Workload
                    ? cell.AirHeat(part) * _levels[part]
                    : 0,
                WearTerm.UnseenFan => c.Label == cell.Workload ? share * (cell.AmbientC - ReferencePoint.AmbientC) : 0,
                WearTerm.Air or WearTerm.Shared => cell.AirHeat(part) * share * (1 + cell.Flow) * height,
                WearTerm.SensorOffset => height,
                _ => cell.JointHeat(part) * height,
            };
    }

    /// <summary>Rise of a part in a cell by the model, K.</summary>
    public double Predict(Cell cell, int part, double share, ReadOnlySpan<double> x)
    {
        var sum = 0.0;
        foreach (var i in _byPart[part])
            if (x[i] != 0)
                sum += x[i] * Entry(i, _columns[i].Height(cell.Day), cell, part, share);
        return sum;
    }

    /// <summary>The wear of a part on a day as a linear function of the unknowns: their factors.</summary>
    /// <param name="only">One kind of wear alone; null for all.</param>
    public double[] Wear(int part, double day, double share, WearTerm? only = null) =>
        [
            .. _columns.Select(c =>
                (c.Part >= 0 && c.Part != part) || (only ?? c.Term) != c.Term
                    ? 0
                    : c.Term switch
                    {
                        WearTerm.Shared => share * c.Height(day),
                        WearTerm.Own or WearTerm.Mount => c.Height(day),
                        _ => 0,
                    }
            ),
        ];

    public double At(WearTerm term, int part, double day, ReadOnlySpan<double> x, double share)
    {
        var sum = 0.0;
        foreach (var i in _byPart[part])
            if (_columns[i].Term == term)
                sum += x[i] * _columns[i].Height(day);
        return term is WearTerm.Air or WearTerm.Shared ? sum * share : sum;
    }

    /// <summary>What a label changes on a part, K.</summary>
    /// <param name="workload">The workload under which, where that matters.</param>
    public double OffsetOf(WearTerm term, int part, int label, int workload, ReadOnlySpan<double> x)
    {
        foreach (var i in _byPart[part])
            if (
                _columns[i].Term == term
                && _columns[i].Label == label
                && (_columns[i].Workload < 0 || _columns[i].Workload == workload)
            )
                return x[i] * (term == WearTerm.SettingsHeat ? _levels[part] : 1);
        return 0;
    }
}
