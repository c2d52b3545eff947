using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Pyrometron.Server.Access;

/// <summary>
/// The certificate of the house: its own, read again when its file changes, or one made here and signed by an authority made
/// here, whose root is put on phones once.
/// </summary>
internal sealed class Certificates : IDisposable
{
    private const string AuthorityFile = "authority.pfx",
        ServerFile = "server.pfx";

    /// <summary>How often files are looked at, and the age of what was made here.</summary>
    private static readonly TimeSpan LookEvery = TimeSpan.FromMinutes(1);

    /// <summary>Longer ones are refused by some phones (825 days, from memory).</summary>
    private static readonly TimeSpan ServerLife = TimeSpan.FromDays(398);

    private static readonly TimeSpan AuthorityLife = TimeSpan.FromDays(3652);

    /// <summary>One made here is made anew when so little of its life is left.</summary>
    private static readonly TimeSpan RenewBefore = TimeSpan.FromDays(60);

    private readonly Door _door;
    private readonly string _folder;
    private readonly TimeProvider _clock;
    private readonly ILogger _log;
    private readonly Lock _lock = new();
    private X509Certificate2 _current;
    private DateTime _written;
    private DateTimeOffset _lookedAt;

    /// <param name="folder">Where what is made here lies.</param>
    /// <exception cref="InvalidDataException">The house's own cannot be used.</exception>
    public Certificates(Door door, string folder, TimeProvider clock, ILogger<Certificates> log)
    {
        (_door, _folder, _clock, _log) = (door, folder, clock, log);
        _current = Read();
        _lookedAt = clock.GetUtcNow();
    }

    /// <summary>The one to be shown now.</summary>
    public X509Certificate2 Current
    {
        get
        {
            lock (_lock)
            {
                if (_clock.GetUtcNow() - _lookedAt > LookEvery)
                {
                    _lookedAt = _clock.GetUtcNow();
                    Look();
                }
                return _current;
            }
        }
    }

    /// <summary>The root of the authority made here, DER; null where the house has a certificate of its own.</summary>
    public byte[]? Root
    {
        get
        {
            if (_door.CertificateFile is not null)
                return null;
            using var authority = Load(Path.Combine(_folder, AuthorityFile));
            return authority.Export(X509ContentType.Cert);
        }
    }

    /// <summary>SHA-256 of the root, to be compared by eye on the phone; null where there is none.</summary>
    public string? RootFingerprint =>
        Root is { } root
            ? string.Join(
                ':',
                SHA256.HashData(root).Select(b => b.ToString("X2", System.Globalization.CultureInfo.InvariantCulture))
            )
            : null;

    /// <summary>A folder that nobody else on this machine may look into, made where it is not there.</summary>
    public static DirectoryInfo OwnFolder(string path)
    {
        var folder = Directory.CreateDirectory(path);
        if (!OperatingSystem.IsWindows())
            folder.UnixFileMode = UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute;
        return folder;
    }

    /// <inheritdoc/>
    public void Dispose() => _current.Dispose();

    private void Look()
    {
        if (_door.CertificateFile is { } file ? File.GetLastWriteTimeUtc(file) == _written : Lasts(_current))
            return;
        try
        {
            // The one before may still be in use by a connection that is being made.
            _current = Read();
            _log.LogInformation("The certificate was read again; it ends {Until:u}", _current.NotAfter.ToUniversalTime());
        }
        catch (InvalidDataException error)
        {
            _log.LogError("The certificate before stays in use. {Why}", error.Message);
        }
    }

    private X509Certificate2 Read() => _door.CertificateFile is { } file ? ReadOwn(file) : Make();

    private X509Certificate2 ReadOwn(string file)
    {
        try
        {
            _written = File.GetLastWriteTimeUtc(file);
            var password = _door.CertificatePassword;
            var isPem = File.ReadAllText(file).Contains("-----BEGIN", StringComparison.Ordinal);
            using var read =
                !isPem ? X509CertificateLoader.LoadPkcs12FromFile(file, password)
                : password is null ? X509Certificate2.CreateFromPemFile(file, _door.CertificateKeyFile)
                : X509Certificate2.CreateFromEncryptedPemFile(file, password, _door.CertificateKeyFile);
            if (!read.HasPrivateKey)
                throw new InvalidDataException($"{file} holds no private key; name its file with --certificate-key.");
            if (read.NotAfter.ToUniversalTime() < _clock.GetUtcNow().UtcDateTime)
                throw new InvalidDataException(
                    FormattableString.Invariant($"The certificate in {file} ended {read.NotAfter.ToUniversalTime():u}. Renew it.")
                );
            // Read once more from a form that the platform's TLS takes as it is.
            return X509CertificateLoader.LoadPkcs12(read.Export(X509ContentType.Pkcs12), null);
        }
        catch (Exception error)
            // A key that is not the certificate's is an argument to the framework.
            when (error is CryptographicException or ArgumentException or IOException or UnauthorizedAccessException)
        {
            throw new InvalidDataException(
                $"The certificate {file} cannot be used: {error.Message} Look at the file, its key (--certificate-key) and its password.",
                error
            );
        }
    }

