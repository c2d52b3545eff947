using Pyrometron.Server.Judging;

namespace Pyrometron.Server.Tests;

/// <summary>Days asked for besides the present one: shared, bounded, and given up when nobody asks any more.</summary>
public sealed class OtherDaysTests
{
    private static readonly TimeSpan Patient = TimeSpan.FromMinutes(1);
    private static readonly DateOnly First = new(2026, 1, 1);

    /// <summary>Work that goes on until it is let go or given up.</summary>
    private sealed class Work
    {
        private readonly TaskCompletionSource _let = new(TaskCreationOptions.RunContinuationsAsynchronously);
        private readonly TaskCompletionSource _begun = new(TaskCreationOptions.RunContinuationsAsynchronously);
        private readonly TaskCompletionSource _givenUp = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public int Times { get; private set; }

        public Task Begun => _begun.Task.WaitAsync(Patient);

        public Task GivenUp => _givenUp.Task.WaitAsync(Patient);

        public void LetGo() => _let.SetResult();

        public async Task Run(CancellationToken cancellation)
        {
            Times++;
            _begun.TrySetResult();
            try
            {
                await _let.Task.WaitAsync(cancellation);
            }
            catch (OperationCanceledException)
            {
                _givenUp.TrySetResult();
                throw;
            }
        }
    }

    private static OtherDays Days(int most, TimeSpan? lease = null) => new(most, lease ?? Patient, TimeProvider.System);

    [Fact]
    public async Task All_who_ask_for_a_day_wait_for_one_work()
    {
        using var days = Days(3);
        var work = new Work();
        var asked = Enumerable.Range(0, 10).Select(_ => days.WaitAsync(First, work.Run, Patient, default)).ToArray();
        await work.Begun;
        work.LetGo();
        Assert.All(await Task.WhenAll(asked), Assert.True);
        Assert.Equal((1, 0), (work.Times, days.Count));
    }

    [Fact]
    public async Task More_days_than_there_are_places_for_are_refused_while_others_wait_for_theirs()
    {
        using var days = Days(2);
        var (one, two) = (new Work(), new Work());
        var first = days.WaitAsync(First, one.Run, Patient, default);
        var second = days.WaitAsync(First.AddDays(1), two.Run, Patient, default);
        for (var day = 2; day < 102; day++)
            Assert.False(await days.WaitAsync(First.AddDays(day), _ => Task.CompletedTask, Patient, default));
        one.LetGo();
        two.LetGo();
        Assert.True(await first && await second);
    }

    /// <summary>A hundred callers who ask once and go leave no more work behind than there are places.</summary>
    [Fact]
    public async Task Days_that_nobody_waits_for_give_way_to_those_that_somebody_does()
    {
        using var days = Days(2);
        var works = Enumerable.Range(0, 100).Select(_ => new Work()).ToArray();
        for (var day = 0; day < 100; day++)
            Assert.True(await days.WaitAsync(First.AddDays(day), works[day].Run, TimeSpan.Zero, default));
        Assert.InRange(days.Count, 0, 2);
        Assert.All(works, w => Assert.True(w.Times <= 1));
    }

    [Fact]
    public async Task What_nobody_waits_for_any_more_is_given_up()
    {
        using var days = Days(2, TimeSpan.FromMilliseconds(30));
        var work = new Work();
        using var gone = new CancellationTokenSource();
        var asked = days.WaitAsync(First, work.Run, Patient, gone.Token);
        await work.Begun;
        await gone.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => asked);
        await work.GivenUp;
    }
}
