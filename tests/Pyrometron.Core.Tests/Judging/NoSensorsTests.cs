using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>A house without sensors: the calendar decides, and says that nothing was measured.</summary>
public class NoSensorsTests
{
    private static Asset Desktop(string tag, int servedDaysAgo, string model = "Petrel", string zone = "ROW") =>
        new(
            tag,
            AssetKind.Desktop,
            model,
            zone,
            null,
            8,
            Hall.Today.AddDays(-1500),
            null,
            UsualMachines.Parts(AssetKind.Desktop),
            [new(Hall.Today.AddDays(-servedDaysAgo), ServiceLevel.Repaste)]
        );

    [Fact]
    public void The_longest_overdue_goes_first_and_what_is_not_due_says_so()
    {
        var register = Hall.Register(
            DustClass.Normal,
            Desktop("A", 700),
            Desktop("B", 1200),
            Desktop("C", 900),
            Desktop("D", 30)
        );
        var judged = Judge(register);
        Assert.Equal(["B", "C", "A", "D"], judged.Queue.Select(a => a.Asset.Tag));
        Assert.Equal([Urgency.Next, Urgency.Next], judged.Queue.Take(2).Select(a => a.Urgency));
        Assert.Equal(Urgency.Unknown, judged.ByTag["D"].Urgency);
        Assert.All(
            judged.Queue.Take(3),
            a =>
            {
                var (due, says) = (a.ServiceDue!.Value, a.Reason.ToString());
                Assert.True(a.ByCalendar);
                Assert.Equal(
                    FormattableString.Invariant(
                        $"Never measured. By the calendar its dust-out is {Hall.Today.DayNumber - due.Due.DayNumber} days overdue (interval {due.Days} days, until {due.Due:d MMM yyyy})."
                    ),
                    says
                );
            }
        );
    }

    private static FleetJudgement Judge(Register register, Func<Asset, Reading[]>? readings = null) =>
        new FleetJudge(
            new JudgementBasis(
                register,
                Hall.Today,
                JudgementPolicy.Default,
                a => ReadingSeries.From(readings?.Invoke(a) ?? [], a.Parts.Count)
            )
        ).JudgeAll();

    private static Reading Typed(int daysAgo, double celsius) => Handmade.At(daysAgo + 0.5, celsius);

    [Fact]
    public void A_machine_whose_interval_runs_out_today_says_so()
    {
        var days = Judge(Hall.Register(DustClass.Normal, Desktop("A", 30))).ByTag["A"].ServiceDue!.Value.Days;
        var judged = Judge(Hall.Register(DustClass.Normal, Desktop("A", days))).ByTag["A"];
        Assert.Equal(Urgency.Soon, judged.Urgency);
        Assert.EndsWith($"is due today (interval {days} days).", judged.Reason.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void One_reading_does_not_answer_the_calendar()
    {
        var judged = Judge(Hall.Register(DustClass.Normal, Desktop("A", 1200)), _ => [Typed(1, 71)]).ByTag["A"];
        Assert.Equal(Urgency.Soon, judged.Urgency);
        Assert.Equal(ServiceLevel.DustOut, judged.Service);
        Assert.StartsWith("Only 1 reading:", judged.Reason.ToString(), StringComparison.Ordinal);
        Assert.Contains("days overdue", judged.Reason.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void The_run_that_tells_most_is_on_the_longest_overdue_of_each_model_and_of_each_room_left_over()
    {
        var register = new Register(
            [
                new Site(
                    "S",
                    "Site",
                    10,
                    [new("ROW", "Row", DustClass.Normal, new(33)), new("LOFT", "Loft", DustClass.Normal, new(33))]
                ),
            ],
            [
                Desktop("A", 700),
                Desktop("B", 1200),
                Desktop("C", 900),
                Desktop("D", 650, "Auk"),
                Desktop("E", 640, "Auk"),
                Desktop("F", 800, "Gull", "LOFT"),
                Desktop("G", 820, "Tern", "LOFT"),
                Desktop("H", 20, "Skua"),
                Desktop("I", 400, "Skua"),
            ]
        );
        var judged = Judge(register);
        // H shows its fresh state only now; neither of its model is due.
        Assert.Equal(["B", "D", "G", "H"], judged.Queue.Where(a => a.Measure is not null).Select(a => a.Asset.Tag).Order());
        Assert.StartsWith(
            "The longest overdue of 3 machines never measured (Petrel)",
            judged.ByTag["B"].Measure!.Why.ToString(),
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "The longest overdue of 2 machines never measured (Loft)",
            judged.ByTag["G"].Measure!.Why.ToString(),
            StringComparison.Ordinal
        );
        Assert.Contains("keeps its fresh state", judged.ByTag["H"].Measure!.Why.ToString(), StringComparison.Ordinal);
        // Measured, it is no longer asked for: the next one of its model is.
        var after = Judge(register, a => a.Tag == "B" ? [Typed(1, 71)] : []);
        Assert.Equal(["C", "D", "G", "H"], after.Queue.Where(a => a.Measure is not null).Select(a => a.Asset.Tag).Order());
    }

    [Fact]
    public void A_machine_that_stopped_reporting_says_since_when_and_how_many_beside_it_go_on()
    {
        Reading[] Weekly(int last) => [.. Enumerable.Range(0, 8).Reverse().Select(week => Typed(last + 7 * week, 70))];
        var judged = Judge(
            Hall.Register(DustClass.Normal, Desktop("A", 100), Desktop("B", 100), Desktop("C", 100)),
            a => Weekly(a.Tag == "A" ? 30 : 1)
        );
        var silence = judged.ByTag["A"].Silence!;
        Assert.Equal((Hall.Today.AddDays(-30), 30, 2), (silence.Since, silence.Days, silence.Reporting));
        Assert.Null(judged.ByTag["B"].Silence);
        // Three weeks are the patience with a machine that reports once a week.
        Assert.All(
            Judge(
                Hall.Register(DustClass.Normal, Desktop("A", 100), Desktop("B", 100)),
                a => Weekly(a.Tag == "A" ? 21 : 1)
            ).Queue,
            a => Assert.Null(a.Silence)
        );
        // All of them silent: nobody beside it reports, and that is said instead.
        Assert.All(
            Judge(Hall.Register(DustClass.Normal, Desktop("A", 100), Desktop("B", 100)), _ => Weekly(40)).Queue,
            a => Assert.Equal((40, 0), (a.Silence!.Days, a.Silence.Reporting))
        );
    }
}
