using System.Diagnostics;
using System.Globalization;
using System.IO.Compression;
using System.Text;
using Pyrometron.Application.Fleet;
using Pyrometron.Application.Imports;
using Pyrometron.Bench.Scoring;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Statistics;
using Pyrometron.Formats.Fleet;
using Pyrometron.Storage;

namespace Pyrometron.Bench;

/// <summary>
/// Measures speeds by hand; where something comparable exists it is timed in the same run and the ratio is printed.
/// </summary>
internal static class SpeedCommand
{
    private const int Lines = 100_000;

    public static int Run(string folder)
    {
        var work = Directory.CreateTempSubdirectory("pyrometron-bench-").FullName;
        try
        {
            var csv = Path.Combine(work, "readings.csv");
            TakeLines(Path.Combine(folder, "readings.csv.gz"), csv);
            Import(folder, csv, work);
            Judge(folder, work);
            TheilSenAgainstSciPy();
            Queue(folder, work).GetAwaiter().GetResult();
            return 0;
        }
        finally
        {
            Directory.Delete(work, recursive: true);
        }
    }

    private static void TakeLines(string packed, string csv)
    {
        using var reader = new StreamReader(new GZipStream(File.OpenRead(packed), CompressionMode.Decompress));
        using var writer = new StreamWriter(csv);
        for (var i = 0; i <= Lines && reader.ReadLine() is { } line; i++)
            writer.Write(line + "\n");
    }

    private static void Import(string folder, string csv, string work)
    {
        var best = Best(
            3,
            run =>
            {
                using var database = Database.Open(Path.Combine(work, $"import-{run}.db"));
                new FleetUseCases(database, TimeProvider.System).Import(Actor.Program, TrialFleet.RegisterOf(folder));
                var clock = Stopwatch.StartNew();
                using var file = File.OpenRead(csv);
                new ReadingsImport(database, Actor.Program, DateTimeOffset.UtcNow, 100)
                    .RunAsync(file, (_, _) => { }, default)
                    .GetAwaiter()
                    .GetResult();
                return clock.Elapsed;
            }
        );
        Print(
            $"import of {Lines} lines, checked line by line: {best.TotalSeconds:0.00} s, {Lines / best.TotalSeconds:0} lines/s"
        );
        if (Which("sqlite3"))
        {
            var raw = Best(
                3,
                run =>
                    Time(
                        "sqlite3",
                        Path.Combine(work, $"raw-{run}.db"),
                        "CREATE TABLE r (time TEXT, asset TEXT, a, p, c, h, m, cpu, gpu, rpm, pct, s, w, PRIMARY KEY (asset, time)) WITHOUT ROWID;",
                        ".mode csv",
                        $".import --skip 1 {csv} r"
                    )
            );
            Print(
                $"  sqlite3 .import of the same rows, unchecked: {raw.TotalSeconds:0.00} s; ours runs at {raw / best:0.00} of its speed"
            );
        }
    }

    private static void Judge(string folder, string work)
    {
        var register = TrialFleet.RegisterOf(folder);
        using var database = Database.Open(Path.Combine(work, "import-0.db"));
        var stored = new FleetStore(database).All().ToDictionary(a => a.Asset.Tag);
        var store = new ReadingStore(database);
        // 200 machines with 1,400 readings each: the fullest ones of the trial fleet, met more than once.
        var full = register.Assets.Where(a => a.Kind is AssetKind.GraphicsCard or AssetKind.Server).ToArray();
        var fleet = register with
        {
            Assets =
            [
                .. Enumerable
                    .Range(0, 200)
                    .Select(i => full[i % full.Length] with { Tag = $"{full[i % full.Length].Tag}/{i / full.Length}" }),
            ],
        };
        var readings = 0;
        var took = Best(
            3,
            _ =>
            {
                readings = 0;
                var clock = Stopwatch.StartNew();
                using var reader = store.Series(long.MaxValue);
                new FleetJudge(
                    new JudgementBasis(
                        fleet,
                        new DateOnly(2025, 9, 25),
                        JudgementPolicy.Default,
                        asset =>
                        {
                            var series = reader.Read(stored[asset.Tag.Split('/')[0]]);
                            Interlocked.Add(ref readings, series.Count);
                            return series;
                        }
                    )
                    {
                        Threads = Environment.ProcessorCount,
                    }
                ).JudgeAll();
                return clock.Elapsed;
            }
        );
        Print(
            $"judging 200 machines, {readings} readings, from the database: {took.TotalSeconds:0.00} s, {readings / took.TotalSeconds:0} readings/s, {took.TotalMilliseconds / 200:0.0} ms a machine"
        );
    }

