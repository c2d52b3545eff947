using System.Globalization;
using System.Text;
using System.Text.Json;
using Pyrometron.Core.Notices;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Notices;

/// <summary>Notices as mails and calls say them: plain English, as programs read it.</summary>
internal static class NoticeText
{
    /// <summary>More of a kind than these are only counted in a mail.</summary>
    private const int MostOfAKind = 10;

    private static readonly Dictionary<NoticeKind, string> Headings = new()
    {
        [NoticeKind.Now] = "Needs work now",
        [NoticeKind.Next] = "Next",
        [NoticeKind.DueThisWeek] = "Due this week or overdue",
        [NoticeKind.GroupEvent] = "Happened to many machines at once",
        [NoticeKind.WarmRoom] = "Rooms that are too warm",
        [NoticeKind.Silent] = "Stopped reporting",
        [NoticeKind.Forgotten] = "Forgotten jobs",
        [NoticeKind.StockShort] = "The shelf does not hold enough",
    };

    private sealed record NewNotice(long Id, NoticeKind Kind, DateOnly On, string Says, string? Asset, string? Zone);

    private sealed record CallData(IReadOnlyList<NewNotice> Notices);

    /// <param name="Type"><c>notices</c> or <c>test</c>.</param>
    private sealed record CallBody(string Type, DateTimeOffset Timestamp, CallData Data);

    /// <summary>The subject of a mail: what it tells most of all.</summary>
    public static string Subject(Delivery delivery)
    {
        if (delivery.Notices.Count == 0)
            return "Pyrometron: a test";
        var counts = delivery.Notices.CountBy(n => n.Condition.Kind).OrderBy(c => c.Key).ToList();
        var first = string.Join(", ", counts.Take(2).Select(c => $"{Headings[c.Key].ToLowerInvariant()}: {c.Value}"));
        return counts.Count > 2 ? $"Pyrometron: {first}, and more" : $"Pyrometron: {first}";
    }

    /// <summary>The text of a mail.</summary>
    public static string Mail(Delivery delivery)
    {
        var text = new StringBuilder();
        if (delivery.Notices.Count == 0)
            text.Append("This is a test that somebody asked for. Mail from Pyrometron arrives here.\n");
        foreach (var kind in delivery.Notices.GroupBy(n => n.Condition.Kind).OrderBy(g => g.Key))
        {
            text.Append(Headings[kind.Key]).Append('\n');
            foreach (var notice in kind.Take(MostOfAKind))
                text.Append(CultureInfo.InvariantCulture, $"- {notice.Condition.Says}\n");
            if (kind.Count() > MostOfAKind)
                text.Append(CultureInfo.InvariantCulture, $"- and {kind.Count() - MostOfAKind} more\n");
            text.Append('\n');
        }
        text.Append(
            "\nEverything that is new stands in Pyrometron under \"What is new\", where this mail is switched off too.\n"
        );
        return text.ToString();
    }

    /// <summary>The body of a call, the same in all attempts.</summary>
    public static string Call(Delivery delivery) =>
        JsonSerializer.Serialize(
            new CallBody(
                delivery.Notices.Count == 0 ? "test" : "notices",
                delivery.MadeAt,
                new CallData([
                    .. delivery.Notices.Select(n => new NewNotice(
                        n.Id,
                        n.Condition.Kind,
                        n.First,
                        n.Condition.Says.ToString(),
                        n.Condition.Tag,
                        n.Condition.Zone
                    )),
                ])
            ),
            ApiJson.Options
        );
}
