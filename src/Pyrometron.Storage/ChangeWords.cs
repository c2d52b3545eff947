using System.Globalization;
using Pyrometron.Core.Messages;

namespace Pyrometron.Storage;

/// <summary>What some lines of the change log say.</summary>
public static class ChangeWords
{
    /// <summary>A field of a machine.</summary>
    public static Message OfField(string field, string? before, string? after) =>
        Message.Of(
            "{field}: {before} → {after}",
            Value.Text("field", field),
            Value.Text("before", before ?? "–"),
            Value.Text("after", after ?? "–")
        );

    /// <summary>A reading that was corrected, voided or restored.</summary>
    public static Message OfReading(string kind, DateTimeOffset at, string reason) =>
        Message.Of(
            kind switch
            {
                "corrected" => "Reading of {at} corrected ({reason})",
                "voided" => "Reading of {at} struck out ({reason})",
                _ => "Reading of {at} restored ({reason})",
            },
            Value.Text("at", at.UtcDateTime.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture)),
            Value.Text("reason", reason)
        );
}
