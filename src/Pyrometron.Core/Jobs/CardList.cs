using Pyrometron.Core.Fleet;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

/// <summary>The steps of a job's card in hand, and how they change.</summary>
internal sealed class CardList(IReadOnlyList<CardStep> dealt)
{
    private readonly List<CardStep> _steps = [.. dealt];
    private int _own = dealt.Count(s => s.Id.StartsWith(OwnPrefix, StringComparison.Ordinal));

    private const string OwnPrefix = "own-";

    /// <summary>In the order of the work.</summary>
    public IReadOnlyList<CardStep> Steps => _steps;

    /// <summary>Steps that somebody added.</summary>
    public int OwnSteps => _own;

    /// <summary>The steps that the rules ask for in a round; from the second on each carries the round's number.</summary>
    public static IEnumerable<CardStep> Of(CardBasis basis, int round) =>
        round == 1
            ? WorkCard.For(basis)
            // Opened again means the cooler off once more, and nothing to lay out.
            : WorkCard
                .For(basis with { Level = basis.LiftsCooler ? basis.Level : ServiceLevel.Repaste })
                .Where(s => s.Stage is not Stage.Prepare)
                .Select(s => s with { Id = $"{s.Id}~r{round}" });

    /// <summary>A step that somebody added on the spot.</summary>
    public static CardStep Own(int number, StepAdded added) =>
        new(
            $"{OwnPrefix}{number}",
            added.Stage,
            Messages.Message.Of("{text}", Messages.Value.Text("text", added.Do)),
            [],
            [],
            StepForm.Tick,
            null,
            [],
            false
        );

    /// <summary>Puts a step of somebody's own at the end of its stage, in the round in hand.</summary>
    public void Add(StepAdded added)
    {
        var at = _steps.FindLastIndex(s => s.Stage <= added.Stage && (s.Stage == added.Stage || RoundOf(s.Id) == LastRound));
        _steps.Insert(at + 1, Own(++_own, added));
    }

    /// <summary>Puts a step on once more, after its last repetition.</summary>
    public void Repeat(string id)
    {
        var at = _steps.FindIndex(s => s.Id == id);
        if (at < 0)
            return;
        // A cooler that is set down again needs clean faces and new paste again.
        if (_steps[at].Kind == "cooler-on")
        {
            RepeatMount(id);
            return;
        }
        var number = 2;
        while (at + number - 1 < _steps.Count && _steps[at + number - 1].Id == $"{id}~{number}")
            number++;
        _steps.Insert(at + number - 1, _steps[at] with { Id = $"{id}~{number}" });
    }

    private void RepeatMount(string id)
    {
        var number = Repeats(id) + 2;
        var at = _steps.FindLastIndex(s => s.Id == id || s.Id.StartsWith($"{id}~", StringComparison.Ordinal));
        foreach (var kind in (string[])["paste-off", "alcohol-dry", "paste-on", "cooler-on"])
            if (_steps.FirstOrDefault(s => s.Kind == kind && RoundOf(s.Id) == RoundOf(id)) is { } step)
                _steps.Insert(++at, step with { Id = $"{step.Id}~{number}", Stage = Stage.Paste });
    }

    /// <summary>How often a step was put on again.</summary>
    public int Repeats(string id) =>
        _steps.Count(s => s.Id.StartsWith($"{id}~", StringComparison.Ordinal) && !s.Id[(id.Length + 1)..].StartsWith('r'));

    /// <summary>Changes the card.</summary>
    public void Apply(CardChanged change)
    {
        _steps.RemoveAll(s => change.TakenOff.Contains(s.Id));
        foreach (var (step, after) in change.PutOn)
            _steps.Insert(after is null ? 0 : Math.Max(0, _steps.FindIndex(s => s.Id == after)) + 1, step);
    }

    /// <summary>
    /// What changes on the card where its rules ask for other steps than before: open steps that are not asked for any more come
    /// off, new ones come on after the step before them, and open ones that read otherwise are exchanged. What was done or left
    /// out stays as it was, and so does a step whose rule has not changed since the card was dealt.
    /// </summary>
    /// <param name="before">What the rules asked for before the last entry.</param>
    /// <param name="after">What they ask for now.</param>
    /// <param name="isOpen">Whether a step is neither done nor left out.</param>
    /// <returns>Null when nothing changes.</returns>
    public CardChanged? Change(IReadOnlyList<CardStep> before, IReadOnlyList<CardStep> after, Func<string, bool> isOpen)
    {
        bool IsHere(string id) => _steps.Any(s => s.Id == id);
        var off = new List<string>();
        foreach (var old in before.Where(s => IsHere(s.Id) && isOpen(s.Id)))
        {
            var now = after.FirstOrDefault(s => s.Id == old.Id);
            if (now is null || !ReadsAlike(now, old))
                off.Add(old.Id);
            if (now is null)
                off.AddRange(
                    _steps
                        .Where(s => s.Id.StartsWith($"{old.Id}~", StringComparison.Ordinal) && !after.Contains(s) && isOpen(s.Id))
                        .Select(s => s.Id)
                );
        }
        var left = _steps.Select(s => s.Id).Where(id => !off.Contains(id)).ToList();
        var on = new List<StepPutOn>();
        var last = before.Count > 0 ? null : _steps.LastOrDefault()?.Id;
        foreach (var step in after)
        {
            if (!left.Contains(step.Id) && (off.Contains(step.Id) || before.All(s => s.Id != step.Id)))
            {
                on.Add(new StepPutOn(step, last));
                left.Insert(last is null ? 0 : left.IndexOf(last) + 1, step.Id);
            }
            if (left.Contains(step.Id))
                last = step.Id;
        }
        return off.Count == 0 && on.Count == 0 ? null : new CardChanged(off, on);
    }

    private int LastRound => _steps.Select(s => RoundOf(s.Id)).DefaultIfEmpty(1).Max();

    private static int RoundOf(string id)
    {
        foreach (var part in id.Split('~').Skip(1))
            if (part.StartsWith('r') && int.TryParse(part.AsSpan(1), out var round))
                return round;
        return 1;
    }

    private static bool ReadsAlike(CardStep a, CardStep b) =>
        a.Do.Equals(b.Do)
        && (a.Stage, a.Form, a.Timer, a.Optional) == (b.Stage, b.Form, b.Timer, b.Optional)
        && a.Gate.SequenceEqual(b.Gate)
        && a.Order.SequenceEqual(b.Order)
        && a.Cautions.SequenceEqual(b.Cautions);
}
