using System.Globalization;

namespace Pyrometron.Bench.Scoring;

/// <summary>One machine of a queue, as the scorer sees it.</summary>
/// <param name="Sigma">Standard uncertainty that the drift is stated with, K.</param>
/// <param name="Chance">Chance stated that the machine needs work.</param>
internal sealed record Answer(
    int Rank,
    string Asset,
    string Urgency,
    string Cause,
    double? DriftKelvin,
    DateOnly? ActionDate,
    double? Sigma,
    double? Chance
);

/// <summary>How well a queue agrees with the truth of a simulated fleet.</summary>
internal sealed record Score(
    double AveragePrecision,
    double WithoutGrey,
    double PrecisionAtK,
    double Recall,
    double CauseRight,
    double FalseAlarms,
    double FalseAlarmsConfounded,
    double DriftErrorMedian,
    double DriftErrorP90,
    double DriftBias,
    double? DateConcordance,
    int Dated,
    double DateCoverage,
    double ErrorOverSigma,
    double WithinTwoSigma,
    double Brier
)
{
    /// <summary>The figures in the columns of a table.</summary>
    public string Line =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{AveragePrecision:0.000} {CauseRight:0.000} {Recall:0.000}  {FalseAlarms:0.000} {FalseAlarmsConfounded:0.000}      {DriftErrorMedian:0.00}  {DriftBias:+0.00;-0.00}  {DateConcordance:0.000}  {ErrorOverSigma:0.00} {WithinTwoSigma:0.000}  {Brier:0.000}"
        );

    /// <summary>What the columns of a line are.</summary>
    public const string Columns = "AP    cause recall false confounded drift bias   dates  error/sigma, within 2  Brier";

    /// <summary>Scores a whole queue.</summary>
    public static Score Of(IReadOnlyCollection<Answer> queue, Dictionary<string, Truth> truth)
    {
        var byAsset = queue.ToDictionary(a => a.Asset);
        var order = queue.OrderBy(a => a.Rank).Select(a => a.Asset).ToArray();
        var needing = truth.Values.Where(t => t.NeedsWork).ToArray();
        var healthy = truth.Values.Where(t => t.Grade == "healthy").ToArray();
        bool Alarmed(Truth t) => byAsset[t.Asset].Urgency is "now" or "next";
        double DriftError(Truth t)
        {
            var drift = byAsset[t.Asset].DriftKelvin ?? 0;
            return ((double[])[drift - t.TotalRecoverableKelvin, drift - t.WorstPartRecoverableKelvin]).MinBy(Math.Abs);
        }
        var signed = needing.Select(DriftError).Order().ToArray();
        var errors = signed.Select(Math.Abs).Order().ToArray();
        var scaled = queue.Where(a => a.Sigma > 0).Select(a => Math.Abs(DriftError(truth[a.Asset])) / a.Sigma!.Value).ToArray();
        var dated = truth.Values.Where(t => t.DaysToAction is not null).ToArray();
        var pairs = dated
            .Where(t => byAsset[t.Asset].ActionDate is not null)
            .Select(t => (t.DaysToAction!.Value, byAsset[t.Asset].ActionDate!.Value.DayNumber))
            .ToArray();
        var (ap, apNoGrey, pk) = Ranking(order, truth);
        return new Score(
            ap,
            apNoGrey,
            pk,
            Share(needing, t => byAsset[t.Asset].Urgency is "now" or "next" or "soon"),
            Share(needing, t => byAsset[t.Asset].Cause == t.DominantCause || t.AlsoAcceptable.Contains(byAsset[t.Asset].Cause)),
            Share(healthy, Alarmed),
            Share(healthy.Where(t => t.Confounded).ToArray(), Alarmed),
            Quantile(errors, 0.5),
            Quantile(errors, 0.9),
            Quantile(signed, 0.5),
            Concordance(pairs),
            pairs.Length,
            (double)pairs.Length / Math.Max(1, dated.Length),
            Math.Sqrt(scaled.Select(z => z * z).DefaultIfEmpty(double.NaN).Average()),
            (double)scaled.Count(z => z <= 2) / scaled.Length,
            queue
                .Where(a => a.Chance is not null)
                .Select(a => Math.Pow(a.Chance!.Value - (truth[a.Asset].NeedsWork ? 1 : 0), 2))
                .DefaultIfEmpty(double.NaN)
                .Average()
        );
    }

    /// <summary>The measures of an order alone, for the simple rules too.</summary>
    public static (double AveragePrecision, double WithoutGrey, double PrecisionAtK) Ranking(
        IReadOnlyList<string> order,
        Dictionary<string, Truth> truth
    )
    {
        var positives = truth.Values.Where(t => t.NeedsWork).Select(t => t.Asset).ToHashSet();
        var noGrey = order.Where(a => truth[a].Grade != "grey").ToArray();
        return (
            AveragePrecisionOf(order, positives),
            AveragePrecisionOf(noGrey, positives),
            (double)order.Take(positives.Count).Count(positives.Contains) / positives.Count
        );
    }

    private static double AveragePrecisionOf(IReadOnlyList<string> order, HashSet<string> positives)
    {
        var (hits, total) = (0, 0.0);
        for (var place = 0; place < order.Count; place++)
            if (positives.Contains(order[place]))
                total += (double)++hits / (place + 1);
        return total / positives.Count;
    }

    private static double Share(Truth[] items, Func<Truth, bool> condition) =>
        items.Length == 0 ? double.NaN : (double)items.Count(condition) / items.Length;

    private static double Quantile(double[] sorted, double fraction) =>
        sorted.Length == 0 ? double.NaN : Core.Statistics.Robust.QuantileOfSorted(sorted, fraction);

    /// <summary>Share of the pairs with different true dates that the answer orders alike; equal answers count half.</summary>
    private static double? Concordance((int Truth, int Answer)[] pairs)
    {
        var (sum, count) = (0.0, 0);
        for (var i = 0; i < pairs.Length; i++)
        for (var j = i + 1; j < pairs.Length; j++)
            if (pairs[i].Truth != pairs[j].Truth)
            {
                var product = Math.Sign(pairs[i].Truth - pairs[j].Truth) * Math.Sign(pairs[i].Answer - pairs[j].Answer);
                sum +=
                    product > 0 ? 1
                    : product == 0 ? 0.5
                    : 0;
                count++;
            }
        return count == 0 ? null : sum / count;
    }
}
