using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Server.Demo;

/// <summary>A job of the past.</summary>
/// <param name="Cured">What was wrong before it; of no kelvins where it did not help.</param>
/// <param name="Proven">Whether an after-run was made.</param>
/// <param name="Found">What was seen on opening.</param>
/// <param name="Used">Materials.</param>
/// <param name="Owner">To whom it went back.</param>
internal sealed record PastJob(
    string Asset,
    ServiceLevel Level,
    int DaysAgo,
    Fault Cured,
    bool Proven,
    Found[] Found,
    MaterialUsed[] Used,
    string Owner,
    string? Note = null,
    ComplaintRecorded? Complaint = null
)
{
    private static readonly MaterialUsed[] Nothing = [],
        PasteAndWipes = [new(MaterialKind.PasteGrams, 0.4), new(MaterialKind.Wipes, 4), new(MaterialKind.AlcoholMillilitres, 5)];

    /// <summary>Jobs done: most won something, one did not help, one waits for its after-run.</summary>
    /// <param name="now">The demo's present, a day.</param>
    public static IReadOnlyList<PastJob> All(double now) =>
        [
            new(
                "GC-0102",
                ServiceLevel.Repad,
                48,
                new Fault(Cause.Pads, now - 330, now - 50, 10.4, "memory"),
                true,
                [
                    new(FindingSubject.Dust, "1"),
                    new(FindingSubject.Pads, "torn", "oily too, on three chips"),
                    new(FindingSubject.Paste, "stiff"),
                ],
                [.. PasteAndWipes, new(MaterialKind.PadPieces, 8, 1.5), new(MaterialKind.PadPieces, 3, 2)],
                "Wave group",
                "Pads oily and torn on three chips."
            ),
            new(
                "GC-0149",
                ServiceLevel.DustOut,
                33,
                new Fault(Cause.Dust, now - 340, now - 35, 9.2),
                true,
                [new(FindingSubject.Dust, "4"), new(FindingSubject.Mesh, "3"), new(FindingSubject.FanSpin, "free")],
                Nothing,
                "Kelp hall"
            ),
            new(
                "SV-0005",
                ServiceLevel.Repaste,
                27,
                new Fault(Cause.Paste, now - 300, now - 30, 8.1, "cpu"),
                true,
                [new(FindingSubject.Dust, "2"), new(FindingSubject.Paste, "dry"), new(FindingSubject.Coverage, "edges")],
                PasteAndWipes,
                "Wave group",
                "Paste dry at the edges."
            ),
            new(
                "DT-0019",
                ServiceLevel.DustOut,
                19,
                new Fault(Cause.Dust, now - 320, now - 20, 7.4),
                true,
                [new(FindingSubject.Dust, "3"), new(FindingSubject.FanNoise, "hums")],
                Nothing,
                "Reading room desk",
                Complaint: new(ComplaintKind.SwitchesOff, "both charts open", 9, true)
            ),
            new(
                "LT-0022",
                ServiceLevel.Repaste,
                16,
                new Fault(Cause.Paste, now - 320, now - 20, 0.2, "cpu"),
                true,
                [new(FindingSubject.Dust, "1"), new(FindingSubject.Paste, "soft"), new(FindingSubject.Coverage, "full")],
                PasteAndWipes,
                "Survey boat Dunlin",
                "Asked for by its owner; it was hot from the first day."
            ),
            new(
                "GC-0136",
                ServiceLevel.Repaste,
                3,
                new Fault(Cause.Paste, now - 280, now - 4, 4.4, "core"),
                false,
                [new(FindingSubject.Dust, "2"), new(FindingSubject.Paste, "cracked")],
                PasteAndWipes,
                "Kelp hall",
                "Ran out of time before the after-run."
            ),
            new(
                "DT-0010",
                ServiceLevel.DustOut,
                15,
                new Fault(Cause.Dust, now - 310, now - 16, 5.8),
                true,
                [new(FindingSubject.Dust, "3"), new(FindingSubject.FanSpin, "free")],
                Nothing,
                "Reading room desk"
            ),
            new(
                "DT-0014",
                ServiceLevel.DustOut,
                12,
                new Fault(Cause.Dust, now - 330, now - 13, 6.6),
                true,
                [new(FindingSubject.Dust, "3"), new(FindingSubject.Mesh, "2")],
                Nothing,
                "Reading room desk"
            ),
        ];
}
