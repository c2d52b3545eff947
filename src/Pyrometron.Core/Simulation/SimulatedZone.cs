namespace Pyrometron.Core.Simulation;

/// <summary>Something that happens to a room for a while.</summary>
/// <param name="FromDay">Days since 1970.</param>
/// <param name="UntilDay">End, excluded.</param>
/// <param name="Kelvin">What it adds to the air at the machines.</param>
/// <param name="Seen">Whether the intake sensors feel it.</param>
public sealed record RoomEvent(double FromDay, double UntilDay, double Kelvin, bool Seen);

/// <summary>The air of a simulated zone.</summary>
/// <param name="MeanC">Yearly mean of the intake air.</param>
/// <param name="SeasonKelvin">Half of the difference between summer and winter.</param>
public sealed record SimulatedZone(string Code, double MeanC, double SeasonKelvin, IReadOnlyList<RoomEvent> Events)
{
    private const double WarmestDayOfYear = 205;

    /// <summary>Whether the intake sensors feel the season; else they hang in conditioned air.</summary>
    public bool SeasonSeen { get; init; } = true;

    /// <summary>The air as the intake sensors see it, °C, without their noise.</summary>
    public double SeenC(double day) => (SeasonSeen ? Season(day) : MeanC) + Sum(day, e => e.Seen);

    /// <summary>The air as the machines feel it, °C.</summary>
    public double FeltC(double day) => Season(day) + Sum(day, _ => true);

    private double Season(double day)
    {
        var ofYear = DateTimeOffset.FromUnixTimeSeconds((long)(day * 86400)).DayOfYear;
        var daily = Math.Sin(2 * Math.PI * (day - 0.4)) * 0.8;
        return MeanC + SeasonKelvin * Math.Cos(2 * Math.PI * (ofYear - WarmestDayOfYear) / 365.25) + daily;
    }

    private double Sum(double day, Func<RoomEvent, bool> counts) =>
        Events.Where(e => day >= e.FromDay && day < e.UntilDay && counts(e)).Sum(e => e.Kelvin);
}
