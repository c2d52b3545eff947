using System.Globalization;
using Pyrometron.Core.Assessments;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Forecast;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Priority;
using Pyrometron.Core.Units;
using Pyrometron.Core.Worth;

namespace Pyrometron.Core.Judging;

/// <summary>Puts a judgement into plain words, from the same numbers that decide it.</summary>
internal static class Reasons
{
    public static Assessment Complete(Assessment a, Zone zone) =>
        a with
        {
            Place = zone,
            Reason = Reason(a, zone),
            ToBeSurer = ToBeSurer(a),
        };

    /// <summary>Adds what siblings show where there is no history: it is the answer then.</summary>
    public static Assessment WithSiblings(Assessment a) =>
        a is { Siblings: { StandsOut: true, KelvinAbove: > 0 } s, Urgency: Urgency.Unknown }
            ? a with
            {
                Reason = $"{AmongSiblings(s)} {a.Reason}",
            }
            : a;

    private static string AmongSiblings(AmongSiblings s) =>
        $"{Cap(s.Part)} is {K(Math.Abs(s.KelvinAbove))} {(s.KelvinAbove > 0 ? "warmer" : "cooler")} than {Count(s.Peers, "machine")} of its model at equal heat and fan (z = {s.Z.ToString("0.0", CultureInfo.InvariantCulture)}).";

    private static string Reason(Assessment a, Zone zone)
    {
        var said = a.Symptoms.Count > 0 ? Reported(a.Symptoms[0]) : "";
        if (a.Evidence is null && said.Length > 0)
            return $"{said} Too few readings to say why: look inside.";
        if (a.Urgency == Urgency.Unknown)
            return a.Readings == 0
                ? "No readings yet: nothing can be said. One loaded run with the air temperature would be a start."
                : $"Only {Count(a.Readings, "reading")}: too few to tell wear from chance. Five loaded readings over a week or more would do.";
        var worst = a.WorstPart!;
        var drift = worst.Split.Total;
        if (
            a.Service is not null
            && a.Cause is not (Cause.None or Cause.Room or Cause.Settings or Cause.Sensor or Cause.CoolerLimited)
        )
            return Joined(said, Drifted(a, worst, drift));
        if (said.Length > 0)
            return $"{said} Its temperatures do not explain it: look inside before anything is replaced.";
        if (a.Service is { } due)
            return $"The {Words.Of(due)} interval is due since {Day(a.ServiceDue!.Value.Due)}; its readings show no wear"
                + (a.Outside.Room >= 2 ? $", the room's {K(a.Outside.Room)} left out." : ".");
        return a.Cause switch
        {
            Cause.Room => $"The air, not the machine: everyone in {zone.Name} is {K(a.Outside.Room)} up. See to the room.",
            Cause.Settings =>
                $"{K(a.Outside.Settings)} warmer since its settings changed: more heat, no wear. See to the settings.",
            Cause.Sensor => Sensor(a),
            Cause.CoolerLimited =>
                $"Hot since its first day ({a.LimitingPart!.Part.Name} {Margin(a.LimitingPart.MarginKelvin)}), and not drifting: the cooler is the limit.",
            _ => $"Within {K(Math.Max(1, drift))} of its fresh state.",
        };
    }

    private static string Joined(string first, string second) =>
        first.Length == 0 ? second
        : second.Length == 0 ? first
        : $"{first} {second}";

    private static string Reported(Symptom symptom) =>
        symptom.Kind switch
        {
            SymptomKind.Crash => $"Crashes, reported on {Day(symptom.Date)}.",
            SymptomKind.Shutdown => $"Switches itself off, reported on {Day(symptom.Date)}.",
            SymptomKind.Throttling => $"Slow under load, reported on {Day(symptom.Date)}.",
            _ => $"Loud, reported on {Day(symptom.Date)}.",
        };

    private static string Drifted(Assessment a, PartAssessment worst, double drift)
    {
        var part = worst.Part.Name;
        var split = worst.Split;
        var text = a.Cause switch
        {
            Cause.Dust => a.Parts.Count > 1
                ? $"All parts {K(split.Dust)} up at equal heat and fan"
                : $"{Cap(part)} {K(drift)} up at equal heat and fan",
            Cause.Paste => $"{Cap(part)} alone {K(split.Joint)} warmer than when its paste was fresh",
            Cause.Pads => $"{Cap(part)} alone {K(split.Joint)} warmer, the rest unchanged: the pads have hardened",
            Cause.Fan => $"The fan turns slower than its command asks; {K(split.Fan)} follow",
            Cause.Mount => $"A step of {K(split.Mount)} on {part} on the day the cooler was lifted: it sits badly",
            _ => $"{Cap(part)} {K(drift)} up",
        };
        var rest = split
            .Ranked()
            .Where(c => c.Cause != a.Cause && c.Kelvin >= 1)
            .Select(c => $"{Words.Of(c.Cause)} {K(c.Kelvin)}")
            .ToArray();
        if (rest.Length > 0)
            text += $"; besides, {string.Join(" and ", rest)}";
        if (a.LimitingPart is { MarginKelvin: <= 0 } limiting)
            text += $". {Cap(limiting.Part.Name)} is past its action line on a hot day";
        return text + ".";
    }

