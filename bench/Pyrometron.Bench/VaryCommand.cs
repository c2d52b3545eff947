using System.Globalization;
using Pyrometron.Bench.Scoring;

namespace Pyrometron.Bench;

/// <summary>Scores trial fleets under all variations, one line each: figures that hold only on the sets themselves are worth nothing.</summary>
internal static class VaryCommand
{
    public static int Run(string[] folders)
    {
        foreach (var folder in folders)
        {
            var fleet = TrialFleet.Load(folder);
            Console.WriteLine($"{folder,-44} AP    cause recall false confounded drift dates");
            foreach (var variation in Variation.All)
            {
                var changed = variation.Change(fleet);
                var s = ScoreCommand.ScoreOf(ScoreCommand.Judge(changed, variation.Without), changed.Truth);
                Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                    $"  {variation.Name,-42} {s.AveragePrecision:0.000} {s.CauseRight:0.000} {s.Recall:0.000}  {s.FalseAlarms:0.000} {s.FalseAlarmsConfounded:0.000}      {s.DriftErrorMedian:0.00}  {s.DateConcordance:0.000}"));
            }
        }
        return 0;
    }
}
