using Pyrometron.Core.Cutting;
using Pyrometron.Planning;
using Pyrometron.Planning.Cutting;

namespace Pyrometron.Server.Materials;

/// <summary>Where cutting plans are made: one at a time, since each takes the whole machine for a second or two.</summary>
internal sealed class CuttingDesk : IDisposable
{
    /// <summary>What is found until then is the answer.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(8);

    private readonly SemaphoreSlim _turn = new(1);
    private readonly ICutter _cutter = SolverPlanner.Available ? new SolverCutter() : new GreedyCutter();

    /// <summary>A plan; the waiting for a turn does not count.</summary>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public async Task<CuttingPlan> CutAsync(CuttingProblem problem, CancellationToken cancellation)
    {
        await _turn.WaitAsync(cancellation);
        try
        {
            using var over = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
            over.CancelAfter(Patience);
            var plan = await Task.Run(() => _cutter.Cut(problem, over.Token), CancellationToken.None);
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
}
