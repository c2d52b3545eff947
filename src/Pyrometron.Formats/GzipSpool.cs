using ICSharpCode.SharpZipLib;
using ICSharpCode.SharpZipLib.GZip;

namespace Pyrometron.Formats;

/// <summary>
/// An uploaded body laid in a temporary file, so that a gzip that lacks its end or checksum is refused before anything
/// of it is stored. (The runtime's own stream lets a truncated gzip pass.)
/// </summary>
public sealed class GzipSpool : IDisposable
{
    private readonly FileStream _file;
    private readonly bool _packed;

    private GzipSpool(FileStream file, bool packed, long length) => (_file, _packed, PlainLength) = (file, packed, length);

    /// <summary>Length of the unpacked content, in bytes.</summary>
    public long PlainLength { get; }

    /// <summary>Takes a whole body, packed or plain (told by its first bytes), and checks a packed one to its end.</summary>
    /// <param name="folder">Where it is laid; it is deleted when this is disposed.</param>
    /// <exception cref="RefusedInputException">The gzip is damaged or cut short.</exception>
    public static async Task<GzipSpool> TakeAsync(Stream body, string folder, CancellationToken cancellation)
    {
        var file = new FileStream(
            Path.Combine(folder, Path.GetRandomFileName()),
            FileMode.CreateNew,
            FileAccess.ReadWrite,
            FileShare.None,
            1 << 16,
            FileOptions.DeleteOnClose
        );
        try
        {
            await body.CopyToAsync(file, cancellation);
            file.Position = 0;
            var packed = file.ReadByte() == 0x1f && file.ReadByte() == 0x8b;
            var length = packed ? Check(file, cancellation) : file.Length;
            return new GzipSpool(file, packed, length);
        }
        catch
        {
            await file.DisposeAsync();
            throw;
        }
    }

    /// <summary>The unpacked content from its start.</summary>
    public Stream Open()
    {
        _file.Position = 0;
        return _packed ? new GZipInputStream(_file, 1 << 16) { IsStreamOwner = false } : _file;
    }

    /// <summary>The whole unpacked content in memory, for documents that are bounded.</summary>
    /// <exception cref="RefusedInputException">It is longer than <paramref name="longest"/> bytes.</exception>
    public byte[] ReadAll(int longest)
    {
        if (PlainLength > longest)
            throw new RefusedInputException(
                new InputProblem($"The document is longer than {longest / 1024 / 1024} MB; send it in parts.", Pointer: "")
            );
        var content = new byte[PlainLength];
        Open().ReadExactly(content);
        return content;
    }

    /// <inheritdoc/>
    public void Dispose() => _file.Dispose();

    private static long Check(FileStream file, CancellationToken cancellation)
    {
        file.Position = 0;
        var buffer = new byte[1 << 16];
        long length = 0;
        try
        {
            using var plain = new GZipInputStream(file, 1 << 16) { IsStreamOwner = false };
            for (int read; (read = plain.Read(buffer, 0, buffer.Length)) > 0; length += read)
                cancellation.ThrowIfCancellationRequested();
            return length;
        }
        catch (Exception error) when (error is SharpZipBaseException or EndOfStreamException)
        {
            throw new RefusedInputException(
                new InputProblem(
                    "The gzip file is damaged or cut short, so nothing of it was stored. Pack it again and send it whole."
                )
            );
        }
    }
}
