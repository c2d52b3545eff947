using System.Globalization;

namespace Pyrometron.Storage;

/// <summary>
/// The folder that the database lies in, held by one server at a time. What an earlier one left half done is cleared away; every
/// reason why it cannot be used is one line that says what to do.
/// </summary>
public sealed class DataFolder : IDisposable
{
    /// <summary>The file whose lock says that a program is at work here.</summary>
    private const string InUse = "in-use";

    /// <summary>Ends the name of a copy that is not whole yet.</summary>
    internal const string Unfinished = ".unfinished";

    private readonly FileStream _held;

    private DataFolder(string path, FileStream held) => (Path, _held) = (path, held);

    /// <summary>Where it is.</summary>
    public string Path { get; }

    /// <summary>Where uploads are laid while they are read.</summary>
    public string Uploads => System.IO.Path.Combine(Path, "uploads");

    /// <summary>Takes a folder, making it where it is not there.</summary>
    /// <exception cref="InvalidDataException">It cannot be used; the message says why and what to do.</exception>
    public static DataFolder Take(string path)
    {
        var full = System.IO.Path.GetFullPath(path);
        const string other = "name another folder with --data.";
        try
        {
            if (File.Exists(full))
                throw new InvalidDataException($"{full} is a file, and the database needs a folder. Move it away, or {other}");
            Directory.CreateDirectory(full);
            var held = Hold(full);
            var folder = new DataFolder(full, held);
            folder.Clear();
            return folder;
        }
        catch (UnauthorizedAccessException)
        {
            throw new InvalidDataException($"{full} may not be written to. Give this user the right to, or {other}");
        }
        catch (IOException error)
        {
            throw new InvalidDataException($"{full} cannot be used: {error.Message} Mend that, or {other}");
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _held.Dispose();

    /// <summary>Whether a program is at work on a folder; changes nothing.</summary>
    public static bool IsTaken(string path)
    {
        var mark = System.IO.Path.Combine(path, InUse);
        if (!File.Exists(mark))
            return false;
        try
        {
            using var held = new FileStream(mark, FileMode.Open, FileAccess.ReadWrite, FileShare.None);
            return false;
        }
        catch (IOException)
        {
            return true;
        }
    }

    /// <summary>The lock is the operating system's: it ends with the program, however that ends.</summary>
    private static FileStream Hold(string folder)
    {
        var path = System.IO.Path.Combine(folder, InUse);
        try
        {
            var held = new FileStream(path, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            held.SetLength(0);
            held.Write(System.Text.Encoding.ASCII.GetBytes(Environment.ProcessId.ToString(CultureInfo.InvariantCulture)));
            held.Flush();
            return held;
        }
        catch (IOException error) when (File.Exists(path) && !IsFull(error))
        {
            throw new InvalidDataException(
                $"Another Pyrometron is at work on {folder}. Stop it first, or name another folder with --data."
            );
        }
    }

    /// <summary>The operating system's number for "no space left on device" (POSIX ENOSPC on Linux).</summary>
    private const int NoSpaceLeft = 28;

    /// <summary>Whether the disk has no room left.</summary>
    public static bool IsFull(IOException error) => (error.HResult & 0xffff) == NoSpaceLeft;

    private void Clear()
    {
        foreach (var left in Directory.EnumerateFiles(Path, "*" + Unfinished))
            File.Delete(left);
        if (Directory.Exists(Uploads))
            Directory.Delete(Uploads, recursive: true);
        Directory.CreateDirectory(Uploads);
    }
}
