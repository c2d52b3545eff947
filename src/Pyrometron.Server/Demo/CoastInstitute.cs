using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Simulation;
using Pyrometron.Core.Units;
using static Pyrometron.Server.Demo.CoastModels;

namespace Pyrometron.Server.Demo;

/// <summary>
/// The demo's invented setting: a coastal research institute with a wave-model hall, a hall of graphics cards whose warm air
/// dries kelp, a reading room, survey-boat laptops that come home salty and a small machine room. Every cause occurs; the
/// same seed gives the same institute, with dates relative to today.
/// </summary>
/// <param name="today">The day the demo is laid.</param>
internal sealed class CoastInstitute(DateOnly today)
{
    /// <summary>Days of history.</summary>
    public const int Days = 365;

    private readonly Random _random = new(20417);
    private readonly List<SimulatedMachine> _machines = [];

    private double Now => UnixDay.Noon(today) + 0.5;

    /// <summary>The simulated air of each zone.</summary>
    public IReadOnlyDictionary<string, SimulatedZone> Air =>
        new SimulatedZone[]
        {
            new("WAVE", 22, 1.2, []),
            new("MACH", 21, 1.0, []),
            new("READ", 23, 3.0, []),
            new("BOAT", 18, 6.0, []),
            new("KELP-A", 27, 4.0, []),
            new("KELP-B", 27.5, 4.0, [new(Now - 210, Now - 190, 4.5, Seen: true)]),
            new("KELP-C", 28, 4.0, []),
            // The extract fan of row D failed three weeks ago; its sensors hang upstream and do not feel it.
            new("KELP-D", 27.5, 4.0, [new(Now - 21, double.PositiveInfinity, 5.2, Seen: false)]),
        }.ToDictionary(z => z.Code);

    /// <summary>All machines, with the faults that were given to them.</summary>
    public IReadOnlyList<SimulatedMachine> Machines
    {
        get
        {
            if (_machines.Count == 0)
                Build();
            return _machines;
        }
    }

    /// <summary>The fleet document of the institute.</summary>
    public Register Register => new(Sites, [.. Machines.Select(m => m.Asset)]);

    private void Build()
    {
        var card = 101;
        foreach (
            var (zone, model) in ((string, Model)[])
                [("KELP-A", Sorrel), ("KELP-B", Bladder), ("KELP-C", Sorrel), ("KELP-D", Bladder)]
        )
            for (var i = 0; i < 24; i++)
                Add($"GC-{card++:0000}", model, zone);
        for (var i = 1; i <= 36; i++)
            Add($"SV-{i:0000}", Tern, i <= 26 ? "WAVE" : "MACH");
        for (var i = 1; i <= 40; i++)
            Add($"DT-{i:0000}", Petrel, "READ");
        for (var i = 1; i <= 34; i++)
            Add($"LT-{i:0000}", Gannet, "BOAT");
        Give();
    }

    private void Add(string tag, Model model, string zone)
    {
        var since = today.AddDays(-_random.Next(420, 1000));
        // A well-run house: most machines were dusted within their interval, a few have slipped through.
        var interval =
            model.Kind == AssetKind.Laptop ? 210
            : zone is "KELP-C" or "READ" ? 290
            : 420;
        var services = new List<ServiceDone>
        {
            new(today.AddDays(-_random.Next(20, (int)(interval * 1.03))), ServiceLevel.DustOut),
        };
        services.RemoveAll(s => s.Date < since);
        DateOnly? warranty = since.AddYears(3) > today && _random.NextDouble() < 0.7 ? since.AddYears(2) : null;
        var asset = new Asset(
            tag,
            model.Kind,
            model.Name,
            zone,
            null,
            model.HoursPerDay,
            since,
            warranty,
            [.. model.Parts.Select(p => new Part(p.Part, new Celsius(p.LimitC), p.Joint))],
            [.. services.OrderBy(s => s.Date)]
        );
        // No two machines of a model are alike: a few per cent on every path.
        double Alike() => 1 + (_random.NextDouble() - 0.5) * 0.1;
        var ordinary = _random.NextDouble() * 1.6;
        _machines.Add(
            new SimulatedMachine(
                asset,
                model.PowerW * Alike(),
                model.AirRise * Alike(),
                [.. model.Parts.Select(p => p.JointRise * Alike())],
                model.MaxRpm,
                model.Fan,
                model.Loads,
                model.Instruments,
                [new Fault(Cause.Dust, Now - 420, Now + 200, ordinary)]
            )
        );
    }

