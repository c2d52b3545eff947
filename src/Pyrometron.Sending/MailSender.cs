using System.Net.Sockets;
using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using Pyrometron.Core.Messages;

namespace Pyrometron.Sending;

/// <summary>The mail server of the house.</summary>
/// <param name="Security"><c>none</c>, <c>start-tls</c> or <c>tls</c>.</param>
/// <param name="User">Null where it asks for none.</param>
/// <param name="From">The address that mails come from.</param>
public sealed record MailServer(string Host, int Port, string Security, string? User, string? Password, string From);

/// <summary>A mail to send.</summary>
/// <param name="Id">The message's name: with the server's own name it becomes its Message-ID (RFC 5322, 3.6.4).</param>
/// <param name="Text">Plain text.</param>
public sealed record Mail(string To, string Subject, string Text, string Id, DateTimeOffset At);

/// <summary>Sends mail (RFC 5321) by the house's server.</summary>
public static class MailSender
{
    private const int PatienceMilliseconds = 15_000;

    /// <summary>Whether a text is one address that mail can be sent to.</summary>
    public static bool IsAddress(string? text) =>
        text is { Length: <= 254 }
        && !text.Any(char.IsControl)
        && MailboxAddress.TryParse(text, out var mailbox)
        && mailbox.Address == text.Trim()
        && text.IndexOf('@', StringComparison.Ordinal) is > 0 and var at
        && at < text.Length - 1;

    /// <summary>Makes one attempt.</summary>
    public static async Task<Attempt> SendAsync(MailServer server, Mail mail, CancellationToken cancellation)
    {
        using var message = new MimeMessage();
        message.From.Add(MailboxAddress.Parse(server.From));
        message.To.Add(MailboxAddress.Parse(mail.To));
        message.Subject = mail.Subject;
        message.Date = mail.At;
        message.MessageId = $"{mail.Id}@pyrometron.invalid";
        // Answers by machines (RFC 3834) are asked not to come.
        message.Headers.Add("Auto-Submitted", "auto-generated");
        message.Body = new TextPart("plain") { Text = mail.Text };
        using var client = new SmtpClient { Timeout = PatienceMilliseconds };
        try
        {
            await client.ConnectAsync(
                server.Host,
                server.Port,
                server.Security switch
                {
                    "tls" => SecureSocketOptions.SslOnConnect,
                    "start-tls" => SecureSocketOptions.StartTls,
                    _ => SecureSocketOptions.None,
                },
                cancellation
            );
            if (server.User is { } user)
                await client.AuthenticateAsync(user, server.Password ?? "", cancellation);
            await client.SendAsync(message, cancellation);
        }
        catch (SmtpCommandException refused)
        {
            var says = Message.Of(
                "The mail server refused it: {code} {words}",
                Value.Figure("code", (int)refused.StatusCode, "0"),
                Value.Text("words", refused.Message)
            );
            // RFC 5321, 4.2.1: 5yz will not go better as it stands, 4yz may.
            return (int)refused.StatusCode >= 500 ? Attempt.Never(says) : Attempt.Later(says);
        }
        catch (AuthenticationException refused)
        {
            return Attempt.Later(
                Message.Of("The mail server does not know this user ({why}).", Value.Text("why", refused.Message))
            );
        }
        catch (Exception error)
            when (error is SocketException or IOException or ProtocolException or TimeoutException or SslHandshakeException
                || error is ServiceNotConnectedException or NotSupportedException
            )
        {
            return Attempt.Later(
                Message.Of(
                    "The mail server could not be reached ({why}).",
                    Value.Text("why", error.Message.Split('\n')[0].Trim())
                )
            );
        }
        try
        {
            await client.DisconnectAsync(quit: true, cancellation);
        }
        catch (Exception error) when (error is SocketException or IOException or ProtocolException)
        {
            // It was taken: how the server says goodbye changes nothing.
        }
        return Attempt.Taken;
    }
}
