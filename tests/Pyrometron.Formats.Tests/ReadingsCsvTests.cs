using System.Text;
using CsCheck;
using Pyrometron.Core.Readings;
using Pyrometron.Formats.Csv;

namespace Pyrometron.Formats.Tests;

public class ReadingsCsvTests
{
    private static readonly DateTimeOffset Now = new(2026, 5, 1, 12, 0, 0, TimeSpan.Zero);

    private static readonly Dictionary<string, IReadOnlyList<string>> Fleet = new()
    {
        ["GC-1"] = ["core", "memory"],
        ["PC, \"12\""] = ["cpu"],
    };

    private static (List<ReadingLine> Lines, string[] Warnings) Read(string text) => Read(Encoding.UTF8.GetBytes(text));

    private static (List<ReadingLine> Lines, string[] Warnings) Read(byte[] bytes)
    {
        var csv = new ReadingsCsv(Fleet.GetValueOrDefault, Now);
        return ([.. csv.Read(new MemoryStream(bytes))], [.. csv.Warnings.Select(w => w.ToString())]);
    }

    private static Reading Only(string text) =>
        Read(text).Lines.Single().Reading
        ?? throw new InvalidOperationException(Read(text).Lines.Single().Problem!.Says.ToString());

    [Fact]
    public void Columns_stand_in_any_order_and_an_empty_cell_is_not_measured()
    {
        var r = Only("memory_c,asset,power_w,core_c,time,settings\r\n82,GC-1,,68.5,2026-04-01T06:00Z,stock\r\n");
        Assert.Equal([68.5, 82], r.PartsC);
        Assert.True(double.IsNaN(r.PowerW) && double.IsNaN(r.AmbientC));
        Assert.Equal(("stock", null), (r.Settings, r.Workload));
        Assert.Equal(new DateTimeOffset(2026, 4, 1, 6, 0, 0, TimeSpan.Zero).ToUnixTimeMilliseconds(), r.UnixMilliseconds);
    }

    [Theory]
    [InlineData("2026-04-01T06:00Z")]
    [InlineData("2026-04-01T08:00:00+02:00")]
    [InlineData("2026-04-01 01:30:00.000-0430")]
    public void The_same_instant_in_another_offset_is_the_same(string time) =>
        Assert.Equal(1775023200000, Only($"time,asset\n{time},GC-1").UnixMilliseconds);

    /// <summary>RFC 4180, section 2: quotes, doubled quotes, line ends, the last one missing.</summary>
    [Fact]
    public void Quoted_cells_byte_order_mark_and_line_ends()
    {
        var (lines, _) = Read(
            "\uFEFFtime,asset,cpu_c,settings\r\n2026-04-01T06:00Z,\"PC, \"\"12\"\"\",70,\"two\r\nlines\"\n\n2026-04-01T07:00Z,\"PC, \"\"12\"\"\",71,x"
        );
        Assert.Equal(["two\r\nlines", "x"], lines.Select(l => l.Reading!.Settings));
        Assert.Equal([2, 5], lines.Select(l => l.Line));
    }

    [Theory]
    [InlineData("2026-04-01T06:00Z,GC-9,70", "asset", "not in the fleet")]
    [InlineData("yesterday,GC-1,70", "time", "no time with an offset")]
    [InlineData("2026-04-01T06:00,GC-1,70", "time", "no time with an offset")]
    [InlineData("2026-02-30T06:00Z,GC-1,70", "time", "no time with an offset")]
    [InlineData("2026-05-03T06:00Z,GC-1,70", "time", "more than a day ahead")]
    [InlineData("1970-01-01T00:00Z,GC-1,70", "time", "the clock of the device was not set")]
    [InlineData("2026-04-01T06:00Z,GC-1,NaN", "core_c", "no number")]
    [InlineData("2026-04-01T06:00Z,GC-1,1e9", "core_c", "no temperature")]
    [InlineData("2026-04-01T06:00Z,GC-1,-300", "core_c", "no temperature")]
    [InlineData("2026-04-01T06:00Z,GC-1,70;5", "core_c", "no number")]
    [InlineData("2026-04-01T06:00Z,GC-1", null, "2 cells, the header 3")]
    [InlineData("2026-04-01T06:00Z,GC-1,70,1", null, "4 cells, the header 3")]
    [InlineData("2026-04-01T06:00Z,GC-1,\"7\"0", null, "closing quote")]
    public void A_bad_line_is_refused_with_its_place_and_the_good_ones_stay(string line, string? column, string words)
    {
        var (lines, _) = Read($"time,asset,core_c\n2026-04-01T00:00Z,GC-1,60\n{line}\n2026-04-01T12:00Z,GC-1,61\n");
        Assert.Equal(3, lines.Count);
        Assert.Equal((3, column), (lines[1].Problem!.Line!.Value, lines[1].Problem!.Column));
        Assert.Contains(words, lines[1].Problem!.Says.ToString(), StringComparison.Ordinal);
        Assert.Equal([60, 61], lines.Where(l => l.Reading is not null).Select(l => l.Reading!.PartsC[0]));
    }

    [Theory]
    [InlineData("power_w", "-1")]
    [InlineData("fan_rpm", "-0.5")]
    [InlineData("fan_pct", "-3")]
    [InlineData("throttled", "2")]
    public void Negative_or_senseless_numbers_are_refused(string column, string value) =>
        Assert.Equal(column, Read($"time,asset,{column}\n2026-04-01T06:00Z,GC-1,{value}").Lines.Single().Problem!.Column);

