using System.Diagnostics;
using System.Globalization;
using Pyrometron.Bench.Scoring;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Readings;

namespace Pyrometron.Bench;

/// <summary>Judges the trial fleets and prints how well, with the three simple rules beside.</summary>
internal static class ScoreCommand
{
    public static int Run(string[] folders)
    {
        foreach (var folder in folders)
        {
            var fleet = TrialFleet.Load(folder);
            var clock = Stopwatch.StartNew();
            var judgement = Judge(fleet);
            clock.Stop();
            var score = ScoreOf(judgement, fleet.Truth);
            Print($"{folder}: {judgement.Queue.Count} machines judged in {clock.ElapsedMilliseconds} ms");
            Print(
                $"  average precision {score.AveragePrecision:0.000} (without grey {score.WithoutGrey:0.000}), precision at k {score.PrecisionAtK:0.000}"
            );
            foreach (var (name, order) in SimpleRules.Orders(fleet))
                Print($"    simple rule {name, -9} {Score.Ranking(order, fleet.Truth).AveragePrecision:0.000}");
            Print($"  recall now/next/soon {score.Recall:0.000}, cause right {score.CauseRight:0.000}");
            Print($"  false alarms {score.FalseAlarms:0.000}, of the confounded {score.FalseAlarmsConfounded:0.000}");
            Print($"  drift error median {score.DriftErrorMedian:0.00} K, 90 % {score.DriftErrorP90:0.00} K");
            Print(
                $"  error over stated uncertainty {score.ErrorOverSigma:0.00} (RMS), within two of them {score.WithinTwoSigma:0.000}; Brier {score.Brier:0.000}"
            );
            Print($"  date concordance {score.DateConcordance:0.000} over {score.Dated}, coverage {score.DateCoverage:0.00}");
            Detail(judgement, fleet);
        }
        return 0;
    }

    /// <summary>Judges a trial fleet, with parts of the method left out or not.</summary>
    public static FleetJudgement Judge(
        TrialFleet fleet,
        Ablation without = Ablation.None,
        Precedence precedence = Precedence.Evidence
    ) =>
        new FleetJudge(
            new JudgementBasis(
                fleet.Register,
                fleet.AsOf,
                JudgementPolicy.Default with
                {
                    Precedence = precedence,
                },
                a => ReadingSeries.From(fleet.Readings[a.Tag], a.Parts.Count)
            )
            {
                Without = without,
                Threads = Environment.ProcessorCount,
            }
        ).JudgeAll();

    /// <summary>Scores a judgement against the truth.</summary>
    public static Score ScoreOf(FleetJudgement judgement, Dictionary<string, Truth> truth) =>
        Score.Of(
            [
                .. judgement.Queue.Select(
                    (a, i) =>
                        new Answer(
                            i + 1,
                            a.Asset.Tag,
                            Words.Of(a.Urgency),
                            Words.Of(a.Cause),
                            a.DriftKelvin,
                            a.Action?.Day,
                            a.WorstPart?.SigmaKelvin,
                            a.NeedsWorkProbability
                        )
                ),
            ],
            truth
        );

    /// <summary>Machine by machine, for finding out where the judgement errs; asked for by the environment.</summary>
    public static void Detail(FleetJudgement judgement, TrialFleet fleet)
    {
        if (Environment.GetEnvironmentVariable("SCORE_DETAIL") is null)
            return;
        foreach (var zone in judgement.Zones)
            Print(
                $"  zone {zone.Zone} {string.Join(' ', zone.Bins.Where((_, i) => i % 3 == 0).Select(b => b.Kelvin.ToString("0.0", CultureInfo.InvariantCulture)))}"
            );
        foreach (var e in judgement.Events)
            Print(
                $"  event {e.Kind} of {e.Group}, day {e.Day - Core.Units.UnixDay.EndOf(fleet.AsOf):0}: {e.Kelvin:0.0} K ± {e.SigmaKelvin:0.0}, from member to member {e.SpreadKelvin:0.0}, {e.Members.Count} machines"
            );
        var rank = 0;
        foreach (var a in judgement.Queue)
        {
            rank++;
            var t = fleet.Truth[a.Asset.Tag];
            if (t.Grade == "healthy" && (a.DriftKelvin ?? 0) < 2.5)
                continue;
            var split = a.WorstPart?.Split ?? default;
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{rank, 3} {a.Asset.Tag} {(t.NeedsWork ? "NEED" : t.Grade), -7} {Words.Of(a.Urgency), -7} {Words.Of(a.Cause), -6}/{t.DominantCause, -6} drift {a.DriftKelvin, 5:0.0}/{t.WorstPartRecoverableKelvin, 5:0.0}|{t.TotalRecoverableKelvin, 5:0.0} "
                        + $"±{a.WorstPart?.SigmaKelvin ?? 0:0.0} days {(a.Action is { } d ? d.Day.DayNumber - a.AsOf.DayNumber : -1), 4}/{t.DaysToAction ?? -1, 4} {a.WorstPart?.Part.Name} d{split.Dust:0.0} j{split.Joint:0.0} f{split.Fan:0.0} m{split.Mount:0.0} room {a.Outside.Room:0.0} set {a.Outside.Settings:0.0} {string.Join(',', t.Confounds)} {a.Evidence} {string.Join(",", a.Steps.Where(s => s.Kind == "sensor").Select(s => $"{s.Part} sensor {s.Kelvin:0.0} {s.Date:MM-dd}"))} {string.Join("|", a.Parts.Select(p => $"{p.Part.Name} d{p.Split.Dust:0.0} j{p.Split.Joint:0.0} f{p.FreshRiseKelvin:0}/{p.FreshJointKelvin:0}"))}"
                )
            );
        }
    }

    private static void Print(FormattableString text) => Console.WriteLine(text.ToString(CultureInfo.InvariantCulture));
}
