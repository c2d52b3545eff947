using Pyrometron.Core.Events;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Bench;

/// <summary>What an entry of a job means beyond the job itself; done in the transaction that stores it.</summary>
internal static class EntryEffects
{
    /// <summary>What an entry means for the machine: its service, its reports, and its model's notes.</summary>
    public static void Follow(Transaction t, StoredJob row, Job before, Job after, JobEntry entry)
    {
        if (after.Service is { } service && !service.Equals(before.Service))
            ServiceStore.Enter(t, row.AssetId, service);
        if (entry is WorkFiled)
        {
            t.Log(
                new Change("service", Message.Of("Service: {level}", Value.Word("level", after.Level)))
                {
                    Asset = row.AssetId,
                    Job = row.Id,
                    At = after.WorkDoneAt,
                }
            );
            SetAsideStore.TakeBack(t, row.AssetId);
            Learn(t, row, after);
        }
        if (entry is ComplaintRecorded complaint)
            TakeUp(t, row, complaint);
        if (entry is VerdictFiled { Fixed: true })
            Clear(t, row, after);
    }

    private static void Learn(Transaction t, StoredJob row, Job job)
    {
        var known = NotesStore.Find(t, row.Model);
        var learnt = LearntNotes.From(known.Notes, job);
        if (ReferenceEquals(learnt, known.Notes))
            return;
        NotesStore.Keep(t, learnt, known.Version, row.Id);
        t.Log(BenchUseCases.NotesKept(row.Model) with { Job = row.Id });
    }

    /// <summary>A complaint is a report: it takes up the one that stands of its kind, or makes one of its own.</summary>
    private static void TakeUp(Transaction t, StoredJob row, ComplaintRecorded complaint)
    {
        var symptom = new Symptom(
            DateOnly.FromDateTime(t.Now.UtcDateTime),
            complaint.What.AsSymptom(),
            complaint.InWords ?? complaint.Load
        )
        {
            ReportedAt = t.Now,
            MinutesToFailure = complaint.MinutesToFailure,
        };
        var known = SymptomStore
            .Of(t, row.AssetId)
            .FirstOrDefault(s =>
                s.WithdrawnReason is null && (s.JobId == row.Id || s.JobId is null && s.Symptom.Kind == symptom.Kind)
            );
        if (known is null)
            SymptomStore.Add(t, row.AssetId, symptom, row.Id);
        else
            SymptomStore.Change(t, known.Id, symptom, row.Id);
    }

    /// <summary>
    /// A person says, with a run of the right length, that the complaint is gone: its report does not stand any more.
    /// </summary>
    private static void Clear(Transaction t, StoredJob row, Job job)
    {
        if (
            job.Complaint is not { } complaint
            || job.LongestAfter is not { } longest
            || job.Standing(RunPhase.After) is not { } run
        )
            return;
        foreach (
            var report in SymptomStore
                .Of(t, row.AssetId)
                .Where(s =>
                    s.WithdrawnReason is null
                    && (s.JobId == row.Id || s.Symptom.Kind == complaint.What.AsSymptom())
                    && (s.Symptom.ReportedAt is not { } reported || reported <= run.At || s.JobId == row.Id)
                )
        )
        {
            var reason = Message.Of(
                "gone: it ran {minutes} without it in job {job}",
                Value.Minutes("minutes", longest.Minutes),
                Value.Count("job", row.Id)
            );
            SymptomStore.Withdraw(t, row.AssetId, report.Id, reason.ToString());
            t.Log(
                new Change("report", Message.Of("Report cleared, {reason}", Value.List("reason", "", [reason])))
                {
                    Asset = row.AssetId,
                    Job = row.Id,
                }
            );
        }
    }
}
