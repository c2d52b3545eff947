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
    private const double AirShareOfRise = 0.48, AirSpread = 0.15;

    /// <summary>Prices per kelvin of wear in the lasso prior: shared by all is one cause, its own is dearer, a step dearest.</summary>
    private const double SharedPrice = 0.5, OwnPrice = 0.7, MountPrice = 1.1, CarriedPrice = 0.8;

    /// <summary>Wear of at least this, K, counts as found; what is found pays this share of its price.</summary>
    private const double FoundKelvin = 0.2, RelaxedShare = 0.2;

    /// <param name="Part">−1 for all parts.</param>
    /// <param name="From">Start of the growth, days since 1970; before it the column is 0.</param>
    /// <param name="Full">Where it reaches 1.</param>
    /// <param name="Until">From here it is 0 again: renewed.</param>
    /// <param name="Label">Workload or settings index, −1 for none.</param>
    private sealed record Column(WearTerm Term, int Part, double From, double Full, double Until, int Label, double Mean, double Sigma, double Price)
    {
        public double Height(double day) => day < From || day >= Until ? 0 : day >= Full ? 1 : (day - From) / (Full - From);
    }

    private readonly Column[] _columns;

    private readonly double[] _levels;

    private WearColumns(List<Column> columns, double[] levels)
    {
        _levels = levels;
        _columns = [.. columns];
        NonNegative = [.. _columns.Select(c => c.Price > 0)];
    }

    public int Count => _columns.Length;

    public bool[] NonNegative { get; }

    public static WearColumns For(Asset asset, ReferencePoint reference, IReadOnlyList<Cell> cells, double asOf, double[] levels, double[] share,
        IReadOnlyList<SensorStep> sensorSteps, double piece)
    {
        var columns = new List<Column>();
        var (first, last) = (cells[0].Day, cells[^1].Day);
        void Plain(WearTerm term, int part, int label, double mean, double sigma) =>
            columns.Add(new Column(term, part, double.NegativeInfinity, double.NegativeInfinity, double.PositiveInfinity, label, mean, sigma, 0));

        var workloads = cells.Select(c => c.Workload).Distinct().Where(w => w != reference.Workload).ToArray();
        var settings = cells.Select(c => c.Settings).Distinct().Where(s => s != reference.Settings).ToArray();
        // Parts on one cooler stand on the same air rise: it is part of the least of theirs.
        var (air, airSpread) = levels.Select((level, p) => level / share[p]).Min() is var least ? (AirShareOfRise * least, AirSpread * least) : default;
        Plain(WearTerm.Air, -1, -1, air, airSpread);
        for (var p = 0; p < asset.Parts.Count; p++)
        {
            Plain(WearTerm.Joint, p, -1, levels[p] - share[p] * air, 0.5 * levels.Max());
            foreach (var w in workloads)
                Plain(WearTerm.WorkloadOffset, p, w, 0, reference.HasPower ? 15 : 30);
            foreach (var s in settings)
                Plain(WearTerm.SettingsOffset, p, s, 0, reference.HasPower ? 0.5 : 1.5);
        }
        if (!reference.HasPower)
            foreach (var s in settings)
                Plain(WearTerm.SettingsHeat, -1, s, 0, 0.3);
        foreach (var step in sensorSteps)
            columns.Add(new Column(WearTerm.SensorOffset, step.Part, step.Day, step.Day, double.PositiveInfinity, -1, 0, 20, 0));

        Growth(columns, WearTerm.Shared, -1, Renewals(asset, Cause.Dust, asOf), first, last, piece, SharedPrice);
        for (var p = 0; p < asset.Parts.Count; p++)
        {
            var joint = asset.Parts[p].Joint == JointMaterial.Pad ? Cause.Pads : Cause.Paste;
            var renewals = Renewals(asset, joint, asOf);
            Growth(columns, WearTerm.Own, p, renewals, first, last, piece, OwnPrice);
            // A lifted cooler can sit badly afterwards, on every part it covers, until it is lifted again.
            var lifts = asset.Services.Where(s => ServiceEffects.LiftsCooler(s.Level)).Select(s => UnixDay.Noon(s.Date))
                .Where(d => d > first && d <= last).Distinct().ToArray();
            for (var l = 0; l < lifts.Length; l++)
                columns.Add(new Column(WearTerm.Mount, p, lifts[l], lifts[l], l + 1 < lifts.Length ? lifts[l + 1] : double.PositiveInfinity, -1, 0, 30, MountPrice));
        }
        return new WearColumns(columns, levels);
    }

    /// <summary>Pieces of growth in every span between renewals; before the first renewal also what was there already.</summary>
    private static void Growth(List<Column> columns, WearTerm term, int part, double[] renewals, double first, double last, double piece, double price)
    {
        var marks = renewals.Where(r => r > first && r <= last).ToList();
        double from = first;
        foreach (var until in marks.Append(double.PositiveInfinity))
        {
            if (from == first && marks.Count > 0)
                columns.Add(new Column(term, part, double.NegativeInfinity, double.NegativeInfinity, until, -1, 0, 30, CarriedPrice));
            var end = Math.Min(until, last);
            var pieces = Math.Max(1, (int)Math.Round((end - from) / piece));
            var length = Math.Max(1, (end - from) / pieces);
            for (var k = 0; k < pieces; k++)
                columns.Add(new Column(term, part, from + k * length, from + (k + 1) * length, until, -1, 0, 30, price));
            from = until;
        }
    }

    private static double[] Renewals(Asset asset, Cause cause, double asOf) =>
        [.. asset.Services.Where(s => ServiceEffects.Renews(s.Level, cause)).Select(s => UnixDay.Noon(s.Date)).Where(d => d <= asOf).Distinct().Order()];

    public IEnumerable<(double Day, int Part, double Kelvin)> Steps(WearTerm term, double[] x) =>
        _columns.Select((c, i) => (c, i)).Where(c => c.c.Term == term).Select(c => (c.c.From, c.c.Part, x[c.i]));

    /// <summary>Replaces the prior of the fresh air side by what siblings of the same model have shown.</summary>
    public void SetAirPrior(double mean, double sigma)
    {
        var air = Array.FindIndex(_columns, c => c.Term == WearTerm.Air);
        _columns[air] = _columns[air] with { Mean = mean, Sigma = sigma };
    }

    public double[] Start() => [.. _columns.Select(c => c.Mean)];

    public void AddPriors(double[] hessian, double[] gradient)
    {
        for (var i = 0; i < _columns.Length; i++)
        {
            var precision = 1 / (_columns[i].Sigma * _columns[i].Sigma);
            hessian[i * _columns.Length + i] += precision;
            gradient[i] += precision * _columns[i].Mean;
        }
    }

    /// <summary>
    /// Takes the lasso's prices off the gradient. A price is in standard deviations of what chance alone would put into the
    /// column (√H is the pull of one), so that a machine read once a week is not asked to grow by its noise.
    /// </summary>
    /// <param name="found">
    /// The wear found so far; once it is known where a machine has worn, only the rest pays in full, since a price that has
    /// done its choosing would go on making the wear look smaller (relaxed lasso, Meinshausen 2007). Null while choosing.
    /// </param>
    public void AddPrices(double[] hessian, double[] gradient, double[]? found)
    {
        for (var i = 0; i < _columns.Length; i++)
            if (_columns[i].Price > 0)
                gradient[i] -= (found is not null && found[i] > FoundKelvin ? RelaxedShare : 1) * _columns[i].Price * Math.Sqrt(hessian[i * _columns.Length + i]);
    }

    /// <summary>One row of the design: what each column adds to a part's rise in a cell.</summary>
    public void Fill(Span<double> row, Cell cell, int part, double share)
    {
        for (var i = 0; i < _columns.Length; i++)
        {
            var c = _columns[i];
            row[i] = c.Part >= 0 && c.Part != part ? 0 : c.Term switch
            {
                WearTerm.WorkloadOffset => c.Label == cell.Workload ? cell.AirHeat[part] : 0,
                WearTerm.SettingsOffset => c.Label == cell.Settings ? cell.AirHeat[part] : 0,
                WearTerm.SettingsHeat => c.Label == cell.Settings ? cell.AirHeat[part] * _levels[part] : 0,
                WearTerm.Air => cell.AirHeat[part] * share * (1 + cell.Flow),
                WearTerm.Shared => cell.AirHeat[part] * share * (1 + cell.Flow) * c.Height(cell.Day),
                WearTerm.SensorOffset => c.Height(cell.Day),
                WearTerm.Joint => cell.JointHeat[part],
                _ => cell.JointHeat[part] * c.Height(cell.Day),
            };
        }
    }

    public double At(WearTerm term, int part, double day, ReadOnlySpan<double> x, double share)
    {
        var sum = 0.0;
        for (var i = 0; i < _columns.Length; i++)
            if (_columns[i].Term == term && (_columns[i].Part < 0 || _columns[i].Part == part))
                sum += x[i] * _columns[i].Height(day);
        return term is WearTerm.Air or WearTerm.Shared ? sum * share : sum;
    }

    public double OffsetOf(WearTerm term, int part, int label, ReadOnlySpan<double> x)
    {
        for (var i = 0; i < _columns.Length; i++)
            if (_columns[i].Term == term && (_columns[i].Part < 0 || _columns[i].Part == part) && _columns[i].Label == label)
                return x[i] * (term == WearTerm.SettingsHeat ? _levels[part] : 1);
        return 0;
    }
}
