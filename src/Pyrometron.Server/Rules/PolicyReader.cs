using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using Pyrometron.Formats;

namespace Pyrometron.Server.Rules;

/// <summary>Makes rules of what was sent, and says of all that is wrong where and what.</summary>
/// <param name="before">The rules in force: what is omitted stays as it is.</param>
/// <param name="ways">The ways at the bench in force.</param>
internal sealed class PolicyReader(JudgementPolicy before, BenchSchools ways)
{
    private const int LongestCurrency = 8;

    /// <summary>Any currency fits.</summary>
    private const double MostMoney = 1e9;

    private const double LeastMonths = 0.5,
        MostMonths = 240,
        LeastFactor = 0.1,
        MostFactor = 10;

    /// <summary>What is wrong, in the order in which it was found.</summary>
    public List<InputProblem> Problems { get; } = [];

    /// <summary>Reads the rules of the house.</summary>
    public (JudgementPolicy Policy, BenchSchools Bench) Read(PolicyDto sent)
    {
        var bench = sent.Bench ?? ways;
        var next = new JudgementPolicy(
            Needed(sent.ActionMarginKelvin, "actionMarginKelvin", 0, 30, "K"),
            Needed(sent.WorthKelvin, "worthKelvin", JudgementPolicy.LeastWorthKelvin, 20, "K"),
            Needed(sent.MuchKelvin, "muchKelvin", 1, 40, "K"),
            sent.School ?? School.WhicheverFirst,
            bench.Warranty
        )
        {
            Extent = bench.Extent,
            Precedence = sent.Precedence ?? before.Precedence,
            Values = sent.Values ?? before.Values,
            Intervals = sent.Intervals ?? before.Intervals,
            Downtime = sent.Downtime ?? before.Downtime,
        };
        if (sent.School is null)
            Problems.Add(new InputProblem($"school is needed: one of {Words.List<School>()}", Pointer: "/school"));
        if (bench.ComebackDays is < 0 or > BenchSchools.MostComebackDays)
            Problems.Add(
                new InputProblem(
                    $"comebackDays lies between 0 and {BenchSchools.MostComebackDays}",
                    Pointer: "/bench/comebackDays"
                )
            );
        if (next.MuchKelvin < next.WorthKelvin)
            Problems.Add(new InputProblem("muchKelvin cannot be less than worthKelvin", Pointer: "/muchKelvin"));
        var values = next.Values;
        if (
            string.IsNullOrWhiteSpace(values.Currency)
            || values.Currency.Length > LongestCurrency
            || values.Currency.Any(char.IsControl)
        )
            Problems.Add(
                new InputProblem(
                    $"currency is needed: a word or sign of up to {LongestCurrency} characters",
                    Pointer: "/values/currency"
                )
            );
        foreach (var (name, value, least, most, unit) in Bounds(values))
            Needed(value, "values/" + name, least, most, unit);
        Check(next.Intervals);
        return (next, bench);
    }

    /// <summary>Reads a rule for some machines.</summary>
    public LocalRule Read(LocalRuleDto sent, string at = "")
    {
        if (sent.Scope is null or RuleScope.House)
            Problems.Add(
                new InputProblem($"scope is needed: one of site, zone, kind, zone-kind, model, machine", Pointer: $"{at}/scope")
            );
        if (string.IsNullOrWhiteSpace(sent.Key) || sent.Key.Length > LocalRuleDto.LongestKey || sent.Key.Any(char.IsControl))
            Problems.Add(
                new InputProblem(
                    $"key is needed: the code of the site or zone, the kind, zone/kind, the model, or the tag of the machine",
                    Pointer: $"{at}/key"
                )
            );
        if (sent.Scope == RuleScope.Kind && sent.Key is { } kind && !Words.TryRead<AssetKind>(kind, out _))
            Problems.Add(new InputProblem($"key is one of {Words.List<AssetKind>()}", Pointer: $"{at}/key"));
        if (sent.Scope == RuleScope.ZoneKind && sent.Key is { } both && LocalRule.ReadZoneKind(both) is null)
            Problems.Add(
                new InputProblem(
                    $"key is the code of a zone, a slash, and one of {Words.List<AssetKind>()}",
                    Pointer: $"{at}/key"
                )
            );
        var change = sent.Change ?? new RuleChange();
        var path = $"{at[Math.Min(1, at.Length)..]}{(at.Length > 0 ? "/" : "")}change/";
        Optional(change.ActionMarginKelvin, path + "actionMarginKelvin", 0, 30, "K");
        Optional(change.WorthKelvin, path + "worthKelvin", JudgementPolicy.LeastWorthKelvin, 20, "K");
        Optional(change.MuchKelvin, path + "muchKelvin", 1, 40, "K");
        foreach (
            var (months, name) in ((double?, string)[])
                [
                    (change.LookMonths, "lookMonths"),
                    (change.DustOutMonths, "dustOutMonths"),
                    (change.RepasteMonths, "repasteMonths"),
                    (change.FanMonths, "fanMonths"),
                ]
        )
            if (months is not 0)
                Optional(months, path + name, LeastMonths, MostMonths, "months, or 0 for never");
        Optional(change.MachineHour, path + "machineHour", 0, MostMoney, "");
        Optional(change.Replacement, path + "replacement", 0, MostMoney, "");
        Optional(change.DowntimeShare, path + "downtimeShare", 0, 1, "");
        return new LocalRule(sent.Scope ?? RuleScope.Machine, sent.Key ?? "", change);
    }

