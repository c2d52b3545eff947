using System.Buffers.Binary;
using System.Security.Cryptography;
using System.Text;

namespace Pyrometron.Storage.Backups;

/// <summary>
/// A file that only a passphrase opens: AES-256-GCM (FIPS 197, NIST SP 800-38D) over pieces of 1 MiB. Each piece's nonce holds
/// its number and whether it is the last, so that no piece can be left out, moved or cut off unnoticed (the STREAM construction
/// of Hoang, Reyhanitabar, Rogaway and Vizár, CRYPTO 2015; from memory). The key is made by PBKDF2 with HMAC-SHA-256 (RFC 8018).
/// </summary>
/// <remarks>
/// Layout: 8 octets of magic, salt (16), iterations (4, big-endian), nonce prefix (7), then pieces, each with its tag of 16.
/// </remarks>
internal static class SealedFile
{
    private const int PieceBytes = 1 << 20,
        SaltBytes = 16,
        PrefixBytes = 7,
        TagBytes = 16,
        NonceBytes = 12,
        HeadBytes = 8 + SaltBytes + 4 + PrefixBytes;

    /// <summary>What is common for PBKDF2 with SHA-256 (OWASP; from memory). A file says how many it was made with.</summary>
    private const int Iterations = 600_000;

    /// <summary>More than this is no file of ours: it would only keep the processor busy.</summary>
    private const int MostIterations = 10_000_000;

    private static readonly byte[] Magic = "PYROSEAL"u8.ToArray();

    /// <summary>Seals a stream.</summary>
    public static void Seal(Stream plain, Stream sealedTo, string passphrase, CancellationToken cancellation)
    {
        var head = new byte[HeadBytes];
        Magic.CopyTo(head, 0);
        RandomNumberGenerator.Fill(head.AsSpan(8, SaltBytes));
        BinaryPrimitives.WriteInt32BigEndian(head.AsSpan(8 + SaltBytes), Iterations);
        RandomNumberGenerator.Fill(head.AsSpan(HeadBytes - PrefixBytes));
        sealedTo.Write(head);
        using var cipher = CipherOf(head, passphrase, Iterations);
        var (piece, next, closed, tag) = (new byte[PieceBytes], new byte[PieceBytes], new byte[PieceBytes], new byte[TagBytes]);
        var length = plain.ReadAtLeast(piece, PieceBytes, throwOnEndOfStream: false);
        for (uint number = 0; ; number++)
        {
            cancellation.ThrowIfCancellationRequested();
            var ahead = length == PieceBytes ? plain.ReadAtLeast(next, PieceBytes, throwOnEndOfStream: false) : 0;
            cipher.Encrypt(Nonce(head, number, isLast: ahead == 0), piece.AsSpan(0, length), closed.AsSpan(0, length), tag, head);
            sealedTo.Write(closed, 0, length);
            sealedTo.Write(tag);
            if (ahead == 0)
                return;
            (piece, next, length) = (next, piece, ahead);
        }
    }

    /// <summary>Opens a stream.</summary>
    /// <exception cref="InvalidDataException">The passphrase is another one, or the file is damaged or cut short.</exception>
    public static void Open(Stream sealedFrom, Stream plain, string passphrase)
    {
        var head = new byte[HeadBytes];
        if (
            sealedFrom.ReadAtLeast(head, HeadBytes, throwOnEndOfStream: false) < HeadBytes
            || !head.AsSpan(0, 8).SequenceEqual(Magic)
        )
            throw new InvalidDataException("This is no sealed backup.");
        var iterations = BinaryPrimitives.ReadInt32BigEndian(head.AsSpan(8 + SaltBytes));
        if (iterations is < 1 or > MostIterations)
            throw new InvalidDataException("This is no sealed backup: its head is damaged.");
        using var cipher = CipherOf(head, passphrase, iterations);
        var (piece, next, open) = (new byte[PieceBytes + TagBytes], new byte[PieceBytes + TagBytes], new byte[PieceBytes]);
        var length = sealedFrom.ReadAtLeast(piece, piece.Length, throwOnEndOfStream: false);
        for (uint number = 0; ; number++)
        {
            var ahead = length == piece.Length ? sealedFrom.ReadAtLeast(next, next.Length, throwOnEndOfStream: false) : 0;
            var bytes = length - TagBytes;
            try
            {
                if (bytes < 0)
                    throw new CryptographicException();
                cipher.Decrypt(
                    Nonce(head, number, isLast: ahead == 0),
                    piece.AsSpan(0, bytes),
                    piece.AsSpan(bytes, TagBytes),
                    open.AsSpan(0, bytes),
                    head
                );
            }
            catch (CryptographicException)
            {
                throw new InvalidDataException(
                    number == 0
                        ? "The passphrase is another one, or the backup is damaged."
                        : "The backup is damaged or cut short."
                );
            }
            plain.Write(open, 0, bytes);
            if (ahead == 0)
                return;
            (piece, next, length) = (next, piece, ahead);
        }
    }

    private static AesGcm CipherOf(byte[] head, string passphrase, int iterations) =>
        new(
            Rfc2898DeriveBytes.Pbkdf2(
                Encoding.UTF8.GetBytes(passphrase),
                head.AsSpan(8, SaltBytes),
                iterations,
                HashAlgorithmName.SHA256,
                32
            ),
            TagBytes
        );

    private static byte[] Nonce(byte[] head, uint number, bool isLast)
    {
        var nonce = new byte[NonceBytes];
        head.AsSpan(HeadBytes - PrefixBytes).CopyTo(nonce);
        BinaryPrimitives.WriteUInt32BigEndian(nonce.AsSpan(PrefixBytes), number);
        nonce[^1] = isLast ? (byte)1 : (byte)0;
        return nonce;
    }
}
