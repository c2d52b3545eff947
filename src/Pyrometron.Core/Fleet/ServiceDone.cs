using Pyrometron.Core.Units;

namespace Pyrometron.Core.Fleet;

/// <summary>What a job uses up.</summary>
public enum MaterialKind
{
    PasteGrams,
    PadPieces,
    PuttyGrams,
    Wipes,
    Swabs,
    AlcoholMillilitres,
    Fans,
}

/// <summary>Material that a service used.</summary>
/// <param name="Amount">In the unit that the kind names; positive.</param>
/// <param name="ThicknessMm">Of pads.</param>
public readonly record struct UsedMaterial(MaterialKind Kind, double Amount, double? ThicknessMm = null);

/// <summary>The share of each cause that a service took away, 0 (nothing) to 1 (all of it).</summary>
public readonly record struct RenewedShares(double Dust, double Paste, double Pads, double Fan, double Mount)
{
    /// <summary>What a level renews where nothing more is known of it.</summary>
    public static RenewedShares Of(ServiceLevel level) =>
        new(
            ServiceEffects.RemovedShare(level, Cause.Dust),
            ServiceEffects.RemovedShare(level, Cause.Paste),
            ServiceEffects.RemovedShare(level, Cause.Pads),
            ServiceEffects.RemovedShare(level, Cause.Fan),
            ServiceEffects.RemovedShare(level, Cause.Mount)
        );

    /// <summary>The share of one cause; 0 for those that no service removes.</summary>
    public double Of(Cause cause) =>
        cause switch
        {
            Cause.Dust => Dust,
            Cause.Paste => Paste,
            Cause.Pads => Pads,
            Cause.Fan => Fan,
            Cause.Mount => Mount,
            _ => 0,
        };

    /// <summary>These shares and those of what was done besides.</summary>
    public RenewedShares And(RenewedShares other) =>
        new(
            Math.Max(Dust, other.Dust),
            Math.Max(Paste, other.Paste),
            Math.Max(Pads, other.Pads),
            Math.Max(Fan, other.Fan),
            Math.Max(Mount, other.Mount)
        );
}

/// <summary>
/// A service as it was done: the one fact that the machine's book, the wear model, the intervals and the work card read. Day and
/// level identify it on its machine.
/// </summary>
/// <param name="Date">The day, UTC.</param>
/// <param name="Level">The level that was done.</param>
public sealed record ServiceDone(DateOnly Date, ServiceLevel Level)
{
    /// <summary>
    /// Whether a service can have been done on a day: not before 1990, not later than tomorrow, since somewhere it is tomorrow
    /// already.
    /// </summary>
    /// <param name="today">UTC.</param>
    public static bool IsPossible(DateOnly day, DateOnly today) => day.Year >= 1990 && day <= today.AddDays(1);

    /// <summary>When the work was filed; null where only the day is known.</summary>
    public DateTimeOffset? At { get; init; }

    /// <summary>Whether the cooler came off: new paste came with it, and a bad mount can begin here.</summary>
    public bool LiftedCooler { get; init; } = ServiceEffects.LiftsCooler(Level);

    /// <summary>What it renewed by the book, whatever it won.</summary>
    public RenewedShares Renewed { get; init; } = RenewedShares.Of(Level);

    /// <summary>
    /// Whether the fan that was changed had failed, or was changed in time; null where nobody said, or no fan was changed.
    /// </summary>
    public bool? FanFailed { get; init; }

    /// <summary>What was used; empty where nobody wrote it down.</summary>
    public IReadOnlyList<UsedMaterial> Used { get; init; } = [];

    /// <summary>The job at the bench that did it; null for one that was imported or entered by hand.</summary>
    public long? Job { get; init; }

    /// <summary>Who did it, as they called themselves; null where nobody was named.</summary>
    public string? By { get; init; }

    /// <summary>What the runs before and after it showed; null while it is not measured.</summary>
    public VerdictOutcome? Proven { get; init; }

    /// <summary>The instant on the time axis of the calculations: noon of the day where only that is known.</summary>
    public double Day => At is { } at ? UnixDay.Of(at) : UnixDay.Noon(Date);

    /// <summary>Whether it starts the age of a cause anew in the machine's book.</summary>
    public bool Renews(Cause cause) => ServiceEffects.IsRenewal(Renewed.Of(cause));

    /// <summary>
    /// The share of a cause that it took away from the temperatures: none where the runs before and after it proved that nothing
    /// changed.
    /// </summary>
    public double Removed(Cause cause) => Proven == VerdictOutcome.NoChange ? 0 : Renewed.Of(cause);

    /// <summary>Whether it took some of a cause away, and not enough to start its age anew.</summary>
    public bool Eases(Cause cause) => Removed(cause) > 0 && !ServiceEffects.IsRenewal(Removed(cause));

    /// <summary>Whether another entry tells of the same service.</summary>
    public bool IsSameAs(ServiceDone other) => Date == other.Date && Level == other.Level;
}
