using Pyrometron.Core.Fleet;

namespace Pyrometron.Core.Weeks;

/// <summary>What not everybody may do.</summary>
public enum Skill
{
    /// <summary>Take the cooler off a graphics card, or a fan.</summary>
    OpenCards,

    /// <summary>Choose and change pads: a wrong thickness lifts a cooler off its chip.</summary>
    ChangePads,

    /// <summary>Open laptops.</summary>
    OpenLaptops,

    /// <summary>Lift a machine together with somebody.</summary>
    LiftWithTwo,
}

/// <summary>Which skills work needs. Common practice, no source.</summary>
public static class Skills
{
    /// <summary>In plain words, as they stand in a plan's reasons: <c>open cards</c>.</summary>
    public static string Name(Skill skill) => Words.Of(skill).Replace('-', ' ');

    /// <summary>Those of a level on a kind of machine.</summary>
    public static IEnumerable<Skill> Of(AssetKind kind, ServiceLevel level)
    {
        var light = level is ServiceLevel.Inspect or ServiceLevel.BlowOut;
        if (kind == AssetKind.GraphicsCard && !light && level != ServiceLevel.DustOut)
            yield return Skill.OpenCards;
        if (kind == AssetKind.Laptop && !light)
            yield return Skill.OpenLaptops;
        if (level is ServiceLevel.Repad or ServiceLevel.OtherPads)
            yield return Skill.ChangePads;
    }
}
