using Pyrometron.Core.Planning;
using Pyrometron.Planning;

namespace Pyrometron.Server.Planning;

/// <summary>Where plans are made: one at a time, whoever asks, since each takes the whole machine.</summary>
internal sealed class PlanningDesk(ILogger<PlanningDesk> log) : IDisposable
{
    private readonly SemaphoreSlim _turn = new(1);
    private readonly IPlanner _planner = Chosen(log);

    /// <summary>A plan; the waiting for a turn does not count.</summary>
    /// <param name="progress">Told of each better plan.</param>
    /// <param name="stop">Ends the thinking early: the best plan so far is the answer.</param>
    /// <param name="cancellation">Nobody waits for it any more.</param>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public async Task<Plan> SolveAsync(
        PlanProblem problem,
        double seconds,
        IProgress<Plan>? progress,
        CancellationToken stop,
        CancellationToken cancellation
    )
    {
        await _turn.WaitAsync(cancellation);
        try
        {
            using var either = CancellationTokenSource.CreateLinkedTokenSource(stop, cancellation);
            var plan = await Task.Run(() => _planner.Solve(problem, seconds, progress, either.Token), CancellationToken.None);
            cancellation.ThrowIfCancellationRequested();
            return plan;
        }
        finally
        {
            _turn.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _turn.Dispose();

    private static IPlanner Chosen(ILogger<PlanningDesk> log)
    {
        if (SolverPlanner.Available)
            return new SolverPlanner();
        log.LogWarning(
            "The solver's library cannot be loaded on this machine: plans are made greedily, and nothing says how good they are."
        );
        return new GreedyPlanner();
    }
}