    private static string Sensor(Assessment a)
    {
        var finding = a.SensorFindings.Count > 0 ? a.SensorFindings[^1] : null;
        return finding is null
            ? "A sensor cannot be believed."
            : $"The {finding.Channel} sensor {finding.What}; what the others say shows no wear.";
    }

    /// <summary>The longer explanation of a complete judgement.</summary>
    public static IEnumerable<string> Sentences(Assessment a, Zone zone)
    {
        if (a.Reference is { } reference && a.Parts.Count > 0)
            yield return reference.HasPower
                ? $"Compared at {reference.PowerW.ToString("0", CultureInfo.InvariantCulture)} W, 25 °C intake and its usual fan speed."
                : "Compared at equal workload, 25 °C intake and its usual fan speed; power is not measured.";
        foreach (var p in a.Parts)
        {
            var causes = string.Join(
                ", ",
                p.Split.Ranked().Where(c => c.Kelvin >= 0.3).Select(c => $"{Words.Of(c.Cause)} {K(c.Kelvin)}")
            );
            yield return $"{Cap(p.Part.Name)}: {K(p.Split.Total)} over fresh (± {K(2 * p.SigmaKelvin)}){(causes.Length > 0 ? ": " + causes : "")}. "
                + $"At {zone.DesignAmbient} intake and full fan it would read {p.HottestC.ToString("0", CultureInfo.InvariantCulture)} °C, {Margin(p.MarginKelvin)}.";
            if (Math.Abs(p.UnexplainedKelvin) >= 1.5)
                yield return $"Besides, {p.Part.Name} {(p.UnexplainedKelvin > 0 ? "reads" : "stays")} {K(p.UnexplainedKelvin)} {(p.UnexplainedKelvin > 0 ? "higher" : "lower")} at present than all this explains: no cause found, or none for long enough.";
            if (p.Trend is { IsRising: true } trend)
                yield return $"{Cap(p.Part.Name)} rises {Month(trend.KelvinPerDay)} K a month (80 %: {Month(trend.Low)} to {Month(trend.High)}).";
            else if (p.PaceKelvinPerDay > 0)
                yield return $"{Cap(p.Part.Name)} gathers {Month(p.PaceKelvinPerDay)} K a month by its fitted curve; its points alone do not show it for certain yet.";
            else if (p.Trend is { } level)
                yield return $"{Cap(p.Part.Name)} shows no trend since {Day(UnixDay.DateOf(level.FromDay))}.";
        }
        if (a.WorstPart is { } hottest && hottest.Split.Total >= 3 && !double.IsNaN(hottest.LatestC))
        {
            var now = new Celsius(hottest.LatestC);
            var faster = Ageing.Acceleration(now - new KelvinDifference(hottest.Split.Total), now);
            yield return $"So much warmer, the {hottest.Part.Name} ages {faster.ToString("0.0", CultureInfo.InvariantCulture)} times as fast as fresh (Arrhenius, {Ageing.ActivationEnergyEv.ToString(CultureInfo.InvariantCulture)} eV).";
        }
        if (a is { DriftKelvin: >= 1, FanEnd: { Day: { } end } fan })
            yield return fan.ReserveKelvin <= 0
                ? "Its automatic fan is at full speed: it hides nothing any more, and every kelvin of wear shows."
                : $"Its automatic fan holds the temperature at {fan.PercentNow.ToString("0", CultureInfo.InvariantCulture)} % and can hide {K(fan.ReserveKelvin)} more; by this pace it is at full speed around {Day(end)}, and then everything rises at once.";
        if (a.Service is { } advised && a.Policy.Proven.Of(a.Asset, advised) is { Jobs: >= 2 } proven)
            yield return $"{proven.Jobs} proven jobs of this model: the {Words.Of(advised)} is reckoned to win {proven.Share.ToString("0 %", CultureInfo.InvariantCulture)} of what the split says.";
        if (a.Advised is { Kelvin: >= 1 } worth)
            yield return Worth(worth, a.Policy.Values);
        if (a.Service >= ServiceLevel.BlowOut && a.Asset.UnderWarranty(a.AsOf) && Warranty(a) is { } holds)
            yield return holds;
        if (Math.Abs(a.Outside.Room) >= 1)
            yield return $"{zone.Name} as a whole runs {K(Math.Abs(a.Outside.Room))} {(a.Outside.Room > 0 ? "warmer" : "cooler")} than its intake sensors say; that is taken out.";
        if (Math.Abs(a.Outside.Settings) >= 1)
            yield return $"Present settings add {K(a.Outside.Settings)} against the earlier ones; that is no wear.";
        foreach (var f in a.SensorFindings)
            yield return $"{Cap(f.Channel)} sensor: {f.What} (since {Day(UnixDay.DateOf(f.FromDay))}); left out.";
        if (a.Siblings is { StandsOut: true } siblings)
            yield return AmongSiblings(siblings);
    }