    private static void TheilSenAgainstSciPy()
    {
        var random = new Random(5);
        var (t, y) = (
            Enumerable.Range(0, 1400).Select(i => i / 4.0).ToArray(),
            Enumerable.Range(0, 1400).Select(i => i * 0.01 + random.NextDouble() * 3).ToArray()
        );
        // Enough rounds for the runtime to have compiled it to the end.
        var ours = Best(
            200,
            _ =>
            {
                var clock = Stopwatch.StartNew();
                TheilSen.Fit(t, y);
                return clock.Elapsed;
            }
        );
        Print($"Theil–Sen with interval, 1,400 points: {ours.TotalMilliseconds:0.0} ms");
        var script = string.Create(
            CultureInfo.InvariantCulture,
            $"import time, numpy as np\nfrom scipy.stats import theilslopes\nr = np.random.default_rng(5); t = np.arange(1400) / 4; y = t * 0.04 + r.random(1400) * 3\nb = []\nfor _ in range(5):\n  s = time.perf_counter(); theilslopes(y, t); b.append(time.perf_counter() - s)\nprint(min(b))"
        );
        if (Which("/usr/bin/python3") && Output("/usr/bin/python3", "-c", script) is { Length: > 0 } seconds)
        {
            var theirs = double.Parse(seconds, CultureInfo.InvariantCulture) * 1000;
            Print($"  SciPy's theilslopes: {theirs:0.0} ms; ours is {theirs / ours.TotalMilliseconds:0.0} times as fast");
        }
    }

    /// <summary>The queue's answer at 10,000 machines, from a server of its own.</summary>
    private static async Task Queue(string folder, string work)
    {
        var root = Path.GetFullPath(Path.Combine(folder, "..", ".."));
        const int port = 5399;
        using var server = Process.Start(
            new ProcessStartInfo(
                "dotnet",
                [
                    Path.Combine(root, "src/Pyrometron.Server/bin/Release/net10.0/Pyrometron.Server.dll"),
                    "--data",
                    Path.Combine(work, "server"),
                    "--port",
                    $"{port}",
                ]
            )
            {
                RedirectStandardOutput = true,
            }
        )!;
        try
        {
            using var client = new HttpClient
            {
                BaseAddress = new Uri($"http://127.0.0.1:{port}"),
                Timeout = TimeSpan.FromMinutes(5),
            };
            for (var i = 0; i < 100 && !await Answers(client); i++)
                await Task.Delay(100);
            var register = TrialFleet.RegisterOf(folder);
            var many = register with
            {
                Assets = [.. Enumerable.Range(0, 10_000).Select(i => register.Assets[i % 160] with { Tag = $"M-{i:00000}" })],
            };
            using var json = new MemoryStream();
            FleetDocument.Write(json, many);
            (
                await client.PostAsync(new Uri("/api/v1/fleet", UriKind.Relative), new ByteArrayContent(json.ToArray()))
            ).EnsureSuccessStatusCode();
            var csv = new StringBuilder("time,asset,ambient_c,power_w,core_c,cpu_c,fan_pct,workload\n");
            for (var day = 1; day <= 8; day++)
            for (var i = 0; i < 10_000; i++)
                csv.Append(
                    CultureInfo.InvariantCulture,
                    $"2025-09-{day * 3:00}T06:00Z,M-{i:00000},24,200,{60 + i % 20},{60 + i % 20},50,full\n"
                );
            (
                await client.PostAsync(new Uri("/api/v1/readings", UriKind.Relative), new StringContent(csv.ToString()))
            ).EnsureSuccessStatusCode();
            await client.GetStringAsync(new Uri("/api/v1/queue?limit=1&wait=120", UriKind.Relative));
            foreach (var (limit, what) in ((string, string)[])[("100", "first 100"), ("all", "all")])
            {
                var took = TimeSpan.MaxValue;
                var length = 0;
                for (var i = 0; i < 10; i++)
                {
                    var clock = Stopwatch.StartNew();
                    length = (await client.GetStringAsync(new Uri($"/api/v1/queue?limit={limit}", UriKind.Relative))).Length;
                    took = clock.Elapsed < took ? clock.Elapsed : took;
                }
                Print($"queue answer at 10,000 machines, {what}: {took.TotalMilliseconds:0} ms, {length / 1024} KiB");
            }
        }
        finally
        {
            server.Kill();
        }
    }

    private static async Task<bool> Answers(HttpClient client)
    {
        try
        {
            return (await client.GetAsync(new Uri("/api/v1/health", UriKind.Relative))).IsSuccessStatusCode;
        }
        catch (HttpRequestException)
        {
            return false;
        }
    }

    private static TimeSpan Best(int runs, Func<int, TimeSpan> run) => Enumerable.Range(0, runs).Select(run).Min();

    private static bool Which(string program) =>
        Path.IsPathRooted(program)
            ? File.Exists(program)
            : (Environment.GetEnvironmentVariable("PATH") ?? "")
                .Split(':')
                .Any(folder => File.Exists(Path.Combine(folder, program)));

    private static TimeSpan Time(string program, params string[] arguments)
    {
        var clock = Stopwatch.StartNew();
        Output(program, arguments);
        return clock.Elapsed;
    }

    private static string Output(string program, params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true }
        )!;
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return process.ExitCode == 0 ? output.Trim() : "";
    }

    private static void Print(FormattableString text) => Console.WriteLine(text.ToString(CultureInfo.InvariantCulture));
}
