using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;

namespace Pyrometron.Storage.Tests;

public class StoresTests
{
    [Fact]
    public void The_same_document_twice_changes_nothing()
    {
        using var t = new TemporaryDatabase(withFleet: false);
        Assert.Equal(new FleetChange(2, 0, 0), t.Fleet.Import(TemporaryDatabase.Register()));
        Assert.Equal(new FleetChange(0, 0, 2), t.Fleet.Import(TemporaryDatabase.Register()));
        var register = t.Fleet.Register();
        Assert.Equal(TemporaryDatabase.Register().Assets.Select(a => a.Tag), register.Assets.Select(a => a.Tag));
        Assert.Equal(2, register.Sites.Single().Zones.Count);
        Assert.Empty(t.Fleet.Changes(t.Fleet.Find("GC-1")!.Id));
    }

    [Fact]
    public void A_part_that_goes_and_comes_back_finds_its_readings_again()
    {
        using var t = new TemporaryDatabase();
        t.Send("GC-1", TemporaryDatabase.Reading(0, 60, 80));
        Part core = new("core", new(90), JointMaterial.Paste), memory = new("memory", new(105), JointMaterial.Pad), hotspot = new("hotspot", new(105), JointMaterial.Paste);
        t.Fleet.Import(TemporaryDatabase.Register(memory, hotspot));
        Assert.Equal([80, double.NaN], t.Readings.Newest(t.Fleet.Find("GC-1")!, 1).Single().Reading.PartsC);
        t.Fleet.Import(TemporaryDatabase.Register(hotspot, core, memory));
        Assert.Equal([double.NaN, 60, 80], t.Readings.Newest(t.Fleet.Find("GC-1")!, 1).Single().Reading.PartsC);
        Assert.Contains(t.Fleet.Changes(t.Fleet.Find("GC-1")!.Id), c => c.Field == "parts");
    }

    [Fact]
    public void A_reading_sent_twice_is_stored_once_and_another_value_is_a_conflict()
    {
        using var t = new TemporaryDatabase();
        Assert.Equal([ReadingFate.Stored, ReadingFate.Duplicate, ReadingFate.Conflict],
            t.Send("GC-1", TemporaryDatabase.Reading(0, 60, 80), TemporaryDatabase.Reading(0, 60, 80), TemporaryDatabase.Reading(0, 61, 80)));
        Assert.Equal(60, t.Readings.Newest(t.Fleet.Find("GC-1")!, 9).Single().Reading.PartsC[0]);
        Assert.Equal(1, t.Readings.Count());
    }

    [Fact]
    public void A_corrected_reading_keeps_what_it_was_and_sending_the_file_again_is_no_conflict()
    {
        using var t = new TemporaryDatabase();
        var (sent, asset) = (TemporaryDatabase.Reading(0, 60, 80), t.Fleet.Find("GC-1")!);
        t.Send("GC-1", sent);
        var at = DateTimeOffset.FromUnixTimeMilliseconds(sent.UnixMilliseconds);
        Assert.True(t.Readings.Correct(asset, at, "memory", 88, "typed wrongly"));
        Assert.True(t.Readings.Correct(asset, at, "memory", 89, "once more"));
        Assert.True(t.Readings.Correct(asset, at, "ambient_c", null, "not measured"));
        Assert.False(t.Readings.Correct(asset, at, "asset_id", 1, "no column of a reading"));
        Assert.False(t.Readings.Correct(asset, at.AddDays(1), "memory", 1, "no such reading"));
        var stored = t.Readings.Newest(asset, 1).Single();
        Assert.Equal((89, 1), (stored.Reading.PartsC[1], stored.Amended));
        Assert.True(double.IsNaN(stored.Reading.AmbientC));
        Assert.Equal([(24.5, null), (88, 89), (80.0, (double?)88)], t.Readings.Amendments(asset).Select(a => (a.Before!.Value, a.After)));
        Assert.Equal([ReadingFate.Duplicate, ReadingFate.Conflict], t.Send("GC-1", sent, sent with { PartsC = [60, 89] }));
    }

    [Fact]
    public void A_voided_reading_is_kept_and_left_out_of_the_judgement()
    {
        using var t = new TemporaryDatabase();
        var asset = t.Fleet.Find("GC-1")!;
        t.Send("GC-1", TemporaryDatabase.Reading(0, 60, 80), TemporaryDatabase.Reading(5, 61, 81));
        var at = DateTimeOffset.FromUnixTimeMilliseconds(TemporaryDatabase.Reading(5).UnixMilliseconds);
        int Judged(long until)
        {
            using var reader = t.Readings.Series(until);
            return reader.Read(asset).Count;
        }
        Assert.True(t.Readings.Void(asset, at, true, "wrong machine"));
        Assert.Equal(1, Judged(long.MaxValue));
        Assert.Equal([2, 0], t.Readings.Newest(asset, 9).Select(r => r.Amended));
        Assert.True(t.Readings.Void(asset, at, false, "it was right"));
        Assert.Equal(2, Judged(long.MaxValue));
        Assert.Equal(1, Judged(at.ToUnixTimeMilliseconds() - 1));
    }

