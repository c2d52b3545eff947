using Pyrometron.Core.Assessments;
using Pyrometron.Core.Causes;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Tests.Worth;

public class LevelValuationTests
{
    private static readonly DateOnly Today = new(2026, 3, 1);

    /// <summary>One year and round figures, so that they can be reckoned by hand.</summary>
    private static readonly JudgementPolicy House = JudgementPolicy.Default with
    {
        Values = new HouseValues(LifeYears: 10, PayBackYears: 1) { GraphicsCard = new(0.2, 900) },
    };

    private static readonly FanAtWork Still = new(0.6, 0, 30);

    private static Asset Machine(AssetKind kind = AssetKind.GraphicsCard, DateOnly? warranty = null) =>
        new("M-1", kind, "Sorrel", "ROW", null, 24, new(2024, 1, 1), warranty, [new("core", new(90), JointMaterial.Paste)], []);

    /// <summary>A core that reads 80 °C now, would rise so much over the air at full fan, and has so much to win.</summary>
    private static PartAssessment Core(CauseSplit split, double hottestRise = 50, double pace = 0, double sigma = 1) =>
        new(
            new("core", new(90), JointMaterial.Paste),
            40,
            15,
            split,
            sigma,
            80,
            33 + hottestRise,
            hottestRise,
            90 - 5 - 33 - hottestRise,
            null,
            pace,
            null,
            []
        );

    private static CauseSplit Dust(double kelvin) => new(kelvin, 0, 0, 0, JointMaterial.Paste);

    private static CauseSplit Paste(double kelvin) => new(0, kelvin, 0, 0, JointMaterial.Paste);

    private static readonly (float, float)[] Year = [.. Enumerable.Range(1, 73).Select(i => (i * 5f, 25f))];

    private static LevelWorth Of(
        ServiceLevel level,
        PartAssessment part,
        Asset? asset = null,
        FanAtWork? fan = null,
        JudgementPolicy? policy = null,
        IReadOnlyList<(float, float)>? year = null,
        params Symptom[] symptoms
    ) =>
        new LevelValuation(asset ?? Machine(), [part], year ?? Year, fan ?? Still, symptoms, Today, policy ?? House)
            .Levels()
            .Single(l => l.Level == level);

    /// <summary>
    /// Dynamic power C·V²·f with the voltage following the clock: 27.1 % less heat is a clock of 0.9 (0.9³ = 0.729).
    /// </summary>
    [Fact]
    public void A_part_beyond_its_limit_loses_clock_by_the_cube_root_of_its_heat()
    {
        // 65 K are allowed at 25 °C; 65/0.729 would be reached. New paste takes all that is too much.
        var rise = 65 / 0.729;
        var worth = Of(ServiceLevel.Repaste, Core(Paste(rise - 65), rise));
        Assert.Equal(0.1 * 24 * 365 * 0.2, worth.Value.Throttling, 0.1);
        Assert.Equal(0, Of(ServiceLevel.BlowOut, Core(Paste(rise - 65), rise)).Value.Throttling, 1e-9);
    }

    [Fact]
    public void The_pace_decides_how_much_of_the_year_is_lost_and_the_air_when()
    {
        // At its limit today: with a pace it is beyond it all year.
        Assert.Equal(0, Of(ServiceLevel.DustOut, Core(Dust(20), 65)).Value.Throttling, 1e-9);
        var slow = Of(ServiceLevel.DustOut, Core(Dust(20), 65, 0.01)).Value.Throttling;
        Assert.True(slow > 0 && Of(ServiceLevel.DustOut, Core(Dust(20), 65, 0.03)).Value.Throttling > 2 * slow);
        // Half a year at 30 °C costs about what 5 K cost for half a year.
        var summer = Of(
            ServiceLevel.DustOut,
            Core(Dust(20), 65),
            year: [.. Year.Select((d, i) => (d.Item1, i % 2 == 0 ? 30f : 20f))]
        ).Value.Throttling;
        Assert.Equal((1 - Math.Cbrt(60 / 65.0)) * 37 / 73 * 24 * 365 * 0.2, summer, 1e-6);
        Assert.Equal(0, Of(ServiceLevel.DustOut, Core(Dust(20), 80), year: []).Value.Throttling);
    }

    /// <summary>
    /// JEDEC JEP122 by way of the reference sheet: what the acceleration is checked against is checked at <see cref="Ageing"/>.
    /// </summary>
    [Fact]
    public void Ageing_avoided_is_a_share_of_the_machine_by_the_acceleration_against_fresh()
    {
        var faster = Ageing.Acceleration(new(70), new(80));
        var worth = Of(ServiceLevel.Repaste, Core(Paste(10)));
        Assert.Equal((faster - 1) * 900 / 10, worth.Value.Ageing, 1e-9);
        // A fan that takes half of a win for itself leaves the part half as much cooler.
        var half = Of(ServiceLevel.Repaste, Core(Paste(10)), fan: Still with { Takes = 0.5 });
        Assert.Equal((faster - Ageing.Acceleration(new(70), new(75))) * 900 / 10, half.Value.Ageing, 1e-9);
        Assert.Equal(0, worth.Value.Energy, 1e-12);
        Assert.True(half.Value.Energy > 0);
    }