    private double Needed(double? value, string name, double least, double most, string unit)
    {
        if (value is not { } given || !(given >= least && given <= most))
            Problems.Add(
                new InputProblem(
                    unit.Length > 0
                        ? (Message)$"{name} is needed: {least} to {most} {unit}"
                        : $"{name} is needed: {least} to {most}",
                    Pointer: "/" + name
                )
            );
        return value ?? 0;
    }

    private void Optional(double? value, string name, double least, double most, string unit)
    {
        if (value is { } given)
            Needed(given, name, least, most, unit);
    }

    private void Check(IntervalRules rules)
    {
        Needed(rules.HardUseHours, "intervals/hardUseHours", 0, 24, "h");
        foreach (
            var (kind, months) in ((string, KindIntervals?)[])
                [
                    ("graphicsCard", rules.GraphicsCard),
                    ("server", rules.Server),
                    ("laptop", rules.Laptop),
                    ("desktop", rules.Desktop),
                ]
        )
        {
            if (months is null)
            {
                Problems.Add(new InputProblem($"{kind} is needed: its months between services", Pointer: $"/intervals/{kind}"));
                continue;
            }
            Months(months.Look, kind, "look");
            Months(months.DustOut, kind, "dustOut");
            Months(months.Repaste, kind, "repaste");
            Months(months.LongestDustOut, kind, "longestDustOut");
            Months(months.RepasteUsedHard, kind, "repasteUsedHard");
            Months(months.Fan, kind, "fan");
        }
        if (rules.Factors is not { } f)
        {
            Problems.Add(new InputProblem("factors are needed: what multiplies the months", Pointer: "/intervals/factors"));
            return;
        }
        foreach (
            var (name, value) in ((string, double)[])
                [
                    ("cleanAir", f.CleanAir),
                    ("heavyDust", f.HeavyDust),
                    ("serverCleanAir", f.ServerCleanAir),
                    ("serverHeavyDust", f.ServerHeavyDust),
                    ("petsOrSmoke", f.PetsOrSmoke),
                    ("allDay", f.AllDay),
                    ("fewHours", f.FewHours),
                    ("saltAir", f.SaltAir),
                    ("dryAir", f.DryAir),
                ]
        )
            Needed(value, $"intervals/factors/{name}", LeastFactor, MostFactor, "");
        Needed(f.PerHotKelvin, "intervals/factors/perHotKelvin", 0, 0.2, "");
        Needed(f.PerKilometre, "intervals/factors/perKilometre", 0, 0.2, "");
    }

    private void Months(double? months, string kind, string name) =>
        Optional(months, $"intervals/{kind}/{name}", LeastMonths, MostMonths, "months");

    private static IEnumerable<(string Name, double? Value, double Least, double Most, string Unit)> Bounds(HouseValues values)
    {
        yield return ("technicianHour", values.TechnicianHour, 0, MostMoney, "");
        yield return ("kilowattHour", values.KilowattHour, 0, MostMoney, "");
        yield return ("decibelYear", values.DecibelYear, 0, MostMoney, "");
        yield return ("crashHours", values.CrashHours, 0, 1000, "h");
        yield return ("payBackYears", values.PayBackYears, 1, 10, "years");
        yield return ("lifeYears", values.LifeYears, 0.5, 100, "years");
        yield return ("activationEnergyEv", values.ActivationEnergyEv, 0, 2, "eV");
        yield return ("downtimeShare", values.DowntimeShare, 0, 1, "");
        foreach (
            var (kind, worth) in ((string, KindValues?)[])
                [
                    ("graphicsCard", values.GraphicsCard),
                    ("server", values.Server),
                    ("laptop", values.Laptop),
                    ("desktop", values.Desktop),
                ]
        )
        {
            yield return ($"{kind}/machineHour", worth?.MachineHour, 0, MostMoney, "");
            yield return ($"{kind}/replacement", worth?.Replacement, 0, MostMoney, "");
        }
    }
}
