using System.Text.Json.Serialization;
using Pyrometron.Core.Events;
using Pyrometron.Core.Materials;
using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Procedures;

/// <summary>Where a screw sits, from the outside in.</summary>
public enum ScrewPlace
{
    Cover,
    Shroud,
    Fan,
    BackPlate,
    Cooler,
    Board,
}

/// <summary>What a connector carries.</summary>
public enum ConnectorKind
{
    FanLead,
    Battery,
    Display,
    Ribbon,
    Antenna,
    Power,
    Data,
    Sensor,
}

/// <summary>What sits under the cooler.</summary>
public enum ChipKind
{
    Lidded,
    Bare,
}

/// <summary>Whether liquid carries the heat away, and whether its loop has to be opened to get at the chip.</summary>
public enum LoopKind
{
    /// <summary>Cooled by air.</summary>
    None,

    /// <summary>The plate comes off with its tubes; the loop is never opened.</summary>
    Closed,

    /// <summary>Tubes come off: isolated or drained, refilled, bled, tested for leaks.</summary>
    Opened,
}

/// <summary>A screw on the plan of a model.</summary>
/// <param name="Number">Its number on the plan, from 1; unique in the model.</param>
/// <param name="XMm">From the left edge of the plan.</param>
/// <param name="YMm">From the upper edge of the plan.</param>
/// <param name="LengthMm">Of the thread; a long one in a short hole ruins the board.</param>
/// <param name="Driver">The bit it wants.</param>
/// <param name="Order">The maker's number for tightening, where one is stamped beside it.</param>
/// <param name="Plate">
/// The plate that it presses down, where a cooler has several: each is tightened crosswise by itself. Null where there is one.
/// </param>
public sealed record Screw(
    int Number,
    ScrewPlace Place,
    double XMm,
    double YMm,
    double LengthMm,
    string Driver,
    int? Order = null,
    int? Plate = null
)
{
    /// <summary>The compartment of the tray it goes to: screws of one length and bit are the same screw.</summary>
    public string Tray => ModelNotes.TrayOf(LengthMm, Driver);
}

/// <summary>Connectors of one kind that come off.</summary>
/// <param name="Count">How many of them.</param>
public sealed record ConnectorNote(string Name, ConnectorKind Kind, int Count = 1);

/// <summary>A pad on the plan of a model.</summary>
/// <param name="Part">The part it serves, as in the readings.</param>
/// <param name="ThicknessMm">Nominal: as it is sold.</param>
/// <param name="Side">Of the board; the front where nobody has said.</param>
/// <param name="MeasuredMm">Of the old pad or its imprint, where somebody measured it.</param>
public sealed record PadNote(
    int Number,
    string Part,
    double XMm,
    double YMm,
    double WidthMm,
    double HeightMm,
    double ThicknessMm,
    PadSide? Side = null,
    double? MeasuredMm = null
);

/// <summary>The side of the board that a pad sits on.</summary>
public enum PadSide
{
    Front,
    Back,
}

/// <summary>A fan and what has to come off before it.</summary>
/// <param name="ComesOffAlone">False where it only comes away with the cooler, which brings new paste.</param>
/// <param name="HotSwap">Changed while the machine runs, by its maker's procedure.</param>
/// <param name="PartNumber">Of its replacement, where known.</param>
public sealed record FanNote(string Name, bool ComesOffAlone, bool? HotSwap = null, string? PartNumber = null);

/// <summary>The test that a model is put through, so that before and after match.</summary>
/// <param name="Position">How it stands: in its rack, flat, propped.</param>
public sealed record TestProtocol(
    string Load,
    double Minutes,
    FanMode Fan,
    double? FanPercent,
    string Settings,
    string? Position
);

/// <summary>Who wrote something down about a model, and how often it was seen.</summary>
/// <param name="About">What: <c>screws</c>, <c>chip</c>, <c>pad 3</c>, or a sentence of the notes.</param>
/// <param name="By">As they called themselves.</param>
/// <param name="Last">The last day.</param>
public sealed record NoteSource(string About, string By, int Times, DateOnly Last);

