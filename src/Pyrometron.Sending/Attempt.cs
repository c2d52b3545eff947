using Pyrometron.Core.Messages;

namespace Pyrometron.Sending;

/// <summary>How an attempt to send something ended.</summary>
/// <param name="Sent">Whether the other side took it.</param>
/// <param name="MayTryAgain">Whether another attempt may go better.</param>
/// <param name="Says">Why it failed; null where it did not.</param>
public sealed record Attempt(bool Sent, bool MayTryAgain, Message? Says)
{
    /// <summary>The other side took it.</summary>
    public static Attempt Taken { get; } = new(true, false, null);

    /// <summary>It failed; later it may go.</summary>
    public static Attempt Later(Message says) => new(false, true, says);

    /// <summary>It failed and will fail again as it stands.</summary>
    public static Attempt Never(Message says) => new(false, false, says);
}
