using System.Text.Json;
using Pyrometron.Core.Jobs;
using Pyrometron.Storage;

namespace Pyrometron.Application.Bench;

/// <summary>A job with its row.</summary>
/// <param name="NotesChanged">
/// Whether the notes on its model have changed since its card was dealt, and can still be taken over.
/// </param>
public sealed record JobInHand(StoredJob Row, Job Job, bool NotesChanged);

/// <summary>Reads jobs.</summary>
public sealed class BenchQueries(JobStore jobs, NotesStore notes)
{
    /// <summary>A job, or null.</summary>
    public JobInHand? Find(long id) =>
        jobs.Find(id) is { } row && jobs.Job(id) is { } job
            ? new JobInHand(row, job, row.State == JobState.Open && HaveChanged(job, row.Model))
            : null;

    private bool HaveChanged(Job job, string model) =>
        JsonSerializer.Serialize(notes.Find(model).Notes) != JsonSerializer.Serialize(job.Basis.Notes);
}
