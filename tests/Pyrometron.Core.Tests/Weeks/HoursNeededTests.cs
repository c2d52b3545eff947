using CsCheck;
using Pyrometron.Core.Weeks;

namespace Pyrometron.Core.Tests.Weeks;

/// <summary>Hours of work against machines past their line.</summary>
public sealed class HoursNeededTests
{
    /// <summary>An hour of work takes an hour where there are 168 in a week.</summary>
    private const double AllWeek = 168;

    private static OnItsWay Hours(double hours, double due) => new((int)Math.Round(hours * 60), due / 24);

    /// <summary>The five jobs of the reference sheet (13.4), hours and due hour: the fewest late by Moore 1968.</summary>
    [Fact]
    public void The_fewest_late_of_the_reference_sheet() =>
        Assert.Equal(
            Reference.Value("13.4-late"),
            HoursNeeded.Passing([Hours(3, 6), Hours(2, 4), Hours(5, 9), Hours(1, 3), Hours(4, 12)], AllWeek)
        );

    [Fact]
    public void No_order_of_work_does_better() =>
        Gen.Select(Gen.Int[1, 9], Gen.Int[0, 20])
            .Array[0, 7]
            .Sample(jobs =>
            {
                var machines = jobs.Select(j => Hours(j.Item1, j.Item2)).ToArray();
                Assert.Equal(Fewest(machines), HoursNeeded.Passing(machines, AllWeek));
            });

    [Fact]
    public void More_hours_never_let_more_pass_and_none_let_all_pass() =>
        Gen.Select(Gen.Int[1, 300], Gen.Double[-5, 200])
            .Array[0, 30]
            .Sample(machines =>
            {
                var all = machines.Select(m => new OnItsWay(m.Item1, m.Item2)).ToArray();
                var passing = Enumerable.Range(0, 20).Select(h => HoursNeeded.Passing(all, h)).ToArray();
                Assert.Equal(all.Length, passing[0]);
                Assert.Equal(passing.OrderDescending(), passing);
                Assert.True(passing[^1] >= all.Count(m => m.Days <= 0));
            });

    /// <summary>By all subsets: one is in time where each of it is, in the order of their days (Jackson 1955).</summary>
    private static int Fewest(OnItsWay[] machines)
    {
        var most = 0;
        for (var set = 0; set < 1 << machines.Length; set++)
        {
            var (spent, good, count) = (0.0, true, 0);
            foreach (var (machine, i) in machines.Select((m, i) => (m, i)).OrderBy(m => m.m.Days))
            {
                if ((set & (1 << i)) == 0)
                    continue;
                spent += machine.Minutes / 60.0 / 24;
                good &= spent <= machine.Days + 1e-9;
                count++;
            }
            most = good ? Math.Max(most, count) : most;
        }
        return machines.Length - most;
    }
}