    [Fact]
    public void A_voided_service_is_kept_and_left_out_of_the_register()
    {
        using var t = new TemporaryDatabase();
        var asset = t.Fleet.Find("GC-1")!;
        Assert.Equal(1, t.Services.Add([("GC-1", new(new(2025, 10, 1), ServiceLevel.DustOut)), ("GC-1", new(new(2026, 1, 1), ServiceLevel.Repaste))]));
        var service = t.Services.Of(asset.Id).Single(s => s.Service.Level == ServiceLevel.Repaste);
        Assert.True(t.Services.Void(asset.Id, service.Id, "was another machine"));
        Assert.False(t.Services.Void(asset.Id + 1, service.Id, "not its own"));
        Assert.Equal([ServiceLevel.DustOut], t.Fleet.Find("GC-1")!.Asset.Services.Select(s => s.Level));
        Assert.Equal("was another machine", t.Services.Of(asset.Id).Single(s => s.Id == service.Id).VoidedReason);
        Assert.True(t.Services.Void(asset.Id, service.Id, null));
        Assert.Equal(2, t.Fleet.Find("GC-1")!.Asset.Services.Count);
    }

    [Fact]
    public void Moves_and_retirements_leave_a_trace()
    {
        using var t = new TemporaryDatabase();
        var asset = t.Fleet.Find("GC-1")!;
        t.Fleet.Update(asset.Asset with { Zone = "Y" });
        t.Fleet.Retire("GC-1", new(2026, 2, 1), "sold");
        Assert.Equal((new DateOnly(2026, 2, 1), "sold"), (t.Fleet.Find("GC-1")!.RetiredOn!.Value, t.Fleet.Find("GC-1")!.RetiredReason));
        Assert.Equal(["PC-1"], t.Fleet.Register(withRetired: false).Assets.Select(a => a.Tag));
        Assert.Contains(t.Fleet.Changes(asset.Id), c => (c.Field, c.Before, c.After) == ("zone", "Z", "Y"));
        t.Fleet.Retire("GC-1", null, null);
        Assert.Equal(2, t.Fleet.Register(withRetired: false).Assets.Count);
    }

    [Fact]
    public void Set_aside_ends_on_its_day()
    {
        using var t = new TemporaryDatabase();
        var aside = new SetAsideStore(t.Database, TimeProvider.System);
        aside.Put("GC-1", "looked", new(2026, 5, 10));
        Assert.Equal("looked", aside.On(new(2026, 5, 9))["GC-1"].Reason);
        Assert.Empty(aside.On(new(2026, 5, 10)));
        aside.TakeBack("GC-1");
        Assert.Empty(aside.On(new(2026, 5, 1)));
    }

    [Fact]
    public void A_job_keeps_its_ticks_runs_and_verdict_and_enters_its_service_once()
    {
        using var t = new TemporaryDatabase();
        var id = t.Jobs.Start("GC-1", ServiceLevel.Repad);
        t.Jobs.SaveRun(id, 1, "before", """{"a":1}""");
        t.Jobs.SaveRun(id, 2, "before", """{"a":2}""");
        t.Jobs.Tick(id, 3, "power-off", true);
        t.Jobs.Finish(id, 4, new(2026, 4, 1));
        t.Reopen();
        var job = t.Jobs.Find(id)!;
        Assert.Equal((JobState.WaitingForProof, 5), (job.State, job.Version));
        Assert.True(job.Steps.ContainsKey("power-off"));
        Assert.Equal([true, false], job.Runs.Select(r => r.VoidedAt is not null));
        Assert.Contains(t.Fleet.Find("GC-1")!.Asset.Services, s => s == new ServiceEvent(new(2026, 4, 1), ServiceLevel.Repad));
        Assert.Equal(id, t.Services.Of(t.Fleet.Find("GC-1")!.Id)[0].JobId);
        t.Jobs.Prove(id, 5, "{}");
        Assert.Equal(JobState.Proven, t.Jobs.Find(id)!.State);
    }

    [Fact]
    public void Two_people_on_one_job_do_not_overwrite_each_other()
    {
        using var t = new TemporaryDatabase();
        var id = t.Jobs.Start("GC-1", ServiceLevel.DustOut);
        t.Jobs.Tick(id, 1, "power-off", true);
        Assert.Equal(2, Assert.Throws<OutdatedJobException>(() => t.Jobs.Tick(id, 1, "ground", true)).Current);
        Assert.Equal(["power-off"], t.Jobs.Find(id)!.Steps.Keys);
    }
}
