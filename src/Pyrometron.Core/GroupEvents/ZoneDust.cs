using Pyrometron.Core.Drift;
using Pyrometron.Core.Events;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.GroupEvents;

/// <summary>
/// Finds zones whose machines began to foul together, as building work does it: most of them gained on the air side within the
/// same months what one machine gains in years. It is dirt in every one of them, and no room; so it stays with the machines, and
/// is told once.
/// </summary>
internal static class ZoneDust
{
    /// <summary>Machines that must show their air side.</summary>
    private const int LeastMachines = 6;

    /// <summary>Months looked at together, days; and how far back.</summary>
    private const double WindowDays = 120,
        LookBackDays = 365;

    private const int WindowSteps = (int)(WindowDays / Cell.Days);

    /// <summary>
    /// What the middle machine gains in a window, and what a member gains, K. Chance makes half of it, on
    /// invented fleets.
    /// </summary>
    private const double LeastKelvin = 2.2,
        LeastOfMember = 1.5;

    /// <summary>The event of a zone; null without one.</summary>
    /// <param name="machines">Its machines, fitted.</param>
    public static GroupEvent? Find(string zone, IEnumerable<WearModel> machines)
    {
        WearModel[] known = [.. machines.Where(m => m.Cells.OfReadings.Any())];
        if (known.Length < LeastMachines)
            return null;
        var last = known.Max(m => m.LastDay);
        var fouling = known.Select(m => new Fouling(m, last - LookBackDays)).ToArray();
        var best = (Day: 0.0, Kelvin: 0.0, Gains: Array.Empty<(string Tag, double Kelvin)>());
        for (var step = 0; step + WindowSteps < Fouling.Steps; step++)
        {
            var from = last - LookBackDays + step * Cell.Days;
            var gains = fouling
                .Where(f => f.First <= from && f.Last >= from + WindowDays / 2)
                .Select(f => (f.Tag, Kelvin: f.Gain(step, step + WindowSteps)))
                .ToArray();
            if (gains.Length < LeastMachines)
                continue;
            if (Robust.Median([.. gains.Select(g => g.Kelvin)]) is var middle && middle > best.Kelvin)
                best = (from, middle, gains);
        }
        if (best.Kelvin < LeastKelvin)
            return null;
        double[] kelvins = [.. best.Gains.Select(g => g.Kelvin)];
        var spread = Robust.MadScale(kelvins);
        return new GroupEvent(
            GroupEventKind.Dust,
            zone,
            best.Day,
            best.Kelvin,
            spread * Math.Sqrt(Math.PI / 2 / kelvins.Length),
            spread,
            [.. best.Gains.Where(g => g.Kelvin >= LeastOfMember).Select(g => g.Tag)]
        );
    }

    /// <summary>What fouling has added on one machine's hottest part, services in between left out, step by step.</summary>
    private sealed class Fouling
    {
        public const int Steps = (int)(LookBackDays / Cell.Days) + 1;

        private readonly double[] _sum = new double[Steps];

        public Fouling(WearModel model, double from)
        {
            (Tag, First, Last) = (model.Asset.Tag, model.Bins[0] * Cell.Days, model.LastDay);
            var part = Enumerable.Range(0, model.AirShare.Count).MaxBy(p => model.AirShare[p]);
            var before = model.At(WearTerm.Shared, part, from);
            for (var i = 1; i < Steps; i++)
            {
                var now = model.At(WearTerm.Shared, part, Math.Min(from + i * Cell.Days, model.LastDay));
                (_sum[i], before) = (_sum[i - 1] + Math.Max(0, now - before), now);
            }
        }

        public string Tag { get; }

        public double First { get; }

        public double Last { get; }

        /// <summary>K between two steps.</summary>
        public double Gain(int from, int to) => _sum[to] - _sum[from];
    }
}
