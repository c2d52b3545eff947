namespace Pyrometron.Core.Access;

/// <summary>
/// How long somebody waits who signed in wrongly again and again: it slows guessing, and locks nobody out for good.
/// </summary>
public static class SignInPace
{
    /// <summary>So many mistakes cost nothing: fingers slip.</summary>
    public const int Free = 4;

    private static readonly TimeSpan Most = TimeSpan.FromMinutes(15);

    /// <summary>Mistakes are forgotten after this long without another.</summary>
    public static TimeSpan Forgotten { get; } = TimeSpan.FromHours(12);

    /// <summary>
    /// How long after the last of some mistakes the next attempt is looked at: two seconds after the fifth, twice as long after
    /// each one more, a quarter of an hour at most. So about a hundred a day can be tried from one place.
    /// </summary>
    public static TimeSpan Wait(int mistakes) =>
        mistakes <= Free ? TimeSpan.Zero
        : mistakes - Free >= 10 ? Most
        : TimeSpan.FromSeconds(Math.Min(Most.TotalSeconds, Math.Pow(2, mistakes - Free)));
}
