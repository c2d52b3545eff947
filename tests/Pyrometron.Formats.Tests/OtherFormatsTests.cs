using System.IO.Compression;
using System.Text;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats.Csv;

namespace Pyrometron.Formats.Tests;

public class OtherFormatsTests
{
    private static MemoryStream Bytes(string text) => new(Encoding.UTF8.GetBytes(text));

    [Fact]
    public void Services_are_read_and_refused_line_by_line()
    {
        var lines = ServicesCsv
            .Read(
                Bytes(
                    "level,date,asset\ndust-out,2025-10-01,GC-1\nhammer,2025-10-01,GC-1\nrepad,2025-13-01,GC-1\nrepad,2030-01-01,GC-1\nrepad,2025-10-02,GC-2\n"
                ),
                tag => tag == "GC-1",
                new(2026, 5, 1)
            )
            .ToList();
        Assert.Equal(new ServiceDone(new(2025, 10, 1), ServiceLevel.DustOut), lines[0].Service);
        Assert.Equal(["level", "date", "date", "asset"], lines.Skip(1).Select(l => l.Problem!.Column));
        Assert.Throws<RefusedInputException>(() => ServicesCsv.Read(Bytes("date,asset\n"), _ => true, new(2026, 5, 1)).ToList());
    }

    [Fact]
    public void Services_with_semicolons_may_write_their_days_as_1_5_2026()
    {
        const string text = "date;asset;level\n1.5.2026;GC-1;dust-out\n2026-04-02;GC-1;repaste\n5/1/2026;GC-1;repaste\n";
        IEnumerable<ServiceLine> Read(CsvDelimiter delimiter) =>
            ServicesCsv.Read(Bytes(text), _ => true, new(2026, 5, 2), delimiter);
        Assert.Equal("semicolon", Assert.Throws<RefusedInputException>(() => Read(CsvDelimiter.Comma)).Question!.Choices[0]);
        var lines = Read(CsvDelimiter.Semicolon).ToList();
        Assert.Equal([new(2026, 5, 1), new DateOnly(2026, 4, 2)], lines.Take(2).Select(l => l.Service!.Date));
        Assert.Equal("date", lines[2].Problem!.Column);
    }

    [Fact]
    public async Task A_gzip_cut_short_anywhere_or_damaged_is_refused_whole()
    {
        var packed = new MemoryStream();
        using (var gzip = new GZipStream(packed, CompressionLevel.Optimal, leaveOpen: true))
            gzip.Write(Encoding.UTF8.GetBytes(string.Concat(Enumerable.Range(0, 500).Select(i => $"line {i}\n"))));
        var bytes = packed.ToArray();
        using (var whole = await GzipSpool.TakeAsync(new MemoryStream(bytes), Path.GetTempPath(), default))
            Assert.Equal(whole.PlainLength, new StreamReader(whole.Open()).ReadToEnd().Length);
        for (var length = 2; length < bytes.Length; length++)
            await Assert.ThrowsAsync<RefusedInputException>(() =>
                GzipSpool.TakeAsync(new MemoryStream(bytes[..length]), Path.GetTempPath(), default)
            );
        bytes[^6] ^= 1;
        await Assert.ThrowsAsync<RefusedInputException>(() =>
            GzipSpool.TakeAsync(new MemoryStream(bytes), Path.GetTempPath(), default)
        );
    }
}
