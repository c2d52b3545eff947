using System.Text.Json;
using System.Text.RegularExpressions;
using Pyrometron.Core.Messages;
using Pyrometron.Formats;

namespace Pyrometron.Server.Hosting;

/// <summary>
/// What the framework says of a request that it cannot read, in words for callers: it names its own types, which mean nothing to
/// them.
/// </summary>
internal static partial class FrameworkErrors
{
    /// <summary>A title, and the problem with its place.</summary>
    public static (string Title, InputProblem Problem) Describe(BadHttpRequestException bad)
    {
        if (bad.InnerException is JsonException json)
            return ("The body is no usable JSON", new InputProblem(WhatOf(json), Pointer: Pointer(json)));
        const string title = "The request cannot be read";
        if (Unreadable().Match(bad.Message) is { Success: true } unreadable)
            return (
                title,
                new InputProblem(
                    $"{unreadable.Groups["name"].Value}: '{unreadable.Groups["value"].Value}' cannot be read.",
                    Pointer: $"/{unreadable.Groups["name"].Value}"
                )
            );
        if (Missing().Match(bad.Message) is { Success: true } missing)
            return missing.Groups["from"].Value.Contains("body", StringComparison.Ordinal)
                ? (title, new InputProblem("The body is missing.", Pointer: ""))
                : (
                    title,
                    new InputProblem($"{missing.Groups["name"].Value} is needed.", Pointer: $"/{missing.Groups["name"].Value}")
                );
        // A body that is the word null.
        if (bad.Message.StartsWith("Implicit body inferred", StringComparison.Ordinal))
            return (title, new InputProblem("The body is missing.", Pointer: ""));
        return (
            title,
            new InputProblem(
                TypeName().IsMatch(bad.Message) ? "The body cannot be read." : Message.Verbatim(bad.Message),
                Pointer: ""
            )
        );
    }

    /// <summary>What is wrong with a JSON text.</summary>
    public static Message WhatOf(JsonException json)
    {
        var message = json.Message.Split(" Path:")[0].Split(" LineNumber:")[0];
        if (Lacking().Match(message) is { Success: true } lacking)
            return $"{lacking.Groups["names"].Value.Replace("'", "", StringComparison.Ordinal)} is needed.";
        if (Null().Match(message) is { Success: true } isNull)
            return $"{isNull.Groups["name"].Value} may not be null.";
        if (message.Contains("discriminator", StringComparison.Ordinal))
            return Quoted().Match(message) is { Success: true } kind
                ? (Message)$"There is no kind '{kind.Groups["text"].Value}'."
                : "An object in it does not say its kind.";
        return TypeName().IsMatch(message) ? "This value is not what is expected here." : Message.Verbatim(message);
    }

    /// <summary>The serializer speaks JSON path ($.before.parts[0]); the contract JSON Pointer (/before/parts/0).</summary>
    private static string Pointer(JsonException json) =>
        (json.Path ?? "$")
            .TrimStart('$')
            .Replace("['", "/", StringComparison.Ordinal)
            .Replace("']", "", StringComparison.Ordinal)
            .Replace('.', '/')
            .Replace("[", "/", StringComparison.Ordinal)
            .Replace("]", "", StringComparison.Ordinal);

    [GeneratedRegex("""^Failed to bind parameter ".* (?<name>\w+)" from "(?<value>.*)"\.$""", RegexOptions.Singleline)]
    private static partial Regex Unreadable();

    [GeneratedRegex("""^Required parameter ".* (?<name>\w+)" was not provided from (?<from>.*)\.$""")]
    private static partial Regex Missing();

    [GeneratedRegex("missing required properties including: (?<names>.*)\\.$")]
    private static partial Regex Lacking();

    [GeneratedRegex("(property or field|constructor parameter) '(?<name>\\w+)' on type .* null")]
    private static partial Regex Null();

    [GeneratedRegex("'(?<text>[^']*)'")]
    private static partial Regex Quoted();

    [GeneratedRegex("(System|Microsoft|Pyrometron)\\.[A-Z]")]
    private static partial Regex TypeName();
}
