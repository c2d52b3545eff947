using System.Globalization;
using System.Text;
using Pyrometron.Core.Readings;
using Pyrometron.Formats.Logs;
using Pyrometron.Formats.Tables;

namespace Pyrometron.Formats.Tests.Logs;

/// <summary>Logs as monitoring programs write them: headers of the shapes that are usual, invented names.</summary>
public class SensorLogTests
{
    private static readonly string[] Desktop = ["cpu", "gpu"],
        Card = ["core", "hotspot", "memory"];

    private static readonly long Latest = DateTimeOffset
        .Parse("2027-01-01T00:00Z", CultureInfo.InvariantCulture)
        .ToUnixTimeMilliseconds();

    private static SensorLogRead Read(
        string text,
        string[]? parts = null,
        string? zone = null,
        Dictionary<string, string>? map = null
    ) => Read(Encoding.UTF8.GetBytes(text), parts, zone, map);

    private static SensorLogRead Read(
        byte[] bytes,
        string[]? parts = null,
        string? zone = null,
        Dictionary<string, string>? map = null
    ) =>
        SensorLog.Read(
            () => new MemoryStream(bytes),
            new LogSettings(
                new Dictionary<string, IReadOnlyList<string>> { ["PC-1"] = parts ?? Desktop },
                "PC-1",
                zone,
                (map ?? []).ToDictionary(m => TableMeanings.KeyOf(m.Key), m => m.Value),
                new Dictionary<string, string>()
            ),
            Latest
        );

    /// <summary>Two hours of full load after an hour of idling, a sample every ten seconds.</summary>
    private static string Log(string header, Func<DateTime, double, string> line, string newline = "\r\n")
    {
        var start = new DateTime(2026, 3, 2, 9, 0, 0, DateTimeKind.Unspecified);
        var text = new StringBuilder(header).Append(newline);
        for (var s = 0; s < 3 * 3600; s += 10)
            text.Append(line(start.AddSeconds(s), s < 3600 ? 0 : 1)).Append(newline);
        return text.ToString();
    }

    private static string F(double value) => value.ToString("0.##", CultureInfo.InvariantCulture);

