using Pyrometron.Application.Notices;
using Pyrometron.Devices;
using Pyrometron.Sending;
using Pyrometron.Storage;

namespace Pyrometron.Server.Notices;

/// <summary>
/// The demo's mail server and the demo's program that is called: both take what is sent and keep it in memory, so that nothing
/// leaves this machine. A house of one's own has none.
/// </summary>
internal sealed class StandIns : IHostedService, IDisposable
{
    private readonly AboutStore _about;
    private readonly NoticeStore _notices;
    private readonly NoticeUseCases _useCases;
    private MailStandIn? _mail;
    private WebhookStandIn? _program;

    public StandIns(AboutStore about, NoticeStore notices, NoticeUseCases useCases) =>
        (_about, _notices, _useCases) = (about, notices, useCases);

    /// <summary>Where mail goes in the demo; null in a house of one's own.</summary>
    public MailServer? MailServer =>
        _mail is { } mail ? new MailServer("127.0.0.1", mail.Port, "none", null, null, "pyrometron@institute.invalid") : null;

    /// <summary>What they took, the newest first.</summary>
    public StandInsAnswer Took =>
        new(
            [.. (_mail?.Mails ?? []).Reverse()],
            [.. (_program?.Calls ?? []).Reverse().Select(c => new StandInCall(c.Id, c.Body))]
        );

    /// <inheritdoc/>
    public Task StartAsync(CancellationToken cancellationToken)
    {
        if (_about.Data != "demo")
            return Task.CompletedTask;
        (_mail, _program) = (new MailStandIn(), new WebhookStandIn());
        // Its port is another one with each start.
        foreach (var chosen in _notices.Subscriptions().Values)
            if (chosen.WebhookUrl is { } url && url.StartsWith("http://127.0.0.1:", StringComparison.Ordinal))
                _useCases.Keep(Actor.Program, chosen with { WebhookUrl = _program.Url.ToString() });
        return Task.CompletedTask;
    }

    /// <inheritdoc/>
    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    /// <inheritdoc/>
    public void Dispose()
    {
        _mail?.Dispose();
        _program?.Dispose();
    }
}
