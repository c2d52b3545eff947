using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;

namespace Pyrometron.Storage;

/// <summary>The house's rules: for judging, and for the bench.</summary>
public sealed class PolicyStore(Database database)
{
    /// <summary>The rules for judging; the defaults until somebody changes them.</summary>
    public JudgementPolicy Current() => database.Read(Current);

    /// <summary>The rules within a use case.</summary>
    public static JudgementPolicy Current(Transaction t) => Current(t.Connection);

    private static JudgementPolicy Current(SqliteConnection connection) =>
        connection
            .Query(
                "SELECT action_margin_kelvin, worth_kelvin, much_kelvin, school, warranty, extent, precedence, down_hours, spares_quarter_end FROM policy",
                r => new JudgementPolicy(
                    r.GetDouble(0),
                    r.GetDouble(1),
                    r.GetDouble(2),
                    Word<School>(r, 3),
                    Word<WarrantySchool>(r, 4)
                )
                {
                    Extent = Word<Extent>(r, 5),
                    Precedence = Word<Precedence>(r, 6),
                    Values = Values(connection),
                    Intervals = Intervals(connection),
                    Downtime = new DowntimeRules(Word<DownHours>(r, 7), r.GetBoolean(8)),
                }
            )
            .FirstOrDefault()
        ?? JudgementPolicy.Default;

    private static HouseValues Values(SqliteConnection connection)
    {
        var kinds = connection
            .Query(
                "SELECT kind, machine_hour, replacement FROM kind_value",
                r => (Kind: Word<AssetKind>(r, 0), Worth: new KindValues(r.GetDouble(1), r.GetDouble(2)))
            )
            .ToDictionary(k => k.Kind, k => k.Worth);
        KindValues Of(AssetKind kind) => kinds.GetValueOrDefault(kind, HouseValues.Default.Of(kind));
        return connection
            .Query(
                "SELECT currency, technician_hour, kilowatt_hour, decibel_year, crash_hours, life_years, activation_energy_ev, pay_back_years, downtime_share FROM policy",
                r => new HouseValues(
                    r.GetString(0),
                    r.GetDouble(1),
                    r.GetDouble(2),
                    r.GetDouble(3),
                    r.GetDouble(4),
                    r.GetDouble(5),
                    r.GetDouble(6),
                    r.GetInt32(7),
                    r.GetDouble(8)
                )
                {
                    GraphicsCard = Of(AssetKind.GraphicsCard),
                    Server = Of(AssetKind.Server),
                    Laptop = Of(AssetKind.Laptop),
                    Desktop = Of(AssetKind.Desktop),
                }
            )
            .Single();
    }

    private static IntervalRules Intervals(SqliteConnection connection)
    {
        var rules =
            connection
                .Query(
                    """
                    SELECT hard_use_hours, clean_air, heavy_dust, server_clean_air, server_heavy_dust, pets_or_smoke, all_day,
                        few_hours, per_hot_kelvin, per_kilometre, salt_air, dry_air
                    FROM interval_factors
                    """,
                    r => new IntervalRules(r.GetDouble(0))
                    {
                        Factors = new IntervalFactors(
                            r.GetDouble(1),
                            r.GetDouble(2),
                            r.GetDouble(3),
                            r.GetDouble(4),
                            r.GetDouble(5),
                            r.GetDouble(6),
                            r.GetDouble(7),
                            r.GetDouble(8),
                            r.GetDouble(9),
                            r.GetDouble(10),
                            r.GetDouble(11)
                        ),
                    }
                )
                .FirstOrDefault()
            ?? IntervalRules.Default;
        return connection
            .Query(
                "SELECT kind, look, dust_out, repaste, longest_dust_out, repaste_used_hard, fan FROM kind_interval",
                r =>
                    (
                        Kind: Word<AssetKind>(r, 0),
                        Months: new KindIntervals(
                            Number(r, 1),
                            Number(r, 2),
                            Number(r, 3),
                            Number(r, 4),
                            Number(r, 5),
                            Number(r, 6)
                        )
                    )
            )
            .Aggregate(rules, (all, kind) => all.With(kind.Kind, kind.Months));
    }

    /// <summary>The ways at the bench; the defaults until somebody changes them.</summary>
    public BenchSchools Bench() => database.Read(Bench);

    /// <summary>The ways at the bench within a use case.</summary>
    public static BenchSchools Bench(Transaction t) => Bench(t.Connection);

    internal static BenchSchools Bench(SqliteConnection connection) =>
        connection
            .Query(
                "SELECT extent, warranty, paste, pads, alcohol, air, opening, comeback_days, comebacks_free, others_machines, tells_damage FROM policy",
                r => new BenchSchools(
                    Word<Extent>(r, 0),
                    Word<WarrantySchool>(r, 1),
                    Word<PasteSchool>(r, 2),
                    Word<PadSchool>(r, 3),
                    Word<AlcoholStrength>(r, 4),
                    Word<AirSource>(r, 5),
                    Word<OpeningOrder>(r, 6),
                    r.IsDBNull(7) ? null : r.GetInt32(7),
                    Flag(r, 8),
                    Flag(r, 9),
                    Flag(r, 10)
                )
            )
            .FirstOrDefault()
        ?? BenchSchools.Default;

