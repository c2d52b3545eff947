using System.ComponentModel;
using System.Diagnostics.CodeAnalysis;
using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Json.Serialization;

namespace Pyrometron.Core.Messages;

/// <summary>
/// A sentence for people: a template in plain English whose named places are filled with values and their units. The template is
/// the key under which another language finds its own; template and values travel and are stored beside the English, so that
/// units, dates and language can follow the reader. An interpolated text that is handed over as a message becomes one: its holes
/// are its places, by their numbers.
/// </summary>
/// <param name="Template">English, places as <c>{name}</c>.</param>
/// <param name="Values">One for each place; a value may stand in several.</param>
[InterpolatedStringHandler]
[method: JsonConstructor]
public sealed record Message(string Template, IReadOnlyList<MessageValue> Values)
{
    private readonly List<MessageValue>? _holes;

    /// <summary>For the compiler: the message that an interpolated text becomes, still empty.</summary>
    [EditorBrowsable(EditorBrowsableState.Never)]
    public Message(int literalLength, int formattedCount)
        : this("", [])
    {
        _ = literalLength;
        Values = _holes = new List<MessageValue>(formattedCount);
    }

    /// <summary>English, places as <c>{name}</c>.</summary>
    public string Template { get; private set; } = Template;

    /// <summary>
    /// A message with its values. A template is a constant at the place where it is handed over, as an argument named
    /// <c>template</c> or as a message by itself: so it is found and put into the catalogues of other languages.
    /// </summary>
    /// <exception cref="ArgumentException">A place has no value, or a value has no place.</exception>
    public static Message Of(string template, params ReadOnlySpan<MessageValue> values)
    {
        foreach (var value in values)
            if (!template.Contains($"{{{value.Name}}}", StringComparison.Ordinal))
                throw new ArgumentException($"'{template}' has no place for '{value.Name}'.", nameof(values));
        var message = new Message(template, values.ToArray());
        foreach (var place in message.Places())
            if (message.Find(place) is null)
                throw new ArgumentException($"'{template}' lacks a value for '{place}'.", nameof(values));
        return message;
    }

    /// <summary>A text of somebody else, such as a library or an earlier version: no language has another for it.</summary>
    public static Message Verbatim(string text) => new(text, []);

    /// <summary>A sentence without values.</summary>
    [return: NotNullIfNotNull(nameof(sentence))]
    public static implicit operator Message?(string? sentence) => sentence is null ? null : new(sentence, []);

    /// <summary>For the compiler: words between the holes.</summary>
    [EditorBrowsable(EditorBrowsableState.Never)]
    public void AppendLiteral(string words) => Template += words;

    /// <summary>For the compiler: somebody's own words, or a name.</summary>
    [EditorBrowsable(EditorBrowsableState.Never)]
    public void AppendFormatted(string? text) => Fill(name => Value.Text(name, text ?? ""));

    /// <summary>For the compiler: a whole number.</summary>
    [EditorBrowsable(EditorBrowsableState.Never)]
    public void AppendFormatted(long number, string format = "0") => Fill(name => Value.Figure(name, number, format));

    /// <summary>For the compiler: a number.</summary>
    [EditorBrowsable(EditorBrowsableState.Never)]
    public void AppendFormatted(double number, string format = "0.######") => Fill(name => Value.Figure(name, number, format));

    /// <summary>For the compiler: a day.</summary>
    [EditorBrowsable(EditorBrowsableState.Never)]
    public void AppendFormatted(DateOnly day) => Fill(name => Value.Day(name, day));

    /// <summary>For the compiler: one of the API's words.</summary>
    [EditorBrowsable(EditorBrowsableState.Never)]
    public void AppendFormatted<T>(T word)
        where T : struct, Enum => Fill(name => Value.Word(name, word));

    /// <summary>For the compiler: another sentence.</summary>
    [EditorBrowsable(EditorBrowsableState.Never)]
    public void AppendFormatted(Message sentence) => Fill(name => Value.List(name, "", [sentence]));

    /// <summary>Sentences one after the other, those that are null left out; null when none is left.</summary>
    public static Message? Join(params ReadOnlySpan<Message?> sentences)
    {
        var said = new List<Message>();
        foreach (var sentence in sentences)
            if (sentence is not null)
                said.Add(sentence);
        return said.Count switch
        {
            0 => null,
            1 => said[0],
            _ => Of("{sentences}", Value.List("sentences", " ", said)),
        };
    }

    /// <summary>The sentence in plain English, units in °C and K, dates as 26 Nov 2026.</summary>
    public override string ToString()
    {
        if (Values.Count == 0)
            return Template;
        var text = new StringBuilder();
        for (var i = 0; i < Template.Length; i++)
        {
            if (Template[i] == '{' && Template.IndexOf('}', i) is > 0 and var end && Find(Template[(i + 1)..end]) is { } value)
            {
                text.Append(value.Plain);
                i = end;
            }
            else
                text.Append(Template[i]);
        }
        return text.ToString();
    }

    /// <inheritdoc/>
    public bool Equals(Message? other) => other is not null && Template == other.Template && Values.SequenceEqual(other.Values);

    /// <inheritdoc/>
    public override int GetHashCode() => Template.GetHashCode(StringComparison.Ordinal);

    private void Fill(Func<string, MessageValue> value)
    {
        var name = _holes!.Count.ToString(CultureInfo.InvariantCulture);
        Template += $"{{{name}}}";
        _holes.Add(value(name));
    }

    private MessageValue? Find(string name) => Values.FirstOrDefault(v => v.Name == name);

    private IEnumerable<string> Places()
    {
        for (var i = Template.IndexOf('{', StringComparison.Ordinal); i >= 0; i = Template.IndexOf('{', i + 1))
            if (Template.IndexOf('}', i) is > 0 and var end)
                yield return Template[(i + 1)..end];
    }
}
