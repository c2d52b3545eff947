namespace Pyrometron.Bench.Tests;

/// <summary>
/// A short run of requests made by chance from the whole OpenAPI document, the same every time; the long one is the bench's.
/// RFC 9110 for the statuses, RFC 9457 for the bodies of errors.
/// </summary>
public class FuzzTests
{
    [Fact]
    public void No_request_breaks_the_server_fills_its_memory_or_hangs() =>
        Assert.Equal(0, FuzzCommand.Run(seed: 71, count: 3000));
}
