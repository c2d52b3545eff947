using Pyrometron.Core.Fleet;
using Pyrometron.Core.Inspection;
using Pyrometron.Core.Jobs;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Storage.Records;

/// <summary>A job's card as it was dealt, as stored, form 1.</summary>
internal sealed record CardRecord(
    string Kind,
    string Level,
    ModelNotes Notes,
    int NotesVersion,
    BenchSchools Schools,
    string? Fan,
    bool UnderWarranty,
    string? WarrantyAnswer,
    bool HasPads,
    IReadOnlyList<string>? Deviations,
    IReadOnlyDictionary<string, string>? Findings,
    IReadOnlyList<CardStepRecord> Steps,
    int UpTo,
    string? Host = null,
    IReadOnlyList<string>? HostMates = null,
    bool? GotWet = null,
    bool? TwoPeople = null
)
{
    /// <summary>The form that is written.</summary>
    public const int Form = 1;

    public static CardRecord Of(FrozenCard card)
    {
        var b = card.Basis;
        return new(
            Words.Of(b.Kind),
            Words.Of(b.Level),
            b.Notes,
            card.NotesVersion,
            b.Schools,
            b.Fan,
            b.UnderWarranty,
            b.WarrantyAnswer,
            b.HasPads,
            b.Deviations,
            b.Findings?.ToDictionary(f => Words.Of(f.Key), f => f.Value),
            [.. card.Steps.Select(CardStepRecord.Of)],
            card.UpTo,
            b.Host,
            b.HostMates,
            b.GotWet ? true : null,
            b.TwoPeople ? true : null
        );
    }

    public FrozenCard ToCard() =>
        new(
            new CardBasis(
                StoredWords.Read<AssetKind>(Kind),
                StoredWords.Read<ServiceLevel>(Level),
                Notes,
                Schools,
                Fan,
                UnderWarranty,
                WarrantyAnswer,
                HasPads,
                Deviations,
                Findings?.ToDictionary(f => StoredWords.Read<FindingSubject>(f.Key), f => f.Value)
            )
            {
                Host = Host,
                HostMates = HostMates,
                GotWet = GotWet == true,
                TwoPeople = TwoPeople == true,
            },
            NotesVersion,
            [.. Steps.Select(s => s.ToStep())],
            UpTo
        );
}

/// <summary>A step of a stored card.</summary>
internal sealed record CardStepRecord(
    string Id,
    string Stage,
    MessageRecord Do,
    IReadOnlyList<CautionRecord>? Cautions,
    IReadOnlyList<string>? Gate,
    string Form,
    StepTimer? Timer,
    IReadOnlyList<int>? Order,
    bool Optional,
    IReadOnlyList<MessageRecord>? GateMessages = null
)
{
    public static CardStepRecord Of(CardStep s) =>
        new(
            s.Id,
            Words.Of(s.Stage),
            MessageRecord.Of(s.Do),
            s.Cautions.Count == 0 ? null : [.. s.Cautions.Select(c => new CautionRecord(MessageRecord.Of(c.Text), c.Source))],
            s.Gate.Count == 0 ? null : [.. s.Gate.Select(g => g.ToString())],
            Words.Of(s.Form),
            s.Timer,
            s.Order.Count == 0 ? null : s.Order,
            s.Optional,
            s.Gate.Any(g => g.Values.Count > 0) ? [.. s.Gate.Select(MessageRecord.Of)] : null
        );

    public CardStep ToStep() =>
        new(
            Id,
            StoredWords.Read<Stage>(Stage),
            Do.ToMessage(),
            [.. (Cautions ?? []).Select(c => new Caution(c.Text.ToMessage(), c.Source))],
            GateMessages is { } gate ? [.. gate.Select(g => g.ToMessage())] : [.. (Gate ?? []).Select(Message.Verbatim)],
            StoredWords.Read<StepForm>(Form),
            Timer,
            Order ?? [],
            Optional
        );
}

/// <summary>A caution of a stored step.</summary>
internal sealed record CautionRecord(MessageRecord Text, string? Source);
