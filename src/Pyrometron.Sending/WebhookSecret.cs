using System.Security.Cryptography;
using System.Text;

namespace Pyrometron.Sending;

/// <summary>
/// What both sides of a webhook know, and the signature made with it: HMAC-SHA-256 (RFC 2104, FIPS 180-4) over number, instant
/// and body, as the open Standard Webhooks specification has it, symmetric form <c>v1</c>.
/// </summary>
public sealed class WebhookSecret
{
    private const string Prefix = "whsec_";

    /// <summary>Bytes of a new secret; the specification asks for 24 to 64.</summary>
    private const int Length = 32;

    private readonly byte[] _key;

    /// <summary>Reads a secret as it is handed out.</summary>
    /// <exception cref="FormatException">It is none.</exception>
    public WebhookSecret(string text) =>
        _key = text.StartsWith(Prefix, StringComparison.Ordinal)
            ? Convert.FromBase64String(text[Prefix.Length..])
            : throw new FormatException($"A secret begins with {Prefix}.");

    /// <summary>A new secret as it is handed out.</summary>
    public static string Make() => Prefix + Convert.ToBase64String(RandomNumberGenerator.GetBytes(Length));

    /// <summary>The signature of a call.</summary>
    /// <param name="id">The message's name.</param>
    /// <param name="seconds">When it is sent, seconds since 1970.</param>
    /// <param name="body">As sent.</param>
    public string Sign(string id, long seconds, string body) =>
        "v1," + Convert.ToBase64String(HMACSHA256.HashData(_key, Encoding.UTF8.GetBytes($"{id}.{seconds}.{body}")));

    /// <summary>Whether one of the signatures of a header, with spaces between, is that of a call.</summary>
    public bool Signed(string signatures, string id, long seconds, string body)
    {
        var right = Encoding.UTF8.GetBytes(Sign(id, seconds, body));
        return signatures.Split(' ').Any(given => CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(given), right));
    }
}
