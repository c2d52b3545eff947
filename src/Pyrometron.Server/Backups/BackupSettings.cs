using Pyrometron.Server.Hosting;
using Pyrometron.Storage.Backups;

namespace Pyrometron.Server.Backups;

/// <summary>Where backups lie, what seals them, and how many are kept.</summary>
/// <param name="Folder">By default the folder <c>backups</c> beside the database; another disk is better.</param>
/// <param name="Passphrase">Null for plain backups.</param>
/// <param name="Hours">How often one is made by itself; 0 for never.</param>
internal sealed record BackupSettings(string Folder, string? Passphrase, Retention Retention, int Hours)
{
    private const int MostHours = 24 * 31,
        MostKept = 1000;

    /// <summary>
    /// Reads <c>Backup:Folder</c>, <c>Backup:Passphrase</c>, <c>Backup:Hours</c>, <c>Backup:Days</c>, <c>Backup:Weeks</c> and
    /// <c>Backup:Months</c>; in the environment <c>Backup__Folder</c> and so on, where a passphrase belongs.
    /// </summary>
    /// <exception cref="InvalidDataException">One of them is wrong.</exception>
    public static BackupSettings From(IConfiguration configuration, ServerOptions options)
    {
        var usual = Retention.Usual;
        int Number(string name, int otherwise, int most) =>
            configuration[$"Backup:{name}"] is not { } text ? otherwise
            : int.TryParse(text, out var number) && number >= 0 && number <= most ? number
            : throw new InvalidDataException($"Backup:{name} is '{text}'; use a whole number from 0 to {most}.");
        return new BackupSettings(
            configuration["Backup:Folder"] is { Length: > 0 } folder ? folder : Path.Combine(options.DataFolder, "backups"),
            configuration["Backup:Passphrase"] is { Length: > 0 } passphrase ? passphrase : null,
            new Retention(
                Number("Days", usual.Days, MostKept),
                Number("Weeks", usual.Weeks, MostKept),
                Number("Months", usual.Months, MostKept)
            ),
            Number("Hours", 24, MostHours)
        );
    }
}
