using Pyrometron.Core.Messages;
using Pyrometron.Formats;

namespace Pyrometron.Server.Hosting;

/// <summary>Makes something of a request with lists in it, and says of all that is wrong where and what.</summary>
internal abstract class RequestReader
{
    private const int LongestName = 80;

    /// <summary>With so many problems the rest is not looked at.</summary>
    private const int MostProblems = 100;

    /// <summary>What is wrong, in the order in which it was found.</summary>
    public List<InputProblem> Problems { get; } = [];

    /// <summary>Reads the items of an array, each at its own pointer.</summary>
    protected List<TItem> All<TDto, TItem>(string at, IReadOnlyList<TDto?>? sent, int most, Func<TDto, string, TItem> read)
    {
        var items = new List<TItem>();
        if (sent is null)
            return Wrong(at, $"{Member(at)} must be an array", items);
        if (sent.Count > most)
            return Wrong(at, $"lists more than {most}", items);
        for (var i = 0; i < sent.Count && Problems.Count < MostProblems; i++)
            if (sent[i] is { } dto)
                items.Add(read(dto, $"{at}/{i}"));
            else
                Wrong($"{at}/{i}", "must be an object", 0);
        return items;
    }

    /// <summary>A name without control characters.</summary>
    protected string Name(string at, string? sent) =>
        sent is { Length: > 0 and <= LongestName } && !sent.Any(char.IsControl)
            ? sent
            : Wrong(at, $"{Member(at)} must be text of 1 to {LongestName} characters", "");

    /// <summary>A whole number between bounds.</summary>
    protected int Within(string at, int? sent, int least, int most) =>
        sent >= least && sent <= most
            ? sent.Value
            : Wrong(at, $"{Member(at)} must be a whole number from {least} to {most}", least);

    /// <summary>Notes a problem.</summary>
    /// <returns>The stand-in, so that the rest can still be read.</returns>
    protected T Wrong<T>(string at, Message message, T standIn)
    {
        Problems.Add(new InputProblem(message, Pointer: at));
        return standIn;
    }

    /// <summary>The member that a pointer ends at.</summary>
    protected static string Member(string at) => at[(at.LastIndexOf('/') + 1)..];
}
