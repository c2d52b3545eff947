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
    /// <summary>How such an answer goes on after its first line.</summary>
    private static readonly byte[] NoBody = "\r\nContent-Length: 0\r\nConnection: close\r\n"u8.ToArray();

    private const int LongestFirstLine = 64;

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
                if (FirstLineWithoutBody(buffer) is { } line)
                    output.Write(Describe(line));
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

    /// <summary>The first line of an answer "4xx" without a body, such as <c>HTTP/1.1 414 URI Too Long</c>; else null.</summary>
    private static string? FirstLineWithoutBody(ReadOnlySequence<byte> answer)
    {
        Span<byte> start = stackalloc byte[LongestFirstLine + NoBody.Length];
        var length = (int)Math.Min(start.Length, answer.Length);
        answer.Slice(0, length).CopyTo(start);
        start = start[..length];
        var end = start.IndexOf("\r\n"u8);
        return start.StartsWith("HTTP/1.1 4"u8) && end > 0 && start[end..].StartsWith(NoBody)
            ? Encoding.ASCII.GetString(start[..end])
            : null;
    }

    private static byte[] Describe(string firstLine)
    {
        var body = JsonSerializer.Serialize(
            new
            {
                title = firstLine[13..],
                status = int.Parse(firstLine.AsSpan(9, 3), System.Globalization.CultureInfo.InvariantCulture),
                detail = "The address or a header of the request is not as HTTP wants it.",
            }
        );
        return Encoding.ASCII.GetBytes(
            $"{firstLine}\r\nContent-Type: application/problem+json\r\nContent-Length: {body.Length}\r\nConnection: close\r\n\r\n{body}"
        );
    }
}
