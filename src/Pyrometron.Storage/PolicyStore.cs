using Pyrometron.Core.Fleet;
using Pyrometron.Core.Priority;

namespace Pyrometron.Storage;

/// <summary>The house's rules for judging.</summary>
public sealed class PolicyStore(Database database)
{
    /// <summary>The rules in force; the defaults until somebody changes them.</summary>
    public JudgementPolicy Current() => database.Read(connection => connection.Query(
            "SELECT action_margin_kelvin, worth_kelvin, much_kelvin, school FROM policy",
            r => new JudgementPolicy(r.GetDouble(0), r.GetDouble(1), r.GetDouble(2), Words.TryRead<School>(r.GetString(3), out var school) ? school : default))
        .FirstOrDefault() ?? JudgementPolicy.Default);

    /// <summary>Puts other rules in force.</summary>
    public void Set(JudgementPolicy policy) => database.Write(connection => connection.Execute(
        """
        INSERT INTO policy (id, action_margin_kelvin, worth_kelvin, much_kelvin, school) VALUES (1, $margin, $worth, $much, $school)
        ON CONFLICT (id) DO UPDATE SET action_margin_kelvin = $margin, worth_kelvin = $worth, much_kelvin = $much, school = $school
        """,
        ("$margin", policy.ActionMarginKelvin), ("$worth", policy.WorthKelvin), ("$much", policy.MuchKelvin), ("$school", Words.Of(policy.School))));
}