    /// <summary>
    /// Fan laws (from memory: ASHRAE Handbook, HVAC Applications; ISO 13348): half the speed is 15 dB less sound power and an
    /// eighth of the shaft power.
    /// </summary>
    [Fact]
    public void Half_the_speed_is_fifteen_decibels_and_an_eighth_of_the_power()
    {
        Assert.Equal(15.05, FanAtWork.DecibelsLess(0.5), 0.01);
        Assert.Equal(0.125, FanAtWork.PowerShare(0.5));
        // A fan that takes all of 10 of 30 K lets the resistance grow by half: θ ∝ n^−0.8.
        Assert.Equal(Math.Pow(1.5, -1 / 0.8), new FanAtWork(0.6, 1, 30).SpeedAfter(10), 1e-12);
        Assert.Equal(1, Still.SpeedAfter(10));
        Assert.Equal(1, new FanAtWork(0.6, 1, 5).SpeedAfter(10));
    }

    [Fact]
    public void Quiet_is_worth_something_where_people_sit()
    {
        var listening = Still with { Takes = 0.5 };
        var (laptop, server) = (
            Of(ServiceLevel.DustOut, Core(Dust(10)), Machine(AssetKind.Laptop), listening),
            Of(ServiceLevel.DustOut, Core(Dust(10)), Machine(AssetKind.Server), listening)
        );
        Assert.Equal(House.Values.DecibelYear * FanAtWork.DecibelsLess(listening.SpeedAfter(8.5)), laptop.Value.Noise, 1e-9);
        Assert.Equal(0, server.Value.Noise);
        Assert.True(server.Value.Energy > laptop.Value.Energy);
    }

    [Fact]
    public void Crashes_that_people_reported_are_worth_what_they_cost()
    {
        Symptom[] crashes =
        [
            new(Today.AddDays(-73), SymptomKind.Crash, null),
            new(Today.AddDays(-3), SymptomKind.Shutdown, null),
            new(Today, SymptomKind.Noise, null),
        ];
        // Two in 73 days are ten a year, of two hours each.
        Assert.Equal(10 * 2 * 0.2, Of(ServiceLevel.Repaste, Core(Paste(10)), symptoms: crashes).Value.Crashes, 1e-9);
        Assert.Equal(0, Of(ServiceLevel.DustOut, Core(Paste(10)), symptoms: crashes).Value.Crashes, 1e-9);
        // One of today is not 365 a year.
        Assert.Equal(
            365 / 30.0 * 2 * 0.2,
            Of(ServiceLevel.Repaste, Core(Paste(10)), symptoms: [new(Today, SymptomKind.Crash, null)]).Value.Crashes,
            1e-9
        );
    }

    [Fact]
    public void Costs_are_work_material_downtime_risk_and_a_cover_that_is_forfeited()
    {
        var until = Today.AddDays(365);
        var v = Of(ServiceLevel.Repaste, Core(Paste(10)), Machine(warranty: until)).Value;
        Assert.Equal((45.0, 4.0), (v.Work, v.Material));
        Assert.Equal((60 + 40) / 60.0 * 0.2, v.Downtime, 1e-9);
        Assert.Equal(0.004 * 900, v.Risk, 1e-9);
        // A year of cover is worth the life that would be used up in it.
        Assert.Equal(Ageing.Acceleration(new(70), new(80)) * 900 / 10, v.Warranty, 1e-9);
        Assert.Equal(v.Gain - v.Cost, v.Net, 1e-9);
        Assert.Equal(0, Of(ServiceLevel.BlowOut, Core(Paste(10)), Machine(warranty: until)).Value.Warranty);
        foreach (var school in (WarrantySchool[])[WarrantySchool.AskFirst, WarrantySchool.OpenWhereAllowed])
            Assert.Equal(
                0,
                Of(
                    ServiceLevel.Repaste,
                    Core(Paste(10)),
                    Machine(warranty: until),
                    policy: House with
                    {
                        Warranty = school,
                    }
                ).Value.Warranty
            );
    }

    [Fact]
    public void The_range_holds_the_value_and_widens_with_doubt()
    {
        var (sure, doubtful) = (Of(ServiceLevel.Repaste, Core(Paste(10))), Of(ServiceLevel.Repaste, Core(Paste(10), sigma: 4)));
        Assert.True(sure.NetLow < sure.Value.Net && sure.Value.Net < sure.NetHigh);
        Assert.True(doubtful.NetLow < sure.NetLow && sure.NetHigh < doubtful.NetHigh);
        Assert.Equal(sure.Value.Net, sure.PerHour, 1e-9);
    }