    private X509Certificate2 Make()
    {
        OwnFolder(_folder);
        var (authorityPath, serverPath) = (Path.Combine(_folder, AuthorityFile), Path.Combine(_folder, ServerFile));
        if (!File.Exists(authorityPath))
            Keep(authorityPath, MakeAuthority());
        if (File.Exists(serverPath))
        {
            var known = Load(serverPath);
            if (Lasts(known) && IsForAll(known))
                return known;
            known.Dispose();
        }
        using var authority = Load(authorityPath);
        Keep(serverPath, MakeServer(authority));
        return Load(serverPath);
    }

    private bool Lasts(X509Certificate2 certificate) =>
        certificate.NotAfter.ToUniversalTime() - _clock.GetUtcNow().UtcDateTime > RenewBefore;

    private bool IsForAll(X509Certificate2 certificate)
    {
        var named = certificate.Extensions.OfType<X509SubjectAlternativeNameExtension>().Single();
        return _door.Names.All(n =>
            IPAddress.TryParse(n, out var address)
                ? named.EnumerateIPAddresses().Contains(address)
                : named.EnumerateDnsNames().Contains(n)
        );
    }

    private X509Certificate2 MakeAuthority()
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        // A name that tells one house's authority from another's in a phone's list.
        var which = Convert.ToHexString(RandomNumberGenerator.GetBytes(3));
        var request = new CertificateRequest($"CN=Pyrometron authority {which}", key, HashAlgorithmName.SHA256);
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, true, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.KeyCertSign, true));
        request.CertificateExtensions.Add(new X509SubjectKeyIdentifierExtension(request.PublicKey, false));
        var now = _clock.GetUtcNow();
        return request.CreateSelfSigned(now.AddDays(-1), now + AuthorityLife);
    }

    private X509Certificate2 MakeServer(X509Certificate2 authority)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest("CN=Pyrometron", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        foreach (var name in _door.Names)
            if (IPAddress.TryParse(name, out var address))
                names.AddIpAddress(address);
            else
                names.AddDnsName(name);
        request.CertificateExtensions.Add(names.Build());
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(false, false, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.DigitalSignature, true));
        request.CertificateExtensions.Add(new X509EnhancedKeyUsageExtension([new Oid("1.3.6.1.5.5.7.3.1")], false));
        request.CertificateExtensions.Add(
            X509AuthorityKeyIdentifierExtension.CreateFromCertificate(
                authority,
                includeKeyIdentifier: true,
                includeIssuerAndSerial: false
            )
        );
        var now = _clock.GetUtcNow();
        var until = now + ServerLife < authority.NotAfter ? now + ServerLife : authority.NotAfter;
        using var signed = request.Create(authority, now.AddDays(-1), until, RandomNumberGenerator.GetBytes(16));
        return signed.CopyWithPrivateKey(key);
    }

    /// <summary>Writes one with its key so that nobody else on this machine reads it.</summary>
    private static void Keep(string path, X509Certificate2 certificate)
    {
        using (certificate)
        {
            var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.Write };
            if (!OperatingSystem.IsWindows())
                options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
            using var file = new FileStream(path, options);
            file.Write(certificate.Export(X509ContentType.Pkcs12));
        }
    }

    private static X509Certificate2 Load(string path)
    {
        try
        {
            return X509CertificateLoader.LoadPkcs12FromFile(path, null, X509KeyStorageFlags.Exportable);
        }
        catch (CryptographicException error)
        {
            throw new InvalidDataException(
                $"{path} cannot be read: {error.Message} Delete it, and another is made; after a new authority its root must be put on each phone again.",
                error
            );
        }
    }
}
