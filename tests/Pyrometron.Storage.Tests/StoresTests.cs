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
        Part core = new("core", new(90), JointMaterial.Paste),
            memory = new("memory", new(105), JointMaterial.Pad),
            hotspot = new("hotspot", new(105), JointMaterial.Paste);
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
        Assert.Equal(
            [ReadingFate.Stored, ReadingFate.Duplicate, ReadingFate.Conflict],
            t.Send(
                "GC-1",
                TemporaryDatabase.Reading(0, 60, 80),
                TemporaryDatabase.Reading(0, 60, 80),
                TemporaryDatabase.Reading(0, 61, 80)
            )
        );
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
        Assert.Equal(
            [(24.5, null), (88, 89), (80.0, (double?)88)],
            t.Readings.Amendments(asset).Select(a => (a.Before!.Value, a.After))
        );
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
        Assert.Equal(
            1,
            t.Services.Add([
                ("GC-1", new(new(2025, 10, 1), ServiceLevel.DustOut)),
                ("GC-1", new(new(2026, 1, 1), ServiceLevel.Repaste)),
            ])
        );
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
        Assert.Equal(
            (new DateOnly(2026, 2, 1), "sold"),
            (t.Fleet.Find("GC-1")!.RetiredOn!.Value, t.Fleet.Find("GC-1")!.RetiredReason)
        );
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

    private static StoredEntry Entry(long job, string subject, string device = "phone", Guid? key = null) =>
        new(job, key ?? Guid.NewGuid(), 0, subject, "noted", device, null, DateTimeOffset.UtcNow, "{}");

    private static JobOutcome Outcome(StoredJob job, params ServiceDone[] services) =>
        new(
            job.Level,
            services.Length > 0 ? JobState.WaitingForProof : job.State,
            null,
            null,
            null,
            [Cause.Dust, Cause.Pads],
            null,
            null,
            services
        );

    [Fact]
    public void A_job_keeps_its_entries_and_enters_its_services_once()
    {
        using var t = new TemporaryDatabase();
        var id = t
            .Jobs.Start(
                new NewJob("GC-1", ServiceLevel.Repad, null, new(2027, 1, 1), new Prediction(Cause.Pads, ServiceLevel.Repad, 7.5))
            )!
            .Value;
        Assert.Null(t.Jobs.Start(new NewJob("GC-1", ServiceLevel.DustOut, null, null, null)));
        Assert.True(t.Jobs.Append(Entry(id, "note"), 1, false, (job, entries, version) => Outcome(job)));
        Assert.True(
            t.Jobs.Append(
                Entry(id, "state"),
                2,
                true,
                (job, entries, version) =>
                {
                    Assert.Equal((1, 3), (entries.Count, version));
                    return Outcome(job, new(new(2026, 4, 1), ServiceLevel.Repad), new(new(2026, 4, 1), ServiceLevel.FanSwap));
                }
            )
        );
        t.Reopen();
        var job = t.Jobs.Find(id)!;
        Assert.Equal((JobState.WaitingForProof, 3, 7.5), (job.State, job.Version, job.Predicted!.DriftKelvin));
        Assert.Equal([Cause.Dust, Cause.Pads], job.FoundCauses!);
        Assert.Equal([2, 3], t.Jobs.Entries(id).Select(e => e.Version));
        Assert.Equal(2, t.Fleet.Find("GC-1")!.Asset.Services.Count(s => s.Date == new DateOnly(2026, 4, 1)));
        Assert.Equal(
            id,
            t.Services.Of(t.Fleet.Find("GC-1")!.Id)
                .Single(s => s.Service.Level == ServiceLevel.Repad && s.JobId is not null)
                .JobId
        );
        Assert.False(t.Jobs.Append(Entry(99, "note"), 1, false, (_, _, _) => throw new InvalidOperationException()));
    }

    [Fact]
    public void An_entry_that_is_refused_leaves_no_trace_and_one_sent_twice_is_stored_once()
    {
        using var t = new TemporaryDatabase();
        var id = t.Jobs.Start(new NewJob("GC-1", ServiceLevel.DustOut, null, null, null))!.Value;
        Assert.Throws<InvalidOperationException>(() =>
            t.Jobs.Append(Entry(id, "note"), 1, false, (_, _, _) => throw new InvalidOperationException())
        );
        Assert.Equal(1, t.Jobs.Find(id)!.Version);
        var key = Guid.NewGuid();
        for (var i = 0; i < 2; i++)
            t.Jobs.Append(Entry(id, "note", key: key), 1, false, (job, _, _) => Outcome(job));
        Assert.Single(t.Jobs.Entries(id));
    }

    [Fact]
    public void Two_devices_conflict_over_the_same_subject_only_and_over_everything_when_one_decides()
    {
        using var t = new TemporaryDatabase();
        var id = t.Jobs.Start(new NewJob("GC-1", ServiceLevel.DustOut, null, null, null))!.Value;
        bool Write(string subject, string device, int seen, bool decides = false) =>
            t.Jobs.Append(Entry(id, subject, device), seen, decides, (job, _, _) => Outcome(job));
        Assert.True(Write("step blow", "phone", 1));
        Assert.True(Write("step brush", "tablet", 1));
        Assert.True(Write("step blow", "phone", 1));
        Assert.Equal(2, Assert.Throws<ConflictingEntryException>(() => Write("step blow", "tablet", 1)).Theirs.Count);
        Assert.Equal(3, Assert.Throws<ConflictingEntryException>(() => Write("state", "desk", 1, decides: true)).Theirs.Count);
        Assert.True(Write("state", "desk", 4, decides: true));
    }

    [Fact]
    public void Samples_photos_and_notes_keep_to_themselves()
    {
        using var t = new TemporaryDatabase();
        var id = t.Jobs.Start(new NewJob("GC-1", ServiceLevel.DustOut, null, null, null))!.Value;
        var (samples, photos, notes) = (
            new SampleStore(t.Database),
            new PhotoStore(t.Database),
            new NotesStore(t.Database, TimeProvider.System)
        );
        var start = DateTimeOffset.UtcNow;
        samples.Add(id, [.. Enumerable.Range(0, SampleStore.Most + 50).Select(i => (start.AddSeconds(i), $"{i}"))]);
        Assert.Equal(SampleStore.Most, samples.Since(id, start).Count);
        Assert.Equal("50", samples.Since(id, start)[0].Sample);
        var key = Guid.NewGuid();
        photos.Keep(key, id, 4, 3, [1, 2], [3]);
        photos.Keep(key, id, 4, 3, [9, 9], [9]);
        Assert.Equal([1, 2], photos.Find(key, small: false)!);
        Assert.False(photos.Has(key, id + 1));
        Assert.True(notes.Keep("Sorrel", "{}", 0));
        Assert.False(notes.Keep("Sorrel", "{}", 0));
        Assert.True(notes.Keep("Sorrel", "{\"a\":1}", 1));
        Assert.Equal(2, notes.Find("Sorrel")!.Version);
        Assert.Equal(("Sorrel", true), notes.Models().Where(m => m.Noted).Select(m => (m.Model, m.Noted)).Single());
    }
}
