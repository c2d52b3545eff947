using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

// The card of a job as it stands: its steps, what an entry changes on it, what should come out.
public sealed partial class Job
{
    /// <summary>The steps as they stand, in the order of the work.</summary>
    public IReadOnlyList<JobStep> Steps =>
        [
            .. _card.Steps.Select(card =>
            {
                var stamp = _steps.GetValueOrDefault(card.Id);
                return stamp?.Entry switch
                {
                    StepDone done => new JobStep(card, stamp.MadeAt, stamp.By, done.Checks ?? [], null, false),
                    StepSkipped skipped => new JobStep(card, null, null, [], skipped.Reason, true),
                    _ => new JobStep(card, null, null, [], null, false),
                };
            }),
        ];

    /// <summary>What changes on the card by the last entry; null when nothing does.</summary>
    /// <param name="before">The job without it.</param>
    /// <param name="notes">Newer notes that the entry takes over; null to keep those of the card.</param>
    public CardChanged? CardChange(Job before, ModelNotes? notes = null)
    {
        var change = _card.Change(
            before._rounds == _rounds ? before.Asked(null) : [],
            Asked(notes),
            id => !_steps.ContainsKey(id)
        );
        return notes is null ? change : (change ?? new CardChanged([], [])) with { Notes = notes };
    }

    /// <summary>The steps that the rules ask for in the round in hand.</summary>
    private CardStep[] Asked(ModelNotes? notes) =>
        [
            .. CardList.Of(
                Basis with
                {
                    Notes = notes ?? Basis.Notes,
                    Findings = _findings.ToDictionary(f => f.Key, f => f.Value.Found.Grade),
                    CoolerCameOff = CoolerCameOff,
                },
                _rounds
            ),
        ];

    /// <summary>Whether the cooler has come off in this job.</summary>
    public bool CoolerCameOff => Done("cooler-off");

    private bool Done(string kind) => _steps.Values.Any(s => s.Entry is StepDone e && e.Step.Split('~')[0] == kind);

    /// <summary>
    /// How many of each kind should come out by the model's notes, screws by tray compartment, the shortest first.
    /// </summary>
    public IReadOnlyList<JobCount> Expected =>
        [
            .. Basis
                .Screws.GroupBy(s => s.Tray)
                .OrderBy(g => g.First().LengthMm)
                .ThenBy(g => g.Key, StringComparer.Ordinal)
                .Select(g => new JobCount(CountOf.Screws, g.Key, g.Count(), 0)),
            .. Basis.Notes.Connectors.Select(c => new JobCount(CountOf.Connectors, c.Name, c.Count, 0)),
        ];
}
