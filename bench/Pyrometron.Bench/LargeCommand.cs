using System.Diagnostics;
using System.Globalization;
using Pyrometron.Application.Fleet;
using Pyrometron.Application.Imports;
using Pyrometron.Bench.Scoring;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Policies;
using Pyrometron.Storage;

namespace Pyrometron.Bench;

/// <summary>
/// Judges a fleet of many machines with a year of readings each from a database, and tells time and memory. The machines are
/// the fully read ones of a trial fleet, over and over, in that fleet's zones.
/// </summary>
internal static class LargeCommand
{
    public static int Run(string folder, int machines)
    {
        var work = Directory.CreateTempSubdirectory("pyrometron-large-").FullName;
        try
        {
            using var database = Database.Open(Path.Combine(work, "large.db"));
            var fleet = new FleetStore(database);
            var tags = Fill(folder, machines, database);
            var register = fleet.Register(withRetired: false);
            register = register with { Assets = [.. register.Assets.Where(a => tags.Contains(a.Tag))] };
            var stored = fleet.All().ToDictionary(a => a.Asset.Tag);
            GC.Collect();
            var clock = Stopwatch.StartNew();
            var cpu = Process.GetCurrentProcess().TotalProcessorTime;
            using var reader = new ReadingStore(database).Series(long.MaxValue);
            long readings = 0;
            var judge = new FleetJudge(
                new JudgementBasis(
                    register,
                    new DateOnly(2025, 9, 25),
                    JudgementPolicy.Default,
                    asset =>
                    {
                        var series = reader.Read(stored[asset.Tag]);
                        Interlocked.Add(ref readings, series.Count);
                        return series;
                    }
                )
                {
                    Threads = Environment.ProcessorCount,
                }
            );
            var judgement = judge.JudgeAll();
            var took = clock.Elapsed;
            cpu = Process.GetCurrentProcess().TotalProcessorTime - cpu;
            Print(
                $"judging {judgement.Queue.Count} machines, {readings} readings, from the database: {took.TotalSeconds:0.0} s on {Environment.ProcessorCount} cores, {took.TotalMilliseconds / machines:0.00} ms a machine, {cpu.TotalMilliseconds / machines:0.00} ms of processor time; {GC.CollectionCount(0)}/{GC.CollectionCount(1)}/{GC.CollectionCount(2)} collections, paused {GC.GetTotalPauseDuration().TotalSeconds:0.0} s"
            );
            Print(
                $"  peak memory of the process, filling the database included: {Process.GetCurrentProcess().PeakWorkingSet64 / 1024 / 1024} MB"
            );
            var one = TimeSpan.MaxValue;
            foreach (var asset in register.Assets.Take(20))
            {
                clock.Restart();
                judge.JudgeOne(judgement, asset);
                one = clock.Elapsed < one ? clock.Elapsed : one;
            }
            Print($"one machine judged again with its past, as its page asks: {one.TotalMilliseconds:0.0} ms");
            var again = TimeSpan.MaxValue;
            foreach (var asset in register.Assets.Take(5))
            {
                clock.Restart();
                judgement = judge.JudgeAgain(judgement, new HashSet<string> { asset.Tag });
                again = clock.Elapsed < again ? clock.Elapsed : again;
            }
            Print(
                $"the queue after one machine changed, as a filed run asks: {again.TotalMilliseconds:0.0} ms, {again / took:0.0000} of judging all"
            );
            var rule = new LocalRule(RuleScope.Kind, "server", new RuleChange(DustOutMonths: 7, WorthKelvin: 4));
            var other = new FleetJudge(
                new JudgementBasis(
                    register,
                    judgement.AsOf,
                    JudgementPolicy.Default,
                    _ => throw new InvalidOperationException("nothing is read")
                )
                {
                    Local = [rule],
                    Threads = Environment.ProcessorCount,
                }
            );
            var ruled = TimeSpan.MaxValue;
            var changed = 0;
            for (var i = 0; i < 3; i++)
            {
                clock.Restart();
                changed = RuleEffect.Of(judgement, other.RuleAgain(judgement)).Changed.Count;
                ruled = clock.Elapsed < ruled ? clock.Elapsed : ruled;
            }
            Print(
                $"a rule tried over all of them ({changed} change): {ruled.TotalMilliseconds:0} ms, {ruled / took:0.0000} of judging all"
            );
            return 0;
        }
        finally
        {
            Directory.Delete(work, recursive: true);
        }
    }

    private static HashSet<string> Fill(string folder, int machines, Database database)
    {
        var register = TrialFleet.RegisterOf(folder);
        var full = register.Assets.Where(a => a.Kind is AssetKind.GraphicsCard or AssetKind.Server).ToArray();
        var copies = Enumerable
            .Range(0, machines)
            .Select(i => full[i % full.Length] with { Tag = $"{full[i % full.Length].Tag}/{i / full.Length}" })
            .ToArray();
        new FleetUseCases(database, TimeProvider.System).Import(
            Actor.Program,
            register with
            {
                Assets = [.. register.Assets, .. copies],
            }
        );
        using (var readings = File.OpenRead(Path.Combine(folder, "readings.csv.gz")))
        using (var plain = new System.IO.Compression.GZipStream(readings, System.IO.Compression.CompressionMode.Decompress))
            new ReadingsImport(database, Actor.Program, DateTimeOffset.UtcNow, 0)
                .RunAsync(plain, (_, _) => { }, default)
                .GetAwaiter()
                .GetResult();
        var columns =
            "at_ms, ambient_c, power_w, fan_rpm, fan_pct, settings, workload, "
            + string.Join(", ", Enumerable.Range(0, 4).Select(p => $"p{p}_c"));
        using var connection = database.Connect();
        for (var from = 0; from < machines; from += 1000)
        {
            using var command = connection.CreateCommand();
            command.CommandText = $"""
                INSERT INTO reading (asset_id, {columns}) SELECT copy.id, {columns}
                FROM asset copy JOIN asset source ON source.tag = substr(copy.tag, 1, instr(copy.tag, '/') - 1)
                    JOIN reading r ON r.asset_id = source.id
                WHERE instr(copy.tag, '/') > 0 AND copy.id IN (SELECT id FROM asset WHERE instr(tag,
                    '/') > 0 ORDER BY id LIMIT 1000 OFFSET $from)
                """;
            command.Parameters.AddWithValue("$from", from);
            command.ExecuteNonQuery();
        }
        return [.. copies.Select(c => c.Tag)];
    }

    private static void Print(FormattableString text) => Console.WriteLine(text.ToString(CultureInfo.InvariantCulture));
}
