using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;

namespace Pyrometron.Storage.Tests;

public class LogStoreTests
{
    private static readonly LogFilter Everything = new(null, null, null, null, null);

    private static TemporaryDatabase WithHistory()
    {
        var t = new TemporaryDatabase();
        var id = t.Jobs.Start(new NewJob("GC-1", ServiceLevel.Repad, null, null, null))!.Value;
        foreach (var (kind, at) in new[] { ("noted", "2026-02-01"), ("found", "2026-02-02"), ("photo-taken", "2026-02-03") })
            t.Jobs.Append(
                new StoredEntry(
                    id,
                    Guid.NewGuid(),
                    0,
                    null,
                    kind,
                    "phone",
                    "M. Larkspur",
                    DateTimeOffset.Parse(at + "T10:00:00Z", System.Globalization.CultureInfo.InvariantCulture),
                    $$"""{"kind":"{{kind}}","text":"100 % torn_pad"}"""
                ),
                99,
                false,
                (job, _, _) => new JobOutcome(job.Level, job.State, null, null, null, null, null, null, [])
            );
        new SymptomStore(t.Database, TimeProvider.System).Add(
            t.Fleet.Find("PC-1")!.Id,
            new Symptom(new(2026, 1, 5), SymptomKind.Noise, "hums")
        );
        t.Fleet.Retire("PC-1", new(2026, 3, 1), "sold");
        return t;
    }

    [Fact]
    public void Everything_is_in_the_book_newest_first()
    {
        using var t = WithHistory();
        var log = new LogStore(t.Database);
        var lines = log.Page(Everything, 0, 100);
        Assert.Equal(log.Count(Everything), lines.Count);
        Assert.Equal(lines.OrderByDescending(l => l.At).Select(l => l.At), lines.Select(l => l.At));
        Assert.Equal(
            ["found", "job", "noted", "photo-taken", "report", "service"],
            lines.Select(l => l.Kind).Where(k => k != "change").Distinct().Order(StringComparer.Ordinal)
        );
        Assert.Equal(lines, log.All(Everything));
    }

    [Fact]
    public void It_is_filtered_by_machine_kind_day_and_words_as_they_stand()
    {
        using var t = WithHistory();
        var log = new LogStore(t.Database);
        int Count(LogFilter filter) => log.Count(filter);
        Assert.Equal(1, Count(Everything with { Tag = "PC-1", Kinds = ["report"] }));
        Assert.Equal(2, Count(Everything with { Kinds = ["noted", "found"] }));
        Assert.Equal(1, Count(Everything with { Kinds = ["noted", "found"], From = new(2026, 2, 2) }));
        Assert.Equal(1, Count(Everything with { Kinds = ["noted", "found"], Until = new(2026, 2, 1) }));
        Assert.Equal(3, Count(Everything with { Text = "100 % torn_pad" }));
        Assert.Equal(0, Count(Everything with { Text = "100 _ torn%pad" }));
        Assert.Equal(1, Count(Everything with { Text = "HUMS" }));
    }

    [Fact]
    public void Pages_follow_each_other_without_a_gap()
    {
        using var t = WithHistory();
        var log = new LogStore(t.Database);
        var all = log.Page(Everything, 0, 100);
        Assert.Equal(all, [.. log.Page(Everything, 0, 2), .. log.Page(Everything, 2, 2), .. log.Page(Everything, 4, 100)]);
    }
}
