using System.Security.Cryptography;
using OtpNet;

namespace Pyrometron.Application.Access;

/// <summary>
/// Codes of a second factor: those that a phone reckons from a shared secret and the time (TOTP, RFC 6238: six digits, 30 s,
/// SHA-1, what all such programs know), and those that are written down for the day it is lost.
/// </summary>
public static class OneTimeCodes
{
    private const int SecretBytes = 20,
        RecoveryCodes = 10,
        GroupsOfCode = 6,
        LettersOfGroup = 4;

    /// <summary>Without those that are read for one another.</summary>
    private const string Letters = "abcdefghjkmnpqrstuvwxyz23456789";

    /// <summary>A new secret, base 32: 160 bits, as RFC 4226 recommends.</summary>
    public static string MakeSecret() => Base32Encoding.ToString(RandomNumberGenerator.GetBytes(SecretBytes));

    /// <summary>The step of 30 s whose code this is, within one step of the present one; null where it is none.</summary>
    public static long? StepOf(string secret, string code, DateTimeOffset now)
    {
        var typed = code.Replace(" ", "", StringComparison.Ordinal);
        return
            typed.Length == 6
            && new Totp(Base32Encoding.ToBytes(secret)).VerifyTotp(
                now.UtcDateTime,
                typed,
                out var step,
                new VerificationWindow(previous: 1, future: 1)
            )
            ? step
            : null;
    }

    /// <summary>What a phone reads as a picture: the secret with whose it is.</summary>
    public static string UriOf(string secret, string house, string account) =>
        new OtpUri(OtpType.Totp, secret, account, house).ToString();

    /// <summary>
    /// New codes to be written down, such as <c>k3mp-9xwd-h2rt-vq7n-s6tc-8bfe</c>: 118 bits each. With 112 or more nobody can try
    /// them all, and what is kept of one need not be slow to reckon (OWASP ASVS 5, 6.5.2; from memory).
    /// </summary>
    public static IReadOnlyList<string> MakeRecoveryCodes() =>
        [
            .. Enumerable
                .Range(0, RecoveryCodes)
                .Select(_ =>
                    string.Join(
                        '-',
                        Enumerable.Range(0, GroupsOfCode).Select(_ => RandomNumberGenerator.GetString(Letters, LettersOfGroup))
                    )
                ),
        ];

    /// <summary>What is kept of a recovery code, however it is typed.</summary>
    public static string HashOfRecovery(string typed) =>
        Token.HashOf(new string([.. typed.ToLowerInvariant().Where(char.IsAsciiLetterOrDigit)]));
}