    /// <summary>What the advised level is worth over the years in which it has to pay.</summary>
    private static string Worth(LevelWorth level, HouseValues values)
    {
        string Money(double amount) => $"{amount.ToString("0", CultureInfo.InvariantCulture)} {values.Currency}";
        var span = values.PayBackYears == 1 ? "the next year" : $"the next {values.PayBackYears} years";
        var v = level.Value;
        var range = $"({level.NetLow.ToString("0", CultureInfo.InvariantCulture)} to {Money(level.NetHigh)})";
        (double Amount, string What)[] gains =
        [
            (v.Throttling, "clocks kept up"),
            (v.Crashes, "crashes avoided"),
            (v.Ageing, "slower ageing"),
            (v.Noise, "a quieter fan"),
            (v.Energy, "a fan that takes less"),
        ];
        return v.Net >= 0
            ? $"Doing the {Words.Of(level.Level)} now is worth {Money(v.Net)} over {span} {range}: {Money(v.Gain)} gained, most of it by {gains.MaxBy(g => g.Amount).What}, less {Money(v.Cost)} of work, material and risk; {Money(level.PerHour)} an hour of work."
            : $"By the house's values the {Words.Of(level.Level)} costs {Money(-v.Net)} more over {span} than it brings {range}: it is advised for its kelvins alone.";
    }

    private static string? Warranty(Assessment a)
    {
        var until = $"Under warranty until {Day(a.Asset.WarrantyUntil!.Value)}";
        var air = a.Won(a.WorstPart!, ServiceLevel.BlowOut);
        return (a.Policy.Warranty, a.Service) switch
        {
            (WarrantySchool.AirOnly, ServiceLevel.BlowOut) =>
                $"{until}: this house then uses air only, which should win about {K(air)} of {K(a.WorstPart!.Split.Total)}. For the rest ask its maker or seller.",
            (WarrantySchool.AirOnly, _) =>
                $"{until}: this house then uses air only, which would win about {K(air)}. For the rest ask its maker or seller.",
            (WarrantySchool.AskFirst, > ServiceLevel.BlowOut) => $"{until}: its maker or seller is asked before it is opened.",
            _ => null,
        };
    }

    private static string? ToBeSurer(Assessment a)
    {
        var channels = MissingChannels(a);
        var doubtful =
            a.WorstPart is { } worst
            && worst.Split.Total >= a.Policy.WorthKelvin
            && !new Winnable(worst.Split.Total, worst.SigmaKelvin).IsSure;
        return doubtful
            ? Joined(
                "What is to win may be chance: two loaded runs with the fan fixed, a week apart, would settle it.",
                channels ?? ""
            )
            : channels;
    }

    private static string? MissingChannels(Assessment a) =>
        a.Evidence switch
        {
            null => "A loaded run of 20 minutes with the air temperature written down.",
            Drift.EvidenceGrade.B => "Fan speed in the readings would show wear that an automatic fan hides.",
            Drift.EvidenceGrade.C => "Power in the readings would tell more heat from worse cooling.",
            Drift.EvidenceGrade.D => "Power and fan speed, or the machine's own intake air, would narrow the figures.",
            Drift.EvidenceGrade.E => "An intake air sensor: without it the weather passes for wear.",
            _ => null,
        };

    private static string Month(double kelvinPerDay) => (kelvinPerDay * 30).ToString("0.0", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day) => day.ToString("d MMM yyyy", CultureInfo.InvariantCulture);

    private static string K(double kelvin) =>
        (
            Math.Abs(kelvin) < 9.95
                ? kelvin.ToString("0.#", CultureInfo.InvariantCulture)
                : kelvin.ToString("0", CultureInfo.InvariantCulture)
        ) + " K";

    private static string Margin(double kelvin) =>
        kelvin >= 0 ? $"{K(kelvin)} short of its action line" : $"{K(-kelvin)} past its action line";

    private static string Count(int n, string what) => n == 1 ? $"1 {what}" : $"{n} {what}s";

    private static string Cap(string word) =>
        word switch
        {
            "cpu" => "Processor",
            "gpu" => "Graphics chip",
            "hotspot" => "Hot spot",
            "vrm" => "Regulators",
            _ => char.ToUpperInvariant(word[0]) + word[1..],
        };
}
