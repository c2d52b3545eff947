using System.Buffers.Binary;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using Pyrometron.Application.Access;

namespace Pyrometron.Server.Access;

/// <summary>Passwords as the framework's hasher writes them, and those that many people have.</summary>
internal sealed class PasswordHashes : IPasswordHashes
{
    /// <summary>Of PBKDF2 with HMAC-SHA-512: what OWASP's cheat sheet on storing passwords asks for (from memory).</summary>
    private const int Iterations = 210_000;

    private readonly PasswordHasher<object> _hasher = new(
        Options.Create(new PasswordHasherOptions { IterationCount = Iterations })
    );

    private readonly Lazy<byte[]> _common = new(Load);

    /// <summary>The hasher asks for a user and does not look at it.</summary>
    private static readonly object Anybody = new();

    public string Hash(string password) => _hasher.HashPassword(Anybody, password);

    public PasswordMatch Verify(string hash, string typed)
    {
        // What is no text was never taken; what is longer than any costs no work.
        if (typed.Length > PasswordRules.Longest * 4 || !IsText(typed))
            typed = "";
        return _hasher.VerifyHashedPassword(Anybody, hash, typed) switch
        {
            PasswordVerificationResult.Success => PasswordMatch.Right,
            PasswordVerificationResult.SuccessRehashNeeded => PasswordMatch.RightButOld,
            _ => PasswordMatch.Wrong,
        };
    }

    /// <summary>
    /// The list holds the first five bytes of the SHA-256 of each, sorted: 49,233 passwords that were found most often in
    /// published leaks. Only hashes stand here, since many of them are names or worse.
    /// </summary>
    public bool IsCommon(string text)
    {
        var wanted = Key(SHA256.HashData(Encoding.UTF8.GetBytes(text)));
        var (from, to) = (0, _common.Value.Length / KeyBytes);
        while (from < to)
        {
            var middle = (from + to) / 2;
            var key = Key(_common.Value.AsSpan(middle * KeyBytes, KeyBytes));
            if (key == wanted)
                return true;
            if (key < wanted)
                from = middle + 1;
            else
                to = middle;
        }
        return false;
    }

    private const int KeyBytes = 5;

    private static long Key(ReadOnlySpan<byte> hash) => ((long)hash[0] << 32) | BinaryPrimitives.ReadUInt32BigEndian(hash[1..]);

    private static bool IsText(string typed)
    {
        try
        {
            return new UTF8Encoding(false, throwOnInvalidBytes: true).GetByteCount(typed) >= 0;
        }
        catch (EncoderFallbackException)
        {
            return false;
        }
    }

    private static byte[] Load()
    {
        using var stream = typeof(PasswordHashes).Assembly.GetManifestResourceStream("common-passwords.bin")!;
        var list = new byte[stream.Length];
        stream.ReadExactly(list);
        return list;
    }
}
