using Pyrometron.Core.Fleet;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Learning;

namespace Pyrometron.Storage.Tests;

public class ProvenJobsTests
{
    private static void Execute(TemporaryDatabase t, string sql, params (string Name, object? Value)[] values)
    {
        using var connection = t.Database.Connect();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        foreach (var (name, value) in values)
            command.Parameters.AddWithValue(name, value ?? DBNull.Value);
        command.ExecuteNonQuery();
    }

    private static void Job(TemporaryDatabase t, ServiceLevel predicted, double kelvin, ServiceLevel done, string? verdict)
    {
        var id = t.Start("GC-1", done, new Prediction(Cause.Dust, predicted, kelvin))!.Value;
        Execute(t, "UPDATE job SET state = 'proven', verdict = $verdict WHERE id = $id", ("$verdict", verdict), ("$id", id));
    }

    private static string Verdict(string outcome, params (double Change, double Uncertainty)[] parts) =>
        FormattableString.Invariant(
            $$"""{"outcome":"{{outcome}}","parts":[{{string.Join(',', parts.Select((p, i) => FormattableString.Invariant($$"""{"part":"p{{i}}","changeKelvin":{{p.Change}},"uncertaintyKelvin":{{p.Uncertainty}}}""")))}}]}"""
        );

    [Fact]
    public void What_was_advised_done_and_proven_is_told_by_the_part_that_won_most()
    {
        using var t = new TemporaryDatabase();
        Job(t, ServiceLevel.DustOut, 8.5, ServiceLevel.DustOut, Verdict("improved", (-3.5, 3.3), (-7.25, 7.7), (1, 2)));
        Job(t, ServiceLevel.DustOut, 6, ServiceLevel.DustOut, Verdict("worse", (4, 3.3)));
        var jobs = t.Jobs.Proven();
        Assert.Equal([(8.5, 7.25, 7.7), (6, -4, 3.3)], jobs.Select(j => (j.DriftKelvin, j.WonKelvin, j.ExpandedKelvin)));
        // A cleaning leaves 15 % (common practice, no source): it was never to win all of the dust.
        Assert.Equal(8.5 * 0.85, jobs[0].PredictedKelvin, 1e-9);
        Assert.All(
            jobs,
            j =>
                Assert.Equal(
                    (AssetKind.GraphicsCard, ServiceLevel.DustOut, t.Fleet.Find("GC-1")!.Asset.Model),
                    (j.Kind, j.Level, j.Model)
                )
        );
    }

    [Fact]
    public void Without_proof_without_comparison_or_with_other_work_nothing_is_learnt()
    {
        using var t = new TemporaryDatabase();
        Job(t, ServiceLevel.DustOut, 8, ServiceLevel.DustOut, null);
        Job(t, ServiceLevel.DustOut, 8, ServiceLevel.DustOut, Verdict("not-comparable"));
        Job(t, ServiceLevel.DustOut, 8, ServiceLevel.Repaste, Verdict("improved", (-9, 3.3)));
        Assert.Empty(t.Jobs.Proven());
    }

    [Fact]
    public void Every_finished_job_is_told_with_its_proof_and_what_came_of_it()
    {
        using var t = new TemporaryDatabase();
        Job(t, ServiceLevel.DustOut, 8.5, ServiceLevel.Repaste, Verdict("improved", (-3.5, 3.3), (-7.25, 7.7)));
        Job(t, ServiceLevel.DustOut, 8, ServiceLevel.DustOut, "cut off {");
        Job(t, ServiceLevel.DustOut, 8, ServiceLevel.DustOut, null);
        // The first was done on a day of its own, and the machine came back from it; the last is still open.
        Execute(t, "UPDATE job SET work_done_at = '2026-10-01T08:00:00Z', found_causes = 'dust' WHERE id = 1");
        Execute(t, "UPDATE job SET work_done_at = '2026-11-02T08:00:00Z', comeback_of = 1 WHERE id = 2");
        Execute(t, "UPDATE job SET state = 'open', work_done_at = NULL WHERE id = 3");
        Execute(
            t,
            """
            INSERT INTO job_entry (job_id, key, version, subject, kind, device, made_at, stored_at, form, entry)
            VALUES (1, 'k1', 9, 'd1', 'damage-found', 'phone', '2026-10-01T08:00:00Z', '2026-10-01T08:00:00Z', 1, '{"text":"a clip","onTheWay":true}'),
                (1, 'k2', 10, 'd2', 'damage-found', 'phone', '2026-10-01T08:00:00Z', '2026-10-01T08:00:00Z', 1, '{"text":"a seal"}')
            """
        );
        Execute(t, "UPDATE job SET card = json_set(card, '$.twoPeople', json('true')) WHERE id = 1");
        var jobs = t.Jobs.Finished(null, null);
        Assert.Equal([(2L, false), (1, true)], jobs.Select(j => (j.Id, j.TookTwo)));
        Assert.Equal((VerdictOutcome.Improved, 7.25, 7.7), (jobs[1].Outcome!.Value, jobs[1].WonKelvin, jobs[1].ExpandedKelvin));
        Assert.Equal((true, 1, Cause.Dust), (jobs[1].CameBack, jobs[1].BrokenParts, Assert.Single(jobs[1].Found!)));
        Assert.Null(jobs[0].Outcome);
        Assert.Equal(1, Assert.Single(t.Jobs.Finished(null, new DateOnly(2026, 10, 31))).Id);
        Assert.Equal(2, Assert.Single(t.Jobs.Finished(new DateOnly(2026, 10, 2), null)).Id);
    }

