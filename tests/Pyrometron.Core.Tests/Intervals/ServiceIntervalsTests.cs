using Pyrometron.Core.Fleet;
using Pyrometron.Core.Intervals;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Tests.Intervals;

/// <summary>How often the calendar asks. The figures are common practice, no source (T8, T9).</summary>
public class ServiceIntervalsTests
{
    private static readonly DateOnly Start = new(2025, 1, 1);

    private static Asset Machine(AssetKind kind, double hours = 8, params ServiceDone[] services) =>
        new("A", kind, "Petrel", "Z", null, hours, Start, null, UsualMachines.Parts(kind), services);

    private static ServiceIntervals Of(
        Asset asset,
        DustClass dust = DustClass.Normal,
        double design = 28,
        double altitude = 100,
        JudgementPolicy? policy = null
    )
    {
        var zone = new Zone("Z", "Zone", dust, new(design));
        return new ServiceIntervals(asset, new Site("S", "Site", altitude, [zone]), zone, policy ?? JudgementPolicy.Default);
    }

    private static Interval Of(ServiceLevel level, ServiceIntervals intervals) => intervals.All().Single(i => i.Level == level);

    [Fact]
    public void A_busy_laptop_is_dusted_every_eight_months_and_none_waits_longer_than_twelve()
    {
        Assert.Equal(8, Of(ServiceLevel.DustOut, Of(Machine(AssetKind.Laptop))).Months, 9);
        var clean = Of(ServiceLevel.DustOut, Of(Machine(AssetKind.Laptop, hours: 3), DustClass.Clean));
        Assert.Equal(12, clean.Months);
        // 8 months × 1.4 in clean air × 1.15 at few hours would be more.
        Assert.Equal(12.88, clean.BaseMonths * clean.Factors.Aggregate(1.0, (product, f) => product * f.Times), 9);
    }

    [Fact]
    public void A_laptop_used_hard_gets_its_full_service_every_twelve_months_others_when_paste_is_due()
    {
        Assert.Equal(42, Of(ServiceLevel.Repaste, Of(Machine(AssetKind.Laptop))).Months, 9);
        var hard = Of(ServiceLevel.Repaste, Of(Machine(AssetKind.Laptop, hours: 14)));
        Assert.True(hard.UsedHard);
        Assert.Equal(12, hard.Months, 9);
        var played = JudgementPolicy.Default with { Surroundings = new Surroundings(UsedHard: true) };
        Assert.Equal(12, Of(ServiceLevel.Repaste, Of(Machine(AssetKind.Laptop, hours: 4), policy: played)).Months, 9);
        Assert.Equal(42, Of(ServiceLevel.Repaste, Of(Machine(AssetKind.Desktop, hours: 14))).Months, 9);
    }

    [Fact]
    public void A_fan_is_asked_for_at_its_age_where_the_house_says_so()
    {
        Assert.DoesNotContain(Of(Machine(AssetKind.Server)).All(), i => i.Level == ServiceLevel.FanSwap);
        var policy = JudgementPolicy.Default with
        {
            Intervals = IntervalRules.Default with { Server = new KindIntervals(null, 18, 42, Fan: 60) },
        };
        var changed = new ServiceDone(Start.AddDays(400), ServiceLevel.FanSwap);
        foreach (var dust in Enum.GetValues<DustClass>())
        {
            var due = Of(Machine(AssetKind.Server, 24, changed), dust, policy: policy)
                .Due(Start.AddDays(500), null, reports: true)
                .Single(d => d.Level == ServiceLevel.FanSwap);
            Assert.Equal(changed.Date.AddDays((int)Math.Round(60 * Interval.DaysAMonth)), due.Due);
        }
    }

    [Fact]
    public void Servers_go_by_the_air_they_breathe()
    {
        double Months(DustClass dust) => Of(ServiceLevel.DustOut, Of(Machine(AssetKind.Server), dust)).Months;
        Assert.Equal([36, 18, 9], [Months(DustClass.Clean), Months(DustClass.Normal), Months(DustClass.Heavy)]);
    }

