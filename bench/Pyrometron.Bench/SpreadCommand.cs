using System.Diagnostics;
using System.Globalization;
using Pyrometron.Core.Materials;

namespace Pyrometron.Bench;

/// <summary>
/// Spreads paste of each pattern on 200 × 200 cells and prints what a picture takes, against a thousand plain sweeps over as many
/// cells in the same run: what solving one pressure field without coarser grids would take at least.
/// </summary>
internal static class SpreadCommand
{
    private const int Pictures = 40,
        Sweeps = 1000;

    public static int Run()
    {
        Play(PastePattern.Dot);
        var plain = PlainSweeps();
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{Sweeps} plain sweeps: {plain:0.0} ms"));
        Console.WriteLine("pattern   pictures   mean ms   slowest ms   slowest against the sweeps");
        foreach (var pattern in Enum.GetValues<PastePattern>())
        {
            var times = Play(pattern);
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{pattern, -8}  {times.Count + 1, 8}  {times.Average(), 8:0.0}  {times.Max(), 11:0.0}  {times.Max() / plain, 10:0.00}"
                )
            );
        }
        return 0;
    }

    private static List<double> Play(PastePattern pattern)
    {
        var paste = new PastePressed(new PasteSpot(pattern, 30, 20), 40, 150, 150, 30);
        var (times, clock, last) = (new List<double>(), Stopwatch.StartNew(), 0.0);
        foreach (var _ in SqueezeFlow.Frames(paste, Pictures, 24 * 3600, CancellationToken.None).Skip(1))
        {
            var now = clock.Elapsed.TotalMilliseconds;
            times.Add(now - last);
            last = now;
        }
        return times;
    }

    private static double PlainSweeps()
    {
        const int side = SqueezeFlow.Cells + 2;
        var (from, to) = (new double[side * side], new double[side * side]);
        var clock = Stopwatch.StartNew();
        for (var sweep = 0; sweep < Sweeps; sweep++)
        {
            for (var y = 1; y < side - 1; y++)
            for (var at = (y * side) + 1; at < ((y + 1) * side) - 1; at++)
                to[at] = 0.25 * (from[at - 1] + from[at + 1] + from[at - side] + from[at + side] + 1);
            (from, to) = (to, from);
        }
        return clock.Elapsed.TotalMilliseconds;
    }
}
