using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>A house without sensors: the calendar decides, and says that nothing was measured.</summary>
public class NoSensorsTests
{
    private static Asset Desktop(string tag, int servedDaysAgo) =>
        new(
            tag,
            AssetKind.Desktop,
            "Petrel",
            "ROW",
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
        var judged = new FleetJudge(
            new JudgementBasis(register, Hall.Today, JudgementPolicy.Default, _ => ReadingSeries.From([], 1))
        ).JudgeAll();
        Assert.Equal(["B", "C", "A", "D"], judged.Queue.Select(a => a.Asset.Tag));
        Assert.Equal([Urgency.Next, Urgency.Next], judged.Queue.Take(2).Select(a => a.Urgency));
        Assert.Equal(Urgency.Unknown, judged.ByTag["D"].Urgency);
        Assert.All(
            judged.Queue.Take(3),
            a =>
            {
                var (due, says) = (a.ServiceDue!.Value, a.Reason.ToString());
                Assert.Contains("Nothing was ever measured", says, StringComparison.Ordinal);
                Assert.Contains(
                    FormattableString.Invariant($"interval of {due.Days} days ran out on {due.Due:d MMM yyyy}, "),
                    says,
                    StringComparison.Ordinal
                );
                Assert.EndsWith(
                    FormattableString.Invariant($"{Hall.Today.DayNumber - due.Due.DayNumber:#,0} days ago."),
                    says,
                    StringComparison.Ordinal
                );
            }
        );
    }
}
