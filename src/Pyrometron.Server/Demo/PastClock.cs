namespace Pyrometron.Server.Demo;

/// <summary>A clock that stands at an instant of the past until it is put forward.</summary>
internal sealed class PastClock(DateTimeOffset now) : TimeProvider
{
    private DateTimeOffset _now = now;

    public void Forward(TimeSpan time) => _now += time;

    public override DateTimeOffset GetUtcNow() => _now;
}
