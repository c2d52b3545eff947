using System.Collections.Concurrent;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Pyrometron.Application.Bench;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Proof;
using Pyrometron.Devices;
using Pyrometron.Server.Access;
using Pyrometron.Server.Hosting;
using Pyrometron.Server.Proof;
using Pyrometron.Storage;

namespace Pyrometron.Server.Bench;

/// <summary>A sample of a run that is going on.</summary>
/// <param name="At">Now when omitted.</param>
/// <param name="Parts">°C by part.</param>
public sealed record LiveSample(
    DateTimeOffset? At,
    IReadOnlyDictionary<string, double>? Parts,
    double? AmbientCelsius,
    double? PowerWatts,
    double? ClockMhz,
    double? FanRpm,
    double? FanPercent
);

/// <summary>Samples, oldest first.</summary>
public sealed record LiveSamples(IReadOnlyList<LiveSample>? Samples);

/// <summary>A run as far as it has come.</summary>
/// <param name="Samples">How many have come in.</param>
/// <param name="Latest">The newest one.</param>
/// <param name="Run">The curve and where it leads; null with too few samples.</param>
/// <param name="Advice">Whether it is worth waiting on, one sentence.</param>
/// <param name="Rising">Whether a part still rises.</param>
public sealed record LiveAnswer(int Samples, LiveSample? Latest, RunLogAnswer? Run, string Advice, bool Rising, Message Message);

/// <summary>The simulated probe to attach.</summary>
/// <param name="Speed">Times faster than life, 1 to 600.</param>
public sealed record AttachProbe(double? Speed);

/// <summary>Simulated probes that are attached to jobs; a real one would send to the same place.</summary>
internal sealed class LiveRuns(SampleStore samples, BenchUseCases bench, TimeProvider clock) : IDisposable
{
    private readonly ConcurrentDictionary<long, Attached> _probes = new();

    /// <summary>A probe at work.</summary>
    private sealed record Attached(CancellationTokenSource Stop, Task Sending);

    /// <summary>Puts the simulated probe on a job, in place of the one that is there.</summary>
    /// <param name="minutes">How long it sends, minutes of the run.</param>
    public void Attach(long job, BenchProbe probe, double speed, double minutes)
    {
        Detach(job);
        var stop = new CancellationTokenSource();
        _probes[job] = new Attached(
            stop,
            Task.Run(() => SendAsync(job, probe, speed, minutes, stop.Token), CancellationToken.None)
        );
    }

    /// <summary>Takes the probe off.</summary>
    public void Detach(long job)
    {
        if (_probes.TryRemove(job, out var old))
            old.Stop.Cancel();
    }

    /// <summary>Takes all probes off and waits until none of them writes any more: the database goes after them.</summary>
    public void Dispose()
    {
        foreach (var (stop, _) in _probes.Values)
            stop.Cancel();
        Task.WaitAll([.. _probes.Values.Select(p => p.Sending)]);
    }

