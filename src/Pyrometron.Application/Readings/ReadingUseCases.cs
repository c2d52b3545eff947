using Pyrometron.Application.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application.Readings;

/// <summary>A correction of one number of a reading.</summary>
/// <param name="Column">Such as <c>ambient_c</c>, or a part's name.</param>
/// <param name="Value">Null takes it out.</param>
public sealed record ReadingCorrected(DateTimeOffset At, string Column, double? Value, string Reason);

/// <summary>Readings put right: what was wrong is kept, struck through, and left out of the judgement.</summary>
public sealed class ReadingUseCases(Database database, TimeProvider clock)
{
    /// <summary>Strikes a reading out, or takes that back.</summary>
    /// <exception cref="NotThereException">There is no such reading.</exception>
    public void Void(Actor actor, string tag, DateTimeOffset at, bool voided, string reason) =>
        database.Write(
            actor.Allowed(Right.Work),
            clock.GetUtcNow(),
            t =>
            {
                var asset = FleetUseCases.Find(t, tag);
                if (!ReadingStore.Void(t, asset, at, voided, reason))
                    throw new NotThereException(
                        Message.Of("'{asset}' has no reading at that instant.", Value.Text("asset", tag))
                    );
                t.Log(
                    new Change("reading", ChangeWords.OfReading(voided ? "voided" : "restored", at, reason)) { Asset = asset.Id }
                );
            }
        );

    /// <summary>Corrects one number of a reading.</summary>
    /// <exception cref="NotThereException">There is no such reading, or no such column.</exception>
    public void Correct(Actor actor, string tag, ReadingCorrected correction) =>
        database.Write(
            actor.Allowed(Right.Work),
            clock.GetUtcNow(),
            t =>
            {
                var asset = FleetUseCases.Find(t, tag);
                if (!ReadingStore.Correct(t, asset, correction.At, correction.Column, correction.Value, correction.Reason))
                    throw new NotThereException(
                        Message.Of(
                            "'{asset}' has no reading at that instant, or it has no column '{column}'.",
                            Value.Text("asset", tag),
                            Value.Text("column", correction.Column)
                        )
                    );
                t.Log(
                    new Change("reading", ChangeWords.OfReading("corrected", correction.At, correction.Reason))
                    {
                        Asset = asset.Id,
                    }
                );
            }
        );
}
