namespace Pyrometron.Storage;

/// <summary>Machines that are built into others.</summary>
public static class HostStore
{
    /// <summary>The other machines in use that sit in the same host, 64 at most, by their tags.</summary>
    public static IReadOnlyList<string> Mates(Transaction t, string host, string but) =>
        t.Connection.Query(
            "SELECT tag FROM asset WHERE host_tag = $host AND tag <> $but AND retired_on IS NULL ORDER BY tag LIMIT 64",
            r => r.GetString(0),
            ("$host", host),
            ("$but", but)
        );
}
