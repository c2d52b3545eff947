using Pyrometron.Core.Statistics;

namespace Pyrometron.Bench.Scoring;

/// <summary>The three rules people use today, as orders of the same machines.</summary>
internal static class SimpleRules
{
    public static IEnumerable<(string Name, string[] Order)> Orders(TrialFleet fleet)
    {
        var lastDay = fleet.Readings.Values.Where(r => r.Count > 0).Max(r => r[^1].UnixMilliseconds / 86_400_000.0);
        var assets = fleet.Register.Assets.ToDictionary(a => a.Tag);
        var tags = assets.Keys.Order(StringComparer.Ordinal).ToArray();
        yield return (
            "calendar",
            [.. tags.OrderBy(t => assets[t].Services.Select(s => s.Date).Append(assets[t].InServiceSince).Max())]
        );
        yield return ("hottest", [.. tags.OrderBy(t => SmallestMargin(fleet, t, lastDay))]);
        yield return ("slope", [.. tags.OrderByDescending(t => Steepest(fleet, t))]);
    }

    private static IEnumerable<(double Limit, (double Day, double Celsius)[] Points)> Series(TrialFleet fleet, string tag)
    {
        var parts = fleet.Register.Assets.First(a => a.Tag == tag).Parts;
        for (var p = 0; p < parts.Count; p++)
        {
            var points = fleet
                .Readings[tag]
                .Where(r => !double.IsNaN(r.PartsC[p]))
                .Select(r => (r.UnixMilliseconds / 86_400_000.0, r.PartsC[p]))
                .ToArray();
            if (points.Length > 0)
                yield return (parts[p].Limit.Value, points);
        }
    }

    private static double SmallestMargin(TrialFleet fleet, string tag, double lastDay) =>
        Series(fleet, tag)
            .Select(s =>
            {
                var recent = s.Points.Where(p => p.Day > lastDay - 14).Select(p => p.Celsius).ToArray();
                return s.Limit - Robust.Median(recent.Length >= 5 ? recent : [.. s.Points.TakeLast(5).Select(p => p.Celsius)]);
            })
            .DefaultIfEmpty(double.PositiveInfinity)
            .Min();

    private static double Steepest(TrialFleet fleet, string tag) =>
        Series(fleet, tag)
            .Where(s => s.Points.Length > 1)
            .Select(s =>
            {
                var (day, celsius) = (s.Points.Average(p => p.Day), s.Points.Average(p => p.Celsius));
                return s.Points.Sum(p => (p.Day - day) * (p.Celsius - celsius))
                    / s.Points.Sum(p => (p.Day - day) * (p.Day - day));
            })
            .DefaultIfEmpty(double.NegativeInfinity)
            .Max();
}
