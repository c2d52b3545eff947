using System.Buffers;
using System.IO.Pipelines;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Connections;

namespace Pyrometron.Server.Hosting;

/// <summary>
/// A request that the web server itself cannot parse (a null character in its path, a broken header) never reaches the pipeline,
/// and its answer has no body. Here, between server and connection, it gets the problem document that all other errors have.
/// </summary>
internal static class UnparsedRequests
{
    private static readonly byte[] Empty = "HTTP/1.1 400 Bad Request\r\nContent-Length: 0\r\n"u8.ToArray();
    private static readonly byte[] Described = Describe();

    /// <summary>Wraps a connection.</summary>
    public static async Task OnConnection(ConnectionContext connection, ConnectionDelegate next)
    {
        var transport = connection.Transport;
        var answers = new Pipe();
        connection.Transport = new Duplex(transport.Input, answers.Writer);
        var copying = CopyAsync(answers.Reader, transport.Output);
        try
        {
            await next(connection);
        }
        finally
        {
            await answers.Writer.CompleteAsync();
            await copying;
            connection.Transport = transport;
        }
    }

    private sealed record Duplex(PipeReader Input, PipeWriter Output) : IDuplexPipe;

    private static async Task CopyAsync(PipeReader answers, PipeWriter output)
    {
        try
        {
            while (true)
            {
                var read = await answers.ReadAsync();
                var buffer = read.Buffer;
                if (buffer.Length >= Empty.Length && buffer.Slice(0, Empty.Length).ToArray().AsSpan().SequenceEqual(Empty))
                    output.Write(Described);
                else
                    foreach (var segment in buffer)
                        output.Write(segment.Span);
                answers.AdvanceTo(buffer.End);
                var flushed = await output.FlushAsync();
                if (flushed.IsCompleted || read.IsCompleted)
                    break;
            }
        }
        finally
        {
            await answers.CompleteAsync();
        }
    }

    private static byte[] Describe()
    {
        var body = JsonSerializer.Serialize(
            new
            {
                title = "The request cannot be read",
                status = 400,
                detail = "The address or a header of the request is not as HTTP wants it.",
            }
        );
        return Encoding.ASCII.GetBytes(
            $"HTTP/1.1 400 Bad Request\r\nContent-Type: application/problem+json\r\nContent-Length: {body.Length}\r\nConnection: close\r\n\r\n{body}"
        );
    }
}
