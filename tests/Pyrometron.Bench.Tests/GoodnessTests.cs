using Pyrometron.Bench.Scoring;
using Pyrometron.Core.Judging;

namespace Pyrometron.Bench.Tests;

/// <summary>
/// How good the judgement is, on fleets whose truth is known. The bounds of the shipped sets are the aims they were made for;
/// those of invented fleets, which no constant was chosen on, are what their chance allows.
/// </summary>
public class GoodnessTests
{
    private static Score Judged(TrialFleet fleet, Ablation without = Ablation.None) =>
        ScoreCommand.ScoreOf(ScoreCommand.Judge(fleet, without), fleet.Truth);

    private static string Shipped(string set)
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Pyrometron.slnx")))
            folder = folder.Parent!;
        return Path.Combine(folder.FullName, "trial", set);
    }

    [Theory]
    [InlineData("practice-1")]
    [InlineData("practice-2")]
    public void On_the_practice_fleets_it_keeps_its_aims(string set)
    {
        var fleet = TrialFleet.Load(Shipped(set));
        var score = Judged(fleet);
        Assert.True(
            score
                is {
                    AveragePrecision: >= 0.95,
                    CauseRight: >= 0.88,
                    Recall: >= 0.94,
                    FalseAlarmsConfounded: <= 0.03,
                    DriftErrorMedian: <= 1.4,
                    DateConcordance: >= 0.85
                },
            score.ToString()
        );
        // The three rules that people use today are far behind.
        Assert.All(
            SimpleRules.Orders(fleet),
            rule =>
                Assert.True(Score.Ranking(rule.Order, fleet.Truth).AveragePrecision < score.AveragePrecision - 0.25, rule.Name)
        );
    }

    [Fact]
    public void On_fleets_that_nobody_has_looked_at_it_holds()
    {
        var scores = new[] { 901, 902 }.Select(seed => Judged(InventedFleet.Of(seed))).ToArray();
        double Mean(Func<Score, double> figure) => scores.Average(figure);
        Assert.True(
            Mean(s => s.AveragePrecision) >= 0.85
                && Mean(s => s.CauseRight) >= 0.8
                && Mean(s => s.Recall) >= 0.9
                && Mean(s => s.FalseAlarmsConfounded) <= 0.06
                && Mean(s => s.DriftErrorMedian) <= 2,
            string.Join('\n', scores.AsEnumerable())
        );
    }

    [Fact]
    public void Each_part_of_the_method_is_worth_having()
    {
        var fleet = TrialFleet.Load(Shipped("practice-2"));
        var whole = Judged(fleet).AveragePrecision;
        foreach (var without in (Ablation[])[Ablation.Room, Ablation.Fan, Ablation.SensorSteps])
            Assert.True(Judged(fleet, without).AveragePrecision < whole - 0.02, $"{without}");
    }

    [Fact]
    public void Invented_fleets_are_the_same_every_time_and_hold_every_cause()
    {
        var (once, again) = (InventedFleet.Of(17), InventedFleet.Of(17));
        Assert.Equal(
            once.Truth.Values.Select(t => t.WorstPartRecoverableKelvin),
            again.Truth.Values.Select(t => t.WorstPartRecoverableKelvin)
        );
        Assert.Equal(
            once.Readings.Values.SelectMany(r => r).Select(r => r.UnixMilliseconds).Sum(),
            again.Readings.Values.SelectMany(r => r).Select(r => r.UnixMilliseconds).Sum()
        );
        var needing = once.Truth.Values.Where(t => t.NeedsWork).ToArray();
        Assert.InRange(needing.Length, 25, 75);
        Assert.Equal(
            ["dust", "fan", "mount", "pads", "paste"],
            needing.Select(t => t.DominantCause).Distinct().Order(StringComparer.Ordinal)
        );
        // Needing work is what it says.
        Assert.All(
            once.Truth.Values,
            t =>
                Assert.Equal(
                    t.NeedsWork,
                    t.WorstPartRecoverableKelvin >= 6 || (t.WorstPartRecoverableKelvin >= 2.5 && t.DaysToAction <= 45)
                )
        );
        Assert.All(once.Truth.Values.Where(t => t.Grade == "healthy"), t => Assert.True(t.WorstPartRecoverableKelvin < 3));
    }
}