    internal static double? Number(SqliteDataReader r, int column) => r.IsDBNull(column) ? null : r.GetDouble(column);

    internal static bool? Flag(SqliteDataReader r, int column) => r.IsDBNull(column) ? null : r.GetBoolean(column);

    internal static int? Flag(bool? set) => set is { } known ? (known ? 1 : 0) : null;

    /// <summary>
    /// Puts other rules in force. What the bench's ways say of warranty and extent holds for the judgement too.
    /// </summary>
    public static void Set(Transaction t, JudgementPolicy policy, BenchSchools bench)
    {
        var connection = t.Connection;
        var values = policy.Values;
        connection.Execute(
            """
            INSERT OR REPLACE INTO policy (id, action_margin_kelvin, worth_kelvin, much_kelvin, school, extent, warranty, paste,
                pads, alcohol, air, opening, precedence, currency, technician_hour, kilowatt_hour, decibel_year,
                crash_hours, life_years, activation_energy_ev, pay_back_years, comeback_days, comebacks_free,
                others_machines, tells_damage, downtime_share, down_hours, spares_quarter_end)
            VALUES (1, $margin, $worth, $much, $school, $extent, $warranty, $paste, $pads, $alcohol, $air, $opening,
                $precedence, $currency, $technician, $kilowatt, $decibel, $crash, $life, $activation, $payback,
                $comeback, $free, $others, $damage, $downtime, $hours, $quarter)
            """,
            ("$margin", policy.ActionMarginKelvin),
            ("$worth", policy.WorthKelvin),
            ("$much", policy.MuchKelvin),
            ("$school", Words.Of(policy.School)),
            ("$extent", Words.Of(bench.Extent)),
            ("$warranty", Words.Of(bench.Warranty)),
            ("$paste", Words.Of(bench.Paste)),
            ("$pads", Words.Of(bench.Pads)),
            ("$alcohol", Words.Of(bench.Alcohol)),
            ("$air", Words.Of(bench.Air)),
            ("$opening", Words.Of(bench.Opening)),
            ("$comeback", bench.ComebackDays),
            ("$free", Flag(bench.ComebacksFree)),
            ("$others", Flag(bench.OthersMachines)),
            ("$damage", Flag(bench.TellsDamage)),
            ("$precedence", Words.Of(policy.Precedence)),
            ("$currency", values.Currency),
            ("$technician", values.TechnicianHour),
            ("$kilowatt", values.KilowattHour),
            ("$decibel", values.DecibelYear),
            ("$crash", values.CrashHours),
            ("$life", values.LifeYears),
            ("$activation", values.ActivationEnergyEv),
            ("$payback", values.PayBackYears),
            ("$downtime", values.DowntimeShare),
            ("$hours", Words.Of(policy.Downtime.Hours)),
            ("$quarter", Flag(policy.Downtime.SparesQuarterEnd))
        );
        Set(connection, policy.Intervals);
        foreach (var kind in Enum.GetValues<AssetKind>())
            connection.Execute(
                "INSERT OR REPLACE INTO kind_value (kind, machine_hour, replacement) VALUES ($kind, $hour, $new)",
                ("$kind", Words.Of(kind)),
                ("$hour", values.Of(kind).MachineHour),
                ("$new", values.Of(kind).Replacement)
            );
    }

    private static void Set(SqliteConnection connection, IntervalRules rules)
    {
        var f = rules.Factors;
        connection.Execute(
            """
            INSERT OR REPLACE INTO interval_factors (id, hard_use_hours, clean_air, heavy_dust, server_clean_air,
                server_heavy_dust, pets_or_smoke, all_day, few_hours, per_hot_kelvin, per_kilometre, salt_air, dry_air)
            VALUES (1, $hard, $clean, $heavy, $server_clean, $server_heavy, $pets, $all_day, $few, $hot, $high, $salt, $dry)
            """,
            ("$hard", rules.HardUseHours),
            ("$clean", f.CleanAir),
            ("$heavy", f.HeavyDust),
            ("$server_clean", f.ServerCleanAir),
            ("$server_heavy", f.ServerHeavyDust),
            ("$pets", f.PetsOrSmoke),
            ("$all_day", f.AllDay),
            ("$few", f.FewHours),
            ("$hot", f.PerHotKelvin),
            ("$high", f.PerKilometre),
            ("$salt", f.SaltAir),
            ("$dry", f.DryAir)
        );
        foreach (var kind in Enum.GetValues<AssetKind>())
        {
            var months = rules.Of(kind);
            connection.Execute(
                """
                INSERT OR REPLACE INTO kind_interval (kind, look, dust_out, repaste, longest_dust_out, repaste_used_hard, fan)
                VALUES ($kind, $look, $dust_out, $repaste, $longest, $hard, $fan)
                """,
                ("$kind", Words.Of(kind)),
                ("$look", months.Look),
                ("$dust_out", months.DustOut),
                ("$repaste", months.Repaste),
                ("$longest", months.LongestDustOut),
                ("$hard", months.RepasteUsedHard),
                ("$fan", months.Fan)
            );
        }
    }

    internal static T Word<T>(SqliteDataReader row, int column)
        where T : struct, Enum => Words.TryRead<T>(row.GetString(column), out var value) ? value : default;
}
