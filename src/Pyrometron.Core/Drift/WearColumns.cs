namespace Pyrometron.Core.Drift;

/// <summary>The columns of one machine's wear model: meaning, span in time, prior.</summary>
internal sealed class WearColumns
{
    private readonly WearColumn[] _columns;
    private readonly (int, int)[] _successive;
    private readonly int[][] _byPart;
    private readonly double[] _levels;
    private readonly LoadLevels _loads;

    internal WearColumns(List<WearColumn> columns, List<(int, int)> successive, double[] levels, LoadLevels loads)
    {
        _columns = [.. columns];
        _successive = [.. successive];
        (_levels, _loads) = (levels, loads);
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
        const double steady = 1 / (WearColumnsBuilder.PaceSigma * WearColumnsBuilder.PaceSigma);
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
                    ? _loads.Of(cell.Workload, part)
                    : 0,
                WearTerm.UnseenFan => c.Label == cell.Workload ? share * (cell.AmbientC - ReferencePoint.AmbientC) : 0,
                WearTerm.Air or WearTerm.AirChange or WearTerm.Shared => cell.AirHeat(part) * share * (1 + cell.Flow) * height,
                WearTerm.HeatChange => _loads.Of(cell.Workload, part) * height,
                WearTerm.SensorOffset or WearTerm.ReadingsOffset => height,
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
        return term switch
        {
            WearTerm.Air or WearTerm.AirChange or WearTerm.Shared => sum * share,
            WearTerm.HeatChange => sum * _levels[part],
            _ => sum,
        };
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
