using Pyrometron.Core.Fleet;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>What it means to do the advised work only some days from now.</summary>
/// <param name="Days">From now on.</param>
/// <param name="MoreKelvin">What the part with the fastest wear will have gathered beyond today by then.</param>
/// <param name="ChancePastLine">The chance that a part is past its action line by then: of the one that is likeliest.</param>
/// <param name="Value">What the work is still worth then, over the years that are reckoned; nothing where it is never done.</param>
public sealed record Waiting(int Days, double MoreKelvin, double ChancePastLine, LevelValue Value)
{
    /// <summary>How far ahead it is looked where the work is never done, days.</summary>
    public const int YearDays = 365;

    /// <summary>Of a machine, if its advised work is done after some days.</summary>
    /// <returns>Null where no work against wear is advised, or nothing was measured.</returns>
    public static Waiting? Of(Assessment a, int days) =>
        Valued(a) is { } level ? Of(a, days, a.Valuation!.After(level, days)) : null;

    /// <summary>If it is never done, looked at a year from now.</summary>
    /// <returns>Null where no work against wear is advised, or nothing was measured.</returns>
    public static Waiting? Never(Assessment a) => Valued(a) is null ? null : Of(a, YearDays, LevelValue.Nothing);

    private static ServiceLevel? Valued(Assessment a) =>
        a.Valuation is not null && a.Service is { } level && ServiceEffects.AgainstWear.Contains(level) ? level : null;

    private static Waiting Of(Assessment a, int days, LevelValue value) =>
        new(days, a.Parts.Max(p => p.PaceKelvinPerDay) * days, a.Parts.Max(p => p.ChancePastLine(days)), value);
}
