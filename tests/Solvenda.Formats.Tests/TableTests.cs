using System.Text;
using Solvenda.Formats.Tables;
using Xunit;

namespace Solvenda.Formats.Tests;

public sealed class TableTests
{
    private static readonly string[] Head = ["code", "words", "price"];

    private static readonly string[][] Rows =
    [
        ["A-1", "plain", "2.42"],
        ["A-2", "with; \"quotes\", commas\nand lines", "-1.5"],
        ["0012", "Måsholm Bådeværft", "0.000001"],
        ["=1+1", "@sum", "12345678.9"],
        ["'-x", "''", ""],
        ["-x", "+353 20", "1"],
    ];

    [Theory, InlineData("csv"), InlineData("xlsx")]
    public async Task What_is_read_is_what_was_written(string format)
    {
        using var file = new MemoryStream();
        if (format == "csv")
            await TableWriter.CsvAsync(file, Head, Each(), TestContext.Current.CancellationToken);
        else
            await TableWriter.XlsxAsync(
                file,
                Head,
                [false, false, true],
                Each(),
                TestContext.Current.CancellationToken
            );
        var table = TableReader.Read(file.ToArray());
        Assert.Equal(Head, table.Head);
        Assert.Equal(Rows, table.Rows.Select(r => r.Cells.ToArray()));
    }

    [Fact]
    public async Task A_text_that_a_spreadsheet_would_run_is_shielded()
    {
        using var file = new MemoryStream();
        await TableWriter.CsvAsync(file, Head, Each(), TestContext.Current.CancellationToken);
        var text = Encoding.UTF8.GetString(file.ToArray());
        Assert.Contains(
            "\n'=1+1,'@sum,12345678.9",
            text.Replace("\r", "", StringComparison.Ordinal),
            StringComparison.Ordinal
        );
        Assert.Contains("-1.5", text, StringComparison.Ordinal);
    }

    [Theory]
    [
        InlineData("a;b\n1;2", "1|2"),
        InlineData("a\tb\n1\t2", "1|2"),
        InlineData("a,b\n\"1,5\",2\n\n", "1,5|2"),
        InlineData("\uFEFFa;b\n1,5;2\n", "1,5|2")
    ]
    public void The_separator_is_found_out(string text, string cells) =>
        Assert.Equal(cells, string.Join('|', Assert.Single(TableReader.Read(Encoding.UTF8.GetBytes(text)).Rows).Cells));

    [Fact]
    public void A_quote_that_opens_a_cell_and_does_not_close_it_is_told_and_an_inch_is_not()
    {
        IReadOnlyList<string>[] Cells(string text) =>
            [.. TableReader.Read(Encoding.UTF8.GetBytes(text)).Rows.Select(r => r.Cells)];
        Assert.Equal(["3/8\" rope", "4"], Cells("a;b\n3/8\" rope;4\n")[0]);
        Assert.Equal(["say \"so\"", "4"], Cells("a;b\n\"say \"\"so\"\"\";4\n")[0]);
        foreach (var damaged in new[] { "a;b\n1;2\n\"3;4\n5;6\n", "a;b\n\"x\"y;4\n" })
            Assert.Contains(
                "Line ",
                Assert.Throws<TableException>(() => Cells(damaged)).Message,
                StringComparison.Ordinal
            );
    }

    [Fact]
    public void What_is_no_table_says_so()
    {
        foreach (
            var bytes in new byte[][]
            {
                [],
                [1, 0, 2, 0, 3],
                [(byte)'P', (byte)'K', 3, 4, 0, 0],
                Encoding.UTF8.GetBytes(";;;\n"),
            }
        )
            Assert.Throws<TableException>(() => TableReader.Read(bytes));
    }

    private static async IAsyncEnumerable<IReadOnlyList<string>> Each()
    {
        foreach (var row in Rows)
            yield return row;
        await Task.CompletedTask;
    }
}
