using Pyrometron.Formats.Csv;

namespace Pyrometron.Formats.Tests;

/// <summary>RFC 4180: quoting, doubled quotes, CRLF.</summary>
public class CsvWriterTests
{
    [Fact]
    public void Cells_are_quoted_only_where_they_must_be()
    {
        Assert.Equal(
            "plain,\"a,b\",\"say \"\"no\"\"\",\"two\nlines\",\r\n",
            CsvWriter.Record("plain", "a,b", "say \"no\"", "two\nlines", null)
        );
        Assert.Equal("\r\n", CsvWriter.Record(""));
    }

    /// <summary>Common practice, no source: a spreadsheet must not run what somebody typed at the bench.</summary>
    [Theory]
    [InlineData("=1+1", "'=1+1")]
    [InlineData("@x", "'@x")]
    [InlineData("-cmd", "'-cmd")]
    [InlineData("-4.5", "-4.5")]
    [InlineData("+3", "+3")]
    [InlineData("a=b", "a=b")]
    public void What_a_spreadsheet_would_take_for_a_formula_is_told_apart_and_numbers_stay_numbers(string cell, string written) =>
        Assert.Equal(written + "\r\n", CsvWriter.Record(cell));
}
