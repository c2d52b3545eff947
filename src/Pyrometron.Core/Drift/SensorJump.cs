namespace Pyrometron.Core.Drift;

/// <summary>A part that jumped against another, or against the air.</summary>
/// <param name="Day">Middle between the last cell before it and the first after it, days since 1970.</param>
internal readonly record struct SensorJump(double Day, double Kelvin)
{
    /// <summary>
    /// The sensor that jumped is the one that left all the others at once, by the same kelvins, while those stayed together;
    /// with two sensors, the one whose own reading jumped. O(parts²) times what a pair costs.
    /// </summary>
    /// <param name="parts">Number of parts.</param>
    /// <param name="jumps">The jumps of a part against another.</param>
    /// <param name="alone">By how much a part's own rise changed about a day, K.</param>
    /// <param name="sameDays">Jumps against different parts that lie so near are one, days.</param>
    public static List<SensorStep> Told(
        int parts,
        Func<int, int, List<SensorJump>> jumps,
        Func<int, double, double> alone,
        double sameDays
    )
    {
        if (parts < 2)
            return [];
        // By how much one part jumps against another is what that one jumps against it, the other way.
        var against = new List<SensorJump>[parts, parts];
        for (var p = 0; p < parts; p++)
        for (var other = 0; other < p; other++)
            against[other, p] = [.. (against[p, other] = jumps(p, other)).Select(j => j with { Kelvin = -j.Kelvin })];
        bool LeftAll(int part, SensorJump jump) =>
            Enumerable
                .Range(0, parts)
                .Where(other => other != part)
                .All(other =>
                    against[part, other].Any(j => Math.Abs(j.Day - jump.Day) <= sameDays && j.Kelvin * jump.Kelvin > 0)
                );
        return
        [
            .. from part in Enumerable.Range(0, parts)
            from jump in against[part, part == 0 ? 1 : 0].OrderBy(j => j.Day)
            where LeftAll(part, jump) && Math.Abs(alone(part, jump.Day) - jump.Kelvin) <= Math.Abs(jump.Kelvin) / 2
            select new SensorStep(part, jump.Day),
        ];
    }
}
