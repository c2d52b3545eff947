using Pyrometron.Bench.Scoring;

namespace Pyrometron.Bench;

/// <summary>
/// Scores trial fleets under all variations, one line each: figures that hold only on the sets themselves are worth nothing.
/// </summary>
internal static class VaryCommand
{
    public static int Run(string[] folders)
    {
        foreach (var folder in folders)
        {
            var fleet = TrialFleet.Load(folder);
            Console.WriteLine($"{folder, -44} {Score.Columns}");
            foreach (var variation in Variation.All)
            {
                var changed = variation.Change(fleet);
                var s = ScoreCommand.ScoreOf(ScoreCommand.Judge(changed, variation.Without, variation.Precedence), changed.Truth);
                Console.WriteLine($"  {variation.Name, -42} {s.Line}");
            }
        }
        return 0;
    }
}
