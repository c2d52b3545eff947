using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;

namespace Pyrometron.Application.Access;

/// <summary>Secrets that are given out once and of which only the hash is kept: links, sessions, recovery codes.</summary>
public static class Token
{
    private const int Bytes = 32;

    /// <summary>A new one, as it stands in a link or a cookie: 256 random bits.</summary>
    public static string Make() => Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(Bytes));

    /// <summary>
    /// What is kept of one: SHA-256 (FIPS 180-4), lower-case hexadecimal. A slow hash is for what people think up; this cannot be
    /// guessed.
    /// </summary>
    public static string HashOf(string token) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(token)));
}
