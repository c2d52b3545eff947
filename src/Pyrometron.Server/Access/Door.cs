using System.Net;
using System.Net.Sockets;

namespace Pyrometron.Server.Access;

/// <summary>Whom the server answers, and how it is reached.</summary>
/// <param name="Solo">Whether it is for one person at this machine: no accounts, no network.</param>
/// <param name="Listen">The address that it listens on.</param>
/// <param name="Names">Names and addresses under which it answers, without ports; small letters.</param>
/// <param name="Proxies">Addresses of reverse proxies in front of it that speak HTTPS for it; empty for none.</param>
/// <param name="CertificateFile">PEM or PFX; null for one made here.</param>
/// <param name="CertificateKeyFile">The key, where a PEM file does not hold it.</param>
/// <param name="CertificatePassword">Of the PFX file or the key; null for none.</param>
public sealed record Door(
    bool Solo,
    IPAddress Listen,
    IReadOnlySet<string> Names,
    IReadOnlyList<IPAddress> Proxies,
    string? CertificateFile,
    string? CertificateKeyFile,
    string? CertificatePassword
)
{
    private static readonly string[] OwnNames = ["localhost", "127.0.0.1", "::1"];

    /// <summary>Whether it speaks HTTPS itself.</summary>
    public bool SpeaksTls => !Solo && Proxies.Count == 0;

    /// <summary>
    /// Reads <c>--solo</c>, <c>--listen</c>, <c>--name</c>, <c>--proxy</c> (both several with commas), <c>--certificate</c>,
    /// <c>--certificate-key</c>, and <c>CertificatePassword</c>, which belongs into the environment.
    /// </summary>
    /// <exception cref="InvalidDataException">One of them is wrong, or they do not go together.</exception>
    public static Door From(IConfiguration configuration)
    {
        var solo =
            configuration["solo"] is not { } text
            || (
                bool.TryParse(text, out var wanted)
                    ? wanted
                    : throw new InvalidDataException($"--solo is '{text}'; use true or false.")
            );
        var listen = configuration["listen"] is { } at ? Address("--listen", at) : IPAddress.Loopback;
        var names = Listed(configuration["name"]);
        foreach (var name in names)
            if (Uri.CheckHostName(name) == UriHostNameType.Unknown)
                throw new InvalidDataException($"--name: '{name}' is no name of a host. Write it without https:// and port.");
        var proxies = Listed(configuration["proxy"]).Select(p => Address("--proxy", p)).ToArray();
        if (solo && (!IPAddress.IsLoopback(listen) || names.Count > 0 || proxies.Length > 0))
            throw new InvalidDataException(
                "Without accounts it answers this machine only. Add --house to ./run.sh (--solo false) to let others in."
            );
        return new Door(
            solo,
            listen,
            new HashSet<string>([.. OwnNames, .. names, .. solo ? [] : OwnOf(listen)]),
            proxies,
            configuration["certificate"] is { Length: > 0 } file ? file : null,
            configuration["certificate-key"] is { Length: > 0 } key ? key : null,
            configuration["CertificatePassword"] is { Length: > 0 } password ? password : null
        );
    }

    /// <summary>Whether it answers under a name.</summary>
    public bool IsCalled(string host) => Names.Contains(host.Trim('[', ']').ToLowerInvariant());

    /// <summary>The name that others should use: the first that is not of this machine alone.</summary>
    public string NameForOthers =>
        Names.Where(n => !OwnNames.Contains(n)).OrderBy(n => IPAddress.TryParse(n, out _)).FirstOrDefault() ?? "localhost";

    private static List<string> Listed(string? text) =>
        [
            .. (text ?? "")
                .Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .Select(n => n.ToLowerInvariant()),
        ];

    private static IPAddress Address(string option, string text) =>
        IPAddress.TryParse(text, out var address)
            ? address
            : throw new InvalidDataException($"{option}: '{text}' is no address; write it in figures, such as 0.0.0.0 for all.");

    /// <summary>What this machine is called where it listens on all addresses, or on one that others reach.</summary>
    private static IEnumerable<string> OwnOf(IPAddress listen)
    {
        if (IPAddress.IsLoopback(listen))
            return [];
        if (!listen.Equals(IPAddress.Any) && !listen.Equals(IPAddress.IPv6Any))
            return [listen.ToString()];
        var name = Dns.GetHostName().ToLowerInvariant();
        return
        [
            name,
            .. System
                .Net.NetworkInformation.NetworkInterface.GetAllNetworkInterfaces()
                .SelectMany(i => i.GetIPProperties().UnicastAddresses)
                .Select(a => a.Address)
                .Where(a =>
                    a.AddressFamily is AddressFamily.InterNetwork
                    || (a.AddressFamily is AddressFamily.InterNetworkV6 && !a.IsIPv6LinkLocal)
                )
                .Where(a => !IPAddress.IsLoopback(a))
                .Select(a => a.ToString()),
        ];
    }
}
