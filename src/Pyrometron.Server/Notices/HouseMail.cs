using System.Globalization;
using Pyrometron.Sending;

namespace Pyrometron.Server.Notices;

/// <summary>The mail server of the house, where one is set.</summary>
/// <param name="Server">Null for none.</param>
internal sealed record HouseMail(MailServer? Server)
{
    /// <summary>
    /// Reads <c>Mail:Host</c>, <c>Mail:Port</c>, <c>Mail:Security</c> (none, start-tls, tls), <c>Mail:User</c>,
    /// <c>Mail:Password</c> and <c>Mail:From</c>. In the environment these are <c>Mail__Host</c> and so on: a password belongs
    /// there, and nowhere else.
    /// </summary>
    /// <exception cref="InvalidDataException">One of them is wrong.</exception>
    public static HouseMail From(IConfiguration configuration)
    {
        var mail = configuration.GetSection("Mail");
        if (mail["Host"] is not { Length: > 0 } host)
            return new HouseMail(Server: null);
        var security = mail["Security"] ?? "start-tls";
        if (security is not ("none" or "start-tls" or "tls"))
            throw new InvalidDataException($"Mail:Security is '{security}'; use none, start-tls or tls.");
        var usual = security == "tls" ? 465 : 587;
        if (!int.TryParse(mail["Port"] ?? $"{usual}", CultureInfo.InvariantCulture, out var port) || port is < 1 or > 65535)
            throw new InvalidDataException($"Mail:Port is '{mail["Port"]}'; use a number from 1 to 65535.");
        var from = mail["From"];
        return MailSender.IsAddress(from)
            ? new HouseMail(new MailServer(host, port, security, mail["User"], mail["Password"], from!))
            : throw new InvalidDataException("Mail:From is needed with Mail:Host: the address that mails come from.");
    }
}
