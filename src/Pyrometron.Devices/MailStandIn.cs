using System.Buffers;
using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Text;
using SmtpServer;
using SmtpServer.ComponentModel;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace Pyrometron.Devices;

/// <summary>
/// A stand-in for a mail server: it takes mail on this machine, keeps the newest ones in memory and sends nothing on.
/// </summary>
public sealed class MailStandIn : IDisposable
{
    private readonly Kept _kept = new();
    private readonly CancellationTokenSource _end = new();

    /// <summary>Starts it on a free port of this machine.</summary>
    public MailStandIn()
    {
        Port = FreePort.Find();
        var options = new SmtpServerOptionsBuilder()
            .ServerName("localhost")
            .Endpoint(e => e.Endpoint(new IPEndPoint(IPAddress.Loopback, Port)))
            .Build();
        var services = new ServiceProvider();
        services.Add(_kept);
        _ = new SmtpServer.SmtpServer(options, services).StartAsync(_end.Token);
    }

    /// <summary>Its port.</summary>
    public int Port { get; }

    /// <summary>What it answers to the next mails instead of taking them, such as 451; 0 for taking them.</summary>
    public int Refuses
    {
        get => _kept.Refuses;
        set => _kept.Refuses = value;
    }

    /// <summary>The mails it took, as they came, the newest last.</summary>
    public IReadOnlyList<string> Mails => [.. _kept.Mails];

    /// <inheritdoc/>
    public void Dispose() =>
        // Who is being served still looks at the token while the server ends: it is left to the collector.
        _end.Cancel();

    /// <summary>What the library hands mails to; it disposes of it after each of them where it can be disposed of.</summary>
    private sealed class Kept : MessageStore
    {
        private const int Most = 50;

        public ConcurrentQueue<string> Mails { get; } = new();

        public int Refuses { get; set; }

        public override Task<SmtpResponse> SaveAsync(
            ISessionContext context,
            IMessageTransaction transaction,
            ReadOnlySequence<byte> buffer,
            CancellationToken cancellationToken
        )
        {
            if (Refuses != 0)
                return Task.FromResult(
                    new SmtpResponse(
                        (SmtpReplyCode)Refuses,
                        string.Create(CultureInfo.InvariantCulture, $"refused with {Refuses}")
                    )
                );
            Mails.Enqueue(Encoding.UTF8.GetString(buffer));
            while (Mails.Count > Most)
                Mails.TryDequeue(out _);
            return Task.FromResult(SmtpResponse.Ok);
        }
    }
}

/// <summary>Finds a port of this machine that nobody listens on.</summary>
internal static class FreePort
{
    public static int Find()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }
}
