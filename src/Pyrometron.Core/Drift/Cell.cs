namespace Pyrometron.Core.Drift;

/// <summary>
/// A few days' readings under one workload and one setting, condensed by medians: what the model is fitted to. The cost
/// of all that follows then hardly depends on how often a machine reports. A view into <see cref="CellTable"/>.
/// </summary>
public readonly struct Cell
{
    /// <summary>Width of a cell, days.</summary>
    public const double Days = 5;

    private readonly CellTable _table;
    private readonly int _index;

    internal Cell(CellTable table, int index) => (_table, _index) = (table, index);

    /// <summary>Middle of the readings, days since 1970.</summary>
    public double Day => _table.Row(_index).Day;

    /// <summary>Index of the workload, −1 for none.</summary>
    public int Workload => _table.Row(_index).Workload;

    /// <summary>Index of the settings, −1 for none.</summary>
    public int Settings => _table.Row(_index).Settings;

    /// <summary>Whether it is a run of the bench, not a few days' readings.</summary>
    public bool IsRun => _table.IsRun(_index);

    /// <summary>Readings condensed.</summary>
    public int Count => _table.Row(_index).Count;

    /// <summary>Convective resistance relative to the reference fan speed, minus 1; 0 where the fan is unknown.</summary>
    public double Flow => _table.Row(_index).Flow;

    /// <summary>Turns per per cent of command, NaN where unknown: low means a tired fan.</summary>
    public double SpeedRatio => _table.Row(_index).SpeedRatio;

    /// <summary>Intake air, °C.</summary>
    public double AmbientC => _table.Row(_index).AmbientC;

    /// <summary>Number of parts.</summary>
    public int Parts => _table.Parts;

    /// <summary>Number of the five-day bin, the same for all machines.</summary>
    public int Bin => BinOf(Day);

    /// <summary>Rise over intake air of a part, K; NaN where not measured.</summary>
    public double Rise(int part) => _table.Rise(_index, part);

    /// <summary>Heat of a part's cooler relative to the reference point.</summary>
    public double AirHeat(int part) => _table.AirHeat(_index, part);

    /// <summary>Heat through a part's own joint relative to the reference point.</summary>
    public double JointHeat(int part) => _table.JointHeat(_index, part);

    /// <summary>Heat of the hottest cooler relative to the reference point.</summary>
    public double Heat
    {
        get
        {
            var most = 0.0;
            for (var p = 0; p < _table.Parts; p++)
                most = Math.Max(most, AirHeat(p));
            return most;
        }
    }

    /// <summary>Number of the bin of a day.</summary>
    public static int BinOf(double day) => (int)Math.Floor(day / Days);
}
