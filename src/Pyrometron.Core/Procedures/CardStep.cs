using Pyrometron.Core.Messages;

namespace Pyrometron.Core.Procedures;

/// <summary>The stages of a job, in the order of the trade.</summary>
public enum Stage
{
    MeasureBefore,
    Prepare,
    MakeSafe,
    Open,
    Inspect,
    Clean,
    Pads,
    Paste,
    Tighten,
    Reconnect,
    TestBeforeClosing,
    Close,
    MeasureAfter,
    Settle,
    File,
}

/// <summary>What a step asks for besides a tick.</summary>
public enum StepForm
{
    Tick,
    ScrewsOut,
    ScrewsIn,
    ConnectorsOut,
    ConnectorsIn,
    Inspection,
    JointInspection,

    /// <summary>Seals alone, before the screw under them.</summary>
    SealInspection,

    /// <summary>Corrosion, after liquid.</summary>
    CorrosionInspection,

    /// <summary>Lidded or bare, asked once for a model.</summary>
    Chip,
}

/// <summary>A time that a step takes.</summary>
/// <param name="Required">Whether the step can only be ticked once it has rung.</param>
public sealed record StepTimer(string Name, int Seconds, bool Required);

/// <summary>One step at the bench.</summary>
/// <param name="Id">Stable word; what is done is kept under it. A repetition carries <c>~2</c>, <c>~3</c> …</param>
/// <param name="Do">What to do, one sentence or two.</param>
/// <param name="Cautions">What can go wrong just here.</param>
/// <param name="Gate">What must be confirmed one by one before the step counts; empty for an ordinary step.</param>
/// <param name="Order">Numbers of screws or pads in the order they are dealt with; empty where none is known.</param>
/// <param name="Optional">May be skipped without a word.</param>
public sealed record CardStep(
    string Id,
    Stage Stage,
    Message Do,
    IReadOnlyList<Caution> Cautions,
    IReadOnlyList<Message> Gate,
    StepForm Form,
    StepTimer? Timer,
    IReadOnlyList<int> Order,
    bool Optional
)
{
    /// <summary>A gate, or a time that has to pass, cannot be left out; everything else can, with a reason.</summary>
    public bool MayBeSkipped => Gate.Count == 0 && Timer is not { Required: true };

    /// <summary>
    /// Whether what it asks for is confirmed one by one. Together may be confirmed what is seen at one glance: the owner told,
    /// plugs and screws counted, the machine up again; never what guards a person from power, battery or liquid, or a joint from
    /// a film left on.
    /// </summary>
    public bool ConfirmedOneByOne =>
        Gate.Count > 0
        && Kind
            is not (
                "owner-told"
                or "card-out"
                or "card-in"
                or "leads-on"
                or "screws-in"
                or "boot-look"
                or "power-up"
                or "host-closed"
            );

    /// <summary>The step's id without the number of its repetition.</summary>
    public string Kind => Id.Split('~')[0];
}