    /// <summary>
    /// What the runs of a verdict show besides: over all its pairs, the score before the clock, and nothing where nothing was
    /// told.
    /// </summary>
    [Fact]
    public void What_runs_showed_besides_kelvins_is_told_with_the_job()
    {
        using var t = new TemporaryDatabase();
        const string pairs = """
            {"outcome":"improved","alsoBetter":["quieter","no-longer-throttling"],
             "parts":[{"part":"core","changeKelvin":-8,"uncertaintyKelvin":3},{"part":"memory","changeKelvin":-2,"uncertaintyKelvin":3,"afterCelsius":80}],
             "pairs":[
               {"noise":{"speedShare":-0.1,"decibel":-2,"uncertaintyDecibel":1},
                "parts":[{"part":"memory","afterCelsius":81},{"part":"core","afterCelsius":70}],
                "performance":[{"what":"clock","before":2000,"after":2300},{"what":"score","before":100,"after":103}]},
               {"noise":{"speedShare":-0.2,"decibel":-4,"uncertaintyDecibel":2},
                "parts":[{"part":"core","afterCelsius":72}],
                "performance":[{"what":"score","before":200,"after":202}]}]}
            """;
        Job(t, ServiceLevel.DustOut, 8.5, ServiceLevel.Repaste, pairs);
        Job(t, ServiceLevel.DustOut, 8.5, ServiceLevel.Repaste, Verdict("improved", (-3.5, 3.3)));
        Job(
            t,
            ServiceLevel.DustOut,
            8.5,
            ServiceLevel.Repaste,
            """{"outcome":"no-change","alsoBetter":["no-longer-failing"],"parts":[{"part":"core","changeKelvin":0,"uncertaintyKelvin":3,"afterCelsius":66.5}],"pairs":[{"performance":[{"what":"clock","before":3000,"after":2970}]}]}"""
        );
        Execute(t, "UPDATE job SET work_done_at = '2026-10-01T08:00:00Z'");
        var sides = t.Jobs.Finished(null, null).OrderBy(j => j.Id).Select(j => j.Sides).ToArray();
        Assert.Equal(
            (71, -3, 2, 0.02),
            (sides[0].AfterCelsius, sides[0].Decibel, sides[0].ExpandedDecibel, Math.Round(sides[0].Performance!.Value, 9))
        );
        Assert.Equal((true, false), (sides[0].EndedThrottling, sides[0].EndedFailing));
        Assert.Equal(MeasuredSides.None, sides[1]);
        Assert.Equal(
            (66.5, -0.01, true),
            (sides[2].AfterCelsius, Math.Round(sides[2].Performance!.Value, 9), sides[2].EndedFailing)
        );
    }

    /// <summary>Books minutes on a job and files its work, or not.</summary>
    private static void Timed(TemporaryDatabase t, ServiceLevel done, JobState state, params double[] booked)
    {
        var id = t.Start("PC-1", done)!.Value;
        foreach (var (minutes, i) in booked.Select((m, i) => (m, i)))
            t.Write(w =>
                JobStore.Add(
                    w,
                    id,
                    new NewEntry(Guid.NewGuid(), i + 2, "phone", null, DateTimeOffset.UnixEpoch, new MinutesBooked(minutes))
                )
            );
        Execute(
            t,
            "UPDATE job SET state = $state, work_done_at = CASE $state WHEN 'open' THEN NULL ELSE '1970-01-01' END WHERE id = $id",
            ("$state", Words.Of(state)),
            ("$id", id)
        );
    }

    [Fact]
    public void Minutes_booked_on_filed_jobs_are_summed_by_job_and_nothing_else_is()
    {
        using var t = new TemporaryDatabase();
        Timed(t, ServiceLevel.Repaste, JobState.WaitingForProof, 40, -10, 25.5);
        Timed(t, ServiceLevel.DustOut, JobState.Proven, 20);
        Timed(t, ServiceLevel.DustOut, JobState.Abandoned, 90);
        Timed(t, ServiceLevel.DustOut, JobState.WaitingForProof);
        Timed(t, ServiceLevel.DustOut, JobState.WaitingForProof, 30, -30);
        Timed(t, ServiceLevel.BlowOut, JobState.Open, 15);
        Assert.Equal(
            [(ServiceLevel.Repaste, 55.5), (ServiceLevel.DustOut, 20)],
            t.Jobs.Timed().Select(j => (j.Level, j.Minutes))
        );
        Assert.All(t.Jobs.Timed(), j => Assert.Equal(t.Fleet.Find("PC-1")!.Asset.Kind, j.Kind));
    }
}
