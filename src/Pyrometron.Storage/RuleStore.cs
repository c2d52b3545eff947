using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;

namespace Pyrometron.Storage;

/// <summary>A suggested interval that was not wanted.</summary>
public sealed record RefusedInterval(
    RuleScope Scope,
    string Key,
    ServiceLevel Level,
    double Months,
    DateTimeOffset At,
    string Reason
);

/// <summary>The rules that hold for some of the house's machines.</summary>
public sealed class RuleStore(Database database)
{
    /// <summary>All of them, the widest first.</summary>
    public IReadOnlyList<LocalRule> All() => database.Read(All);

    /// <summary>All of them within a use case.</summary>
    public static IReadOnlyList<LocalRule> All(Transaction t) => All(t.Connection);

    /// <summary>The house's rules with those for some machines within a use case.</summary>
    public static HouseRules House(Transaction t) => new(PolicyStore.Current(t), All(t));

    /// <summary>The ways at the bench for a machine within a use case.</summary>
    public static BenchSchools Bench(Transaction t, Asset asset) => House(t).For(asset, SiteOf(t, asset), PolicyStore.Bench(t));

    /// <summary>The rules that a machine is judged by within a use case.</summary>
    public static JudgementPolicy Policy(Transaction t, Asset asset) => House(t).For(asset, SiteOf(t, asset));

    private static string SiteOf(Transaction t, Asset asset) =>
        SiteStore.All(t).First(s => s.Zones.Any(z => z.Code == asset.Zone)).Code;

    /// <summary>Keeps a rule; one that sets nothing is taken away.</summary>
    public static void Keep(Transaction t, LocalRule rule)
    {
        var (scope, c) = (Words.Of(rule.Scope), rule.Change);
        t.Connection.Execute("DELETE FROM local_rule WHERE scope = $scope AND key = $key", ("$scope", scope), ("$key", rule.Key));
        if (c.IsEmpty())
            return;
        t.Connection.Execute(
            """
            INSERT INTO local_rule (scope, key, school, warranty, extent, paste, pads, action_margin_kelvin,
                worth_kelvin, much_kelvin, look_months, dust_out_months, repaste_months, used_hard, pets_or_smoke,
                salt_air, dry_air, machine_hour, replacement, downtime_share, alcohol, air, opening, down_hours,
                spares_quarter_end, two_people, fan_months)
            VALUES ($scope, $key, $school, $warranty, $extent, $paste, $pads, $margin, $worth, $much,
                $look, $dust_out, $repaste, $hard, $pets, $salt, $dry, $hour, $new, $downtime,
                $alcohol, $air, $opening, $down, $quarter, $two, $fan)
            """,
            ("$scope", scope),
            ("$key", rule.Key),
            ("$school", Word(c.School)),
            ("$warranty", Word(c.Warranty)),
            ("$extent", Word(c.Extent)),
            ("$paste", Word(c.Paste)),
            ("$pads", Word(c.Pads)),
            ("$margin", c.ActionMarginKelvin),
            ("$worth", c.WorthKelvin),
            ("$much", c.MuchKelvin),
            ("$look", c.LookMonths),
            ("$dust_out", c.DustOutMonths),
            ("$repaste", c.RepasteMonths),
            ("$hard", PolicyStore.Flag(c.UsedHard)),
            ("$pets", PolicyStore.Flag(c.PetsOrSmoke)),
            ("$salt", PolicyStore.Flag(c.SaltAir)),
            ("$dry", PolicyStore.Flag(c.DryAir)),
            ("$hour", c.MachineHour),
            ("$new", c.Replacement),
            ("$downtime", c.DowntimeShare),
            ("$alcohol", Word(c.Alcohol)),
            ("$air", Word(c.Air)),
            ("$opening", Word(c.Opening)),
            ("$down", Word(c.DownHours)),
            ("$quarter", PolicyStore.Flag(c.SparesQuarterEnd)),
            ("$two", PolicyStore.Flag(c.TwoPeople)),
            ("$fan", c.FanMonths)
        );
    }

    /// <summary>Suggested intervals that were not wanted.</summary>
    public IReadOnlyList<RefusedInterval> Refused() =>
        database.Read(connection =>
            connection.Query(
                "SELECT scope, key, level, months, at, reason FROM refused_interval",
                r => new RefusedInterval(
                    PolicyStore.Word<RuleScope>(r, 0),
                    r.GetString(1),
                    PolicyStore.Word<ServiceLevel>(r, 2),
                    r.GetDouble(3),
                    Sql.ReadInstant(r.GetString(4)),
                    r.GetString(5)
                )
            )
        );

    /// <summary>Keeps that a suggested interval is not wanted.</summary>
    public static void Refuse(Transaction t, RefusedInterval refused) =>
        t.Connection.Execute(
            "INSERT OR REPLACE INTO refused_interval (scope, key, level, months, at, reason) VALUES ($scope, $key, $level, $months, $at, $reason)",
            ("$scope", Words.Of(refused.Scope)),
            ("$key", refused.Key),
            ("$level", Words.Of(refused.Level)),
            ("$months", refused.Months),
            ("$at", Sql.Text(refused.At)),
            ("$reason", refused.Reason)
        );

    private static List<LocalRule> All(SqliteConnection connection) =>
        [
            .. connection
                .Query(
                    """
                    SELECT scope, key, school, warranty, extent, paste, pads, action_margin_kelvin, worth_kelvin, much_kelvin,
                        look_months, dust_out_months, repaste_months, used_hard, pets_or_smoke, salt_air, dry_air, machine_hour,
                        replacement, downtime_share, alcohol, air, opening, down_hours, spares_quarter_end, two_people, fan_months
                    FROM local_rule
                    """,
                    r => new LocalRule(
                        PolicyStore.Word<RuleScope>(r, 0),
                        r.GetString(1),
                        new RuleChange(
                            Word<School>(r, 2),
                            Word<WarrantySchool>(r, 3),
                            Word<Extent>(r, 4),
                            Word<PasteSchool>(r, 5),
                            Word<PadSchool>(r, 6),
                            PolicyStore.Number(r, 7),
                            PolicyStore.Number(r, 8),
                            PolicyStore.Number(r, 9),
                            PolicyStore.Number(r, 10),
                            PolicyStore.Number(r, 11),
                            PolicyStore.Number(r, 12),
                            PolicyStore.Flag(r, 13),
                            PolicyStore.Flag(r, 14),
                            PolicyStore.Flag(r, 15),
                            PolicyStore.Flag(r, 16),
                            PolicyStore.Number(r, 17),
                            PolicyStore.Number(r, 18),
                            PolicyStore.Number(r, 19),
                            Word<AlcoholStrength>(r, 20),
                            Word<AirSource>(r, 21),
                            Word<OpeningOrder>(r, 22),
                            Word<DownHours>(r, 23),
                            PolicyStore.Flag(r, 24),
                            PolicyStore.Flag(r, 25),
                            PolicyStore.Number(r, 26)
                        )
                    )
                )
                .OrderBy(r => r.Scope)
                .ThenBy(r => r.Key, StringComparer.Ordinal),
        ];

    private static string? Word<T>(T? value)
        where T : struct, Enum => value is { } set ? Words.Of(set) : null;

    private static T? Word<T>(SqliteDataReader row, int column)
        where T : struct, Enum => row.IsDBNull(column) ? null : PolicyStore.Word<T>(row, column);
}