/// <summary>
/// What is known of a model beyond its readings: how it comes apart and goes together. Grown from what jobs record; drawn as
/// a plan on which screws and pads are placed and numbered.
/// </summary>
/// <param name="WidthMm">Of the plan.</param>
/// <param name="HeightMm">Of the plan.</param>
/// <param name="Clips">Where clips hold, in words.</param>
/// <param name="Traps">What has gone wrong on this model before.</param>
/// <param name="Loop">The liquid loop that cools it; null where nobody has said.</param>
/// <param name="FansStopAtIdle">Whether its fans stand still at idle; null where nobody has said.</param>
/// <param name="Tools">Tools it asks for beyond the usual ones; null for none.</param>
/// <param name="Sources">Who wrote what by hand or elsewhere; what the house's own jobs saw is counted from them.</param>
public sealed record ModelNotes(
    string Model,
    double WidthMm,
    double HeightMm,
    ChipKind? Chip,
    PastePattern? Pattern,
    IReadOnlyList<Screw> Screws,
    IReadOnlyList<ConnectorNote> Connectors,
    IReadOnlyList<PadNote> Pads,
    IReadOnlyList<FanNote> Fans,
    IReadOnlyList<string> Clips,
    IReadOnlyList<string> Traps,
    TestProtocol? Protocol,
    LoopKind? Loop = null,
    bool? FansStopAtIdle = null,
    IReadOnlyList<string>? Tools = null,
    IReadOnlyList<NoteSource>? Sources = null
)
{
    /// <summary>
    /// The most screws, connectors, pads or sentences that notes take; a laptop has some 45 screws (common practice, no source).
    /// </summary>
    public const int Most = 200;

    /// <summary>The largest plan, mm.</summary>
    public const double LargestMm = 2000;

    private const int LongestName = 80,
        LongestSentence = 300;

    /// <summary>A model of which nothing is known yet.</summary>
    public static ModelNotes Empty(string model) => new(model, 250, 110, null, null, [], [], [], [], [], [], null);

    /// <summary>The tray compartment of a screw.</summary>
    public static string TrayOf(double lengthMm, string driver) => FormattableString.Invariant($"{lengthMm:0.#} mm {driver}");

    /// <summary>The screws that hold the cooler, in the order in which they are tightened.</summary>
    [JsonIgnore]
    public IReadOnlyList<Screw> CoolerScrewsInOrder => Tightening.Order([.. Screws.Where(s => s.Place == ScrewPlace.Cooler)]);

    /// <summary>What is wrong with these notes, each with where it stands (JSON Pointer); empty when they can be kept.</summary>
    public IEnumerable<(string Pointer, Message Says)> Problems()
    {
        if (!Between(WidthMm, 10, LargestMm) || !Between(HeightMm, 10, LargestMm))
            yield return ("/widthMm", $"the plan is 10 to {LargestMm} mm wide and high");
        foreach (
            var (list, name) in ((int, string)[])
                [
                    (Screws.Count, "screws"),
                    (Connectors.Count, "connectors"),
                    (Pads.Count, "pads"),
                    (Fans.Count, "fans"),
                    (Clips.Count, "clips"),
                    (Traps.Count, "traps"),
                    (Tools?.Count ?? 0, "tools"),
                    (Sources?.Count ?? 0, "sources"),
                ]
        )
            if (list > Most)
                yield return ("/" + name, $"{name}: at most {Most}");
        for (var i = 0; i < Screws.Count; i++)
        {
            var s = Screws[i];
            if (s.Number < 1 || Screws.Take(i).Any(o => o.Number == s.Number))
                yield return ($"/screws/{i}/number", "screws are numbered from 1, each number once");
            if (!Between(s.XMm, 0, WidthMm) || !Between(s.YMm, 0, HeightMm))
                yield return ($"/screws/{i}/xMm", $"screw {s.Number} lies off the plan");
            if (!Between(s.LengthMm, 0.5, 200))
                yield return ($"/screws/{i}/lengthMm", "a screw is 0.5 to 200 mm long");
            if (s.Driver is not { Length: > 0 and <= LongestName })
                yield return ($"/screws/{i}/driver", "driver is needed: the bit it wants, such as PH1");
            if (s.Order is < 1 or > Most)
                yield return ($"/screws/{i}/order", "the maker's number is 1 or more");
            if (s.Plate is < 1 or > Most)
                yield return ($"/screws/{i}/plate", "plates are numbered from 1");
        }
        for (var i = 0; i < Pads.Count; i++)
        {
            var p = Pads[i];
            if (p.Number < 1 || Pads.Take(i).Any(o => o.Number == p.Number))
                yield return ($"/pads/{i}/number", "pads are numbered from 1, each number once");
            if (
                !Between(p.WidthMm, 1, LargestMm)
                || !Between(p.HeightMm, 1, LargestMm)
                || !Between(p.XMm, 0, WidthMm - p.WidthMm)
                || !Between(p.YMm, 0, HeightMm - p.HeightMm)
            )
                yield return ($"/pads/{i}/xMm", $"pad {p.Number} lies off the plan or has no size");
            if (!Between(p.ThicknessMm, 0.2, 10))
                yield return ($"/pads/{i}/thicknessMm", "a pad is 0.2 to 10 mm thick");
            if (p.MeasuredMm is { } measured && !Between(measured, 0.1, 10))
                yield return ($"/pads/{i}/measuredMm", "a pad as measured is 0.1 to 10 mm thick");
            if (p.Part is not { Length: > 0 and <= LongestName })
                yield return ($"/pads/{i}/part", "part is needed: what the pad serves, such as memory");
        }
        for (var i = 0; i < Connectors.Count; i++)
            if (Connectors[i].Name is not { Length: > 0 and <= LongestName } || Connectors[i].Count is < 1 or > Most)
                yield return ($"/connectors/{i}", $"a connector needs a name, and a count of 1 to {Most}");
        for (var i = 0; i < Fans.Count; i++)
            if (Fans[i].Name is not { Length: > 0 and <= LongestName })
                yield return ($"/fans/{i}/name", "a fan needs a name, such as left");
        for (var i = 0; i < Fans.Count; i++)
            if (Fans[i].PartNumber?.Length > LongestName)
                yield return ($"/fans/{i}/partNumber", $"a part number is {LongestName} characters at most");
        for (var i = 0; i < (Sources?.Count ?? 0); i++)
            if (
                Sources![i] is not { About.Length: > 0 and <= LongestSentence + LongestName, By.Length: > 0 and <= LongestName }
                || Sources[i].Times is < 1 or > 1_000_000
            )
                yield return ($"/sources/{i}", "a source needs what it is about, by whom, and how often");
        foreach (
            var (sentences, name) in ((IReadOnlyList<string>, string)[])
                [(Clips, "clips"), (Traps, "traps"), (Tools ?? [], "tools")]
        )
            for (var i = 0; i < sentences.Count; i++)
                if (sentences[i] is not { Length: > 0 and <= LongestSentence })
                    yield return ($"/{name}/{i}", $"a sentence of 1 to {LongestSentence} characters");
        if (
            Protocol is { } test
            && (
                !Between(test.Minutes, 1, 10_000)
                || test.Load is not { Length: > 0 and <= 200 }
                || test.Settings is not { Length: > 0 and <= 200 }
                || test.Position?.Length > 200
                || test.FanPercent is { } percent && !Between(percent, 0, 100)
            )
        )
            yield return (
                "/protocol",
                "a test needs its load, minutes (1 to 10000) and settings; the fan's speed lies between 0 and 100 %"
            );
    }

    private static bool Between(double value, double least, double most) => value >= least && value <= most;
}