    [Theory]
    [InlineData(
        "Time,CPU Package [°C],GPU Temperature [°C],CPU Package Power [W],Fan 1 [RPM],Total load [%],Intake air [°C]",
        "time,cpu,gpu,power,fanRpm,load,ambient"
    )]
    [InlineData(
        "Date,Time,CPU temp (°F),GPU temp (°F),Core clock (GHz),Chassis fan (%)",
        "date,clockTime,cpu,gpu,clock,fanPercent"
    )]
    [InlineData(
        "Zeitstempel;Prozessortemperatur [°C];Grafikchip-Temperatur [°C];Leistungsaufnahme [W];Lüfter [U/min];Auslastung [%];Raumluft [°C]",
        "time,cpu,gpu,power,fanRpm,load,ambient"
    )]
    [InlineData(
        "Datum;Uhrzeit;Prozessor Temperatur;Grafik Temperatur;Leistung;Lüfter;Zuluft Temperatur",
        "date,clockTime,cpu,gpu,power,fanRpm,ambient"
    )]
    [InlineData(
        "Horodatage;Température processeur (°C);Température carte graphique (°C);Puissance (W);Ventilateur (tr/min);Charge (%)",
        "time,cpu,gpu,power,fanRpm,load"
    )]
    [InlineData(
        "Fecha;Hora;Temperatura procesador (°C);Temperatura gráfica (°C);Potencia (W);Ventilador (rpm);Carga (%)",
        "date,clockTime,cpu,gpu,power,fanRpm,load"
    )]
    [InlineData(
        "Data;Ora;Temperatura processore [°C];Temperatura scheda video [°C];Potenza [W];Ventola [giri/min];Carico [%]",
        "date,clockTime,cpu,gpu,power,fanRpm,load"
    )]
    [InlineData("timestamp\tcpu_temp_c\tgpu_temp_c\tpower_w\tfan_rpm\tdisk_temp_c", "time,cpu,gpu,power,fanRpm,ignore")]
    [InlineData(
        "Czas;Procesor temperatura [°C];Karta graficzna temperatura [°C];Moc [W];Wentylator [obr/min]",
        "time,cpu,gpu,power,fanRpm"
    )]
    [InlineData("Tid;Processor temperatur (°C);Grafik temperatur (°C);Effekt (W);Fläkt (varv/min)", "time,cpu,gpu,power,fanRpm")]
    public void Columns_are_found_by_words_and_units(string header, string fields)
    {
        var cells = header.Split(';', '\t').Length > 1 ? header.Split(';', '\t') : header.Split(',');
        var delimiter =
            header.Contains(';', StringComparison.Ordinal) ? ";"
            : header.Contains('\t', StringComparison.Ordinal) ? "\t"
            : ",";
        string Cell(string name, DateTime at) =>
            name switch
            {
                "time" => at.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture),
                "date" => at.ToString("dd.MM.yyyy", CultureInfo.InvariantCulture),
                "clockTime" => at.ToString("HH:mm:ss", CultureInfo.InvariantCulture),
                _ => "60",
            };
        var log = Read(Log(header, (at, _) => string.Join(delimiter, fields.Split(',').Select(f => Cell(f, at)))));
        Assert.Equal(cells.Length, log.Columns.Count);
        var expected = fields.Split(',');
        for (var c = 0; c < expected.Length; c++)
            Assert.True(
                log.Columns[c].Field.Name == expected[c],
                $"'{log.Columns[c].Header}' was taken for {log.Columns[c].Field.Name}, not {expected[c]}"
            );
        Assert.Equal(1080, log.Machines[0].Log.Samples);
        Assert.Equal(0, log.RejectedCount);
    }

    [Fact]
    public void A_card_of_its_own_has_core_hot_spot_and_memory()
    {
        var log = Read(
            Log(
                "Time,GPU Temperature [°C],GPU Hot Spot [°C],GPU Memory Junction [°C],GPU Power [W]",
                (at, busy) =>
                    $"{at:yyyy-MM-dd HH:mm:ss},{F(40 + 30 * busy)},{F(50 + 34 * busy)},{F(50 + 44 * busy)},{F(20 + 200 * busy)}"
            ),
            Card
        );
        Assert.Equal(["time", "core", "hotspot", "memory", "power"], log.Columns.Select(c => c.Field.Name));
        var full = log.Machines[0].Log.Windows.Where(w => w.Activity == Activity.FullLoad).ToArray();
        Assert.Equal(4, full.Length);
        Assert.All(full, w => Assert.Equal(70, w.PartsC[0], 0.01));
    }

    [Fact]
    public void Load_becomes_windows_idle_is_told_from_it_and_a_pause_is_a_gap()
    {
        var text = Log(
            "Time;CPU [°C];Package power [W];Air [°C]",
            (at, busy) =>
                at.Hour == 11 && at.Minute is >= 10 and < 20
                    ? ""
                    : $"{at:yyyy-MM-dd HH:mm:ss};{F(38 + 40 * busy)};{F(15 + 90 * busy)};22,5"
        );
        var log = Read(text);
        Assert.Equal(2, log.Machines[0].Log.Windows.Count(w => w.Activity == Activity.Idle));
        Assert.Equal(1, log.Machines[0].Log.Gaps);
        Assert.All(
            log.Machines[0].Log.Windows.Where(w => w.Activity == Activity.FullLoad),
            w => Assert.Equal((78, 105, 22.5), (w.PartsC[0], w.PowerW, w.AmbientC))
        );
        // Read as UTC, and asked about, until somebody says where.
        Assert.Contains(log.Questions, q => q.About == SensorLog.ZoneQuestion);
        var there = Read(text, zone: "America/New_York");
        Assert.Equal(
            5 * 3_600_000,
            there.Machines[0].Log.Windows[0].UnixMilliseconds - log.Machines[0].Log.Windows[0].UnixMilliseconds
        );
        Assert.DoesNotContain(there.Questions, q => q.About == SensorLog.ZoneQuestion);
    }

    /// <summary>25 October 2026, 02:00 in Berlin: clocks go back, and the hour is there twice (IANA time zone data).</summary>
    [Fact]
    public void The_hour_of_summer_time_that_is_there_twice_is_read_twice()
    {
        var text = new StringBuilder("Time;CPU [°C]\n");
        foreach (var twice in new[] { 0, 1 })
            for (var m = 0; m < 60; m++)
                text.Append(CultureInfo.InvariantCulture, $"25.10.2026 02:{m:00}:00;{70 + twice * 5}\n");
        var log = Read(text.ToString(), zone: "Europe/Berlin");
        Assert.Equal(120, log.Machines[0].Log.Samples);
        Assert.Equal(
            [75.0, 70.0],
            log.Machines[0].Log.Windows.OrderByDescending(w => w.UnixMilliseconds).Select(w => w.PartsC[0]).Distinct()
        );
        Assert.Equal(
            DateTimeOffset.Parse("2026-10-25T00:15Z", CultureInfo.InvariantCulture).ToUnixTimeMilliseconds(),
            log.Machines[0].Log.Windows[0].UnixMilliseconds
        );
    }

    [Theory]
    [InlineData("2026-03-02T09:00:00Z", 9)]
    [InlineData("2026-03-02T09:00:00+02:00", 7)]
    [InlineData("2026-03-02 09:00:00.250", 9)]
    [InlineData("02.03.2026 09:00:00", 9)]
    [InlineData("2 Mar 2026 09:00:00", 9)]
    [InlineData("31/03/2026 9:00:00 PM", 21)]
    [InlineData("03/31/2026 09:00:00 AM", 9)]
    [InlineData("1772442000", 9)]
    [InlineData("1772442000000", 9)]
    public void Times_are_read_as_programs_write_them(string time, int hour)
    {
        var log = Read($"Time;CPU °C\n{time};60\n");
        Assert.Equal(0, log.RejectedCount);
        Assert.Equal(hour, DateTimeOffset.FromUnixTimeMilliseconds(log.Machines[0].Log.FirstMs!.Value).Hour);
    }

    [Fact]
    public void Units_below_the_headers_headers_again_and_a_title_above_are_no_samples()
    {
        var log = Read(
            "Recorder 3, desk 7\nTime;CPU;Air\nhh:mm:ss;°F;°F\n2026-03-02 09:00:00;140;68\nTime;CPU;Air\nhh:mm:ss;°F;°F\n2026-03-02 09:00:10;140;68\n"
        );
        Assert.Equal((2, 0), (log.Machines[0].Log.Samples, log.RejectedCount));
        Assert.Equal([LogUnit.None, LogUnit.Fahrenheit, LogUnit.Fahrenheit], log.Columns.Select(c => c.Unit));
    }

    [Fact]
    public void Cut_lines_decimal_commas_in_a_comma_file_and_times_that_are_none_are_told_by_line()
    {
        var log = Read(
            "Time,CPU °C,GPU °C\n2026-03-02 09:00:00,60,50\n2026-03-02 09:00:10,60,5,50,1\n2026-03-02 09:0\n2026-03-99 09:00:20,60,50\n2026-03-02 09:00:30,n/a,50\n"
        );
        Assert.Equal(2, log.Machines[0].Log.Samples);
        Assert.Equal([3, 4, 5], log.Rejected.Select(r => r.Line!.Value));
        Assert.Contains("decimal comma", log.Rejected[0].Says.ToString(), StringComparison.Ordinal);
        Assert.Contains("cut off", log.Rejected[1].Says.ToString(), StringComparison.Ordinal);
        Assert.Equal("Time", log.Rejected[2].Column);
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("one line only\nand another\n", "row of headers")]
    public void What_is_no_log_says_why(string text, string why) =>
        Assert.Contains(why, Assert.Throws<RefusedInputException>(() => Read(text)).Message, StringComparison.Ordinal);

    [Theory]
    [InlineData("CPU °C;GPU °C\n1;2\n", "No column holds the time")]
    [InlineData("Uhrzeit;CPU °C\n09:00;60\n", "both")]
    [InlineData("Time;Wheel\n2026-03-02 09:00:00;3\n", "temperature of this machine's parts (cpu, gpu)")]
    public void What_lacks_a_column_says_which_and_shows_what_was_found(string text, string why)
    {
        var log = Read(text);
        Assert.Contains(why, log.Problem!.Says.ToString(), StringComparison.Ordinal);
        Assert.Equal((2, 1), (log.Columns.Count, log.FirstLines.Count));
    }

    [Fact]
    public void What_was_settled_goes_before_any_guess()
    {
        var log = Read("When;A;B\n2026-03-02 09:00:00;60;22\n", map: new() { ["A"] = "cpu", ["B"] = "ambient" });
        Assert.Equal(["time", "cpu", "ambient"], log.Columns.Select(c => c.Field.Name));
        Assert.Equal([true, false, false], log.Columns.Select(c => c.Guessed));
    }

    [Fact]
    public void Of_several_sensors_of_one_part_the_hottest_counts()
    {
        var log = Read(Log("Time;CPU core 0 [°C];CPU core 1 [°C];CPU die [°C]", (at, _) => $"{at:yyyy-MM-dd HH:mm:ss};61;67;64"));
        Assert.All(log.Machines[0].Log.Windows, w => Assert.Equal(67, w.PartsC[0]));
    }

    [Fact]
    public void Wide_letters_are_read_too()
    {
        byte[] bytes =
        [
            .. Encoding.Unicode.Preamble.ToArray(),
            .. Encoding.Unicode.GetBytes("Zeit\tProzessor [°C]\n2026-03-02 09:00:00\t60\n"),
        ];
        var log = Read(bytes);
        Assert.Equal((1, "cpu"), (log.Machines[0].Log.Samples, log.Columns[1].Field.Name));
    }

    private static readonly Dictionary<string, IReadOnlyList<string>> Fleet = new()
    {
        ["GC-0007"] = Card,
        ["PC-1"] = Desktop,
        ["PC-12"] = Desktop,
    };

    private static SensorLogRead ReadFleet(string text, string? asset = null) =>
        SensorLog.Read(
            () => new MemoryStream(Encoding.UTF8.GetBytes(text)),
            new LogSettings(Fleet, asset, null, new Dictionary<string, string>(), new Dictionary<string, string>()),
            Latest
        );

    [Fact]
    public void Headers_that_name_machines_give_each_its_own_columns()
    {
        const string header = "Time,pc_1 CPU [°C],PC-12 CPU [°C],PC-12 power [W],GC-0007 memory [°C],GC-0007 GPU [°C],Room [°C]";
        var log = ReadFleet(Log(header, (at, _) => $"{at:s}Z,51,52,90,80,70,22"));
        Assert.Equal(["PC-1", "PC-12", "GC-0007"], log.Machines.Select(m => m.Tag));
        OperatingWindow First(int machine) => log.Machines[machine].Log.Windows[0];
        Assert.Equal([51, 52], [First(0).PartsC[0], First(1).PartsC[0]]);
        Assert.Equal([70, double.NaN, 80], First(2).PartsC);
        // Its own power, and the air that is nobody's own.
        Assert.Equal([double.NaN, 90, double.NaN], [First(0).PowerW, First(1).PowerW, First(2).PowerW]);
        Assert.All(log.Machines, m => Assert.Equal(22, m.Log.Windows[0].AmbientC));
        Assert.Equal(
            ["PC-12"],
            ReadFleet(Log(header, (at, _) => $"{at:s}Z,51,52,90,80,70,22"), "PC-12").Machines.Select(m => m.Tag)
        );
    }

    [Fact]
    public void Lines_of_machines_that_are_not_in_the_fleet_are_refused_and_the_others_kept()
    {
        var log = ReadFleet(
            "Time,Host,CPU [°C]\n2026-03-02T09:00:00Z,PC-1,51\n2026-03-02T09:00:00Z,PC-99,52\n2026-03-02T09:00:10Z,GC-0007,70\n"
        );
        Assert.Equal([("PC-1", 1L), ("GC-0007", 1L)], log.Machines.Select(m => (m.Tag, m.Log.Samples)));
        Assert.Equal(3, Assert.Single(log.Rejected).Line);
        Assert.Contains("'PC-99'", log.Rejected[0].Says.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_log_that_names_no_machine_asks_for_it() =>
        Assert.Equal(
            ["GC-0007", "PC-1", "PC-12"],
            Assert.Throws<RefusedInputException>(() => ReadFleet("Time,CPU [°C]\n2026-03-02T09:00:00Z,51\n")).Question!.Choices
        );
}
