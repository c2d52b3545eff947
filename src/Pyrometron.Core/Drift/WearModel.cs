using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Statistics;

namespace Pyrometron.Core.Drift;

/// <summary>
/// The thermal model of one machine with its wear, fitted to its cells in one piece:
/// <code>rise_i = room + local air + q_i·[ J_i,w + O_i(t) + M_i(t) ] + q·s_i·(1 + f)·(F + S(t))</code>
/// q heat (of the cooler, q_i through part i's joint) and f convective resistance relative to the reference point; J_i,w the
/// joint side of part i under workload w; F the fresh air side; S(t) what has fouled it, shared by all parts in the
/// proportion s_i; O_i(t) what part i alone has lost; M_i steps where a cooler was lifted. S and O only ever grow between
/// the services that renew them, and start at zero there: that is what tells wear from seasons. Their pace changes slowly.
/// Robust (Huber weights), with a prior under which no wear is likelier than any.
/// </summary>
internal sealed class WearModel
{
    private const double HuberK = 1.5;

    /// <summary>The largest share of wear that an unseen fan is believed to hide.</summary>
    private const double MostHidden = 0.5;

    /// <summary>How far back the present way of a fan is taken from, days.</summary>
    private const double LatelyDays = 60;

    /// <summary>Draws that a cause's uncertainty is taken from: to a tenth of it.</summary>
    private const int Draws = 60;

    /// <summary>Spread of the relative convective resistance that tells the air side apart.</summary>
    private const double LeastFlowSpread = 0.12;

    private readonly double[] _levels,
        _share;
    private readonly int[] _binOf;
    private readonly double _asOfDay;
    private double[] _x;
    private readonly float[] _ownWeight,
        _commonWeight;
    private readonly double[] _ownVariance,
        _commonVariance,
        _fanAnswers;
    private double[] _sigma = [];

    private WearModel(
        Asset asset,
        ReferencePoint reference,
        CellTable cells,
        NoiseModel noise,
        double asOfDay,
        IReadOnlyList<SensorStep> sensorSteps
    )
    {
        (Asset, Reference, Cells, Noise, SensorSteps, _asOfDay) = (asset, reference, cells, noise, sensorSteps, asOfDay);
        _levels = [.. Enumerable.Range(0, cells.Parts).Select(MainLevel)];
        _share = AirShares(asset, _levels);
        _x = (Columns = Laid()).Start();
        _fanAnswers = FanResponse.Of(cells, reference);
        Bins = [.. cells.All.Select(c => c.Bin).Distinct()];
        _binOf = [.. cells.All.Select(c => Array.BinarySearch(Bins, c.Bin))];
        (_ownWeight, _commonWeight) = (new float[cells.Count * cells.Parts], new float[cells.Count]);
        Array.Fill(_ownWeight, 1);
        Array.Fill(_commonWeight, 1);
        (_ownVariance, _commonVariance) = (new double[cells.Count], new double[cells.Count]);
        for (var c = 0; c < cells.Count; c++)
            (_ownVariance[c], _commonVariance[c]) = cells.RunNoiseOf(c) is { } run
                ? (run.Own * run.Own, run.Common * run.Common)
                : (noise.OwnVariance(cells[c].Count), noise.CommonVariance(cells[c].Count));
    }

    /// <summary>The machine.</summary>
    public Asset Asset { get; }

    /// <summary>Meaning, span and prior of the unknowns.</summary>
    public WearColumns Columns { get; private set; }

    /// <summary>What happened to it and to others on one day.</summary>
    public IReadOnlyList<GroupEvent> Events { get; private set; } = [];

    /// <summary>How the readings scatter.</summary>
    public NoiseModel Noise { get; }

    /// <summary>How much more its readings scatter than is expected of its kind: see <see cref="LearntNoise"/>.</summary>
    public double ScatterFactor { get; set; } = 1;

    /// <summary>Jumps of single sensors that were found and taken out.</summary>
    public IReadOnlyList<SensorStep> SensorSteps { get; }

    /// <summary>What people saw to be as it should be: the wear was small then.</summary>
    public IReadOnlyList<CleanLook> CleanLooks { get; init; } = [];

    /// <summary>The machine's cells, in time order.</summary>
    public CellTable Cells { get; }

    /// <summary>The reference point everything is brought to.</summary>
    public ReferencePoint Reference { get; }

