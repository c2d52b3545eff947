using Pyrometron.Core.Messages;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Jobs;

// Screws and connectors: what came out is counted or excused, and goes in again.
public sealed partial class Job
{
    /// <summary>Whether taking out is over: what is excused from then on is what does not go in again.</summary>
    private bool IsOut(CountOf what) =>
        Steps.Any(s => s.Card.Form == (what == CountOf.Screws ? StepForm.ScrewsOut : StepForm.ConnectorsOut) && !s.IsOpen);

    private bool IsExcused(CountOf what, string? item, bool closing) =>
        _countExcuses.Any(e => e.Key.What == what && (e.Key.Item is null || e.Key.Item == item) && (!closing || e.Value.Closing));

    /// <summary>
    /// Why it cannot be gone on from taking out, or null: by the model's notes more should have come out, or nothing was counted.
    /// </summary>
    public Message? UncountedOut(CountOf what)
    {
        if (IsExcused(what, null, closing: false))
            return null;
        var expected = Expected.Where(c => c.What == what).ToArray();
        if (expected.Length == 0)
            return _counts.Values.Any(c => c.What == what && c.Out > 0) ? null
                : what == CountOf.Screws ? "Count the screws that came out, or write down why none did."
                : "Count the connectors that came off, or write down why none did.";
        Message[] lacking =
        [
            .. expected
                .Select(e => (e.Item, Listed: e.Out, Out: _counts.GetValueOrDefault((what, e.Item))?.Out ?? 0))
                .Where(e => e.Out < e.Listed && !IsExcused(what, e.Item, closing: false))
                .Select(e =>
                    Message.Of(
                        "{item}: {out} of {listed}",
                        Value.Text("item", e.Item),
                        Value.Count("out", e.Out),
                        Value.Count("listed", e.Listed)
                    )
                ),
        ];
        return lacking.Length == 0
            ? null
            : Message.Of(
                what == CountOf.Screws
                    ? "Fewer screws are counted than the notes list ({counts}). Count again, or write down why."
                    : "Fewer connectors are counted than the notes list ({counts}). Count again, or write down why.",
                Value.List("counts", "; ", lacking)
            );
    }

    /// <summary>Why a count does not meet, or null when it does or was excused.</summary>
    public Message? OpenCount(CountOf what)
    {
        Message[] open =
        [
            .. _counts
                .Values.Where(c => c.What == what && c.Out != c.In && !IsExcused(what, c.Item, closing: true))
                .Select(c =>
                    Message.Of(
                        "{item}: {out} out, {in} in",
                        Value.Text("item", c.Item),
                        Value.Count("out", c.Out),
                        Value.Count("in", c.In)
                    )
                ),
        ];
        return open.Length == 0
            ? null
            : Message.Of(
                what == CountOf.Screws
                    ? "The screws do not come out even ({counts}). Find them, or write down why."
                    : "The connectors do not come out even ({counts}). Find them, or write down why.",
                Value.List("counts", "; ", open)
            );
    }

    private Message? RefusesCount(Counted counted)
    {
        if (counted.Out is < 0 or > 500 || counted.In is < 0 or > 500)
            return "Counts run from 0 to 500.";
        if (counted.In > counted.Out)
            return Message.Of(
                "{in} cannot go in where {out} came out: count again.",
                Value.Count("in", counted.In),
                Value.Count("out", counted.Out)
            );
        return _counts.Count >= 200 && !_counts.ContainsKey((counted.What, counted.Item))
            ? "Two hundred kinds are enough."
            : null;
    }
}
