using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Procedures;
using Pyrometron.Core.Readings;

namespace Pyrometron.Storage.Tests;

public class StoresTests
{
    private static (int, int, int) Counts(FleetChange change) => (change.Created, change.Updated, change.Unchanged);

    [Fact]
    public void The_same_document_twice_changes_nothing()
    {
        using var t = new TemporaryDatabase(withFleet: false);
        Assert.Equal((2, 0, 0), Counts(t.Import(TemporaryDatabase.Register())));
        Assert.Equal((0, 0, 2), Counts(t.Import(TemporaryDatabase.Register())));
        var register = t.Fleet.Register();
        Assert.Equal(TemporaryDatabase.Register().Assets.Select(a => a.Tag), register.Assets.Select(a => a.Tag));
        Assert.Equal(2, register.Sites.Single().Zones.Count);
    }

    [Fact]
    public void A_part_that_goes_and_comes_back_finds_its_readings_again()
    {
        using var t = new TemporaryDatabase();
        t.Send("GC-1", TemporaryDatabase.Reading(0, 60, 80));
        Part core = new("core", new(90), JointMaterial.Paste),
            memory = new("memory", new(105), JointMaterial.Pad),
            hotspot = new("hotspot", new(105), JointMaterial.Paste);
        t.Import(TemporaryDatabase.Register(memory, hotspot));
        Assert.Equal([80, double.NaN], t.Readings.Newest(t.Fleet.Find("GC-1")!, 1).Single().Reading.PartsC);
        var change = t.Import(TemporaryDatabase.Register(hotspot, core, memory));
        Assert.Equal([double.NaN, 60, 80], t.Readings.Newest(t.Fleet.Find("GC-1")!, 1).Single().Reading.PartsC);
        Assert.Contains(change.Changes, c => c.Field == "parts");
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
        Assert.True(t.Write(w => ReadingStore.Correct(w, asset, at, "memory", 88, "typed wrongly")));
        Assert.True(t.Write(w => ReadingStore.Correct(w, asset, at, "memory", 89, "once more")));
        Assert.True(t.Write(w => ReadingStore.Correct(w, asset, at, "ambient_c", null, "not measured")));
        Assert.False(t.Write(w => ReadingStore.Correct(w, asset, at, "asset_id", 1, "no column of a reading")));
        Assert.False(t.Write(w => ReadingStore.Correct(w, asset, at.AddDays(1), "memory", 1, "no such reading")));
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
        Assert.True(t.Write(w => ReadingStore.Void(w, asset, at, true, "wrong machine")));
        Assert.Equal(1, Judged(long.MaxValue));
        Assert.Equal([2, 0], t.Readings.Newest(asset, 9).Select(r => r.Amended));
        Assert.True(t.Write(w => ReadingStore.Void(w, asset, at, false, "it was right")));
        Assert.Equal(2, Judged(long.MaxValue));
        Assert.Equal(1, Judged(at.ToUnixTimeMilliseconds() - 1));
    }

    [Fact]
    public void A_voided_service_is_kept_and_left_out_of_the_register()
    {
        using var t = new TemporaryDatabase();
        var asset = t.Fleet.Find("GC-1")!;
        Assert.False(t.Write(w => ServiceStore.Add(w, asset.Id, new(new(2025, 10, 1), ServiceLevel.DustOut))));
        Assert.True(t.Write(w => ServiceStore.Add(w, asset.Id, new(new(2026, 1, 1), ServiceLevel.Repaste))));
        var service = t.Services.Of(asset.Id).Single(s => s.Service.Level == ServiceLevel.Repaste);
        t.Write(w => ServiceStore.Void(w, service.Id, "was another machine"));
        Assert.Null(t.Write(w => ServiceStore.Find(w, asset.Id + 1, service.Id)));
        Assert.Equal([ServiceLevel.DustOut], t.Fleet.Find("GC-1")!.Asset.Services.Select(s => s.Level));
        Assert.Equal("was another machine", t.Services.Of(asset.Id).Single(s => s.Id == service.Id).VoidedReason);
        t.Write(w => ServiceStore.Void(w, service.Id, null));
        Assert.Equal(2, t.Fleet.Find("GC-1")!.Asset.Services.Count);
    }

    [Fact]
    public void Moves_and_retirements_leave_a_trace()
    {
        using var t = new TemporaryDatabase();
        var asset = t.Fleet.Find("GC-1")!;
        var changes = t.Write(w => FleetStore.Update(w, asset, asset.Asset with { Zone = "Y" }));
        t.Write(w => FleetStore.Retire(w, asset, new(2026, 2, 1), "sold"));
        Assert.Equal(
            (new DateOnly(2026, 2, 1), "sold"),
            (t.Fleet.Find("GC-1")!.RetiredOn!.Value, t.Fleet.Find("GC-1")!.RetiredReason)
        );
        Assert.Equal(["PC-1"], t.Fleet.Register(withRetired: false).Assets.Select(a => a.Tag));
        Assert.Contains(changes, c => (c.Field, c.Before, c.After) == ("zone", "Z", "Y"));
        t.Write(w => FleetStore.Retire(w, t.Fleet.Find("GC-1")!, null, null));
        Assert.Equal(2, t.Fleet.Register(withRetired: false).Assets.Count);
    }

    [Fact]
    public void Set_aside_ends_on_its_day()
    {
        using var t = new TemporaryDatabase();
        var aside = new SetAsideStore(t.Database);
        t.Write(w => SetAsideStore.Put(w, t.Id("GC-1"), "looked", new(2026, 5, 10)));
        Assert.Equal("looked", aside.On(new(2026, 5, 9))["GC-1"].Reason);
        Assert.Empty(aside.On(new(2026, 5, 10)));
        Assert.True(t.Write(w => SetAsideStore.TakeBack(w, t.Id("GC-1"))));
        Assert.Empty(aside.On(new(2026, 5, 1)));
    }

