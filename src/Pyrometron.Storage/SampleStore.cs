namespace Pyrometron.Storage;

/// <summary>Samples that come in while a run is going on at the bench.</summary>
public sealed class SampleStore(Database database)
{
    /// <summary>A job keeps its newest samples only: two hours by the second.</summary>
    public const int Most = 7200;

    /// <summary>Adds samples; the same instant again changes nothing.</summary>
    /// <param name="samples">JSON each.</param>
    public static void Add(Transaction t, long job, IReadOnlyList<(DateTimeOffset At, string Sample)> samples)
    {
        foreach (var (at, sample) in samples)
            t.Connection.Execute(
                "INSERT INTO job_sample (job_id, at, sample) VALUES ($job, $at, $sample) ON CONFLICT DO NOTHING",
                ("$job", job),
                ("$at", Sql.Text(at)),
                ("$sample", sample)
            );
        t.Connection.Execute(
            "DELETE FROM job_sample WHERE job_id = $job AND at <= (SELECT at FROM job_sample WHERE job_id = $job ORDER BY at DESC LIMIT 1 OFFSET $most)",
            ("$job", job),
            ("$most", Most)
        );
    }

    /// <summary>The samples of a job from an instant on, oldest first.</summary>
    public IReadOnlyList<(DateTimeOffset At, string Sample)> Since(long job, DateTimeOffset from) =>
        database.Read(connection =>
            connection.Query(
                "SELECT at, sample FROM job_sample WHERE job_id = $job AND at >= $from ORDER BY at",
                r => (Sql.ReadInstant(r.GetString(0)), r.GetString(1)),
                ("$job", job),
                ("$from", Sql.Text(from))
            )
        );
}
