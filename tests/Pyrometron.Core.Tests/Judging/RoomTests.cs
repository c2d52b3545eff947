using Pyrometron.Core.Drift;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>The room against the machines that stand in it.</summary>
public class RoomTests
{
    [Fact]
    public void A_room_that_warms_up_in_the_last_month_hides_no_sick_machine_and_makes_no_healthy_one_sick()
    {
        var hall = new Hall().WithHealthy(18).With("SICK", [Hall.Grown(Cause.Dust, 9, days: 200)]);
        hall.Room.Add(new RoomEvent(Hall.Now - 25, double.PositiveInfinity, 6, Seen: false));
        var judgement = hall.Judge();
        Assert.InRange(judgement.Zones.Single().NowKelvin, 4.5, 7.5);
        Assert.Equal("SICK", judgement.Queue[0].Asset.Tag);
        Assert.InRange(judgement.Queue[0].DriftKelvin!.Value, 6.5, 11);
        Assert.All(judgement.Queue.Skip(1), a => Assert.InRange(a.DriftKelvin!.Value, 0, 2.5));
    }

    [Fact]
    public void What_the_intake_sensors_see_is_not_counted_twice()
    {
        var hall = new Hall().WithHealthy(12);
        hall.Room.Add(new RoomEvent(Hall.Now - 40, double.PositiveInfinity, 5, Seen: true));
        var judgement = hall.Judge();
        Assert.InRange(judgement.Zones.Single().NowKelvin, -1, 1);
        Assert.All(judgement.Queue, a => Assert.True(a.DriftKelvin < 2.5));
    }

    [Fact]
    public void Four_machines_are_too_few_to_tell_a_room()
    {
        var hall = new Hall().WithHealthy(4);
        hall.Room.Add(new RoomEvent(Hall.Now - 40, double.PositiveInfinity, 5, Seen: false));
        Assert.Empty(hall.Judge().Zones.Single().Bins);
    }

    [Fact]
    public void The_rooms_mean_belongs_to_the_machines()
    {
        var bins = new Hall().WithHealthy(14).Judge().Zones.Single().Bins;
        Assert.NotEmpty(bins);
        Assert.InRange(bins.Average(b => b.Kelvin), -0.3, 0.3);
    }

    [Fact]
    public void One_lying_sensor_does_not_move_the_room_of_the_others()
    {
        var hall = new Hall().WithHealthy(14).With("LIAR", []);
        hall.Distorted["LIAR"] = r =>
            r.UnixMilliseconds < (Hall.Now - 30) * 86_400_000
                ? r
                : r with
                {
                    PartsC = [r.PartsC[0], r.PartsC[1], r.PartsC[2] - 12],
                };
        var judgement = hall.Judge();
        Assert.InRange(judgement.Zones.Single().NowKelvin, -0.8, 0.8);
        Assert.All(judgement.Queue.Where(a => a.Asset.Tag != "LIAR"), a => Assert.True(a.DriftKelvin < 2.5));
    }

    /// <summary>
    /// An Ornstein–Uhlenbeck process integrated out is the same as one kept as unknowns: checked against dense algebra.
    /// </summary>
    [Fact]
    public void The_room_of_the_whole_zone_solves_the_normal_equations_of_its_machines()
    {
        int[] bins = [10, 11, 12];
        var equations = new RoomEquations(bins);
        Span<int> places = stackalloc int[2];
        equations.Place([11, 40], places);
        Assert.Equal([1, -1], places.ToArray());
        equations.Add(1, [0, 1, 2], [0, 4, 0], 8);
        equations.Add(0, [0, 1, 2], [4, 0, 0], -8);
        equations.Add(2, [0, 1, 2], [0, 0, 4], 0);
        var room = equations.Solve();
        Assert.Equal(2, room[1], 0.05);
        Assert.Equal(-2, room[0], 0.05);
        Assert.Equal(0, room[2], 0.05);
    }
}

/// <summary>Judging again what new readings touch.</summary>
public class JudgeAgainTests
{
    private sealed class TwoRows
    {
        private readonly Dictionary<string, ReadingSeries> _readings = [];

