using Pyrometron.Core.Messages;

namespace Pyrometron.Storage.Tests;

public class ChangeStoreTests
{
    private static readonly LogFilter Everything = new(null, null, null, null, null);

    private static TemporaryDatabase WithHistory()
    {
        var t = new TemporaryDatabase();
        foreach (var (kind, on) in new[] { ("noted", "2026-02-01"), ("found", "2026-02-02"), ("photo-taken", "2026-02-03") })
            t.Write(w =>
                w.Log(
                    new Change(kind, Message.Of("{said}", Value.Text("said", "100 % torn_pad")))
                    {
                        Asset = t.Id("GC-1"),
                        At = DateTimeOffset.Parse(on + "T10:00:00Z", System.Globalization.CultureInfo.InvariantCulture),
                    }
                )
            );
        t.Write(w => w.Log(new Change("report", "Reported: noise, hums") { Asset = t.Id("PC-1") }));
        t.Write(w => w.Log(new Change("import", "Readings: 5 stored") { Touches = [t.Id("PC-1")] }));
        return t;
    }

    [Fact]
    public void The_log_book_holds_what_is_about_a_machine_newest_first()
    {
        using var t = WithHistory();
        var log = new ChangeStore(t.Database);
        var lines = log.Page(Everything, 0, 100);
        Assert.Equal(["report", "photo-taken", "found", "noted"], lines.Select(l => l.Kind));
        Assert.Equal(log.Count(Everything), lines.Count);
        Assert.Equal(lines.Select(l => l.Id), log.All(Everything).Select(l => l.Id));
        // Who did it is read back, not what they may.
        Assert.All(lines, l => Assert.Equal(TemporaryDatabase.Actor with { Rights = Rights.None }, l.Actor));
    }

    [Fact]
    public void It_is_filtered_by_machine_kind_day_and_words_as_they_stand()
    {
        using var t = WithHistory();
        var log = new ChangeStore(t.Database);
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
        var log = new ChangeStore(t.Database);
        long[] Page(int skip, int take) => [.. log.Page(Everything, skip, take).Select(l => l.Id)];
        Assert.Equal(Page(0, 100), (long[])[.. Page(0, 2), .. Page(2, 1), .. Page(3, 100)]);
    }

    [Fact]
    public void What_a_line_touches_is_told_and_a_line_about_nothing_in_particular_touches_all()
    {
        using var t = WithHistory();
        var log = new ChangeStore(t.Database);
        Assert.Equal(["GC-1", "PC-1"], log.TouchedSince(0).Tags!.Order());
        var last = log.TouchedSince(3);
        Assert.Equal(["PC-1"], last.Tags!);
        Assert.Empty(log.TouchedSince(last.Last).Tags!);
        // Rules are not about what was measured: nothing has to be read again for them.
        t.Write(w => w.Log(new Change("rules", "Rules changed")));
        var (_, tags, rules) = log.TouchedSince(last.Last);
        Assert.True(tags is { Count: 0 } && rules);
        t.Write(w => w.Log(new Change("zone", "Zone changed")));
        Assert.Null(log.TouchedSince(last.Last).Tags);
    }

    /// <summary>SHA-256 over the line before and this one: a line that was changed or taken out breaks the chain there.</summary>
    [Theory]
    [InlineData("UPDATE change SET plain = plain || '.' WHERE id = 3", 3L)]
    [InlineData("UPDATE change SET actor_id = actor_id + 1 WHERE id = 1", 1L)]
    [InlineData("DELETE FROM change WHERE id = 2", 3L)]
    public void A_line_that_was_tampered_with_is_found(string sql, long broken)
    {
        using var t = WithHistory();
        Assert.Null(new AuditStore(t.Database).Follow(CancellationToken.None).FirstBroken);
        using (var connection = t.Database.Connect())
        using (var command = connection.CreateCommand())
        {
            command.CommandText = "PRAGMA foreign_keys = OFF; " + sql;
            command.ExecuteNonQuery();
        }
        Assert.Equal(broken, new AuditStore(t.Database).Follow(CancellationToken.None).FirstBroken);
    }
}
