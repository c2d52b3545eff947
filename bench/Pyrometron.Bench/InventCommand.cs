using System.Globalization;
using Pyrometron.Bench.Scoring;

namespace Pyrometron.Bench;

/// <summary>Scores a number of invented fleets, one line each and their mean.</summary>
internal static class InventCommand
{
    /// <param name="rough">Whether their data is poor.</param>
    public static int Run(int first, int count, bool rough)
    {
        Console.WriteLine($"seed  needing  {Score.Columns}");
        var scores = new List<Score>();
        for (var seed = first; seed < first + count; seed++)
        {
            var fleet = InventedFleet.Of(seed, rough);
            var judgement = ScoreCommand.Judge(fleet);
            ScoreCommand.Detail(judgement, fleet);
            var score = ScoreCommand.ScoreOf(judgement, fleet.Truth);
            scores.Add(score);
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{seed, 4}  {fleet.Truth.Values.Count(t => t.NeedsWork), 7}  {score.Line}"
                )
            );
        }
        double Mean(Func<Score, double> figure) => scores.Average(figure);
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"mean           {Mean(s => s.AveragePrecision):0.000} {Mean(s => s.CauseRight):0.000} {Mean(s => s.Recall):0.000}  {Mean(s => s.FalseAlarms):0.000} {Mean(s => s.FalseAlarmsConfounded):0.000}      {Mean(s => s.DriftErrorMedian):0.00}  {Mean(s => s.DriftBias):+0.00;-0.00}  {Mean(s => s.DateConcordance ?? 0.5):0.000}  {Mean(s => s.ErrorOverSigma):0.00} {Mean(s => s.WithinTwoSigma):0.000}  {Mean(s => s.Brier):0.000}"
            )
        );
        return 0;
    }
}
