using System.Reflection;
using System.Runtime.CompilerServices;
using System.Text.RegularExpressions;
using NetArchTest.Rules;

namespace Pyrometron.Server.Tests;

/// <summary>What docs/architecture.md draws, held by tests.</summary>
public partial class ArchitectureTests
{
    private static readonly Assembly Core = typeof(Core.Fleet.Asset).Assembly;

    /// <summary>
    /// The floors of the core, lowest first: a folder may use those of lower floors, none of its own floor or above.
    /// </summary>
    private static readonly string[][] Floors =
    [
        ["Units", "Statistics", "Cooling", "Cutting"],
        ["Fleet", "Materials"],
        ["Messages"],
        ["Planning", "Access"],
        ["Readings"],
        ["Events"],
        ["Drift", "Causes"],
        ["Forecast", "GroupEvents"],
        ["Assessments"],
        ["Learning"],
        ["Policies"],
        ["Intervals", "Worth"],
        ["Priority"],
        ["Judging"],
        ["Inspection", "Weeks", "LearntIntervals"],
        ["Procedures"],
        ["Proof"],
        ["Jobs"],
        ["Stores", "Campaigns"],
        ["Notices"],
        ["Simulation"],
    ];

    /// <summary>The projects, lowest first, and what each may not know besides those above it.</summary>
    private static readonly (Assembly Assembly, string[] Never)[] Projects =
    [
        (Core, ["Microsoft.AspNetCore", "Microsoft.Data", "System.IO", "System.Net"]),
        (
            typeof(Pyrometron.Planning.SolverPlanner).Assembly,
            ["Microsoft.AspNetCore", "Microsoft.Data", "System.IO", "System.Net"]
        ),
        (typeof(Formats.GzipSpool).Assembly, ["Microsoft.AspNetCore", "Microsoft.Data", "Pyrometron.Devices"]),
        (typeof(Devices.BenchProbe).Assembly, ["Microsoft.AspNetCore", "Microsoft.Data", "Pyrometron.Formats"]),
        (
            typeof(Sending.MailSender).Assembly,
            ["Microsoft.AspNetCore", "Microsoft.Data", "Pyrometron.Formats", "Pyrometron.Devices"]
        ),
        (typeof(Storage.Database).Assembly, ["Microsoft.AspNetCore", "Pyrometron.Formats", "Pyrometron.Devices"]),
        (typeof(Application.Fleet.FleetUseCases).Assembly, ["Microsoft.AspNetCore"]),
        (typeof(Program).Assembly, []),
    ];

    [Fact]
    public void Projects_know_only_those_below_them()
    {
        for (var i = 0; i < Projects.Length; i++)
        {
            var (assembly, never) = Projects[i];
            string[] above = [.. Projects.Skip(i + 1).Select(p => p.Assembly.GetName().Name!), .. never];
            if (above.Length == 0)
                continue;
            var found = Types.InAssembly(assembly).ShouldNot().HaveDependencyOnAny(above).GetResult();
            Assert.True(found.IsSuccessful, Names(assembly.GetName().Name!, found));
        }
    }

    [Fact]
    public void Folders_of_the_core_stand_on_floors_and_lean_on_lower_ones_only()
    {
        var folders = Core.GetTypes()
            .Where(t => t.Namespace?.StartsWith("Pyrometron.Core", StringComparison.Ordinal) == true)
            .Select(t => t.Namespace!["Pyrometron.Core".Length..].TrimStart('.'))
            .Distinct();
        Assert.Equal(Floors.SelectMany(f => f).Order(), folders.Order());
        for (var i = 0; i < Floors.Length; i++)
            foreach (var folder in Floors[i])
            {
                var others = Floors
                    .Skip(i)
                    .SelectMany(f => f)
                    .Where(f => f != folder)
                    .Select(f => $"Pyrometron.Core.{f}")
                    .ToArray();
                if (others.Length == 0)
                    continue;
                var found = Types
                    .InAssembly(Core)
                    .That()
                    .ResideInNamespace($"Pyrometron.Core.{folder}")
                    .ShouldNot()
                    .HaveDependencyOnAny(others)
                    .GetResult();
                Assert.True(found.IsSuccessful, Names(folder, found));
            }
    }

    [Fact]
    public void No_method_takes_more_than_eight_parameters()
    {
        var crowded = Projects
            .SelectMany(p => p.Assembly.GetTypes())
            .Where(t => !IsGenerated(t))
            .SelectMany(t =>
                t.GetMethods(
                    BindingFlags.Public
                        | BindingFlags.NonPublic
                        | BindingFlags.Static
                        | BindingFlags.Instance
                        | BindingFlags.DeclaredOnly
                )
            )
            // Endpoints take one parameter for each member of their address, and one for each service: the framework's way.
            .Where(m =>
                m.GetParameters().Length > 8
                && !IsGenerated(m)
                && m.Name != "Deconstruct"
                && !m.DeclaringType!.Name.EndsWith("Endpoints", StringComparison.Ordinal)
            )
            .Select(m => $"{m.DeclaringType!.Name}.{m.Name}");
        Assert.Empty(crowded);
    }

    /// <summary>
    /// The formatter holds code within 130 columns; comments it leaves alone. Text within quotes may be longer.
    /// </summary>
    [Fact]
    public void Lines_end_at_130_columns()
    {
        var tooLong = Sources()
            .SelectMany(f => File.ReadLines(f).Select((line, i) => (At: $"{f}:{i + 1}", Line: line)))
            .Where(l => l.Line.Length > 130 && Quoted().Replace(l.Line, "").Length > 130);
        Assert.Empty(tooLong.Select(l => l.At));
    }

    /// <summary>Longer than this, a source file holds more than one idea; blank lines are not counted.</summary>
    [Fact]
    public void Files_hold_at_most_300_lines()
    {
        var web = Directory
            .EnumerateFiles(Server.OfRepository("web/src"), "*.*", SearchOption.AllDirectories)
            .Where(f => Path.GetExtension(f) is ".ts" or ".tsx" or ".css" && !f.Contains(".test.", StringComparison.Ordinal))
            .Where(f => !f.EndsWith("schema.d.ts", StringComparison.Ordinal));
        var tooLong = Sources()
            .Where(f => !f.Contains("/tests/", StringComparison.Ordinal))
            .Concat(web)
            .Select(f => (File: f, Lines: File.ReadLines(f).Count(line => !string.IsNullOrWhiteSpace(line))))
            .Where(f => f.Lines > 300);
        Assert.Empty(tooLong.Select(f => $"{f.File}: {f.Lines}"));
    }

    [GeneratedRegex("\".*\"")]
    private static partial Regex Quoted();

    private static IEnumerable<string> Sources() =>
        new[] { "src", "tests", "bench" }
            .SelectMany(folder => Directory.EnumerateFiles(Server.OfRepository(folder), "*.cs", SearchOption.AllDirectories))
            .Where(f => !f.Contains("/obj/", StringComparison.Ordinal) && !f.Contains("/bin/", StringComparison.Ordinal));

    private static bool IsGenerated(MemberInfo member) =>
        member.IsDefined(typeof(CompilerGeneratedAttribute), inherit: false)
        || member.Name.Contains('<', StringComparison.Ordinal)
        || member.DeclaringType is { } outer && IsGenerated(outer);

    private static string Names(string of, TestResult found) => $"{of}: {string.Join(", ", found.FailingTypeNames ?? [])}";
}
