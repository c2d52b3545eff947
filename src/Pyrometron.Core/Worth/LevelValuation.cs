using Pyrometron.Core.Assessments;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Worth;

/// <summary>
/// Reckons what each level is worth on one machine over the years in which it has to pay. Doing it lowers every part by what is
/// won for all that time, since wear goes on at the same pace with it and without; so the present pace decides how much of it is
/// spent above a limit, and the air is that of the same days a year ago.
/// </summary>
/// <param name="year">Days ahead, and the intake air expected there, °C: evenly spread over the hours that it works.</param>
/// <param name="symptoms">Reports that no service has answered.</param>
internal sealed class LevelValuation(
    Asset asset,
    IReadOnlyList<PartAssessment> parts,
    IReadOnlyList<(float DaysAhead, float AirC)> year,
    FanAtWork fan,
    IReadOnlyList<Symptom> symptoms,
    DateOnly asOf,
    JudgementPolicy policy
)
{
    /// <summary>Crashes reported over less than this many days still count as that many.</summary>
    private const int LeastCrashDays = 30;

    private readonly KindValues _worth = policy.Values.Of(asset.Kind);
    private readonly int _years = policy.Values.PayBackYears;
    private readonly double _hours = asset.DutyHoursPerDay * YearAhead.Days * policy.Values.PayBackYears;

    /// <summary>Every level that blows or opens something, the lightest first; empty without judged parts.</summary>
    public IReadOnlyList<LevelWorth> Levels()
    {
        if (parts.Count == 0)
            return [];
        var left = Left;
        return [.. ServiceEffects.AgainstWear.Select(l => Of(l, left))];
    }

    /// <summary>
    /// What a level is worth if it is done only some days from now: until then nothing is won, and the years end when they would
    /// have ended. At 0 days it is what <see cref="Levels"/> tells.
    /// </summary>
    public LevelValue After(ServiceLevel level, int days) =>
        Value(level, policy.Proven.Of(asset, level).Share, policy.Times.Of(asset, level).Minutes, Left, days);

    private LeftAlone Left => new(WorkLost(null, 0, 0), AgeingRate(null, 0));

    /// <summary>What the years cost if nothing is done: what every level is held against.</summary>
    private readonly record struct LeftAlone(double WorkLost, double AgeingRate);

    private LevelWorth Of(ServiceLevel level, LeftAlone left)
    {
        var most = parts.MaxBy(p => p.Split.WonBy(level))!;
        var (proven, time) = (policy.Proven.Of(asset, level), policy.Times.Of(asset, level));
        var won = most.Split.WonBy(level) * proven.Share;
        // How sure a win is: the split it is taken from, and how well such predictions have held.
        var spread =
            won > 0
                ? 2 * Math.Sqrt(Math.Pow(most.SigmaKelvin / most.Split.Total, 2) + Math.Pow(proven.Sigma / proven.Share, 2))
                : 0;
        LevelValue ValueOf(double share) => Value(level, share, time.Minutes, left, 0);
        return new LevelWorth(
            level,
            most.Part.Name,
            won,
            time.Minutes,
            time.Jobs,
            proven.Share,
            proven.Jobs,
            ValueOf(proven.Share),
            ValueOf(proven.Share * Math.Max(0, 1 - spread)).Net,
            ValueOf(proven.Share * (1 + spread)).Net
        )
        {
            Hands = policy.HandsFor(level),
        };
    }

    /// <param name="share">What the level wins of what the split says.</param>
    /// <param name="wait">Days until it is done.</param>
    private LevelValue Value(ServiceLevel level, double share, int minutes, LeftAlone left, int wait)
    {
        var years = Math.Max(0, _years - wait / YearAhead.Days);
        var hours = asset.DutyHoursPerDay * YearAhead.Days * years;
        var on = asOf.AddDays(wait);
        var won = parts.Max(p => p.Split.WonBy(level)) * share;
        var slower = fan.SpeedAfter(won);
        var values = policy.Values;
        return new LevelValue(
            // Whatever is won can only lower what is lost: where nothing is, there is nothing to reckon.
            Throttling: left.WorkLost == 0 ? 0 : (left.WorkLost - WorkLost(level, share, wait)) * _hours * _worth.MachineHour,
            Crashes: CrashesAYear
                * years
                * Math.Min(1, won / Math.Max(policy.WorthKelvin, parts.Max(p => p.Split.Total)))
                * values.CrashHours
                * _worth.MachineHour,
            Ageing: (left.AgeingRate - AgeingRate(level, share)) * _worth.Replacement / values.LifeYears * years,
            Noise: asset.Kind is AssetKind.Laptop or AssetKind.Desktop
                ? FanAtWork.DecibelsLess(slower) * values.DecibelYear * years
                : 0,
            Energy: BenchCosts.FanWatts(asset.Kind)
                * FanAtWork.PowerShare(fan.SpeedShare)
                * (1 - FanAtWork.PowerShare(slower))
                / 1000
                * hours
                * values.KilowattHour,
            Work: minutes / 60.0 * values.TechnicianHour * policy.HandsFor(level),
            Material: policy.Materials.Of(level),
            Downtime: BenchCosts.Downtime(asset, minutes, values),
            Risk: BenchCosts.ChanceOfDamage(asset.Kind, level) * _worth.Replacement,
            Warranty: policy.ForfeitsCover(asset, level, on)
                ? (asset.WarrantyUntil!.Value.DayNumber - on.DayNumber)
                    / YearAhead.Days
                    * left.AgeingRate
                    * _worth.Replacement
                    / values.LifeYears
                : 0
        );
    }

    /// <summary>
    /// The share of the years' work lost to slower clocks. A part that would pass its limit with the fan at full speed sheds so
    /// much heat that it stays there, and heat goes with the cube of the clock, since voltage follows it (dynamic power C·V²·f).
    /// </summary>
    /// <param name="wait">Days until the level is done.</param>
    private double WorkLost(ServiceLevel? level, double share, int wait)
    {
        if (year.Count == 0)
            return 0;
        var won = parts.Select(p => level is { } l ? share * p.WonAtFullFan(l) : 0).ToArray();
        var lost = 0.0;
        for (var y = 0; y < _years; y++)
            foreach (var (ahead, air) in year)
            {
                var (most, days) = (0.0, ahead + y * YearAhead.Days);
                var done = days >= wait ? 1 : 0;
                for (var p = 0; p < won.Length; p++)
                {
                    var rise = parts[p].HottestRiseKelvin + parts[p].PaceKelvinPerDay * days - done * won[p];
                    var allowed = parts[p].Part.Limit.Value - air;
                    if (rise > allowed)
                        most = Math.Max(most, 1 - Math.Cbrt(Math.Max(0, allowed) / rise));
                }
                lost += most;
            }
        return lost / (_years * year.Count);
    }

    /// <summary>
    /// How many times as fast as fresh it ages: every part counts alike, since a machine fails with any of them.
    /// </summary>
    private double AgeingRate(ServiceLevel? level, double share)
    {
        var (sum, known) = (0.0, 0);
        foreach (var part in parts)
        {
            if (double.IsNaN(part.LatestC))
                continue;
            var shown = part.Split.Total - part.HiddenKelvin;
            var cooler = level is { } l ? (1 - fan.Takes) * share * part.Split.WonBy(l) : 0;
            sum += Ageing.Acceleration(
                new Celsius(part.LatestC - shown),
                new Celsius(part.LatestC - cooler),
                policy.Values.ActivationEnergyEv
            );
            known++;
        }
        return known == 0 ? 1 : sum / known;
    }

    /// <summary>By the reports that stand.</summary>
    private double CrashesAYear
    {
        get
        {
            var crashes = symptoms.Where(s => s.Kind is SymptomKind.Crash or SymptomKind.Shutdown).ToArray();
            return crashes.Length == 0
                ? 0
                : crashes.Length * YearAhead.Days / Math.Max(LeastCrashDays, asOf.DayNumber - crashes.Min(s => s.Date).DayNumber);
        }
    }
}
