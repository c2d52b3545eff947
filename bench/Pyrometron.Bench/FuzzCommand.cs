using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using Pyrometron.Bench.Fuzzing;

namespace Pyrometron.Bench;

/// <summary>
/// Requests made by chance against a server process of its own: no fault of the program, no growing memory, nothing that hangs.
/// </summary>
internal static class FuzzCommand
{
    /// <summary>What a server may take beyond its rest, MB.</summary>
    private const int MostMegabytes = 512;

    public static int Run(int seed, int count)
    {
        var folder = Directory.CreateTempSubdirectory("pyrometron-fuzz-");
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        var port = ((IPEndPoint)probe.LocalEndpoint).Port;
        probe.Stop();
        using var server = Process.Start(
            new ProcessStartInfo(
                "dotnet",
                [Path.Combine(AppContext.BaseDirectory, "Pyrometron.Server.dll"), "--data", folder.FullName, "--port", $"{port}"]
            )
            {
                RedirectStandardOutput = true,
            }
        )!;
        server.OutputDataReceived += (_, _) => { };
        server.BeginOutputReadLine();
        try
        {
            using var client = new HttpClient
            {
                BaseAddress = new Uri($"http://127.0.0.1:{port}"),
                Timeout = Timeout.InfiniteTimeSpan,
            };
            WaitFor(client);
            var rest = PeakMegabytes(server);
            var time = Stopwatch.StartNew();
            var run = FuzzRun.AgainstAsync(client, seed, count, atOnce: 8).GetAwaiter().GetResult();
            Console.WriteLine($"{count} requests from seed {seed} in {time.Elapsed.TotalSeconds:0} s");
            foreach (var (status, times) in run.ByStatus)
                Console.WriteLine($"  {status}: {times}");
            foreach (var fault in run.Faults.Take(20))
                Console.WriteLine($"  FAULT {fault}");
            var peak = PeakMegabytes(server);
            Console.WriteLine(
                $"faults: {run.Faults.Count}; peak memory {peak} MB, {peak - rest} MB beyond the {rest} MB of rest (bound {MostMegabytes})"
            );
            return run.Faults.Count == 0 && peak - rest <= MostMegabytes ? 0 : 1;
        }
        finally
        {
            server.Kill();
            server.WaitForExit();
            folder.Delete(recursive: true);
        }
    }

    private static void WaitFor(HttpClient client)
    {
        for (var i = 0; ; i++)
            try
            {
                client.GetStringAsync("/api/v1/health").GetAwaiter().GetResult();
                return;
            }
            catch (HttpRequestException) when (i < 200)
            {
                Thread.Sleep(100);
            }
    }

    private static long PeakMegabytes(Process process)
    {
        process.Refresh();
        return process.PeakWorkingSet64 / 1024 / 1024;
    }
}
