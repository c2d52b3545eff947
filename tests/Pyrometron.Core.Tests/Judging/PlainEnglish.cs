using Pyrometron.Core.Judging;

namespace Pyrometron.Core.Tests.Judging;

/// <summary>What a judgement says, in plain English.</summary>
internal static class PlainEnglish
{
    public static string[] Said(this Assessment a) => [.. a.Sentences.Select(s => s.ToString())];
}
