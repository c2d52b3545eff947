using System.Diagnostics.CodeAnalysis;
using System.Text;

namespace Pyrometron.Core.Messages;

/// <summary>
/// A sentence for people: a template in plain English whose named places are filled with values and their units. The template is
/// the key under which another language finds its own; template and values travel and are stored beside the English, so that
/// units, dates and language can follow the reader.
/// </summary>
/// <param name="Template">English, places as <c>{name}</c>.</param>
/// <param name="Values">One for each place; a value may stand in several.</param>
public sealed record Message(string Template, IReadOnlyList<MessageValue> Values)
{
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

    /// <summary>A sentence without values.</summary>
    [return: NotNullIfNotNull(nameof(sentence))]
    public static implicit operator Message?(string? sentence) => sentence is null ? null : new(sentence, []);

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

    private MessageValue? Find(string name) => Values.FirstOrDefault(v => v.Name == name);

    private IEnumerable<string> Places()
    {
        for (var i = Template.IndexOf('{', StringComparison.Ordinal); i >= 0; i = Template.IndexOf('{', i + 1))
            if (Template.IndexOf('}', i) is > 0 and var end)
                yield return Template[(i + 1)..end];
    }
}