    private async Task SendAsync(long job, BenchProbe probe, double speed, double minutes, CancellationToken stop)
    {
        var start = clock.GetUtcNow();
        for (var minute = 0.0; minute <= minutes && !stop.IsCancellationRequested; minute += 1 / 6.0)
        {
            var sample = probe.At(minute);
            // Told in the run's own time: at twenty times life a run of twenty minutes is one of twenty minutes still.
            Add(
                Actor.Program,
                job,
                [
                    new LiveSample(
                        start.AddMinutes(minute),
                        sample.Celsius,
                        sample.AmbientCelsius,
                        sample.PowerWatts,
                        null,
                        null,
                        sample.FanPercent
                    ),
                ]
            );
            await Task.Delay(TimeSpan.FromMinutes(1 / 6.0 / speed), clock, stop)
                .ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    /// <summary>Keeps samples.</summary>
    public void Add(Actor actor, long job, IReadOnlyList<LiveSample> taken) =>
        bench.AddSamples(
            actor,
            job,
            [.. taken.Select(s => (s.At ?? clock.GetUtcNow(), JsonSerializer.Serialize(s, ApiJson.Options)))]
        );

    /// <summary>The run since an instant.</summary>
    public LiveAnswer Since(long job, DateTimeOffset from)
    {
        var taken = samples
            .Since(job, from)
            .Select(s => (s.At, Sample: JsonSerializer.Deserialize<LiveSample>(s.Sample, ApiJson.Options)!))
            .ToArray();
        if (taken.Length == 0)
            return new LiveAnswer(0, null, null, "No samples yet.", false, "No samples yet.");
        double[]? Channel(Func<LiveSample, double?> of) =>
            taken.Any(t => of(t.Sample) is not null) ? [.. taken.Select(t => of(t.Sample) ?? double.NaN)] : null;
        var parts = taken
            .SelectMany(t => t.Sample.Parts?.Keys ?? [])
            .Distinct()
            .Order(StringComparer.Ordinal)
            .Select(p =>
                (
                    p,
                    taken
                        .Select(t => t.Sample.Parts is { } celsius && celsius.TryGetValue(p, out var c) ? c : double.NaN)
                        .ToArray()
                )
            )
            .ToArray();
        var reading = RunReading.Of(
            new Core.Proof.RunLog(
                [.. taken.Select(t => (t.At - taken[0].At).TotalMinutes)],
                parts,
                Channel(s => s.AmbientCelsius),
                Channel(s => s.PowerWatts),
                Channel(s => s.ClockMhz),
                Channel(s => s.FanRpm),
                Channel(s => s.FanPercent)
            )
        );
        return new LiveAnswer(
            taken.Length,
            taken[^1].Sample,
            reading is null ? null : RunLogAnswer.From(reading),
            Advise(reading).ToString(),
            reading?.Parts.Any(p => !p.Settled.IsSettled) ?? false,
            Advise(reading)
        );
    }

    private static Message Advise(RunReading? run)
    {
        if (run is null)
            return "Too few samples yet to say where it leads.";
        if (run.Parts.Where(p => !p.Settled.IsSettled).MaxBy(p => Math.Abs(Left(p, run))) is not { } slowest)
            return "Settled: it can be stopped.";
        var left = Math.Abs(Left(slowest, run));
        var wait =
            left > SettledValue.RemainingKelvin
                ? slowest.Settled.TimeConstantMinutes * Math.Log(left / SettledValue.RemainingKelvin)
                : 1;
        return Message.Of(
            "Still rising: {part} has {left} to go. Let it run about {minutes} more.",
            Value.Part("part", slowest.Part),
            Value.Kelvin("left", left),
            Value.Minutes("minutes", Math.Clamp(Math.Ceiling(wait), 1, 60))
        );
    }

    private static double Left(SettledPart part, RunReading run) => part.Settled.SettledC - part.Settled.At(run.Minutes);
}

/// <summary>Samples in, curve out.</summary>
internal static class LiveRunEndpoints
{
    private const int MostAtOnce = 2000;

    public static void MapLiveRuns(this RouteGroupBuilder api)
    {
        var group = api.MapGroup("/jobs/{id:long}").WithTags("Bench");
        group.MapPost("/samples", Post);
        group
            .MapGet("/live", (long id, DateTimeOffset? from, LiveRuns live) => live.Since(id, from ?? DateTimeOffset.MinValue))
            .WithSummary("Samples of the run that is going on, from an instant on.");
        group.MapPost("/probe", Attach).Needs(Right.Work);
        group
            .MapDelete(
                "/probe",
                (long id, LiveRuns live) =>
                {
                    live.Detach(id);
                    return TypedResults.NoContent();
                }
            )
            .WithSummary("Takes the probe off the run.")
            .Needs(Right.Work);
    }

    /// <summary>Samples of a run that is going on.</summary>
    internal static Results<NoContent, ProblemHttpResult> Post(
        Caller caller,
        long id,
        LiveSamples request,
        JobStore jobs,
        LiveRuns live,
        TimeProvider clock
    )
    {
        if (jobs.Find(id) is null)
            return Problems.Missing($"There is no job {id}.");
        if (request.Samples is not { Count: > 0 and <= MostAtOnce } taken)
            return Problems.Input("/samples", $"samples is needed: 1 to {MostAtOnce} of them.");
        for (var i = 0; i < taken.Count; i++)
            if (
                taken[i] is not { Parts: { Count: > 0 and <= 12 } parts } sample
                || parts.Any(p => p.Key.Length > 40 || p.Value is not (>= -273.15 and <= 1000))
                || sample.At > clock.GetUtcNow().AddHours(6)
                || new[] { sample.PowerWatts, sample.ClockMhz, sample.FanRpm, sample.FanPercent }.Any(v => v is < 0 or > 1e6)
                || sample.AmbientCelsius is < -60 or > 100
            )
                return Problems.Input(
                    $"/samples/{i}",
                    "a sample needs parts with their °C (−273.15 to 1000); power, clock and fan are not negative, the air lies between −60 and 100 °C"
                );
        live.Add(caller.Actor, id, taken);
        return TypedResults.NoContent();
    }

    /// <summary>
    /// Puts the simulated probe that ships with the program on a job: it warms up as the machine's last judgement says it would.
    /// </summary>
    internal static async Task<Results<NoContent, ProblemHttpResult>> Attach(
        long id,
        AttachProbe request,
        JobStore jobs,
        FleetStore fleet,
        ReadingStore readings,
        LiveRuns live
    )
    {
        if (jobs.Find(id) is not { } job || fleet.Find(job.Tag) is not { } asset)
            return Problems.Missing($"There is no job {id}.");
        if (request.Speed is not (null or >= 1 and <= 600))
            return Problems.Input("/speed", "speed lies between 1 and 600 times life.");
        var run = NewestRun.From(asset, await Task.Run(() => readings.Newest(asset, 60)), null);
        var ambient = run?.Ambient?.Value ?? 24;
        var gone = job.WorkDoneAt is null ? 1 : 0.88;
        var rises =
            run?.Parts.ToDictionary(p => p.Part, p => Math.Max(5, p.Celsius.Value - ambient) * gone)
            ?? asset.Asset.Parts.ToDictionary(p => p.Name, p => 45.0 * gone);
        live.Attach(id, new BenchProbe(rises, ambient, run?.PowerWatts ?? 150, (int)(id * 7919)), request.Speed ?? 1, 30);
        return TypedResults.NoContent();
    }
}
