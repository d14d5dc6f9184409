using System.Collections.Immutable;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>What is printed can be read again, all of it, in its order, however long it is.</summary>
public sealed class PaperTests
{
    private static readonly PrintedLabels Labels = new("What", "Quantity", "Price", "Less", "Tax", "on", "page {0}");

    private static PrintedLine Line(int number, string words = "Bow shackle, galvanised, 10 mm") =>
        new(
            false,
            $"{number}",
            $"SHK-{number:0000}",
            words,
            "",
            $"{number} pc",
            "4.1500",
            "",
            $"{number * 4.15m:0.00}",
            false,
            ""
        );

    private static PrintedDocument Of(params PrintedLine[] lines) =>
        new(
            "Skerrow Quay Chandlery",
            ["Quay 1", "Skerrow"],
            "Quote",
            "Q26-00001·A",
            ["Tressel & Vane Rigging", "The Yard", "Skerrow quay"],
            [("date", "26 November 2026"), ("payment", "30 days net")],
            "rope for the yard",
            "EUR",
            [.. lines],
            [("goods", "100.00", false), ("in all, EUR", "123.00", true)],
            [new PrintedTax("23 %", "100.00", "23.00")],
            ["Prices hold until 20 December 2026."],
            "Skerrow Quay Chandlery · Quay 1",
            Labels,
            null
        );

    private static string[] Pages(PrintedDocument document)
    {
        var opened = Assert.Single(FileReader.Open(PdfWriter.Write(document), "quote.pdf", Shelf.Today).Messages);
        using var pdf = UglyToad.PdfPig.PdfDocument.Open(PdfWriter.Write(document));
        Assert.NotEmpty(opened.Parts);
        return [.. pdf.GetPages().Select(p => string.Join(' ', p.GetWords().Select(w => w.Text)))];
    }

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(40)]
    [InlineData(500)]
    public void Every_line_stands_on_it_once_and_in_order(int count)
    {
        var pages = Pages(Of([.. Enumerable.Range(1, count).Select(i => Line(i))]));
        var all = string.Join(' ', pages);
        var at = -1;
        for (var i = 1; i <= count; i++)
        {
            var code = $"SHK-{i:0000}";
            var found = all.IndexOf(code, StringComparison.Ordinal);
            Assert.True(found > at, code);
            Assert.Equal(found, all.LastIndexOf(code, StringComparison.Ordinal));
            at = found;
        }
        Assert.Contains("123.00", pages[^1], StringComparison.Ordinal);
        Assert.Contains("Prices hold until 20 December 2026.", pages[^1], StringComparison.Ordinal);
    }

    [Fact]
    public void Every_page_says_its_number_whose_it_is_and_the_heads_of_its_columns()
    {
        var pages = Pages(Of([.. Enumerable.Range(1, 200).Select(i => Line(i))]));
        Assert.True(pages.Length > 3);
        for (var i = 0; i < pages.Length; i++)
        {
            Assert.Contains($"page {i + 1}", pages[i], StringComparison.Ordinal);
            Assert.Contains("Skerrow Quay Chandlery", pages[i], StringComparison.Ordinal);
            Assert.Contains("Quantity", pages[i], StringComparison.Ordinal);
        }
        // The address stands in the window of the first page alone.
        Assert.Single(pages, p => p.Contains("Tressel & Vane", StringComparison.Ordinal));
    }

    [Fact]
    public void Long_words_are_broken_and_none_is_lost()
    {
        var words = string.Join(' ', Enumerable.Range(1, 60).Select(i => $"word{i}"));
        var all = string.Join(' ', Pages(Of(Line(1, words))));
        Assert.All(Enumerable.Range(1, 60), i => Assert.Contains($"word{i}", all, StringComparison.Ordinal));
    }

    [Fact]
    public void A_letter_has_a_page_in_front_and_pages_of_the_document_go_on_behind_it()
    {
        var posted = Of(Line(1)) with
        {
            Letter = new PrintedLetter(["Tressel & Vane Rigging", "The Loft"], "Dear Fionn,\n\nas you asked."),
        };
        var pages = Pages(posted);
        Assert.Equal(2, pages.Length);
        Assert.Contains("Dear Fionn", pages[0], StringComparison.Ordinal);
        Assert.Contains("The Loft", pages[0], StringComparison.Ordinal);
        Assert.DoesNotContain("SHK-0001", pages[0], StringComparison.Ordinal);
        Assert.Contains("SHK-0001", pages[1], StringComparison.Ordinal);
    }

    [Fact]
    public void What_is_only_if_wanted_says_so_and_dates_stand_by_their_lines()
    {
        var all = string.Join(
            ' ',
            Pages(
                Of(
                    Line(1, "if wanted, Bow shackle") with
                    {
                        IsOptional = true,
                    },
                    Line(2) with
                    {
                        When = "with you by 3 December 2026",
                    }
                )
            )
        );
        Assert.Contains("if wanted, Bow", all, StringComparison.Ordinal);
        Assert.Contains("with you by 3 December 2026", all, StringComparison.Ordinal);
    }

    [Fact]
    public void Letters_of_the_buyers_languages_are_printed()
    {
        const string words = "Södra kajen Båtvarv grøn Schäkel größe cuñas œuf Łódź";
        var all = string.Join(' ', Pages(Of(Line(1, words))));
        Assert.All(words.Split(' '), w => Assert.Contains(w, all, StringComparison.Ordinal));
    }

    [Fact]
    public void The_same_document_is_printed_the_same() =>
        Assert.Equal(Pages(Of(Line(1), Line(2))), Pages(Of(Line(1), Line(2))));

    [Fact]
    public void It_carries_its_title_and_no_author_but_the_house()
    {
        using var pdf = UglyToad.PdfPig.PdfDocument.Open(PdfWriter.Write(Of(Line(1))));
        Assert.Equal("Quote Q26-00001·A", pdf.Information.Title);
        Assert.Equal("Skerrow Quay Chandlery", pdf.Information.Author);
    }
}