    [Fact]
    public void An_implausible_temperature_is_kept_as_evidence_about_its_sensor() =>
        Assert.Equal(-273.15, Only("time,asset,core_c\n2026-04-01T06:00Z,GC-1,-273.15").PartsC[0]);

    [Fact]
    public void Unknown_columns_and_parts_of_other_machines_are_kept_out_with_a_warning()
    {
        var (lines, warnings) = Read("time,asset,core_c,cpu_c,mood\n2026-04-01T06:00Z,GC-1,60,70,good");
        Assert.Equal([60, double.NaN], lines.Single().Reading!.PartsC);
        Assert.Contains(warnings, w => w.Contains("'mood'", StringComparison.Ordinal));
        Assert.Contains(
            warnings,
            w => w.Contains("'cpu_c'", StringComparison.Ordinal) && w.Contains("GC-1", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void Fans_that_report_apart_are_kept() =>
        Assert.Equal("1780;1750", Only("time,asset,fan1_rpm,fan2_rpm\n2026-04-01T06:00Z,GC-1,1780,1750").FansRpm);

    [Theory]
    [InlineData("", "empty")]
    [InlineData("a,b,c\n1,2,3", "lacks the column 'time'")]
    [InlineData("time,core_c\n", "lacks the column 'asset'")]
    [InlineData("time,asset,asset\n", "twice")]
    public void A_body_that_is_no_readings_file_is_refused_whole(string text, string words)
    {
        var refused = Assert.Throws<RefusedInputException>(() => Read(text));
        Assert.Contains(words, refused.Message, StringComparison.Ordinal);
        Assert.Equal(1, refused.Problems[0].Line);
    }

    [Fact]
    public void A_missing_column_is_told_with_what_was_found_and_what_was_expected()
    {
        var refused = Assert.Throws<RefusedInputException>(() => Read("time,machine,cpu\n"));
        Assert.Contains("Found: time, machine, cpu.", refused.Message, StringComparison.Ordinal);
        Assert.Contains("needs time, asset, and may have ambient_c", refused.Message, StringComparison.Ordinal);
        Assert.Null(refused.Question);
    }

    [Theory]
    [InlineData(";", CsvDelimiter.Semicolon, "semicolon")]
    [InlineData("\t", CsvDelimiter.Tab, "tab")]
    public void Other_delimiters_are_asked_about_and_then_read_with_decimal_commas(
        string mark,
        CsvDelimiter delimiter,
        string word
    )
    {
        var text = "time;asset;core_c;power_w\n2026-04-01T06:00Z;GC-1;60,5;228\n2026-04-01T07:00Z;GC-1;1.234,5;228\n".Replace(
            ";",
            mark,
            StringComparison.Ordinal
        );
        var refused = Assert.Throws<RefusedInputException>(() => Read(text));
        Assert.Equal(("delimiter", word), (refused.Question!.About, Assert.Single(refused.Question.Choices)));
        using var stream = new MemoryStream(Encoding.UTF8.GetBytes(text));
        var lines = new ReadingsCsv(Fleet.GetValueOrDefault, Now, delimiter).Read(stream).ToList();
        Assert.Equal((60.5, 228), (lines[0].Reading!.PartsC[0], lines[0].Reading!.PowerW));
        // No thousands separators are taken.
        Assert.Equal("core_c", lines[1].Problem!.Column);
    }

    [Fact]
    public void Binary_and_other_encodings_are_refused_whole()
    {
        Assert.Throws<RefusedInputException>(() => Read(Encoding.Unicode.GetBytes("time,asset\n")));
        Assert.Throws<RefusedInputException>(() => Read([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3]));
    }

    [Fact]
    public void A_line_over_64_KiB_and_a_quote_never_closed_cost_only_themselves()
    {
        var endless = new string('9', 70_000);
        var (lines, _) = Read(
            $"time,asset,settings\n2026-04-01T01:00Z,GC-1,{endless}\n2026-04-01T02:00Z,GC-1,\"open\n2026-04-01T03:00Z,GC-1,good\n"
        );
        Assert.Equal([2, 3, 4], lines.Select(l => l.Line));
        Assert.Contains("longer than 64 KiB", lines[0].Problem!.Says.ToString(), StringComparison.Ordinal);
        Assert.Contains("never closed", lines[1].Problem!.Says.ToString(), StringComparison.Ordinal);
        Assert.Equal("good", lines[2].Reading!.Settings);
    }

    [Fact]
    public void A_line_of_many_megabytes_is_passed_over_with_bounded_memory()
    {
        using var stream = new MemoryStream();
        stream.Write("time,asset,settings\n2026-04-01T01:00Z,GC-1,"u8);
        stream.Write(Encoding.ASCII.GetBytes(new string('x', 20_000_000)));
        stream.Write("\n2026-04-01T02:00Z,GC-1,good\n"u8);
        stream.Position = 0;
        var before = GC.GetAllocatedBytesForCurrentThread();
        var lines = new ReadingsCsv(Fleet.GetValueOrDefault, Now).Read(stream).ToList();
        Assert.True(GC.GetAllocatedBytesForCurrentThread() - before < 2_000_000);
        Assert.Equal([false, true], lines.Select(l => l.Reading is not null));
    }

    /// <summary>Whatever bytes come, each line is a reading or a refusal, and nothing throws but a whole refusal.</summary>
    [Fact]
    public void Any_bytes_after_a_good_header_are_read_or_refused() =>
        Gen
            .Byte.Array[0, 400]
            .Sample(
                bytes =>
                {
                    var (lines, _) = Read([.. "time,asset,core_c\n"u8, .. bytes]);
                    return lines.All(l => l.Reading is null != (l.Problem is null) && l.Line >= 2);
                },
                iter: 2000
            );
}