    [Fact]
    public void Every_influence_is_told_by_itself_and_together_they_make_the_interval()
    {
        var policy = JudgementPolicy.Default with
        {
            Surroundings = new Surroundings(PetsOrSmoke: true, SaltAir: true, DryAir: true),
        };
        var paste = Of(ServiceLevel.Repaste, Of(Machine(AssetKind.GraphicsCard, 24), DustClass.Heavy, 40, 3000, policy));
        Assert.Equal(
            Enum.GetValues<IntervalInfluence>().Where(i => i != IntervalInfluence.PetsOrSmoke),
            paste.Factors.Select(f => f.Influence).Order()
        );
        Assert.Equal(42 * 0.65 * 0.85 * 0.9 * 0.8 * 0.8 * 0.85, paste.Months, 9);
        // Hair and tar clog fins; heat and dry air wear paste.
        var dust = Of(ServiceLevel.DustOut, Of(Machine(AssetKind.GraphicsCard, 24), DustClass.Heavy, 40, 3000, policy));
        Assert.Equal(18 * 0.65 * 0.7 * 0.85 * 0.9 * 0.8, dust.Months, 9);
    }

    [Theory]
    [InlineData(AssetKind.GraphicsCard, 200.0, 20000.0)]
    [InlineData(AssetKind.Laptop, -30.0, -400.0)]
    public void No_surroundings_make_an_interval_of_nothing(AssetKind kind, double design, double altitude) =>
        Assert.All(Of(Machine(kind), DustClass.Heavy, design, altitude).All(), i => Assert.InRange(i.Days, 30, 4000));

    [Fact]
    public void A_card_is_looked_at_every_half_year_unless_its_readings_arrive()
    {
        var card = Machine(AssetKind.GraphicsCard, 8);
        DueService? Look(DateOnly asOf, DateOnly? measured, bool reports) =>
            Of(card)
                .Due(asOf, measured, reports)
                .Where(d => d.Level == ServiceLevel.Inspect)
                .Select(d => (DueService?)d)
                .SingleOrDefault();
        Assert.Equal(Start.AddDays(183), Look(Start.AddDays(200), null, reports: false)!.Value.Due);
        // A run at the bench is a look.
        Assert.Equal(Start.AddDays(100 + 183), Look(Start.AddDays(200), Start.AddDays(100), reports: false)!.Value.Due);
        Assert.Null(Look(Start.AddDays(200), Start.AddDays(199), reports: true));
        Assert.DoesNotContain(Of(Machine(AssetKind.Desktop)).All(), i => i.Level == ServiceLevel.Inspect);
    }

    [Fact]
    public void Who_is_served_is_looked_at_as_well()
    {
        var (look, dust) = (
            new DueService(ServiceLevel.Inspect, Start.AddDays(10), 183),
            new DueService(ServiceLevel.DustOut, Start.AddDays(30), 400)
        );
        Assert.Equal(look, ServiceIntervals.First([look, dust], Start.AddDays(20)));
        Assert.Equal(dust, ServiceIntervals.First([look, dust], Start.AddDays(40)));
        Assert.Equal(dust, ServiceIntervals.First([dust, look], Start.AddDays(40)));
        Assert.Null(ServiceIntervals.First([], Start));
    }

    [Fact]
    public void A_dust_out_does_not_reset_the_age_of_the_paste()
    {
        var dusted = Machine(AssetKind.Desktop, 8, new ServiceDone(Start.AddDays(900), ServiceLevel.DustOut));
        var due = Of(dusted).Due(Start.AddDays(1000), null, false).ToDictionary(d => d.Level, d => d.Due);
        Assert.Equal(Start.AddDays(900 + 548), due[ServiceLevel.DustOut]);
        Assert.Equal(Start.AddDays(1278), due[ServiceLevel.Repaste]);
    }
}
