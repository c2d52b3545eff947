namespace Pyrometron.Core.Access;

/// <summary>What somebody may, and where.</summary>
/// <param name="Each">What they may.</param>
/// <param name="Sites">Codes of the sites where they may change something; empty for all.</param>
public sealed record Rights(IReadOnlySet<Right> Each, IReadOnlyCollection<string> Sites)
{
    /// <summary>Everything, everywhere: the program itself, and the one person of a house without accounts.</summary>
    public static Rights All { get; } = new(Enum.GetValues<Right>().ToHashSet(), []);

    /// <summary>Nothing.</summary>
    public static Rights None { get; } = new(new HashSet<Right>(), []);

    /// <summary>What a role may at some sites, or with none named at all.</summary>
    public static Rights Of(Role role, IReadOnlyCollection<string> sites) => new(Roles.RightsOf(role), sites);

    /// <summary>Whether they may it anywhere.</summary>
    public bool May(Right right) => Each.Contains(right);

    /// <summary>Whether a site is one of theirs.</summary>
    public bool Reach(string site) => Sites.Count == 0 || Sites.Contains(site);
}
