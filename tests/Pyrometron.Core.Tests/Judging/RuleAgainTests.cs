using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Simulation;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>Other rules over the same findings: as if all had been judged anew, without reading anything.</summary>
public class RuleAgainTests
{
    private static readonly JudgementPolicy Other = JudgementPolicy.Default with
    {
        ActionMarginKelvin = 9,
        WorthKelvin = 4,
        MuchKelvin = 11,
        School = School.Calendar,
        Precedence = Precedence.Value,
    };

    private static readonly LocalRule OneMachine = new(RuleScope.Machine, "DUST", new RuleChange(School: School.Failure));

    private static Hall Hall() =>
        new Hall()
            .WithHealthy(6)
            .With("DUST", [new Fault(Cause.Dust, Judging.Hall.Now - 300, Judging.Hall.Now, 9)])
            .With("PASTE", [new Fault(Cause.Paste, Judging.Hall.Now - 300, Judging.Hall.Now, 8)])
            .With("DONE", [], [Judging.Hall.ThisEvening(ServiceLevel.DustOut)]);

    private static string Told(FleetJudgement judgement) =>
        string.Join(
            '\n',
            judgement.Queue.Select(a =>
                $"{a.Asset.Tag} {a.Urgency} {a.Cause} {a.Service} {a.Minutes} {a.Action} {a.DriftKelvin} {a.ServiceDue} {a.Advised?.PerHour} {a.Reason} {a.ToBeSurer} {a.Measure}"
            )
        );

    [Fact]
    public void Ruling_again_equals_judging_anew()
    {
        var hall = Hall();
        var before = hall.JudgeOf().JudgeAll();
        var again = hall.JudgeOf(policy: Other).RuleAgain(before);
        var anew = hall.JudgeOf(policy: Other).JudgeAll();
        Assert.NotEqual(Told(before), Told(anew));
        Assert.Equal(Told(anew), Told(again));
        // And back.
        Assert.Equal(Told(before), Told(hall.JudgeOf().RuleAgain(again)));
    }

    [Fact]
    public void A_rule_for_one_machine_changes_that_machine_alone()
    {
        var hall = Hall();
        var before = hall.JudgeOf().JudgeAll();
        var effect = RuleEffect.Of(before, hall.JudgeOf(local: [OneMachine]).RuleAgain(before));
        var changed = Assert.Single(effect.Changed);
        Assert.Equal(("DUST", Urgency.Watch), (changed.After.Asset.Tag, changed.After.Urgency));
        Assert.True(changed.Before.Urgency < Urgency.Watch);
        Assert.Equal(effect.Before.QuarterJobs - 1, effect.After.QuarterJobs);
        Assert.Equal(effect.Before.QuarterMinutes - changed.Before.Minutes, effect.After.QuarterMinutes);
        Assert.Equal(effect.After.Machines.Values.Sum(), before.Queue.Count);
    }

    [Fact]
    public void Rules_that_change_nothing_say_so()
    {
        var hall = Hall();
        var before = hall.JudgeOf().JudgeAll();
        Assert.Empty(RuleEffect.Of(before, hall.JudgeOf().RuleAgain(before)).Changed);
    }

    [Fact]
    public void Work_of_a_quarter_counts_what_falls_due_in_it()
    {
        var hall = new Hall().WithHealthy(1);
        var tag = "OK-01";
        FleetJudgement Under(double months) =>
            hall.JudgeOf(
                    local:
                    [
                        new LocalRule(
                            RuleScope.Machine,
                            tag,
                            new RuleChange(DustOutMonths: months, RepasteMonths: 0, School: School.Calendar)
                        ),
                    ]
                )
                .JudgeAll();
        var soon = Under(17);
        Assert.Equal(Urgency.Fine, soon.ByTag[tag].Urgency);
        Assert.InRange(soon.ByTag[tag].ServiceDue!.Value.Due.DayNumber - Judging.Hall.Today.DayNumber, 1, WorkAsked.QuarterDays);
        Assert.Equal(1, WorkAsked.Of(soon).QuarterJobs);
        Assert.Equal(0, WorkAsked.Of(Under(40)).QuarterJobs);
    }
}
