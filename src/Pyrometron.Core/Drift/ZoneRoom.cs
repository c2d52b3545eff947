namespace Pyrometron.Core.Drift;

/// <summary>
/// What the room does to all machines of a zone by equal kelvin, whatever their heat: air conditioning, recirculation,
/// seasons that the intake sensors do not see. Told from wear by the heat: at idle a fouled machine is hardly warmer, a
/// warm room is as warm as ever. So a reading counts the more, the less wear could have done to it.
/// </summary>
public sealed class ZoneRoom
{
    /// <summary>Machines that must report before a zone's room can be told from its machines.</summary>
    public const int LeastMachines = 5;

    /// <summary>How far wear that is not in the model yet may have moved a machine at full heat, K.</summary>
    private const double WearSigma = 5;

    /// <summary>Scatter of a part about its model, and of a reading's air, K.</summary>
    private const double PartSigma = 0.7, ReadingSigma = 1.2;

    /// <summary>How far a room is expected to stray from its intake sensors, K.</summary>
    private const double RoomSigma = 5;

    private readonly Dictionary<int, double> _byBin;

    private ZoneRoom(Dictionary<int, double> byBin) => _byBin = byBin;

    /// <summary>A zone with too few machines: no room of its own.</summary>
    public static ZoneRoom None { get; } = new([]);

    /// <summary>What the room adds on a bin, K; 0 where it is not known.</summary>
    public double At(int bin) => _byBin.GetValueOrDefault(bin);

    /// <summary>The bins known, with their kelvins, in time order.</summary>
    public IEnumerable<(int Bin, double Kelvin)> Bins => _byBin.OrderBy(b => b.Key).Select(b => (b.Key, b.Value));

    /// <summary>The room from what the machines' models leave unexplained.</summary>
    public static ZoneRoom From(IReadOnlyCollection<WearModel> machines)
    {
        if (machines.Count < LeastMachines)
            return None;
        var bins = new Dictionary<int, List<(double Value, double Weight)>>();
        foreach (var machine in machines)
            for (var c = 0; c < machine.Cells.Count; c++)
                if (Residual(machine, c) is { } residual)
                {
                    if (!bins.TryGetValue(machine.Cells[c].Bin, out var values))
                        bins[machine.Cells[c].Bin] = values = [];
                    values.Add(residual);
                }
        return new ZoneRoom(bins.Where(b => b.Value.Count >= LeastMachines).ToDictionary(b => b.Key, b => Centre(b.Value)));
    }

    /// <summary>
    /// What a machine's parts leave unexplained. A part that is hardly heated tells most of the room: even one on a machine at
    /// work, such as the graphics chip of a desktop that only its processor loads.
    /// </summary>
    private static (double Value, double Weight)? Residual(WearModel machine, int cell)
    {
        var c = machine.Cells[cell];
        double sum = 0, total = 0;
        for (var p = 0; p < c.Rise.Length; p++)
            if (!double.IsNaN(c.Rise[p]))
            {
                var weight = 1 / (PartSigma * PartSigma + WearSigma * WearSigma * c.AirHeat[p] * c.AirHeat[p]);
                sum += weight * (c.Rise[p] - machine.Predict(cell, p));
                total += weight;
            }
        return total == 0 ? null : (sum / total, 1 / (1 / total + ReadingSigma * ReadingSigma / c.Count));
    }

    /// <summary>Weighted Huber location, drawn to zero by as much as a room is expected to be quiet.</summary>
    private static double Centre(List<(double Value, double Weight)> values)
    {
        values.Sort();
        var half = values.Sum(v => v.Weight) / 2;
        var centre = 0.0;
        foreach (var (value, weight) in values)
        {
            centre = value;
            if ((half -= weight) <= 0)
                break;
        }
        var total = 0.0;
        for (var iteration = 0; iteration < 10; iteration++)
        {
            double sum = 0;
            total = 0;
            foreach (var (value, weight) in values)
            {
                var pull = Math.Abs(value - centre) * Math.Sqrt(weight);
                var w = weight * Math.Min(1, 1.5 / Math.Max(pull, 1e-9));
                sum += w * value;
                total += w;
            }
            centre = sum / total;
        }
        return centre * total / (total + 1 / (RoomSigma * RoomSigma));
    }
}