    /// <summary>In what proportion the parts feel the air side, the hottest 1.</summary>
    public IReadOnlyList<double> AirShare => _share;

    /// <summary>The five-day bins in which the machine reported, ascending.</summary>
    public int[] Bins { get; }

    /// <summary>Index into <see cref="Bins"/> of a cell.</summary>
    public int BinOf(int cell) => _binOf[cell];

    /// <summary>Precision of one part's own share of a cell, K⁻².</summary>
    public double Weight(int cell, int part) => _ownWeight[cell * Cells.Parts + part] / _ownVariance[cell];

    /// <summary>Variance of what all parts of a cell share, K².</summary>
    public double CommonVariance(int cell) => _commonVariance[cell] / _commonWeight[cell];

    /// <summary>
    /// Whether the zone's room and the local air are in a cell; a run's air was read at the machine, or its budget holds it.
    /// </summary>
    public bool FeelsZone(int cell) => !Cells.IsRun(cell);

    /// <summary>What the room adds to a cell, K.</summary>
    public double RoomAt(int cell, ZoneRoom room) => FeelsZone(cell) ? room.At(Cells[cell].Bin) : 0;

    /// <summary>How strongly the fan answered to a cell: see <see cref="FanResponse"/>.</summary>
    public double FanAnswer(int cell) => _fanAnswers[cell];

    /// <summary>Sets up the model of a machine.</summary>
    /// <returns>Null when there is nothing to fit.</returns>
    public static WearModel? For(
        Asset asset,
        ReferencePoint reference,
        CellTable cells,
        NoiseModel noise,
        double asOfDay,
        IReadOnlyList<SensorStep> sensorSteps,
        IReadOnlyList<CleanLook> looks,
        string? testLoad
    ) =>
        (cells.Count < 2 && !cells.HasRuns) || cells.Count == 0 || cells.Parts == 0
            ? null
            : new WearModel(asset, reference, cells, noise, asOfDay, sensorSteps) { CleanLooks = looks, TestLoad = testLoad };

    /// <summary>Takes events of many machines as unknowns that the others have told of; before the first fit.</summary>
    public void Expect(IReadOnlyList<GroupEvent> events)
    {
        Events = events;
        _x = (Columns = Laid()).Start();
    }

    private WearColumns Laid() =>
        new WearColumnsBuilder(Asset, Reference, Cells, _asOfDay, _levels, _share, SensorSteps, Events).Build();

    /// <summary>Puts this machine's equations, about its unknowns as they stand, into the scratch.</summary>
    /// <param name="unworn">Whether wear is left out: a first look.</param>
    /// <param name="until">The last bin that counts: where a room is asked for, the last one in which it is known.</param>
    public void Assemble(WearEquations equations, bool unworn = false, int until = int.MaxValue) =>
        equations.Assemble(this, _x, unworn, until);

    /// <summary>Fits the wear with a given room; goes on from where it stands.</summary>
    /// <param name="equations">Scratch; holds this machine's equations afterwards.</param>
    public void Fit(WearEquations equations, ZoneRoom room, int until = int.MaxValue)
    {
        Assemble(equations, until: until);
        equations.Solve(this, room.At(Bins), _x);
    }

    /// <summary>Adds what it knows of the room to the zone's equations; its own equations must be in the scratch.</summary>
    public void AddToRoomEquations(WearEquations equations, RoomEquations zone) => equations.AddTo(zone, this, _x);

    /// <summary>
    /// Huber's weights: a cell whose parts all stray together, or a part that strays alone, pulls no harder than at
    /// <see cref="HuberK"/> standard deviations. The machine's own equations must be in the scratch.
    /// </summary>
    public void Reweigh(WearEquations equations, ZoneRoom room)
    {
        var parts = Cells.Parts;
        var residuals = new double[Cells.Count * parts];
        equations.Residuals(this, _x, room.At(Bins), residuals);
        for (var c = 0; c < Cells.Count; c++)
        {
            var left = residuals.AsSpan(c * parts, parts);
            double sum = 0,
                total = 0;
            for (var p = 0; p < parts; p++)
                if (!double.IsNaN(left[p]))
                {
                    sum += Weight(c, p) * left[p];
                    total += Weight(c, p);
                }
            if (total == 0)
                continue;
            var common = sum / total;
            var variance = _commonVariance[c];
            _commonWeight[c] = (float)Math.Min(1, HuberK * Math.Sqrt(variance + 1 / total) / Math.Abs(common));
            for (var p = 0; p < parts; p++)
                if (!double.IsNaN(left[p]))
                    _ownWeight[c * parts + p] = (float)
                        Math.Min(1, HuberK * Math.Sqrt(_ownVariance[c]) / Math.Abs(left[p] - common));
        }
    }

