using System.Globalization;
using System.Text.Json;

namespace Pyrometron.Core.Tests;

/// <summary>The sheet of published and recomputed check values, by id; its sources are named beside each check.</summary>
internal static class Reference
{
    private static readonly Dictionary<string, string> Values = Load();

    /// <summary>The expected value of an item.</summary>
    public static double Value(string id) => double.Parse(Values[id], CultureInfo.InvariantCulture);

    /// <summary>The expected list of an item.</summary>
    public static double[] List(string id) => JsonSerializer.Deserialize<double[]>(Values[id])!;

    /// <summary>Columns of an open data series.</summary>
    public static double[][] Series(string file)
    {
        var rows = File.ReadLines(Path.Combine(AppContext.BaseDirectory, "reference", file))
            .Skip(1)
            .Select(l => l.Split(',').Select(c => double.Parse(c, CultureInfo.InvariantCulture)).ToArray())
            .ToArray();
        return [.. Enumerable.Range(0, rows[0].Length).Select(c => rows.Select(r => r[c]).ToArray())];
    }

    /// <summary>The repository's folder.</summary>
    public static string Root
    {
        get
        {
            var folder = new DirectoryInfo(AppContext.BaseDirectory);
            while (!File.Exists(Path.Combine(folder.FullName, "Pyrometron.slnx")))
                folder = folder.Parent!;
            return folder.FullName;
        }
    }

    private static Dictionary<string, string> Load()
    {
        var values = new Dictionary<string, string>();
        foreach (var line in File.ReadLines(Path.Combine(AppContext.BaseDirectory, "reference", "values.csv")).Skip(1))
        {
            var fields = Split(line);
            values[fields[0]] = fields[2];
        }
        return values;
    }

    private static List<string> Split(string line)
    {
        var (fields, field, quoted) = (new List<string>(), "", false);
        foreach (var c in line)
        {
            if (c == '"')
                quoted = !quoted;
            else if (c == ',' && !quoted)
                (fields, field) = ([.. fields, field], "");
            else
                field += c;
        }
        return [.. fields, field];
    }
}
