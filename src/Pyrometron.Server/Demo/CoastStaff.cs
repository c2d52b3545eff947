using Pyrometron.Core.Notices;
using Pyrometron.Core.Weeks;

namespace Pyrometron.Server.Demo;

/// <summary>Who works at the institute, where work may be done when, and who is away in the weeks that are planned.</summary>
/// <param name="today">The day the demo is laid.</param>
internal sealed class CoastStaff(DateOnly today)
{
    private static readonly DayOfWeek[] WorkDays =
    [
        DayOfWeek.Monday,
        DayOfWeek.Tuesday,
        DayOfWeek.Wednesday,
        DayOfWeek.Thursday,
        DayOfWeek.Friday,
    ];

    /// <summary>The people.</summary>
    public static IReadOnlyList<Person> People { get; } =
    [
        new("mira", "Mira", new HashSet<Skill>(Enum.GetValues<Skill>()), [], Daily(8, 16)),
        new("tomas", "Tomas", new HashSet<Skill> { Skill.OpenLaptops, Skill.OpenCards, Skill.LiftWithTwo }, [], Daily(9, 15)),
    ];

    /// <summary>Whose program is called.</summary>
    public const string WithProgram = "tomas";

    /// <summary>What they want to be told of: one by mail, one by a program.</summary>
    public static IReadOnlyList<Subscription> Chosen { get; } =
    [
        Subscription.Usual("mira") with
        {
            MailTo = "mira@institute.invalid",
            Quiet = new QuietHours(20 * 60, 6 * 60),
        },
        Subscription.Usual(WithProgram) with
        {
            WebhookUrl = "http://127.0.0.1:1/hook/",
            Called = new HashSet<NoticeKind> { NoticeKind.Now, NoticeKind.Silent },
        },
    ];

    /// <summary>The wave-model hall may be touched only before its daily run, and the reading room has exams next week.</summary>
    public IReadOnlyList<ZoneTimes> Zones =>
        [
            new("WAVE", 15, 1, Daily(6, 11), []),
            new("READ", 10, 4, Daily(8, 13), [new(NextMonday, NextMonday.AddDays(4), "exams")]),
            new("BOAT", 5, null, [], []),
        ];

    /// <summary>Mira is away on the Tuesday of next week: told after the weeks were planned.</summary>
    public Absence Away => new("mira", NextMonday.AddDays(1), NextMonday.AddDays(1), "first-aid course");

    private DateOnly NextMonday =>
        today.AddDays(((int)DayOfWeek.Monday - (int)today.DayOfWeek + 7) % 7 is > 0 and var days ? days : 7);

    private static IReadOnlyList<WeeklyTime> Daily(int from, int to) =>
        [.. WorkDays.Select(day => new WeeklyTime(day, from * 60, to * 60))];
}