        public TwoRows()
        {
            Asset Card(string tag, string zone) =>
                new(
                    tag,
                    AssetKind.GraphicsCard,
                    "Sorrel",
                    zone,
                    null,
                    24,
                    Hall.Today.AddDays(-400),
                    null,
                    [
                        new("core", new(90), JointMaterial.Paste),
                        new("hotspot", new(105), JointMaterial.Paste),
                        new("memory", new(105), JointMaterial.Pad),
                    ],
                    []
                );
            Asset[] assets =
            [
                .. Enumerable.Range(0, 6).Select(i => Card($"A-{i}", "A")),
                .. Enumerable.Range(0, 6).Select(i => Card($"B-{i}", "B")),
            ];
            Register = new(
                [
                    new Site(
                        "S",
                        "Site",
                        10,
                        [new Zone("A", "Row A", DustClass.Normal, new(33)), new Zone("B", "Row B", DustClass.Normal, new(33))]
                    ),
                ],
                assets
            );
            foreach (var asset in assets)
                Fill(asset, []);
        }

        public Register Register { get; set; }

        public List<string> Asked { get; } = [];

        public void Fill(Asset asset, Fault[] faults)
        {
            var machine = new SimulatedMachine(
                asset,
                228,
                27,
                [13, 25, 24],
                3200,
                new FanControl.Fixed(60),
                [new("steady", 1, 0.9), new("idle", 0.15, 0.1)],
                new Instruments(0.5),
                faults
            );
            var seed = asset.Tag[0] * 10 + asset.Tag[^1];
            _readings[asset.Tag] = ReadingSeries.From(
                Workshop.Run(machine, new SimulatedZone(asset.Zone, 26, 4, []), Hall.Now - 300, Hall.Now, seed),
                3
            );
        }

        public FleetJudge Judge() =>
            new(
                new JudgementBasis(
                    Register,
                    Hall.Today,
                    JudgementPolicy.Default,
                    asset =>
                    {
                        lock (Asked)
                            Asked.Add(asset.Tag);
                        return _readings[asset.Tag];
                    }
                )
            );
    }

    [Fact]
    public void Only_the_zone_that_is_touched_is_read_and_judged_again()
    {
        var rows = new TwoRows();
        var before = rows.Judge().JudgeAll();
        rows.Asked.Clear();
        rows.Fill(rows.Register.Assets[2], [Hall.Grown(Cause.Dust, 10)]);
        var after = rows.Judge().JudgeAgain(before, new HashSet<string> { "A-2" });
        Assert.All(rows.Asked, tag => Assert.StartsWith("A-", tag, StringComparison.Ordinal));
        Assert.Equal("A-2", after.Queue[0].Asset.Tag);
        Assert.True(after.ByTag["A-2"].DriftKelvin > before.ByTag["A-2"].DriftKelvin + 5);
        Assert.Equal(before.ByTag["B-3"].DriftKelvin, after.ByTag["B-3"].DriftKelvin);
        Assert.Equal(12, after.Queue.Count);
    }

    [Fact]
    public void Judging_again_comes_close_to_judging_all()
    {
        var rows = new TwoRows();
        var before = rows.Judge().JudgeAll();
        rows.Fill(rows.Register.Assets[2], [Hall.Grown(Cause.Pads, 8, "memory")]);
        var again = rows.Judge().JudgeAgain(before, new HashSet<string> { "A-2" });
        var all = rows.Judge().JudgeAll();
        foreach (var machine in all.Queue)
            Assert.Equal(machine.DriftKelvin!.Value, again.ByTag[machine.Asset.Tag].DriftKelvin!.Value, 0.7);
    }

    [Fact]
    public void Machines_that_are_new_gone_or_moved_are_found_without_being_named()
    {
        var rows = new TwoRows();
        var before = rows.Judge().JudgeAll();
        var added = rows.Register.Assets[0] with { Tag = "A-9" };
        var moved = rows.Register.Assets[1] with { Zone = "B" };
        rows.Register = rows.Register with
        {
            Assets = [.. rows.Register.Assets.Where(a => a.Tag is not ("A-1" or "B-5")), added, moved],
        };
        rows.Fill(added, []);
        var after = rows.Judge().JudgeAgain(before, new HashSet<string> { "A-1", "B-5" });
        Assert.True(after.ByTag.ContainsKey("A-9"));
        Assert.False(after.ByTag.ContainsKey("B-5"));
        Assert.Equal("B", after.ByTag["A-1"].Asset.Zone);
        Assert.Equal(12, after.Queue.Count);
    }

