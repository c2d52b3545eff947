using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Text;
using Pyrometron.Core.Messages;

namespace Pyrometron.Sending;

/// <summary>A call of somebody's program.</summary>
/// <param name="Id">The message's name, the same in all attempts.</param>
/// <param name="Body">JSON.</param>
public sealed record WebhookCall(Uri Url, string Secret, string Id, string Body);

/// <summary>
/// Calls programs of the house: a POST of JSON with a signature. It follows no redirects and goes to no link-local address, where
/// machines of a data centre answer questions about themselves.
/// </summary>
public sealed class WebhookSender : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    private readonly HttpClient _client = new(
        new SocketsHttpHandler
        {
            AllowAutoRedirect = false,
            UseCookies = false,
            UseProxy = false,
            ConnectTimeout = Patience,
            PooledConnectionLifetime = TimeSpan.FromMinutes(1),
            ConnectCallback = ConnectAsync,
        }
    )
    {
        Timeout = Patience,
        MaxResponseContentBufferSize = 64 * 1024,
    };

    /// <summary>Why an address is not called; null for one that is.</summary>
    public static Message? Refuses(string url) =>
        !Uri.TryCreate(url, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https")
            ? "An address begins with https:// or http://."
        : uri.UserInfo.Length > 0 || uri.Fragment.Length > 0 ? "An address without a name, a password or a # in it is needed."
        : IPAddress.TryParse(uri.DnsSafeHost, out var ip) && !MayCall(ip) ? "This address is not one of a program."
        : null;

    /// <summary>Makes one attempt.</summary>
    /// <param name="now">The instant that is signed.</param>
    public async Task<Attempt> SendAsync(WebhookCall call, DateTimeOffset now, CancellationToken cancellation)
    {
        var seconds = now.ToUnixTimeSeconds();
        using var request = new HttpRequestMessage(HttpMethod.Post, call.Url);
        request.Content = new StringContent(call.Body, Encoding.UTF8, "application/json");
        request.Headers.Add("webhook-id", call.Id);
        request.Headers.Add("webhook-timestamp", seconds.ToString(CultureInfo.InvariantCulture));
        request.Headers.Add("webhook-signature", new WebhookSecret(call.Secret).Sign(call.Id, seconds, call.Body));
        try
        {
            using var answer = await _client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancellation);
            var status = (int)answer.StatusCode;
            return status is >= 200 and < 300 ? Attempt.Taken
                : status == 410 ? Attempt.Never("The program answered 410: it wants no more calls. Give another address.")
                : status is >= 300 and < 400
                    ? Attempt.Later($"The program answered {status}, another address: redirects are not followed.")
                : Attempt.Later($"The program answered {status}.");
        }
        catch (OperationCanceledException) when (!cancellation.IsCancellationRequested)
        {
            return Attempt.Later($"The program did not answer within {(int)Patience.TotalSeconds} seconds.");
        }
        catch (HttpRequestException error)
        {
            return Attempt.Later(
                Message.Of(
                    "The program could not be reached ({why}).",
                    Value.Text("why", (error.InnerException ?? error).Message)
                )
            );
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _client.Dispose();

    /// <summary>Looked at where the connection is made: a name may stand for another address each time.</summary>
    private static async ValueTask<Stream> ConnectAsync(SocketsHttpConnectionContext context, CancellationToken cancellation)
    {
        var host = context.DnsEndPoint.Host;
        var addresses = (await Dns.GetHostAddressesAsync(host, cancellation)).Where(MayCall).ToArray();
        if (addresses.Length == 0)
            throw new HttpRequestException($"{host} is no address of a program");
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(addresses, context.DnsEndPoint.Port, cancellation);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }

    private static bool MayCall(IPAddress address)
    {
        var ip = address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address;
        if (ip.IsIPv6LinkLocal || ip.IsIPv6Multicast || ip.Equals(IPAddress.Any) || ip.Equals(IPAddress.IPv6Any))
            return false;
        var bytes = ip.GetAddressBytes();
        return bytes.Length != 4 || (bytes is not [169, 254, ..] && bytes[0] < 224);
    }
}
