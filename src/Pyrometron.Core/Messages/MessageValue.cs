using System.Globalization;
using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Messages;

/// <summary>A value in a message.</summary>
/// <param name="Name">The place in the template.</param>
/// <param name="Unit">
/// What kind of value it is: <c>kelvin</c> (a difference), <c>celsius</c> (a temperature), <c>kelvin-per-month</c>,
/// <c>percent</c>,
/// <c>minutes</c>, <c>seconds</c>, <c>watt</c>, <c>millimetre</c>, <c>count</c>, <c>number</c>, <c>money</c>, <c>date</c>,
/// <c>word</c> (one of the API's words),
/// <c>part</c> (a part's name), <c>text</c> (somebody's own words), <c>list</c> (messages).
/// </param>
/// <param name="Number">For the units that are numbers.</param>
/// <param name="Text">
/// ISO 8601 for a date; the word, name or text else; of a list what stands between its messages; of money its currency; of a
/// count the noun of what is counted, or null.
/// </param>
/// <param name="Messages">Of a list.</param>
/// <param name="Plain">How it reads in plain English.</param>
public sealed record MessageValue(
    string Name,
    string Unit,
    double? Number,
    string? Text,
    IReadOnlyList<Message>? Messages,
    string Plain
)
{
    /// <inheritdoc/>
    public bool Equals(MessageValue? other) =>
        other is not null
        && (Name, Unit, Number, Text, Plain) == (other.Name, other.Unit, other.Number, other.Text, other.Plain)
        && (Messages ?? []).SequenceEqual(other.Messages ?? []);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Name, Unit, Plain);
}

/// <summary>Makes the values of messages.</summary>
public static class Value
{
    /// <summary>A temperature difference, K: one decimal below ten.</summary>
    public static MessageValue Kelvin(string name, double kelvin) => Number(name, "kelvin", kelvin, PlainKelvin(kelvin));

    /// <summary>A temperature difference with its sign, K.</summary>
    public static MessageValue SignedKelvin(string name, double kelvin) =>
        Number(name, "kelvin", kelvin, (kelvin < 0 ? "−" : "+") + PlainKelvin(Math.Abs(kelvin)));

    /// <summary>A temperature, °C, to a tenth.</summary>
    public static MessageValue Celsius(string name, double celsius) =>
        Number(name, "celsius", celsius, $"{Plain(celsius, "0.#")} °C");

    /// <summary>A temperature, °C, in whole degrees.</summary>
    public static MessageValue WholeCelsius(string name, double celsius) =>
        Number(name, "celsius", Math.Round(celsius), $"{Plain(celsius, "0")} °C");

    /// <summary>A pace of warming; given by the day, told by the month of 30 days.</summary>
    public static MessageValue KelvinPerMonth(string name, double kelvinPerDay) =>
        Number(name, "kelvin-per-month", kelvinPerDay * 30, $"{Plain(kelvinPerDay * 30, "0.0")} K a month");

    /// <summary>A share, told in whole per cent.</summary>
    public static MessageValue Share(string name, double share) =>
        Number(name, "percent", share * 100, $"{Plain(share * 100, "0")} %");

    /// <summary>Per cent, whole.</summary>
    public static MessageValue Percent(string name, double percent) =>
        Number(name, "percent", percent, $"{Plain(percent, "0")} %");

    /// <summary>A change in per cent with its sign, to a tenth.</summary>
    public static MessageValue SignedPercent(string name, double percent) =>
        Number(name, "percent", percent, $"{Plain(percent, "+0.0;−0.0")} %");

    /// <summary>Minutes, to a tenth.</summary>
    public static MessageValue Minutes(string name, double minutes) =>
        Number(name, "minutes", minutes, $"{Plain(minutes, "0.#")} {(minutes == 1 ? "minute" : "minutes")}");

    /// <summary>Whole seconds.</summary>
    public static MessageValue Seconds(string name, double seconds) =>
        Number(name, "seconds", seconds, $"{Plain(seconds, "0")} seconds");

    /// <summary>Power, whole watts.</summary>
    public static MessageValue Watt(string name, double watt) => Number(name, "watt", watt, $"{Plain(watt, "0.#")} W");

    /// <summary>A length, mm.</summary>
    public static MessageValue Millimetre(string name, double mm) => Number(name, "millimetre", mm, $"{Plain(mm, "0.0#")} mm");

    /// <summary>How many.</summary>
    public static MessageValue Count(string name, double count) => Number(name, "count", count, Plain(count, "0.##"));

    /// <summary>How many of something, with its English noun: 1 run, 2 runs.</summary>
    public static MessageValue Counted(string name, int count, string noun) =>
        new(
            name,
            "count",
            count,
            noun,
            null,
            count == 1 ? $"1 {noun}" : $"{count.ToString(CultureInfo.InvariantCulture)} {noun}s"
        );

    /// <summary>A plain number.</summary>
    public static MessageValue Figure(string name, double value, string format = "0.#") =>
        Number(name, "number", value, Plain(value, format));

    /// <summary>An amount of the house's currency, whole units.</summary>
    public static MessageValue Money(string name, double amount, string currency) =>
        new(name, "money", amount, currency, null, $"{Plain(amount, "0")} {currency}");

    /// <summary>A day.</summary>
    public static MessageValue Day(string name, DateOnly day) =>
        Word(
            name,
            "date",
            day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            day.ToString("d MMM yyyy", CultureInfo.InvariantCulture)
        );

    /// <summary>One of the API's words.</summary>
    public static MessageValue Word<T>(string name, T value)
        where T : struct, Enum => Word(name, "word", Words.Of(value), Words.Of(value));

    /// <summary>A part by its name in the readings.</summary>
    public static MessageValue Part(string name, string part) => Word(name, "part", part, PartNames.Of(part));

    /// <summary>A part at the head of a sentence.</summary>
    public static MessageValue PartFirst(string name, string part) => Word(name, "part", part, PartNames.AtHead(part));

    /// <summary>Somebody's own words, or a name.</summary>
    public static MessageValue Text(string name, string text) => Word(name, "text", text, text);

    /// <summary>Messages in a row.</summary>
    /// <param name="between">What stands between them.</param>
    public static MessageValue List(string name, string between, IReadOnlyList<Message> messages) =>
        new(name, "list", null, between, messages, string.Join(between, messages));

    private static MessageValue Number(string name, string unit, double value, string plain) =>
        new(name, unit, value, null, null, plain);

    private static MessageValue Word(string name, string unit, string text, string plain) =>
        new(name, unit, null, text, null, plain);

    private static string Plain(double value, string format) => value.ToString(format, CultureInfo.InvariantCulture);

    private static string PlainKelvin(double kelvin) => Plain(kelvin, Math.Abs(kelvin) < 9.95 ? "0.#" : "0") + " K";
}