    [Fact]
    public void One_machine_by_itself_agrees_with_the_fleet_and_tells_its_past()
    {
        var rows = new TwoRows();
        rows.Fill(rows.Register.Assets[4], [Hall.Grown(Cause.Paste, 4, "core")]);
        var fleet = rows.Judge().JudgeAll();
        var one = rows.Judge().JudgeOne(fleet, rows.Register.Assets[4])!;
        Assert.Equal(fleet.ByTag["A-4"].DriftKelvin!.Value, one.DriftKelvin!.Value, 0.5);
        Assert.Equal(fleet.ByTag["A-4"].Cause, one.Cause);
        Assert.All(one.Parts, p => Assert.True(p.History.Count > 40));
        Assert.All(fleet.Queue.SelectMany(a => a.Parts), p => Assert.Empty(p.History));
        Assert.Null(
            rows.Judge().JudgeOne(fleet, rows.Register.Assets[4] with { Zone = "NOWHERE" }) is { } found ? found.Reason : null
        );
    }

    [Fact]
    public void Judging_again_and_again_repeats_no_sentence()
    {
        var rows = new TwoRows();
        rows.Fill(rows.Register.Assets[7], [new Fault(Cause.Pads, Hall.Now - 900, Hall.Now - 800, 12, "memory")]);
        var judgement = rows.Judge().JudgeAll();
        Assert.True(judgement.ByTag["B-1"].Siblings is { StandsOut: true });
        for (var i = 0; i < 3; i++)
            judgement = rows.Judge().JudgeAgain(judgement, new HashSet<string> { "A-1" });
        Assert.Single(judgement.ByTag["B-1"].Said(), s => s.Contains("of its model", StringComparison.Ordinal));
    }

    [Fact]
    public void Nothing_touched_leaves_everything_as_it_was()
    {
        var rows = new TwoRows();
        var before = rows.Judge().JudgeAll();
        rows.Asked.Clear();
        var after = rows.Judge().JudgeAgain(before, new HashSet<string>());
        Assert.Empty(rows.Asked);
        Assert.Equal(
            before.Queue.Select(a => (a.Asset.Tag, a.DriftKelvin)),
            after.Queue.Select(a => (a.Asset.Tag, a.DriftKelvin))
        );
    }

    /// <summary>
    /// On every fifth day a bin begins. Where one machine's readings come in before the others', and are hot, nobody else is
    /// sick.
    /// </summary>
    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public void One_machine_that_reports_first_and_hot_makes_no_other_sick(int day)
    {
        var today = new DateOnly(2026, 11, 28).AddDays(day);
        long At(int daysAgo, int hour, int minute) =>
            new DateTimeOffset(
                today.AddDays(-daysAgo).ToDateTime(new TimeOnly(hour, minute)),
                TimeSpan.Zero
            ).ToUnixTimeMilliseconds();
        Asset Card(int i) =>
            new(
                $"GC-{i}",
                AssetKind.GraphicsCard,
                "Sorrel",
                "ROW",
                null,
                24,
                today.AddDays(-390),
                null,
                [new("core", new(90), JointMaterial.Paste), new("memory", new(105), JointMaterial.Pad)],
                []
            );
        Reading Window(long at, double air, double heat, params double[] parts) =>
            new(at, air, double.NaN, heat, 1900, 60, double.NaN, double.NaN, double.NaN, "stock", "steady", null, parts);
        ReadingSeries Readings(Asset card)
        {
            var i = int.Parse(card.Tag[3..], System.Globalization.CultureInfo.InvariantCulture);
            var list = new List<Reading>();
            for (var ago = 360; ago > 0; ago--)
            {
                var air = 25 + (3 * Math.Sin(ago / 58.0)) + (i % 3 * 0.5) + (ago % 2);
                list.Add(
                    Window(At(ago, 6, 0), Math.Round(air, 1), 220 + (ago % 5), Math.Round(air + 40 + i), Math.Round(air + 52))
                );
            }
            for (var minute = 0; i == 4 && minute < 40; minute++)
                list.Add(Window(At(0, minute % 3, minute), 25, 222, 99, 100));
            return ReadingSeries.From(list, 2);
        }
        var register = new Register(
            [new Site("S", "Site", 5, [new Zone("ROW", "Row", DustClass.Normal, new(33))])],
            [.. Enumerable.Range(1, 8).Select(Card)]
        );
        var judgement = new FleetJudge(new JudgementBasis(register, today, JudgementPolicy.Default, Readings)).JudgeAll();
        Assert.Equal("GC-4", judgement.Queue[0].Asset.Tag);
        Assert.All(judgement.Queue.Skip(1), a => Assert.InRange(a.DriftKelvin!.Value, 0, 1));
    }
}
