using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Stores;

/// <summary>What some jobs have cost together, in the house's currency.</summary>
/// <param name="Minutes">At the bench; of work for two, of both.</param>
/// <param name="MinutesUsual">Of so many jobs nobody booked them: what the work usually takes stands for them.</param>
/// <param name="Work">The minutes by what an hour costs.</param>
/// <param name="MaterialUsual">Of so many jobs nothing was taken from the shelf, or without a price: the usual cost stands.</param>
/// <param name="Downtime">Work of machines lost meanwhile and in their tests.</param>
public sealed record WorkSpent(
    double Minutes,
    int MinutesUsual,
    double Work,
    double Material,
    int MaterialUsual,
    double Downtime,
    double All
)
{
    /// <summary>Adds jobs up.</summary>
    /// <param name="rulesFor">The machine of a tag as it is now and the rules that hold for it; null where it is gone.</param>
    /// <param name="materials">What each level uses up by the prices of today.</param>
    public static WorkSpent Of(
        IEnumerable<FinishedJob> jobs,
        Func<string, (Asset Asset, JudgementPolicy Policy)?> rulesFor,
        MaterialCosts materials
    )
    {
        var (minutes, work, material, downtime) = (0.0, 0.0, 0.0, 0.0);
        var (minutesUsual, materialUsual) = (0, 0);
        foreach (var job in jobs)
        {
            if (rulesFor(job.Tag) is not var (asset, policy))
                continue;
            var took = job.Minutes ?? policy.Times.Of(asset, job.Level).Minutes;
            var spent = job.TookTwo ? 2 * took : took;
            minutesUsual += job.Minutes is null ? 1 : 0;
            materialUsual += job.MaterialCost is null ? 1 : 0;
            minutes += spent;
            work += spent / 60 * policy.Values.TechnicianHour;
            material += job.MaterialCost ?? materials.Of(job.Level);
            downtime += BenchCosts.Downtime(asset, took, policy.Values);
        }
        return new WorkSpent(minutes, minutesUsual, work, material, materialUsual, downtime, work + material + downtime);
    }
}
