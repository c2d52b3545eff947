using CsCheck;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Notices;

namespace Pyrometron.Core.Tests.Notices;

/// <summary>Nothing is told twice, and nothing is missed.</summary>
public sealed class NoticeLedgerTests
{
    private static readonly DateOnly First = new(2026, 1, 1);

    private static Condition Of(string key) => new(NoticeKind.Next, key, Message.Of("It is so."), key, null);

    /// <summary>Days one after the other, on each of which some keys are so; the notices that come of it.</summary>
    private static List<Notice> Run(List<string[]> days)
    {
        var notices = new List<Notice>();
        for (var d = 0; d < days.Count; d++)
        {
            var day = First.AddDays(d);
            var change = NoticeLedger.On(day, notices, [.. days[d].Select(Of)]);
            for (var i = 0; i < notices.Count; i++)
                if (change.Gone.Contains(notices[i].Id))
                    notices[i] = notices[i] with { Gone = day };
                else if (change.Back.Contains(notices[i].Id))
                    notices[i] = notices[i] with { Gone = null };
            var next = notices.Count;
            notices.AddRange(change.New.Select((c, i) => new Notice(next + i, c, day, null, true, default)));
        }
        return notices;
    }

    [Fact]
    public void What_swings_about_its_line_is_told_once()
    {
        var swinging = Enumerable.Range(0, 60).Select(d => d % 9 < 4 ? new[] { "A" } : []).ToList();
        Assert.Single(Run(swinging));
    }

    [Fact]
    public void What_comes_again_after_long_is_told_again()
    {
        var again = Enumerable.Range(0, 40).Select(d => d is < 5 or > 30 ? new[] { "A" } : []).ToList();
        Assert.Equal([First, First.AddDays(31)], Run(again).Select(n => n.First));
    }

    [Fact]
    public void On_any_days_each_key_has_one_open_notice_while_it_is_so_and_two_are_never_near()
    {
        var day = Gen.OneOfConst("A", "B", "C").HashSet[0, 3].Select(keys => keys.Order().ToArray());
        day.List[1, 120]
            .Sample(days =>
            {
                var notices = Run(days);
                foreach (var of in notices.GroupBy(n => n.Condition.Key))
                {
                    Assert.Equal(days[^1].Contains(of.Key) ? 1 : 0, of.Count(n => n.Gone is null));
                    foreach (var (earlier, later) in of.Zip(of.Skip(1)))
                        Assert.True(later.First.DayNumber - earlier.Gone!.Value.DayNumber > NoticeLedger.SwingDays);
                }
                Assert.Equal(days.SelectMany(d => d).Distinct().Order(), notices.Select(n => n.Condition.Key).Distinct().Order());
            });
    }
}
