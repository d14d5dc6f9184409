using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// What is printed of a sheet, word for word, and that a print made ahead is only used for the same words.
/// </summary>
public sealed class PrintedTests(House house) : MoneyCalls(house)
{
    private static readonly DateOnly Day = new(2026, 11, 26);

    private async Task<PrintedDocument> DocumentAsync(string quote)
    {
        using var scope = House.Services.CreateScope();
        var services = scope.ServiceProvider;
        var db = services.GetRequiredService<SolvendaDb>();
        var open = await services.GetRequiredService<SheetLoader>().QuoteAsync(db, quote, null, Cancel);
        var judged = await services
            .GetRequiredService<Judge>()
            .JudgeAsync(db, open, new Hand(new PersonId(Quill), "Sorcha Quill"), Cancel);
        return SheetPrint.Quote(judged, services.GetRequiredService<Seller>(), Day);
    }

    [Fact]
    public async Task Every_line_stands_on_it_with_its_figures_as_the_sheet_says_them()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m -5%", "SHK-BOW-10 x 12");
        sheet = await quill.EditAsync(sheet, new { kind = "addHeading", value = "For the yard" });
        sheet = await quill.EditAsync(sheet, new { kind = "add", value = "SVC-EYE x 2" });
        sheet = await SetAsync(
            quill,
            sheet,
            "optional",
            "yes",
            sheet.GetProperty("lines")[3].GetProperty("key").GetInt64()
        );
        var printed = await DocumentAsync(number);
        Assert.Equal(["1", "2", "", "3"], printed.Lines.Select(l => l.Number));
        Assert.Equal([false, false, true, false], printed.Lines.Select(l => l.IsHeading));
        Assert.Equal([false, false, false, true], printed.Lines.Select(l => l.IsOptional));
        Assert.Equal(["180 m", "12", "", "2"], printed.Lines.Select(l => l.Quantity));
        // A discount is shown with the price it comes off; what is not discounted shows its price alone.
        Assert.Equal(["5 %", "", "", ""], printed.Lines.Select(l => l.Discount));
        Assert.Equal(
            sheet
                .GetProperty("lines")[1]
                .GetProperty("net")
                .GetDecimal()
                .ToString("#,##0.00", System.Globalization.CultureInfo.InvariantCulture),
            printed.Lines[1].Amount
        );
        Assert.Contains(printed.Totals, t => t.Strong && t.Label.Contains("EUR", StringComparison.Ordinal));
    }

    [Fact]
    public async Task It_says_whose_it_is_to_whom_and_on_what_terms()
    {
        var quill = await House.AsAsync(Quill);
        var (number, _) = await QuoteAsync(quill, "SHK-BOW-10 x 12");
        var printed = await DocumentAsync(number);
        Assert.Equal($"{number}·A", printed.Number);
        Assert.Contains("Tressel", printed.BuyerLines[0], StringComparison.Ordinal);
        Assert.NotEmpty(printed.SellerLines);
        var facts = printed.Facts.ToDictionary(f => f.Label, f => f.Value);
        Assert.Contains("Sorcha Quill", facts.Values);
        Assert.Contains(facts.Values, v => v.Contains("30", StringComparison.Ordinal));
        Assert.Contains(facts.Values, v => v.Contains("Incoterms 2020", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_was_printed_ahead_is_used_for_the_same_words_only()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 12");
        var ahead = Printed.Of(await DocumentAsync(number));
        Assert.Same(ahead.For(await DocumentAsync(number)), ahead.For(await DocumentAsync(number)));
        await quill.EditAsync(sheet, new { kind = "add", value = "SVC-EYE x 2" });
        var changed = await DocumentAsync(number);
        Assert.NotSame(ahead.For(changed), ahead.For(await DocumentAsync(number)));
        // Also where only one word in a tuple differs.
        var fact = changed with
        {
            Facts = changed.Facts.SetItem(0, (changed.Facts[0].Label, "another")),
        };
        var again = Printed.Of(changed);
        Assert.Same(again.For(changed), again.For(changed));
        Assert.NotSame(again.For(changed), again.For(fact));
    }

    [Fact]
    public async Task A_letter_in_front_is_part_of_what_is_printed()
    {
        var quill = await House.AsAsync(Quill);
        var (number, _) = await QuoteAsync(quill, "SHK-BOW-10 x 12");
        var alone = await DocumentAsync(number);
        var posted = alone with { Letter = new PrintedLetter(["Tressel & Vane"], "Dear Fionn,\n\nas you asked.") };
        Assert.True(PdfWriter.Write(posted).Length > PdfWriter.Write(alone).Length);
    }
}