    /// <summary>Factors of the unknowns of the wear that a look was at.</summary>
    public double[] FactorsOf(CleanLook look) =>
        Columns.Wear(
            Math.Max(0, look.Part),
            look.Day,
            look.Part < 0 ? 1 : _share[look.Part],
            look.Part < 0 ? WearTerm.Shared : WearTerm.Own
        );

    /// <summary>Keeps how sure the wear of each part is, from the equations of the last fit.</summary>
    public void KeepUncertainty(WearEquations equations) =>
        _sigma = equations.Uncertainty(this, _x, [.. _share.Select((share, p) => Columns.Wear(p, LastDay, share))]);

    /// <summary>
    /// How sure each part's causes are, by the scatter of what was measured. The machine's own equations must be in the scratch.
    /// </summary>
    public WearScatter[] Bootstrap(WearEquations equations, ZoneRoom room)
    {
        WearTerm[] terms = [WearTerm.Shared, WearTerm.Own, WearTerm.Mount];
        var functions = _share.SelectMany((share, p) => terms.Select(t => Columns.Wear(p, LastDay, share, t))).ToArray();
        // The same readings always give the same answer.
        var sigma = equations.Bootstrap(this, _x, room.At(Bins), functions, Draws, new Random(Cells.Count));
        return [.. _share.Select((_, p) => new WearScatter(sigma[3 * p], sigma[3 * p + 1], sigma[3 * p + 2]))];
    }

    /// <summary>Standard uncertainty of a part's wear at its newest cell, K, by scatter and season alone.</summary>
    public double SigmaOf(int part) => ScatterFactor * _sigma[part];

    /// <summary>Day of the newest cell.</summary>
    public double LastDay => Cells[Cells.Count - 1].Day;

    /// <summary>Rise at a cell by the model without room, K.</summary>
    public double Predict(int cell, int part) => Columns.Predict(Cells[cell], part, _share[part], _x);

    /// <summary>Measured rise less the model's, room and local air not taken out, K.</summary>
    public double Residual(int cell, int part) =>
        Cells[cell].Rise(part) is var rise && double.IsNaN(rise) ? double.NaN : rise - Predict(cell, part);

    /// <summary>What a kind of column contributes to a part's rise at the reference point on a day, K.</summary>
    public double At(WearTerm term, int part, double day) => Columns.At(term, part, day, _x, _share[part]);

    /// <summary>What has grown on a part by a day, K; steps not included.</summary>
    public double Grown(int part, double day) => At(WearTerm.Shared, part, day) + At(WearTerm.Own, part, day);

    /// <summary>What other settings than the present ones added to a part's rise under the main workload, K.</summary>
    public double SettingsOffset(int part, int settings) =>
        Columns.OffsetOf(WearTerm.SettingsHeat, part, settings, Reference.Workload, _x)
        + Columns.OffsetOf(WearTerm.SettingsOffset, part, settings, -1, _x);

    /// <summary>
    /// What every kelvin of wear shows as, where an automatic fan that nobody measures answers to it: 1 for one that does not.
    /// Told by the same fan's answer to warmer air: a rise that falls by g for a kelvin of air falls by g for a kelvin of wear.
    /// </summary>
    public double ShownByUnseenFan =>
        double.IsNaN(Reference.FanSpeed)
            ? 1 - Math.Clamp(-Columns.OffsetOf(WearTerm.UnseenFan, 0, Reference.Workload, -1, _x), 0, MostHidden)
            : 1;

