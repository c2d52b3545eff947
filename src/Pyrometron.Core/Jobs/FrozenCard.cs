using Pyrometron.Core.Inspection;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

/// <summary>
/// A job's card as it stood when it was dealt: what it was made from, and its steps as they read. Notes, rules and texts that
/// change later do not change it.
/// </summary>
/// <param name="Basis">With the level it was started at.</param>
/// <param name="NotesVersion">Version of the model's notes; 0 where there were none.</param>
/// <param name="Steps">In the order of the work.</param>
/// <param name="UpTo">The job's version up to which entries are in the steps already: 1 for a new job.</param>
public sealed record FrozenCard(CardBasis Basis, int NotesVersion, IReadOnlyList<CardStep> Steps, int UpTo = 1)
{
    /// <summary>Deals the card of a new job.</summary>
    public static FrozenCard Deal(CardBasis basis, int notesVersion) => new(basis, notesVersion, WorkCard.For(basis));

    /// <summary>
    /// The card of a job from before cards were frozen: its steps as the rules of today make them from all its entries, which is
    /// how it read so far.
    /// </summary>
    public static FrozenCard Recover(CardBasis basis, int notesVersion, IReadOnlyList<StampedEntry> entries)
    {
        var now = basis;
        var (rounds, own, repeats) = (1, new List<CardStep>(), new Dictionary<string, int>());
        var findings = new Dictionary<FindingSubject, string>();
        foreach (var entry in entries.Select(e => e.Entry))
            switch (entry)
            {
                case LevelChanged e:
                    now = now with { Level = e.Level, Fan = e.Fan ?? now.Fan };
                    break;
                case WarrantyAnswered e:
                    now = now with { WarrantyAnswer = e.Answer };
                    break;
                case Found e:
                    findings[e.About] = e.Grade;
                    break;
                case Reopened:
                    rounds++;
                    break;
                case StepAdded e:
                    own.Add(CardList.Own(own.Count + 1, e));
                    break;
                case StepRepeated e:
                    repeats[e.Step] = repeats.GetValueOrDefault(e.Step) + 1;
                    break;
            }
        now = now with { Findings = findings };
        var steps = new List<CardStep>();
        for (var round = 1; round <= rounds; round++)
        {
            var ofRound = CardList.Of(now, round).ToList();
            // What was added on the spot belongs to the round in hand.
            if (round == rounds)
                ofRound.AddRange(own);
            foreach (var step in ofRound.OrderBy(s => s.Stage))
            {
                steps.Add(step);
                for (var n = 2; n <= repeats.GetValueOrDefault(step.Id) + 1; n++)
                    steps.Add(step with { Id = $"{step.Id}~{n}" });
            }
        }
        return new FrozenCard(now, notesVersion, steps, entries.Count > 0 ? entries[^1].Version : 1);
    }
}
