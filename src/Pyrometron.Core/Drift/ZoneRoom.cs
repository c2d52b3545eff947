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

    private readonly Dictionary<int, double> _byBin;

    private ZoneRoom(Dictionary<int, double> byBin) => _byBin = byBin;

    /// <summary>A zone with too few machines: no room of its own.</summary>
    public static ZoneRoom None { get; } = new([]);

    /// <summary>What the room adds on a bin, K; 0 where it is not known.</summary>
    public double At(int bin) => _byBin.GetValueOrDefault(bin);

    /// <summary>What it adds on some bins, K.</summary>
    public double[] At(IEnumerable<int> bins) => [.. bins.Select(At)];

    /// <summary>The bins known, with their kelvins, in time order.</summary>
    public IEnumerable<(int Bin, double Kelvin)> Bins => _byBin.OrderBy(b => b.Key).Select(b => (b.Key, b.Value));

    /// <summary>The last bin known; of a zone without a room, one that is never reached.</summary>
    public int LastBin => _byBin.Count > 0 ? _byBin.Keys.Max() : int.MaxValue;

    /// <summary>The bins in which enough machines reported to tell the room from themselves, ascending.</summary>
    internal static int[] Known(IEnumerable<WearModel> machines) =>
        [.. machines.SelectMany(m => m.Bins).CountBy(b => b).Where(b => b.Value >= LeastMachines).Select(b => b.Key).Order()];

    /// <summary>The room that the machines' equations ask for.</summary>
    internal static ZoneRoom Of(RoomEquations equations) =>
        new(equations.Bins.Zip(equations.Solve()).ToDictionary(b => b.First, b => b.Second));
}