    /// <summary>Gives the faults out: each cause to somebody, some at their beginning, some already pressing.</summary>
    private void Give()
    {
        // What a fault needs must not have been taken away since by an ordinary service.
        void To(string tag, params Fault[] faults) =>
            Change(
                tag,
                m =>
                    m with
                    {
                        Faults = [.. m.Faults, .. faults],
                        Asset = m.Asset with
                        {
                            Services =
                            [
                                .. m.Asset.Services.Where(s =>
                                    faults.All(f =>
                                        ServiceEffects.RemovedShare(s.Level, f.Cause) == 0
                                        || UnixDay.Noon(s.Date) < f.FromDay
                                        || s.Level != ServiceLevel.DustOut
                                    )
                                ),
                            ],
                        },
                    }
            );
        Fault Dust(double kelvin, double days = 320, GrowthShape shape = GrowthShape.LateFast) =>
            new(Cause.Dust, Now - days, Now + 10, kelvin, null, shape);
        Fault Paste(string part, double kelvin, double days = 240) =>
            new(Cause.Paste, Now - days, Now + 20, kelvin, part, GrowthShape.LateFast);
        Fault Pads(double kelvin, double days = 260) => new(Cause.Pads, Now - days, Now + 5, kelvin, "memory");

        // Kelp hall: pads hardening on a few cards, dust in row C, one crooked mount, one tired fan.
        To("GC-0117", Pads(11.5));
        To("GC-0110", Pads(7.5, 200));
        To("GC-0151", Dust(9), Pads(3));
        To("GC-0155", Dust(8.4));
        To("GC-0159", Dust(10.5), Paste("core", 2.2));
        To("GC-0163", Dust(6.8));
        To("GC-0128", new Fault(Cause.Fan, Now - 140, Now - 20, 7.5));
        To("GC-0133", Paste("core", 4.6));
        Service("GC-0105", 60, ServiceLevel.Repaste);
        To("GC-0105", new Fault(Cause.Mount, Now - 60.5, Now - 60.5, 4.2, "core", GrowthShape.Step));
        Service("GC-0140", 95, ServiceLevel.Repad);
        Change("GC-0122", m => m with { SettingsChange = (Now - 80, 1.17) });
        Change("GC-0104", m => m with { JointRise = [m.JointRise[0] + 11, m.JointRise[1] + 13, m.JointRise[2] + 12] });

        Change("SV-0025", m => m with { Sensor = new SensorFault("memory", Now - 40, null) });

        // Servers: paste, fans, dust; two simply have too small a cooler for their shelf.
        To("SV-0009", new Fault(Cause.Fan, Now - 160, Now - 30, 7.8));
        To("SV-0014", Paste("cpu", 9.5));
        To("SV-0021", Dust(8.8));
        To("SV-0030", Dust(6.6), Paste("cpu", 2.4));
        Service("SV-0018", 120, ServiceLevel.Repaste);
        To("SV-0018", new Fault(Cause.Mount, Now - 120.5, Now - 120.5, 8.8, "cpu", GrowthShape.Step));

        // The first servers' fans wore out after a year and a half, before anybody measured.
        foreach (var (tag, age) in WornFans)
        {
            Change(tag, m => m with { Asset = m.Asset with { InServiceSince = today.AddDays(-FirstServersDays) } });
            Service(tag, FirstServersDays - age, ServiceLevel.FanSwap);
        }

        // Reading room: lint.
        To("DT-0015", Dust(8.8, 200));
        To("DT-0007", Dust(6.9));
        To("DT-0022", Paste("cpu", 10));
        To("DT-0031", Dust(5.2));

        // Boats: salt and heat; one has lost its paste to a summer on deck.
        To("LT-0032", Paste("cpu", 13.5, 210), Dust(3));
        To("LT-0011", Dust(9.8));
        To("LT-0017", Paste("cpu", 9));
        To("LT-0004", Dust(7.6, 200));
        Change("LT-0026", m => m with { JointRise = [m.JointRise[0] + 12, m.JointRise[1] + 9] });
        Change("LT-0008", m => m with { Instruments = m.Instruments with { Ambient = false, Fan = false } });

        // Never measured, and not cleaned for long.
        Change(
            "DT-0036",
            m => m with { Asset = m.Asset with { Services = [new ServiceDone(today.AddDays(-810), ServiceLevel.DustOut)] } }
        );

        // Came in last week: too few readings to say anything.
        foreach (var tag in (string[])["LT-0033", "LT-0034", "DT-0039", "DT-0040"])
            Change(
                tag,
                m =>
                    m with
                    {
                        Asset = m.Asset with
                        {
                            InServiceSince = today.AddDays(-9),
                            WarrantyUntil = today.AddYears(2),
                            Services = [],
                        },
                        Faults = [],
                    }
            );

        foreach (var job in Jobs)
            To(job.Asset, job.Cured);
        foreach (var job in Jobs)
            Service(job.Asset, job.DaysAgo, job.Level);
    }

    /// <summary>When the first servers came, days ago.</summary>
    private const int FirstServersDays = 960;

    /// <summary>Their fans, and the age in days at which each was changed.</summary>
    private static readonly (string Tag, int AgeDays)[] WornFans =
    [
        ("SV-0003", 430),
        ("SV-0007", 465),
        ("SV-0012", 490),
        ("SV-0019", 510),
        ("SV-0027", 525),
        ("SV-0033", 545),
    ];

    /// <summary>The day that everything is dated by.</summary>
    public DateOnly Today => today;

    /// <summary>
    /// Machines whose readings stopped so many days ago, while the others went on; and one that has never sent any.
    /// </summary>
    public static IReadOnlyDictionary<string, int> SilentSince { get; } =
        new Dictionary<string, int> { ["DT-0025"] = 41, ["DT-0036"] = Days };

    /// <summary>What people reported of machines.</summary>
    public static IReadOnlyList<(string Tag, int DaysAgo, SymptomKind Kind, string? Note)> Reports =>
        [
            ("LT-0012", 2, SymptomKind.Shutdown, "Goes dark in the wheelhouse when the chart is redrawn."),
            ("DT-0008", 6, SymptomKind.Noise, "Hums since Monday."),
        ];

    /// <summary>Jobs done: most won something, one did not help, one waits for its after-run.</summary>
    public IReadOnlyList<PastJob> Jobs => PastJob.All(Now);

    private void Service(string tag, int daysAgo, ServiceLevel level) =>
        Change(
            tag,
            m =>
                m with
                {
                    Asset = m.Asset with
                    {
                        Services =
                        [
                            .. m.Asset.Services.Append(new ServiceDone(today.AddDays(-daysAgo), level)).OrderBy(s => s.Date),
                        ],
                    },
                }
        );

    private void Change(string tag, Func<SimulatedMachine, SimulatedMachine> change)
    {
        var at = _machines.FindIndex(m => m.Asset.Tag == tag);
        _machines[at] = change(_machines[at]);
    }
}
