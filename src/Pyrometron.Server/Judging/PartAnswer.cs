using Pyrometron.Core.Assessments;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;

namespace Pyrometron.Server.Judging;

/// <summary>Kelvins of one cause.</summary>
/// <param name="UncertaintyKelvin">Expanded, k = 2.</param>
public sealed record CauseKelvin(Cause Cause, double Kelvin, double? UncertaintyKelvin);

/// <summary>The slow change of a part, K a day, with its 80 % interval.</summary>
public sealed record TrendAnswer(double KelvinPerDay, double Low, double High, double PValue, bool Rising, DateTimeOffset From);

/// <summary>One point of a part's history at its reference point, K over the intake air.</summary>
/// <param name="Run">Whether it was measured at the bench.</param>
public sealed record HistoryPoint(DateTimeOffset At, double Observed, double Room, double Model, bool Run);

/// <summary>One layer of the heat path: kelvins it costs now and fresh.</summary>
/// <param name="Layer">
/// <c>joint</c>, <c>fins</c>, <c>fan</c>, <c>served</c>, <c>hidden</c>, <c>conditions</c>, <c>room</c>, <c>unexplained</c>; the
/// last five may be negative.
/// </param>
public sealed record PathLayer(string Layer, double NowKelvin, double FreshKelvin);

/// <summary>The judgement of one part.</summary>
/// <param name="HottestRiseKelvin">
/// Rise over the air at reference heat and full fan: the rest of <c>hottestCelsius</c> is the zone's design ambient.
/// </param>
/// <param name="PaceKelvinPerDay">
/// Present pace of wear by the fitted curve, what the date is reckoned with; 0 without one.
/// </param>
/// <param name="UnexplainedKelvin">
/// What the newest readings show beyond the split and the room: with it, less what is hidden, the split adds up to what is
/// measured.
/// </param>
/// <param name="HiddenKelvin">How much of the split an automatic fan that nobody measures keeps from showing.</param>
/// <param name="GainKelvin">What the recommended service would win back on it.</param>
public sealed record PartAnswer(
    string Part,
    double LimitCelsius,
    JointMaterial Interface,
    double BaselineRiseKelvin,
    double PresentRiseKelvin,
    double DriftKelvin,
    double GainKelvin,
    double UncertaintyKelvin,
    IReadOnlyList<CauseKelvin> Split,
    double UnexplainedKelvin,
    double HiddenKelvin,
    IReadOnlyList<PathLayer> Path,
    double? LatestCelsius,
    double? AirCelsius,
    double HottestCelsius,
    double HottestRiseKelvin,
    double ActionLineCelsius,
    double MarginKelvin,
    TrendAnswer? Trend,
    double PaceKelvinPerDay,
    DateOnly? ActionDate,
    DateOnly? ActionDateEarly,
    DateOnly? ActionDateLate,
    IReadOnlyList<HistoryPoint> History
)
{
    internal static PartAnswer From(Assessment a, PartAssessment p) =>
        new(
            p.Part.Name,
            p.Part.Limit.Value,
            p.Part.Joint,
            Math.Round(p.FreshRiseKelvin, 2),
            Math.Round(p.PresentRiseKelvin, 2),
            Math.Round(p.Split.Total, 2),
            a.Service is { } level ? Math.Round(a.Won(p, level), 2) : 0,
            Math.Round(2 * p.SigmaKelvin, 2),
            [
                .. p
                    .Split.Ranked()
                    .Where(c => c.Kelvin != 0)
                    .Select(c => new CauseKelvin(
                        c.Cause,
                        Math.Round(c.Kelvin, 2),
                        p.SplitSigma?.Of(c.Cause) is { } sigma && double.IsFinite(sigma) ? Math.Round(2 * sigma, 2) : null
                    )),
            ],
            Math.Round(p.UnexplainedKelvin, 2),
            Math.Round(p.HiddenKelvin, 2),
            PathOf(p),
            AssessmentAnswer.OrNull(p.LatestC),
            p.Path is { } path ? AssessmentAnswer.OrNull(path.AirC) : null,
            Math.Round(p.HottestC, 1),
            Math.Round(p.HottestRiseKelvin, 1),
            Math.Round(p.HottestC + p.MarginKelvin, 1),
            Math.Round(p.MarginKelvin, 2),
            p.Trend is { } t
                ? new TrendAnswer(t.KelvinPerDay, t.Low, t.High, t.PValue, t.IsRising, AssessmentAnswer.At(t.FromDay))
                : null,
            p.PaceKelvinPerDay,
            p.Action?.Day,
            p.Action?.Early,
            p.Action?.Late,
            [
                .. p.History.Select(h => new HistoryPoint(
                    AssessmentAnswer.At(h.Day),
                    Math.Round(h.Observed, 2),
                    Math.Round(h.Room, 2),
                    Math.Round(h.Model, 2),
                    h.IsRun
                )),
            ]
        );

    /// <summary>
    /// The layers of the heat path; air and layers add up to what was measured, in the figures as they are written. Without a
    /// measured temperature the two that are always there, at the reference point.
    /// </summary>
    private static PathLayer[] PathOf(PartAssessment p)
    {
        if (p.Path is not { } path)
            return
            [
                new(
                    "joint",
                    Math.Round(p.FreshJointKelvin + p.Split.Joint + p.Split.Mount, 1),
                    Math.Round(p.FreshJointKelvin, 1)
                ),
                new(
                    "fins",
                    Math.Round(p.FreshRiseKelvin - p.FreshJointKelvin + p.Split.Dust, 1),
                    Math.Round(p.FreshRiseKelvin - p.FreshJointKelvin, 1)
                ),
            ];
        var explained = path
            .Layers.Where(l => l.Name != "unexplained")
            .Select(l => new PathLayer(l.Name, Math.Round(l.Kelvin, 1), Math.Round(l.FreshKelvin, 1)))
            .ToArray();
        var left = Math.Round(p.LatestC, 1) - Math.Round(path.AirC, 1) - explained.Sum(l => l.NowKelvin);
        return [.. explained, new PathLayer("unexplained", Math.Round(left, 1), 0)];
    }
}