    [Fact]
    public void A_job_keeps_its_card_and_its_entries_and_there_is_one_open_on_a_machine()
    {
        using var t = new TemporaryDatabase();
        var id = t.Start("GC-1", ServiceLevel.Repad, new Prediction(Cause.Pads, ServiceLevel.Repad, 7.5))!.Value;
        Assert.Null(t.Start("GC-1", ServiceLevel.DustOut));
        var noted = new NewEntry(Guid.NewGuid(), 2, "phone", "M.", DateTimeOffset.UtcNow, new Noted("dry"));
        t.Write(w => JobStore.Add(w, id, noted));
        t.Write(w => JobStore.Keep(w, JobStore.Job(w, JobStore.Find(w, id)!), null));
        t.Reopen();
        var (row, job) = (t.Jobs.Find(id)!, t.Jobs.Job(id)!);
        Assert.Equal((JobState.Open, 2, 7.5), (row.State, row.Version, row.Predicted!.DriftKelvin));
        Assert.Equal(new Noted("dry"), Assert.Single(t.Write(w => JobStore.Entries(w, id))).Entry);
        Assert.Equal(WorkCard.For(job.Basis).Select(s => s.Id), job.Steps.Select(s => s.Card.Id));
        Assert.Null(t.Jobs.Find(99));
    }

    [Fact]
    public void Samples_photos_and_notes_keep_to_themselves()
    {
        using var t = new TemporaryDatabase();
        var id = t.Start("GC-1", ServiceLevel.DustOut)!.Value;
        var (samples, photos, notes) = (new SampleStore(t.Database), new PhotoStore(t.Database), new NotesStore(t.Database));
        var start = DateTimeOffset.UtcNow;
        t.Write(w =>
            SampleStore.Add(w, id, [.. Enumerable.Range(0, SampleStore.Most + 50).Select(i => (start.AddSeconds(i), $"{i}"))])
        );
        Assert.Equal(SampleStore.Most, samples.Since(id, start).Count);
        Assert.Equal("50", samples.Since(id, start)[0].Sample);
        var key = Guid.NewGuid();
        t.Write(w => PhotoStore.Keep(w, id, new(key, 4, 3, [1, 2], [3])));
        t.Write(w => PhotoStore.Keep(w, id, new(key, 4, 3, [9, 9], [9])));
        Assert.Equal([9, 9], photos.Find(key, small: false)!);
        Assert.False(t.Write(w => PhotoStore.Has(w, key, id + 1)));
        bool Keep(ModelNotes written, int seen) => t.Write(w => NotesStore.Keep(w, written, seen));
        var empty = ModelNotes.Empty("Sorrel");
        Assert.True(Keep(empty, 0));
        Assert.False(Keep(empty, 0));
        Assert.True(Keep(empty with { Traps = ["sealed with clips"] }, 1));
        Assert.Equal((2, "sealed with clips"), (notes.Find("Sorrel").Version, notes.Find("Sorrel").Notes.Traps.Single()));
        Assert.Equal(("Sorrel", true), notes.Models().Where(m => m.Noted).Select(m => (m.Model, m.Noted)).Single());
    }

    /// <summary>
    /// Twelve slots, and a thirteenth name: a part that was renamed frees its place. Its readings are nobody else's, and are
    /// there again when it comes back.
    /// </summary>
    [Fact]
    public void A_part_that_was_renamed_frees_its_slot_and_keeps_its_readings()
    {
        static Part[] Named(params int[] numbers) => [.. numbers.Select(n => new Part($"p{n}", new(90), JointMaterial.Paste))];
        using var t = new TemporaryDatabase();
        int[] first = [.. Enumerable.Range(0, 12)];
        t.Import(TemporaryDatabase.Register(Named(first)));
        t.Send("GC-1", TemporaryDatabase.Reading(0, [.. first.Select(n => 50.0 + n)]));
        for (var n = 12; n < 40; n++)
        {
            t.Import(TemporaryDatabase.Register(Named([n, .. first.Skip(1)])));
            var stored = t.Fleet.Find("GC-1")!;
            Assert.Equal(12, stored.Slots.Distinct().Count());
            Assert.True(double.IsNaN(t.Readings.Newest(stored, 1)[0].Reading.PartsC[0]));
            Assert.Equal(51, t.Readings.Newest(stored, 1)[0].Reading.PartsC[1]);
        }
        t.Import(TemporaryDatabase.Register(Named(first)));
        Assert.Equal(first.Select(n => 50.0 + n), t.Readings.Newest(t.Fleet.Find("GC-1")!, 1)[0].Reading.PartsC);
    }

    /// <summary>A file whose every line names its own workload fills nobody's memory.</summary>
    [Fact]
    public void More_different_labels_than_a_house_can_have_are_refused_and_known_ones_still_taken()
    {
        using var t = new TemporaryDatabase();
        Reading Named(int i) => TemporaryDatabase.Reading(i, 60, 80) with { Workload = $"load {i}" };
        var fates = t.Send("GC-1", [.. Enumerable.Range(0, ReadingStore.MostLabels + 50).Select(Named)]);
        // The settings' name is one of them.
        Assert.Equal(51, fates.Count(f => f == ReadingFate.TooManyLabels));
        Assert.Equal([ReadingFate.Stored], t.Send("GC-1", TemporaryDatabase.Reading(-1, 60, 80) with { Workload = "load 3" }));
    }
}
