using System.Text;
using Pyrometron.Core.Proof;
using Pyrometron.Formats.Csv;

namespace Pyrometron.Formats.Tests;

public class SensorLogCsvTests
{
    private static RunLog Read(string csv) => SensorLogCsv.Read(new MemoryStream(Encoding.UTF8.GetBytes(csv)));

    [Fact]
    public void Times_count_from_the_first_sample_whatever_they_are_written_in()
    {
        Assert.Equal(
            [0, 0.5, 1],
            Read("time,core_c\n2026-05-01T10:00:00Z,40\n2026-05-01T12:00:30+02:00,50\n2026-05-01T10:01Z,55\n").Minutes
        );
        Assert.Equal([0, 0.5], Read("seconds,core_c\n10,40\n40,50\n").Minutes);
        Assert.Equal([0, 2], Read("core_c,minutes\n40,3\n50,5\n").Minutes);
    }

    [Fact]
    public void Parts_are_told_from_the_air_and_empty_cells_are_not_measured()
    {
        var log = Read(
            "minutes,core_c,memory_c,ambient_c,power_w,clock_mhz,fan_rpm,fan_pct,note\n0,40,,24,200,1800,1200,60,x\n1,50,70,24.5,,1790,1210,60,\n"
        );
        Assert.Equal(["core", "memory"], log.Parts.Select(p => p.Part));
        Assert.True(double.IsNaN(log.Parts[1].Celsius[0]));
        Assert.Equal([24, 24.5], log.Ambient!);
        Assert.True(double.IsNaN(log.PowerWatts![1]));
        Assert.Equal([1800, 1790], log.ClockMhz!);
        Assert.Equal([60, 60], log.FanPct!);
    }

    [Theory]
    [InlineData("", 1, "empty")]
    [InlineData("core_c\n40\n", 1, "column of time")]
    [InlineData("minutes,ambient_c\n0,24\n", 1, "no temperature")]
    [InlineData("minutes,core_c\n", 1, "no samples")]
    [InlineData("minutes,core_c\n0,warm\n", 2, "no number")]
    [InlineData("minutes,core_c\n0,1e400\n", 2, "no number")]
    [InlineData("minutes,core_c\n0,40\n0.5,40,7\n", 3, "3 cells")]
    [InlineData("minutes,core_c\n1,40\n0,41\n", 3, "order of time")]
    [InlineData("time,core_c\nyesterday,40\n", 2, "no time")]
    [InlineData("minutes,core_c\n,40\n", 2, "time is missing")]
    [InlineData("minutes,core_c\n0,-400\n", 2, "cannot be")]
    [InlineData("minutes,core_c,fan_rpm\n0,40,-5\n", 2, "cannot be")]
    public void What_is_no_log_is_refused_by_line(string csv, int line, string words)
    {
        var refused = Assert.Throws<RefusedInputException>(() => Read(csv)).Problems.Single();
        Assert.Equal(line, refused.Line);
        Assert.Contains(words, refused.Says.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Bytes_that_are_no_text_are_refused() =>
        Assert.Throws<RefusedInputException>(() => SensorLogCsv.Read(new MemoryStream([0xFF, 0xFE, 0, 1, 2, 3])));
}
