using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Storage;

/// <summary>The house's rules: for judging, and for the bench.</summary>
public sealed class PolicyStore(Database database)
{
    /// <summary>The rules for judging; the defaults until somebody changes them.</summary>
    public JudgementPolicy Current() => database.Read(connection => connection.Query(
            "SELECT action_margin_kelvin, worth_kelvin, much_kelvin, school, warranty FROM policy",
            r => new JudgementPolicy(r.GetDouble(0), r.GetDouble(1), r.GetDouble(2), Word<School>(r, 3), Word<WarrantySchool>(r, 4)))
        .FirstOrDefault() ?? JudgementPolicy.Default);

    /// <summary>The ways at the bench; the defaults until somebody changes them.</summary>
    public BenchSchools Bench() => database.Read(connection => connection.Query(
            "SELECT extent, warranty, paste, pads, alcohol, air, opening FROM policy",
            r => new BenchSchools(Word<Extent>(r, 0), Word<WarrantySchool>(r, 1), Word<PasteSchool>(r, 2), Word<PadSchool>(r, 3), Word<AlcoholStrength>(r, 4), Word<AirSource>(r, 5), Word<OpeningOrder>(r, 6)))
        .FirstOrDefault() ?? BenchSchools.Default);

    /// <summary>Puts other rules in force.</summary>
    public void Set(JudgementPolicy policy, BenchSchools bench) => database.Write(connection => connection.Execute(
        """
        INSERT OR REPLACE INTO policy (id, action_margin_kelvin, worth_kelvin, much_kelvin, school, extent, warranty, paste, pads, alcohol, air, opening)
        VALUES (1, $margin, $worth, $much, $school, $extent, $warranty, $paste, $pads, $alcohol, $air, $opening)
        """,
        ("$margin", policy.ActionMarginKelvin), ("$worth", policy.WorthKelvin), ("$much", policy.MuchKelvin), ("$school", Words.Of(policy.School)), ("$extent", Words.Of(bench.Extent)),
        ("$warranty", Words.Of(bench.Warranty)), ("$paste", Words.Of(bench.Paste)), ("$pads", Words.Of(bench.Pads)), ("$alcohol", Words.Of(bench.Alcohol)), ("$air", Words.Of(bench.Air)),
        ("$opening", Words.Of(bench.Opening))));

    private static T Word<T>(SqliteDataReader row, int column) where T : struct, Enum => Words.TryRead<T>(row.GetString(column), out var value) ? value : default;
}
