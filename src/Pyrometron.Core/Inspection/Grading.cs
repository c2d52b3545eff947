using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Inspection;

/// <summary>What is looked at on an open machine.</summary>
public enum FindingSubject
{
    Dust,
    Mesh,
    FanSpin,
    FanNoise,
    Liquid,
    Seal,
    Paste,
    Coverage,
    Pads,
    Corrosion,
}

/// <summary>A grade that a subject can be given.</summary>
/// <param name="Word">Stable word.</param>
/// <param name="Says">What one sees, in a few words.</param>
/// <param name="Cause">What it is a sign of, or null when it is as it should be.</param>
/// <param name="Needs">The lightest level that puts it right, or null.</param>
public sealed record Grade(string Word, Message Says, Cause? Cause = null, ServiceLevel? Needs = null);

/// <summary>The grades of an inspection. Common practice, no source.</summary>
public static class Grading
{
    /// <summary>The grades of each subject, the best first.</summary>
    public static IReadOnlyDictionary<FindingSubject, IReadOnlyList<Grade>> Grades { get; } =
        new Dictionary<FindingSubject, IReadOnlyList<Grade>>
        {
            [FindingSubject.Dust] =
            [
                new("0", "bright metal"),
                new("1", "a grey film"),
                new("2", "fluff on the edges"),
                new("3", "a mat over half the fins", Cause.Dust, ServiceLevel.DustOut),
                new("4", "completely clogged", Cause.Dust, ServiceLevel.DustOut),
            ],
            [FindingSubject.Mesh] =
            [
                new("0", "open"),
                new("1", "a grey film"),
                new("2", "fluff here and there"),
                new("3", "half shut", Cause.Dust, ServiceLevel.BlowOut),
                new("4", "shut", Cause.Dust, ServiceLevel.BlowOut),
            ],
            [FindingSubject.FanSpin] =
            [
                new("free", "spins on freely"),
                new("stiff", "stops at once", Cause.Fan, ServiceLevel.FanSwap),
                new("stuck", "does not turn", Cause.Fan, ServiceLevel.FanSwap),
            ],
            [FindingSubject.FanNoise] =
            [
                new("quiet", "quiet"),
                new("hums", "hums"),
                new("rattles", "rattles or grinds", Cause.Fan, ServiceLevel.FanSwap),
            ],
            [FindingSubject.Liquid] = [new("none", "no marks"), new("dried", "dried marks"), new("wet", "wet: stop here")],
            [FindingSubject.Corrosion] =
            [
                new("none", "bright"),
                new("film", "a dull film"),
                new("green", "green or white crust"),
                new("eaten", "eaten: contacts or tracks are gone"),
            ],
            [FindingSubject.Seal] = [new("whole", "whole"), new("broken", "broken before"), new("none", "there is none")],
            [FindingSubject.Paste] =
            [
                new("soft", "soft and even"),
                new("stiff", "stiff, still whole"),
                new("dry", "dry", Cause.Paste, ServiceLevel.Repaste),
                new("cracked", "cracked or in islands", Cause.Paste, ServiceLevel.Repaste),
                new("powder", "turned to powder", Cause.Paste, ServiceLevel.Repaste),
            ],
            [FindingSubject.Coverage] =
            [
                new("full", "the whole chip"),
                new("edges", "bare at the edges"),
                new("spots", "bare spots within", Cause.Paste, ServiceLevel.Repaste),
                new("half", "one side only: it sat crooked", Cause.Mount, ServiceLevel.Repaste),
            ],
            [FindingSubject.Pads] =
            [
                new("elastic", "elastic and whole"),
                new("hard", "hard", Cause.Pads, ServiceLevel.Repad),
                new("torn", "torn", Cause.Pads, ServiceLevel.Repad),
                new("oily", "oily, bleeding", Cause.Pads, ServiceLevel.Repad),
                new("thick", "too thick: the chip did not touch", Cause.Mount, ServiceLevel.Repad),
                new("paste", "paste instead of pads", Cause.Pads, ServiceLevel.Repad),
            ],
        };

    /// <summary>
    /// Whether a grade says that what was looked at is as good as new: the first one of its subject, or a film of dust.
    /// </summary>
    public static bool IsSound(Grade grade) =>
        grade.Cause is null && Grades.Values.Any(g => g[0] == grade || (g[0].Word == "0" && g[1] == grade));

    /// <summary>The grade of a word, or null when the subject has none of that name.</summary>
    public static Grade? Find(FindingSubject subject, string word) => Grades[subject].FirstOrDefault(g => g.Word == word);

    /// <summary>
    /// What the findings call the cause: the gravest of what was seen, "none" when everything that was looked at is as it
    /// should be, null when nothing was looked at.
    /// </summary>
    public static IReadOnlyList<Cause>? FoundCauses(IEnumerable<(FindingSubject Subject, string Grade)> findings)
    {
        var seen = findings.Select(f => Find(f.Subject, f.Grade)).OfType<Grade>().ToArray();
        if (seen.Length == 0)
            return null;
        var causes = seen.Where(g => g.Cause is not null)
            .OrderByDescending(g => g.Needs)
            .Select(g => g.Cause!.Value)
            .Distinct()
            .ToArray();
        return causes.Length > 0 ? causes : [Cause.None];
    }

    /// <summary>
    /// The level that the findings ask for beyond the one in hand, with the finding that asks for it; null when it is enough. A
    /// fan, a stand, a filter or less voltage is not given up for a deeper service: that is another job.
    /// </summary>
    public static (ServiceLevel Level, FindingSubject Subject, Grade Grade)? AsksFor(
        ServiceLevel inHand,
        IEnumerable<(FindingSubject Subject, string Grade)> findings
    )
    {
        var depth = inHand switch
        {
            ServiceLevel.OtherPaste => ServiceLevel.Repaste,
            ServiceLevel.OtherPads => ServiceLevel.Repad,
            _ => inHand,
        };
        (ServiceLevel Level, FindingSubject Subject, Grade Grade)? most = null;
        foreach (var (subject, word) in findings)
            if (
                Find(subject, word) is { Cause: { } cause, Needs: { } needs } grade
                && needs > depth
                && ServiceEffects.RemovedShare(inHand, cause) < 1
                && (most is null || needs > most.Value.Level)
            )
                most = (needs, subject, grade);
        return most is { Level: ServiceLevel.Repad } pads && inHand == ServiceLevel.OtherPaste
            ? pads with
            {
                Level = ServiceLevel.OtherPads,
            }
            : most;
    }
}