    /// <summary>A property: whoever values a machine-hour higher never thinks less of a service.</summary>
    [Fact]
    public void A_dearer_machine_hour_never_makes_a_hot_machines_service_less_worth()
    {
        var before = double.NegativeInfinity;
        foreach (var hour in (double[])[0, 0.1, 1, 10])
        {
            var worth = Of(
                ServiceLevel.DustOut,
                Core(Dust(25), 80),
                policy: House with
                {
                    Values = House.Values with { GraphicsCard = new(hour, 900) },
                }
            );
            Assert.True(worth.Value.Net > before);
            before = worth.Value.Net;
        }
    }

    [Fact]
    public void What_an_unseen_fan_hides_does_not_show_at_full_speed_and_dust_costs_less_there()
    {
        var part = Core(Dust(10)) with { HiddenKelvin = 5, FullFanResistance = 0.6 };
        Assert.Equal(10 * 0.85 * 0.6 * 0.5, part.WonAtFullFan(ServiceLevel.DustOut), 1e-9);
        Assert.Equal(10, (Core(Paste(10)) with { FullFanResistance = 0.6 }).WonAtFullFan(ServiceLevel.Repaste), 1e-9);
        Assert.Equal(0, Core(default).WonAtFullFan(ServiceLevel.Repad));
    }

    [Fact]
    public void What_lasts_is_summed_over_the_years_in_which_it_has_to_pay_and_costs_come_once()
    {
        var part = Core(Dust(20), 70, 0.01);
        var (one, three) = (
            Of(ServiceLevel.DustOut, part, fan: Still with { Takes = 0.3 }).Value,
            Of(
                ServiceLevel.DustOut,
                part,
                fan: Still with
                {
                    Takes = 0.3,
                },
                policy: House with
                {
                    Values = House.Values with { PayBackYears = 3 },
                }
            ).Value
        );
        Assert.Equal(3 * one.Ageing, three.Ageing, 1e-9);
        Assert.Equal(3 * one.Energy, three.Energy, 1e-9);
        Assert.Equal(one.Cost, three.Cost, 1e-9);
        // Wear goes on: later years lose more.
        Assert.True(three.Throttling > 3 * one.Throttling);
    }

    private static LevelValue After(int days, PartAssessment part, Asset? asset = null, JudgementPolicy? policy = null) =>
        new LevelValuation(asset ?? Machine(), [part], Year, Still, [], Today, policy ?? House).After(ServiceLevel.Repaste, days);

    [Fact]
    public void Without_waiting_it_is_worth_what_the_levels_tell()
    {
        var part = Core(Paste(20), 70);
        Assert.Equal(Of(ServiceLevel.Repaste, part).Value, After(0, part));
    }

    /// <summary>A loss that is the same every day is won on the days left: of 73 equal stretches those from the day on.</summary>
    [Theory]
    [InlineData(30, 68)]
    [InlineData(365, 1)]
    [InlineData(366, 0)]
    public void While_it_waits_nothing_is_won(int days, int stretches)
    {
        var part = Core(Paste(65 / 0.729 - 65), 65 / 0.729);
        var now = After(0, part);
        Assert.Equal(now.Throttling * stretches / 73, After(days, part).Throttling, 0.01);
        Assert.Equal(now.Ageing * Math.Max(0, 365 - days) / 365, After(days, part).Ageing, 1e-6);
        Assert.Equal(now.Work + now.Material + now.Risk, After(days, part).Cost - After(days, part).Downtime, 1e-9);
    }

    [Fact]
    public void Waiting_longer_is_never_worth_more_where_it_is_worth_doing()
    {
        var part = Core(Paste(20), 70, pace: 0.02);
        var nets = Enumerable.Range(0, 13).Select(m => After(m * 30, part).Net).ToList();
        Assert.True(nets[0] > 0);
        Assert.Equal(nets.OrderDescending(), nets);
    }

    /// <summary>Where opening it forfeits the maker's cover, waiting for its end saves that.</summary>
    [Fact]
    public void A_warranty_that_ends_meanwhile_is_not_lost()
    {
        var covered = Machine(warranty: Today.AddDays(100));
        var part = Core(Paste(20), 70);
        var (now, later) = (After(0, part, covered), After(120, part, covered));
        Assert.True(now.Warranty > 0);
        Assert.Equal(0, later.Warranty);
    }

    /// <summary>Normal margin and pace: one half on the day, a tenth and nine tenths at its ends, in whole days.</summary>
    [Fact]
    public void The_chance_to_be_past_the_line_goes_with_the_date()
    {
        var trend = new Trend(0.05, 0.048, 0.052, 0.01, 0);
        var part = (Core(Paste(10), 45, pace: 0.05, sigma: 0.001) with { Trend = trend }).HeldAgainst(5, Today);
        var date = part.Action!.Value;
        double Days(DateOnly day) => day.DayNumber - Today.DayNumber;
        Assert.Equal(0.5, part.ChancePastLine(Days(date.Day)), 0.01);
        Assert.InRange(part.ChancePastLine(Days(date.Early)), 0.06, 0.14);
        Assert.InRange(part.ChancePastLine(Days(date.Late!.Value)), 0.86, 0.94);
        Assert.Equal(0, part.ChancePastLine(0), 1e-6);
        Assert.Equal(1, Core(Paste(10), 90, sigma: 0).ChancePastLine(0));
    }
}
