using System.Net;
using System.Net.Security;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Storage;

namespace Pyrometron.Server.Tests.Access;

/// <summary>HTTPS as a phone sees it: by the platform's own check of certificates, over a real connection.</summary>
public sealed class HttpsTests : IDisposable
{
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("pyrometron-https-");

    public void Dispose() => _folder.Delete(recursive: true);

    private sealed class Clock(DateTimeOffset now) : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = now;

        public override DateTimeOffset GetUtcNow() => Now;
    }

    private static Door DoorOf(params (string Name, string Value)[] settings) =>
        Door.From(
            new ConfigurationBuilder().AddInMemoryCollection(settings.ToDictionary(s => s.Name, s => (string?)s.Value)).Build()
        );

    private Certificates Of(Door door, TimeProvider? clock = null) =>
        new(
            door,
            Path.Combine(_folder.FullName, "certificates"),
            clock ?? TimeProvider.System,
            NullLogger<Certificates>.Instance
        );

    private string WritePem(string name, string host, DateTimeOffset until, bool otherKey = false)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        using var other = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest($"CN={host}", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        names.AddDnsName(host);
        request.CertificateExtensions.Add(names.Build());
        using var made = request.CreateSelfSigned(until.AddDays(-90), until);
        var path = Path.Combine(_folder.FullName, name);
        File.WriteAllText(path, made.ExportCertificatePem() + "\n" + (otherKey ? other : key).ExportPkcs8PrivateKeyPem() + "\n");
        return path;
    }

    [Fact]
    public async Task A_phone_that_has_the_root_trusts_the_house_under_its_names_and_no_other()
    {
        var builder = WebApplication.CreateBuilder();
        builder.Configuration.AddInMemoryCollection(
            new Dictionary<string, string?> { ["solo"] = "false", ["name"] = "house.test" }
        );
        builder.AddPyrometron(new ServerOptions(Path.Combine(_folder.FullName, "data"), 0, Demo: false));
        await using var app = builder.Build();
        app.Services.GetRequiredService<Database>();
        app.UsePyrometron();
        await app.StartAsync();
        var port = new Uri(app.Urls.First()).Port;
        using var root = X509CertificateLoader.LoadCertificate(app.Services.GetRequiredService<Certificates>().Root!);
        using var phone = Client(root, port);
        using var answer = await phone.GetAsync(new Uri($"https://house.test:{port}/api/v1/health"));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Equal(HttpVersion.Version20, answer.Version);
        // RFC 6797: told under its name only.
        Assert.Equal("max-age=31536000", Assert.Single(answer.Headers.GetValues("Strict-Transport-Security")));
        using var local = await phone.GetAsync(new Uri($"https://localhost:{port}/api/v1/health"));
        Assert.False(local.Headers.Contains("Strict-Transport-Security"));
        await Assert.ThrowsAsync<HttpRequestException>(() =>
            phone.GetAsync(new Uri($"https://elsewhere.test:{port}/api/v1/health"))
        );
        // Without the root nothing is trusted.
        using var stranger = Client(null, port);
        await Assert.ThrowsAsync<HttpRequestException>(() =>
            stranger.GetAsync(new Uri($"https://house.test:{port}/api/v1/health"))
        );
        await app.StopAsync();
    }

    /// <summary>A client for which all names lead to this machine.</summary>
    private static HttpClient Client(X509Certificate2? root, int port)
    {
        var policy = new X509ChainPolicy
        {
            TrustMode = X509ChainTrustMode.CustomRootTrust,
            RevocationMode = X509RevocationMode.NoCheck,
        };
        if (root is not null)
            policy.CustomTrustStore.Add(root);
        return new HttpClient(
            new SocketsHttpHandler
            {
                SslOptions = new SslClientAuthenticationOptions { CertificateChainPolicy = policy },
                ConnectCallback = async (_, cancellation) =>
                {
                    var socket = new System.Net.Sockets.Socket(
                        System.Net.Sockets.SocketType.Stream,
                        System.Net.Sockets.ProtocolType.Tcp
                    );
                    await socket.ConnectAsync(IPAddress.Loopback, port, cancellation);
                    return new System.Net.Sockets.NetworkStream(socket, ownsSocket: true);
                },
            }
        )
        {
            DefaultRequestVersion = HttpVersion.Version20,
        };
    }

    [Fact]
    public void What_is_made_here_is_kept_for_its_owner_alone_and_made_anew_in_time()
    {
        var clock = new Clock(DateTimeOffset.UtcNow);
        byte[] root;
        string serial;
        using (var first = Of(DoorOf(("solo", "false")), clock))
            (root, serial) = (first.Root!, first.Current.SerialNumber);
        using (var again = Of(DoorOf(("solo", "false")), clock))
            Assert.Equal(serial, again.Current.SerialNumber);
        foreach (var file in new DirectoryInfo(Path.Combine(_folder.FullName, "certificates")).GetFiles())
            Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, file.UnixFileMode);
        // Another name: another certificate under the same root.
        using (var named = Of(DoorOf(("solo", "false"), ("name", "bench.test")), clock))
        {
            Assert.NotEqual(serial, named.Current.SerialNumber);
            Assert.Equal(root, named.Root);
            serial = named.Current.SerialNumber;
            // While it runs, two months before its end.
            clock.Now = named.Current.NotAfter.ToUniversalTime().AddDays(-50);
            Assert.NotEqual(serial, named.Current.SerialNumber);
            Assert.True(named.Current.NotAfter.ToUniversalTime() > clock.Now.UtcDateTime.AddDays(300));
            Assert.Equal(root, named.Root);
        }
    }

    [Fact]
    public void The_houses_own_is_read_again_when_it_is_renewed_and_the_old_one_stays_where_the_new_one_is_no_good()
    {
        var clock = new Clock(DateTimeOffset.UtcNow);
        var path = WritePem("own.pem", "house.test", clock.Now.AddDays(10));
        using var certificates = Of(DoorOf(("solo", "false"), ("certificate", path)), clock);
        Assert.Null(certificates.Root);
        var first = certificates.Current.SerialNumber;
        WritePem("own.pem", "house.test", clock.Now.AddDays(80));
        File.SetLastWriteTimeUtc(path, clock.Now.UtcDateTime.AddMinutes(1));
        Assert.Equal(first, certificates.Current.SerialNumber);
        clock.Now += TimeSpan.FromMinutes(2);
        var second = certificates.Current.SerialNumber;
        Assert.NotEqual(first, second);
        File.WriteAllText(path, "-----BEGIN CERTIFICATE-----\nbroken\n");
        File.SetLastWriteTimeUtc(path, clock.Now.UtcDateTime.AddMinutes(3));
        clock.Now += TimeSpan.FromMinutes(2);
        Assert.Equal(second, certificates.Current.SerialNumber);
    }

    [Fact]
    public void One_that_cannot_be_used_is_told_with_what_to_do()
    {
        string Why(string path) =>
            Assert.Throws<InvalidDataException>(() => Of(DoorOf(("solo", "false"), ("certificate", path)))).Message;
        Assert.Contains(
            "ended",
            Why(WritePem("old.pem", "house.test", DateTimeOffset.UtcNow.AddDays(-1))),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "cannot be used",
            Why(WritePem("mixed.pem", "house.test", DateTimeOffset.UtcNow.AddDays(9), otherKey: true)),
            StringComparison.Ordinal
        );
        Assert.Contains("cannot be used", Why(Path.Combine(_folder.FullName, "none.pem")), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("listen", "0.0.0.0")]
    [InlineData("name", "house.test")]
    [InlineData("proxy", "10.0.0.1")]
    public void Without_accounts_nothing_beyond_this_machine_is_let_in(string name, string value) =>
        Assert.Contains(
            "--house",
            Assert.Throws<InvalidDataException>(() => DoorOf((name, value))).Message,
            StringComparison.Ordinal
        );

    [Theory]
    [InlineData("solo", "perhaps")]
    [InlineData("listen", "everywhere")]
    [InlineData("name", "https://house.test")]
    [InlineData("proxy", "proxy.test")]
    public void Settings_that_are_none_are_told(string name, string value) =>
        Assert.Contains(
            value,
            Assert
                .Throws<InvalidDataException>(() =>
                    name == "solo" ? DoorOf((name, value)) : DoorOf(("solo", "false"), (name, value))
                )
                .Message,
            StringComparison.Ordinal
        );
}
