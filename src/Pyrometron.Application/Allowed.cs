using Pyrometron.Core.Messages;
using Pyrometron.Storage;

namespace Pyrometron.Application;

/// <summary>Somebody may not do what they asked for.</summary>
/// <param name="why">What they lack, and who can help.</param>
public sealed class NotAllowedException(Message why) : Exception(why.ToString())
{
    /// <summary>Why.</summary>
    public Message Says { get; } = why;
}

/// <summary>The one place where a use case asks whether somebody may do it.</summary>
internal static class Permits
{
    /// <summary>The actor, if they may: at some site at least; where, <see cref="Reach(Transaction, string)"/> tells.</summary>
    /// <exception cref="NotAllowedException">They may not.</exception>
    public static Actor Allowed(this Actor actor, Right right) =>
        actor.Rights.May(right)
            ? actor
            : throw new NotAllowedException(
                Message.Of(
                    "Your account may not do this: it needs the right to {right}. Whoever keeps the house's accounts can give it.",
                    Value.Word("right", right)
                )
            );

    /// <summary>The same for what concerns the whole house: an account that is limited to sites may not.</summary>
    /// <exception cref="NotAllowedException">They may not.</exception>
    public static Actor AllowedEverywhere(this Actor actor, Right right) =>
        actor.Allowed(right).Rights.Sites is not { Count: > 0 } sites
            ? actor
            : throw new NotAllowedException(
                Message.Of(
                    "This changes something for all sites; your account is limited to {sites}.",
                    Value.Text("sites", string.Join(", ", sites))
                )
            );

    /// <summary>Refuses where a machine stands at a site that is not one of the actor's.</summary>
    /// <exception cref="NotAllowedException">It does.</exception>
    public static StoredAsset Reach(this Transaction t, StoredAsset asset)
    {
        t.Reach(asset.Asset.Zone);
        return asset;
    }

    /// <summary>Refuses where a zone is at a site that is not one of the actor's.</summary>
    /// <param name="zone">Its code; a zone that is not there is nobody's, and left to whoever looks for it.</param>
    /// <exception cref="NotAllowedException">It is.</exception>
    public static void Reach(this Transaction t, string zone)
    {
        if (t.Actor.Rights.Sites.Count > 0 && SiteStore.Of(t, zone) is { } site && !t.Actor.Rights.Reach(site))
            throw new NotAllowedException(
                Message.Of("This stands at the site {site}, which is not one of those of your account.", Value.Text("site", site))
            );
    }
}
