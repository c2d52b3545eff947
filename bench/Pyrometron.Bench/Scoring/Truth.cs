using System.Text.Json;

namespace Pyrometron.Bench.Scoring;

/// <summary>What is known of one machine of a trial fleet, since a simulator made it.</summary>
internal sealed record Truth(
    string Asset,
    string Grade,
    bool NeedsWork,
    string DominantCause,
    string[] AlsoAcceptable,
    double TotalRecoverableKelvin,
    double WorstPartRecoverableKelvin,
    int? DaysToAction,
    string[] Confounds
)
{
    private sealed record Document(string Format, DateOnly AsOf, Truth[] Assets);

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web);

    /// <summary>Healthy machines with something that may mislead; a gap alone is none.</summary>
    public bool Confounded => Confounds.Any(c => c != "gaps");

    public static (DateOnly AsOf, Dictionary<string, Truth> ByAsset) Load(string path)
    {
        var document =
            JsonSerializer.Deserialize<Document>(File.ReadAllBytes(path), Options)
            ?? throw new InvalidDataException($"{path} holds nothing");
        return (document.AsOf, document.Assets.ToDictionary(a => a.Asset));
    }
}
