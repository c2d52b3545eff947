using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Units;

namespace Pyrometron.Core.Worth;

/// <summary>
/// What proven work has won, in the house's currency, over the years in which a service has to pay there. Only what runs before
/// and after measured counts, and it is taken to last: without the work, wear would have gone on at the same pace.
/// </summary>
/// <param name="Jobs">Jobs that were compared; of the others nothing is known, and nothing is counted.</param>
/// <param name="Ageing">
/// Life not used up: how much faster the part that won most would age at the temperature before (Arrhenius), in the hours that
/// the machine works.
/// </param>
/// <param name="Performance">Work done besides, by the score or the clock.</param>
/// <param name="Noise">Quiet, on machines that people sit beside.</param>
/// <param name="Crashes">One crash of each machine that failed in the run before, and not after.</param>
/// <param name="All">The sum of these.</param>
/// <param name="Expanded">Expanded uncertainty of all of it together, k = 2, as far as the runs leave it open.</param>
public sealed record MoneyWon(
    int Jobs,
    double Ageing,
    double Performance,
    double Noise,
    double Crashes,
    double All,
    double Expanded
)
{
    /// <summary>A clock or score that moves by less is chance, share; the expanded uncertainty of one that moved.</summary>
    private const double PerformanceShare = 0.005;

    private const double HoursADay = 24;

    /// <summary>Adds jobs up; their uncertainties are independent of each other.</summary>
    /// <param name="rulesFor">The machine of a tag as it is now and the rules that hold for it; null where it is gone.</param>
    public static MoneyWon Of(IEnumerable<FinishedJob> jobs, Func<string, (Asset Asset, JudgementPolicy Policy)?> rulesFor)
    {
        var (count, all, variance) = (0, new MoneyWon(0, 0, 0, 0, 0, 0, 0), 0.0);
        foreach (var job in jobs.Where(WorkWon.IsCompared))
            if (rulesFor(job.Tag) is var (asset, policy))
            {
                var won = Of(job, asset, policy.Values);
                all = new MoneyWon(
                    ++count,
                    all.Ageing + won.Ageing,
                    all.Performance + won.Performance,
                    all.Noise + won.Noise,
                    all.Crashes + won.Crashes,
                    all.All + won.All,
                    0
                );
                variance += won.Expanded * won.Expanded;
            }
        return all with { Expanded = Math.Sqrt(variance) };
    }

    private static MoneyWon Of(FinishedJob job, Asset asset, HouseValues values)
    {
        var (sides, worth, years) = (job.Sides, values.Of(asset.Kind), values.PayBackYears);
        var life = worth.Replacement / values.LifeYears * years * asset.DutyHoursPerDay / HoursADay;
        double Ages(double kelvin) =>
            sides.AfterCelsius is { } after
                ? life
                    * (
                        Forecast.Ageing.Acceleration(new Celsius(after), new Celsius(after + kelvin), values.ActivationEnergyEv)
                        - 1
                    )
                : 0;
        var work = asset.DutyHoursPerDay * YearAhead.Days * years * worth.MachineHour;
        var quiet = asset.Kind is AssetKind.Laptop or AssetKind.Desktop ? values.DecibelYear * years : 0;
        var (ageing, performance) = (Ages(job.WonKelvin), work * (sides.Performance ?? 0));
        var (noise, crashes) = (-quiet * (sides.Decibel ?? 0), sides.EndedFailing ? values.CrashHours * worth.MachineHour : 0);
        return new MoneyWon(
            1,
            ageing,
            performance,
            noise,
            crashes,
            ageing + performance + noise + crashes,
            Math.Sqrt(
                Math.Pow((Ages(job.WonKelvin + job.ExpandedKelvin) - Ages(job.WonKelvin - job.ExpandedKelvin)) / 2, 2)
                    + Math.Pow(sides.Performance is null ? 0 : work * PerformanceShare, 2)
                    + Math.Pow(quiet * (sides.ExpandedDecibel ?? 0), 2)
            )
        );
    }
}
