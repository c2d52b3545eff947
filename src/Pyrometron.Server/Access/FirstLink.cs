using System.Security.Cryptography;
using System.Text;
using Pyrometron.Storage;

namespace Pyrometron.Server.Access;

/// <summary>
/// The link by which whoever sets the house up comes in: made at each start while nobody can keep the house, told on the console
/// alone, and of no use once somebody can.
/// </summary>
internal sealed class FirstLink(AccountStore accounts)
{
    /// <summary>What stands in it.</summary>
    public string Token { get; } = Application.Access.Token.Make();

    /// <summary>Whether nobody can keep the house yet.</summary>
    public bool IsNeeded => !accounts.HasKeeper();

    /// <summary>Whether a token is the one of this link, and counts.</summary>
    public bool Is(string token) =>
        CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(token), Encoding.UTF8.GetBytes(Token)) && IsNeeded;
}