    /// <summary>
    /// The share of a kelvin of wear that an automatic fan makes up for by speed: κ·q·(F + S) of <see cref="FanResponse"/> around
    /// the loop, or what an unseen fan hides. 0 for a fan that does not listen, or at full speed of late.
    /// </summary>
    public double TakenByFan
    {
        get
        {
            if (!(Reference.FanSpeed > 0))
                return 1 - ShownByUnseenFan;
            var answers = Enumerable
                .Range(0, Cells.Count)
                .Where(c => Cells[c].Day > LastDay - LatelyDays && Cells[c].Workload == Reference.Workload)
                .Select(c => _fanAnswers[c])
                .ToArray();
            var loop = answers.Length == 0 ? 0 : Robust.Median(answers) * (AirRise + At(WearTerm.Shared, 0, LastDay));
            return loop / (1 + loop);
        }
    }

    /// <summary>The test load of a machine that is known by runs alone; null for one with readings.</summary>
    public string? TestLoad { get; init; }

    /// <summary>Whether its fresh state is known from machines of its model under the same test.</summary>
    public bool FreshFromSiblings { get; set; }

    /// <summary>Fresh rise of the air side at the reference point, K: what same-model machines have in common.</summary>
    public double AirRise => Columns.At(WearTerm.Air, 0, 0, _x, 1);

    /// <summary>Whether the machine's own fan has moved enough for its readings to tell the air side from the joints.</summary>
    public bool KnowsItsAir =>
        Reference.FanSpeed > 0
        && Cells.Count >= 10
        && Cells.All.Select(c => c.Flow).ToArray() is var flows
        && Robust.Quantile(flows, 0.9) - Robust.Quantile(flows, 0.1) > LeastFlowSpread;

    /// <summary>Fresh joints of the parts at the reference point, as resistances.</summary>
    public IEnumerable<(string Part, double KelvinPerWatt)> FreshJoints =>
        Asset.Parts.Select((part, p) => (part.Name, At(WearTerm.Joint, p, 0) / Reference.PowerW));

    /// <summary>Takes what siblings have shown of a part's joint as this machine's prior.</summary>
    public void SetJointPrior(string part, double mean, double sigma)
    {
        for (var p = 0; p < Asset.Parts.Count; p++)
            if (Asset.Parts[p].Name == part)
                Columns.SetJointPrior(p, mean, sigma);
    }

    /// <summary>Takes what siblings have shown of the air side as this machine's prior.</summary>
    public void SetAirPrior(double mean, double sigma) => Columns.SetAirPrior(mean, sigma);

    /// <summary>The steps of a kind: day, part and kelvins.</summary>
    public IEnumerable<(double Day, int Part, double Kelvin)> Steps(WearTerm term) => Columns.Steps(term, _x);

    /// <summary>
    /// Rise of a part at the reference point with everything fresh, as the machine stands now: with what was changed of its air
    /// and heat, K.
    /// </summary>
    public double FreshRise(int part) =>
        At(WearTerm.Joint, part, 0)
        + At(WearTerm.Air, part, 0)
        + At(WearTerm.AirChange, part, LastDay)
        + At(WearTerm.HeatChange, part, LastDay);

    /// <summary>A cell's measured rise less the room, brought to the reference heat and fan, K.</summary>
    public double AtReference(int cell, int part, double room)
    {
        var c = Cells[cell];
        return FreshRise(part)
            + Grown(part, c.Day)
            + At(WearTerm.Mount, part, c.Day)
            + (Residual(cell, part) - room) / Math.Max(0.3, c.AirHeat(part));
    }

    /// <summary>Median rise of the main workload: a first idea of the level.</summary>
    private double MainLevel(int part)
    {
        var main = Cells
            .All.Where(c => c.Workload == Reference.Workload && !double.IsNaN(c.Rise(part)))
            .Select(c => c.Rise(part) / c.AirHeat(part))
            .ToArray();
        return main.Length > 0
            ? Robust.Median(main)
            : Cells.All.Select(c => c.Rise(part)).Where(r => !double.IsNaN(r)).DefaultIfEmpty(30).Average();
    }

    /// <summary>
    /// Parts of a card or a laptop share one cooler: alike. In a server each part has its own fins in one stream of air;
    /// memory has hardly any joint, so nearly all of its rise is the air side.
    /// </summary>
    private static double[] AirShares(Asset asset, double[] levels)
    {
        if (asset.Kind is not AssetKind.Server)
            return [.. levels.Select(_ => 1.0)];
        var air = asset
            .Parts.Select((part, p) => Math.Max(1, levels[p]) * (part.Joint == JointMaterial.Pad ? 0.6 : 0.5))
            .ToArray();
        return [.. air.Select(a => a / air.Max())];
    }
}
