using Pyrometron.Core.Fleet;
using Pyrometron.Core.Learning;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Tests.Priority;

public class ProvenMinutesTests
{
    private static readonly Asset Laptop = new(
        "LT-1",
        AssetKind.Laptop,
        "Tern",
        "BOAT",
        null,
        6,
        new(2024, 1, 1),
        null,
        [new("cpu", new(95), JointMaterial.Paste)],
        []
    );

    private static ProvenMinutes After(int jobs, double minutes, string model = "Tern") =>
        ProvenMinutes.Of(Enumerable.Repeat(new TimedJob(AssetKind.Laptop, model, ServiceLevel.Repaste, minutes), jobs));

    [Fact]
    public void Without_jobs_the_usual_time_stands() =>
        Assert.Equal(new BenchTime(90, 0), ProvenMinutes.None.Of(Laptop, ServiceLevel.Repaste));

    /// <summary>The normal mean with known variance (Gelman et al. 2013, eq. 2.11–2.12), on logarithms.</summary>
    [Fact]
    public void One_job_moves_the_time_by_its_weight()
    {
        var (prior, job) = (1 / (0.35 * 0.35 + 0.25 * 0.25), 1 / (0.3 * 0.3));
        Assert.Equal(
            new BenchTime((int)Math.Round(Math.Exp((prior * Math.Log(90) + job * Math.Log(150)) / (prior + job))), 1),
            After(1, 150).Of(Laptop, ServiceLevel.Repaste)
        );
    }

    [Fact]
    public void Many_jobs_of_the_model_are_believed_and_those_of_others_less()
    {
        Assert.InRange(After(40, 150).Of(Laptop, ServiceLevel.Repaste).Minutes, 147, 150);
        var others = After(40, 150, "Auk").Of(Laptop, ServiceLevel.Repaste);
        Assert.Equal(0, others.Jobs);
        Assert.InRange(others.Minutes, 140, 150);
        // One of its own against forty of others: what its model shows counts.
        var mixed = ProvenMinutes.Of([
            .. Enumerable.Repeat(new TimedJob(AssetKind.Laptop, "Auk", ServiceLevel.Repaste, 150), 40),
            new(AssetKind.Laptop, "Tern", ServiceLevel.Repaste, 60),
        ]);
        Assert.InRange(mixed.Of(Laptop, ServiceLevel.Repaste).Minutes, 90, 125);
        Assert.Equal(40, After(3, 150).Of(Laptop, ServiceLevel.DustOut).Minutes);
    }

    [Fact]
    public void A_job_without_minutes_teaches_nothing_and_none_takes_less_than_one()
    {
        Assert.Equal(new BenchTime(90, 0), After(5, 0).Of(Laptop, ServiceLevel.Repaste));
        Assert.Equal(new BenchTime(1, 400), After(400, 0.01).Of(Laptop, ServiceLevel.Repaste));
    }

    [Fact]
    public void A_deeper_level_takes_no_less_time()
    {
        ServiceLevel[] deeper =
        [
            ServiceLevel.Inspect,
            ServiceLevel.BlowOut,
            ServiceLevel.DustOut,
            ServiceLevel.FanSwap,
            ServiceLevel.Repaste,
            ServiceLevel.Repad,
        ];
        foreach (var kind in Enum.GetValues<AssetKind>())
            Assert.Equal(deeper, deeper.OrderBy(level => ProvenMinutes.Usual(kind, level)));
    }

    [Fact]
    public void A_mean_without_observations_stays_and_grows_wider_by_quadrature()
    {
        Assert.Equal(new NormalMean(2, 3), new NormalMean(2, 3).After([]));
        Assert.Equal(5, new NormalMean(2, 3).Wider(4).Sigma);
        var both = new NormalMean(0, 1).After([new(4, 1)]);
        Assert.Equal(2, both.Mean, 1e-12);
        Assert.Equal(Math.Sqrt(0.5), both.Sigma, 1e-12);
    }
}
