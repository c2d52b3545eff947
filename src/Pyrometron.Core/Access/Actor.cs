namespace Pyrometron.Core.Access;

/// <summary>What kind of actor changes something.</summary>
public enum ActorKind
{
    Person,
    Device,
    Program,
}

/// <summary>
/// Who changes something, and what they may. In a house with accounts it is who signed in; without them a person is who they say
/// they are, and may everything.
/// </summary>
public sealed record Actor(ActorKind Kind, string Name)
{
    /// <summary>The program itself: the demo, background work.</summary>
    public static Actor Program { get; } = new(ActorKind.Program, "pyrometron") { Rights = Rights.All };

    /// <summary>The one person at this machine, where nobody has to say who they are.</summary>
    public static Actor Unnamed { get; } = new(ActorKind.Person, "") { Rights = Rights.All };

    /// <summary>The address of the network from which they act; null for the program itself, and for what is not known.</summary>
    public string? Address { get; init; }

    /// <summary>What they may; nothing unless it is said.</summary>
    public Rights Rights { get; init; } = Rights.None;

    /// <summary>The person who is named, else the device; for a house without accounts.</summary>
    public static Actor Of(string? person, string device) =>
        (
            string.IsNullOrWhiteSpace(person) ? new Actor(ActorKind.Device, device) : new Actor(ActorKind.Person, person.Trim())
        ) with
        {
            Rights = Rights.All,
        };
}
