using System.Text;
using Solvenda.Formats.Tables;
using Solvenda.Formats.X12;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>What we write is taken for nothing but what it says, whatever stands in it.</summary>
public sealed class InertTests
{
    [Fact]
    public void What_others_wrote_ends_no_segment_of_ours()
    {
        const string nasty = "A*B~C>D\r\nISA*";
        var written = Acknowledgement.Write(
            new OrderAcknowledgement(
                nasty,
                nasty,
                7,
                new DateTime(2026, 3, 2, 10, 0, 0, DateTimeKind.Utc),
                nasty,
                null,
                nasty,
                false,
                "EUR",
                [new ConfirmedLine(nasty, 1m, nasty, 2m, nasty, "IA", null, [("VP", nasty)])]
            )
        );
        var (interchange, problem) = X12Interchange.Open(written);
        Assert.Null(problem);
        Assert.Empty(interchange!.Faults);
        var set = Assert.Single(interchange.Messages);
        Assert.Empty(set.Faults);
        Assert.Equal("A B C D  ISA", set.Find("PO1")![7].TrimEnd());
        Assert.DoesNotContain('\r', written);
    }

    [Theory]
    [InlineData("=1+1")]
    [InlineData("  =1+1")]
    [InlineData("\u00a0@SUM(A1)")]
    [InlineData("＝cmd|' /C calc'!A0")]
    [InlineData("-2+3")]
    [InlineData("'=1+1")]
    [InlineData("\n=1+1")]
    public async Task A_cell_that_begins_like_a_formula_is_shielded_wherever_it_stands_and_comes_back_as_it_was(
        string cell
    )
    {
        static async IAsyncEnumerable<IReadOnlyList<string>> Rows(string cell)
        {
            await Task.CompletedTask;
            yield return [cell, "1"];
        }
        using var stream = new MemoryStream();
        await TableWriter.CsvAsync(stream, [cell.TrimStart(), "b"], Rows(cell), TestContext.Current.CancellationToken);
        var bytes = stream.ToArray();
        var text = Encoding.UTF8.GetString(bytes);
        // In the column, and at its head.
        Assert.Contains("'" + cell, text, StringComparison.Ordinal);
        Assert.Contains("'" + cell.TrimStart() + ",b", text, StringComparison.Ordinal);
        Assert.Equal(cell, Assert.Single(TableReader.Read(bytes).Rows).Cells[0]);
    }
}
