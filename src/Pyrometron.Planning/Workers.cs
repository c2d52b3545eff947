namespace Pyrometron.Planning;

/// <summary>How many threads the solver takes: the machine's, eight at most.</summary>
internal static class Workers
{
    public static int Count { get; } = Math.Clamp(Environment.ProcessorCount, 1, 8);
}
