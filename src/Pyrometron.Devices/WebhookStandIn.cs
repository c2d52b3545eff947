using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Text;

namespace Pyrometron.Devices;

/// <summary>A call that came in.</summary>
/// <param name="Id">Of the header <c>webhook-id</c>.</param>
/// <param name="Seconds">Of the header <c>webhook-timestamp</c>, seconds since 1970.</param>
/// <param name="Signature">Of the header <c>webhook-signature</c>.</param>
public sealed record ReceivedCall(string Id, long Seconds, string Signature, string Body);

/// <summary>A stand-in for a program of the house that is called: it keeps the newest calls in memory.</summary>
public sealed class WebhookStandIn : IDisposable
{
    private const int Kept = 50;

    private readonly ConcurrentQueue<ReceivedCall> _calls = new();
    private readonly HttpListener _listener = new();

    /// <summary>Starts it on a free port of this machine.</summary>
    public WebhookStandIn()
    {
        Url = new Uri(string.Create(CultureInfo.InvariantCulture, $"http://127.0.0.1:{FreePort.Find()}/hook/"));
        _listener.Prefixes.Add(Url.ToString());
        _listener.Start();
        _ = ListenAsync();
    }

    /// <summary>Where it is called.</summary>
    public Uri Url { get; }

    /// <summary>What it answers.</summary>
    public int Answers { get; set; } = 204;

    /// <summary>The calls, the newest last; also those that it refused.</summary>
    public IReadOnlyList<ReceivedCall> Calls => [.. _calls];

    /// <inheritdoc/>
    public void Dispose() => _listener.Close();

    private async Task ListenAsync()
    {
        while (_listener.IsListening)
            try
            {
                var context = await _listener.GetContextAsync();
                using var reader = new StreamReader(context.Request.InputStream, Encoding.UTF8);
                var headers = context.Request.Headers;
                _calls.Enqueue(
                    new ReceivedCall(
                        headers["webhook-id"] ?? "",
                        long.TryParse(headers["webhook-timestamp"], CultureInfo.InvariantCulture, out var seconds) ? seconds : 0,
                        headers["webhook-signature"] ?? "",
                        await reader.ReadToEndAsync()
                    )
                );
                while (_calls.Count > Kept)
                    _calls.TryDequeue(out _);
                context.Response.StatusCode = Answers;
                context.Response.Close();
            }
            catch (Exception error) when (error is HttpListenerException or ObjectDisposedException or IOException)
            {
                // The caller went away, or it was told to end.
            }
    }
}
