using CsCheck;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>Whatever happened to a machine: its page, its row and its heat path tell one story.</summary>
public class OneStoryTests
{
    private static readonly Cause[] Wears = [Cause.Dust, Cause.Paste, Cause.Pads, Cause.Fan];

    /// <summary>A fault, a service some days ago, and runs: when, how hot the core, with or without the air.</summary>
    private static readonly Gen<(
        int Cause,
        double Kelvin,
        int Served,
        (int DaysAgo, double Celsius, bool Air)[] Runs
    )> Histories = Gen.Select(
        Gen.Int[0, 3],
        Gen.Double[0, 15],
        Gen.Int[0, 300],
        Gen.Select(Gen.Int[0, 250], Gen.Double[60, 89], Gen.Bool).Array[0, 4]
    );

    private static Hall HallWith((int Cause, double Kelvin, int Served, (int DaysAgo, double Celsius, bool Air)[] Runs) h)
    {
        var served = new ServiceDone(Hall.Today.AddDays(-h.Served), ServiceLevel.DustOut);
        var hall = new Hall().WithHealthy(5).With("X", [Hall.Grown(Wears[h.Cause], h.Kelvin)], h.Served > 0 ? [served] : []);
        hall.Runs["X"] =
        [
            .. h
                .Runs.OrderByDescending(r => r.DaysAgo)
                .Select(
                    (r, i) =>
                        new MeasuredRun(
                            new DateTimeOffset(Hall.Today.AddDays(-r.DaysAgo).ToDateTime(new TimeOnly(9 + i, 0)), TimeSpan.Zero),
                            RunPhase.Before,
                            new Run(
                                "steady",
                                20,
                                r.Air ? new Celsius(24) : null,
                                new RunFan(FanMode.Fixed, 60, 1900),
                                "stock",
                                228,
                                null,
                                null,
                                false,
                                [new("core", new(r.Celsius)), new("hotspot", new(r.Celsius + 12))]
                            ),
                            i
                        )
                ),
        ];
        return hall;
    }

    [Fact]
    public void A_look_that_rules_the_dust_out_moves_the_suspicion_and_says_so()
    {
        var hall = new Hall().WithHealthy(5).With("X", [Hall.Grown(Cause.Dust, 9)]);
        Assert.Equal(Cause.Dust, hall.Judge().ByTag["X"].Cause);

        var seen = new DateTimeOffset(Hall.Today.AddDays(-1).ToDateTime(new TimeOnly(9, 0)), TimeSpan.Zero);
        hall.Looks["X"] = [new Look(seen, Cause.Dust, Found: false, Opened: true)];
        var after = hall.Judge().ByTag["X"];
        Assert.NotEqual(Cause.Dust, after.Cause);
        Assert.Contains(after.Sentences, s => s.ToString().Contains("fins were seen clean", StringComparison.Ordinal));
        Assert.True(after.Parts.Max(p => p.Split.Dust) < 4);
    }

    [Fact]
    public void Air_and_layers_add_up_to_what_is_written_over_them() =>
        Histories.Sample(
            h =>
            {
                var a = HallWith(h).JudgeOne("X");
                Assert.NotEmpty(a.Parts);
                foreach (var part in a.Parts.Where(p => p.Path is not null))
                    Assert.Equal(part.LatestC, part.Path!.PartC, 1e-9);
                var newest = h.Runs.Length > 0 && a.MeasuredRun is { } run ? run.Run.Parts[0].Celsius.Value : double.NaN;
                if (!double.IsNaN(newest))
                    Assert.Equal(newest, a.Parts.Single(p => p.Part.Name == "core").LatestC, 1e-9);
            },
            iter: 12
        );

    /// <summary>
    /// The row that the fleet's judgement gives a machine, and its page, and its zone judged again piece by piece.
    /// </summary>
    [Fact]
    public void Judged_alone_or_again_it_is_as_judged_with_all() =>
        Histories.Sample(
            h =>
            {
                var judge = HallWith(h).JudgeOf();
                var all = judge.JudgeAll();
                var row = all.ByTag["X"];
                var page = judge.JudgeOne(all, row.Asset)!;
                Assert.Equal((row.Urgency, row.Cause, row.Service), (page.Urgency, page.Cause, page.Service));
                Assert.Equal(row.DriftKelvin, page.DriftKelvin);
                Assert.Equal(row.Reason.ToString(), page.Reason.ToString());
                Assert.Equal(row.Parts.Select(p => p.LatestC), page.Parts.Select(p => p.LatestC));
                // Judged again the room starts from where it stood, so it may end within its own tolerance.
                var again = judge.JudgeAgain(all, new HashSet<string> { "X" }).ByTag["X"];
                Assert.Equal(row.DriftKelvin!.Value, again.DriftKelvin!.Value, 0.05);
                Assert.Equal(row.Parts.Select(p => p.LatestC), again.Parts.Select(p => p.LatestC));
            },
            iter: 8
        );
}
