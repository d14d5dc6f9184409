using System.Net.Http.Json;
using System.Text.Json;
using System.Xml.Linq;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Deposits are taxed when they come: a deposit invoice, which later invoices take off.</summary>
public sealed class DepositInvoiceTests(House house) : BilledCalls(house)
{
    private static async Task<HttpResponseMessage> NoteAsync(
        HttpClient who,
        string order,
        decimal amount,
        DateOnly day
    ) =>
        await who.PostAsJsonAsync(
            $"/api/orders/{order}/deposits",
            new
            {
                amount,
                receivedOn = day,
                reference = $"SCT {order} {amount}",
            },
            Cancel
        );

    private async Task<string> DepositedAsync(HttpClient petra, string order, decimal amount)
    {
        var noted = await NoteAsync(petra, order, amount, Today);
        Assert.True(noted.IsSuccessStatusCode, await noted.Content.ReadAsStringAsync(Cancel));
        return (await RowsAsync(order)).Single(r => r.Kind == BillKind.Deposit).Number;
    }

    [Fact]
    public async Task It_is_taxed_when_it_comes_and_the_invoice_takes_it_off_and_names_it()
    {
        var petra = await House.AsAsync(Petra);
        var before = await FaultsAsync();
        var (order, total) = await OrderedAsync($"40 x {Shackle}", $"33 x {Rope}");
        var half = Math.Round(total / 2m, 2);
        var deposit = await DepositedAsync(petra, order, half);
        Assert.Equal(MoneyTrack.NotDue, await MoneyAsync(order));
        var paper = Xml(await petra.GetStringAsync($"/api/invoices/{deposit}/ubl", Cancel));
        Assert.Equal("386", Of(paper, "InvoiceTypeCode"));
        Assert.Equal("0.00", Of(paper, "PayableAmount"));
        var tax = decimal.Parse(
            paper.Descendants().First(e => e.Name.LocalName == "TaxAmount").Value,
            System.Globalization.CultureInfo.InvariantCulture
        );
        Assert.Equal(Math.Round((half - tax) * 0.23m, 2, MidpointRounding.AwayFromZero), tax);
        Assert.Equal(before, await FaultsAsync());

        // Half of the goods: the tax that was paid is not paid again.
        var nell = await House.AsAsync(Havergal);
        await ShipAsync(order, new { key = await KeyAsync(nell, order, 0), quantity = 40 });
        var first = await InvoicedAsync(petra, order);
        var words = string.Join(
            ' ',
            PdfText
                .Read(await petra.GetByteArrayAsync($"/api/invoices/{first}/pdf", Cancel))
                .Pages.SelectMany(p => p.Words.Select(w => w.Text))
        );
        Assert.Contains($"less deposit invoice {deposit}", words, StringComparison.Ordinal);
        await ShipAsync(order);
        await InvoicedAsync(petra, order);
        var rows = await RowsAsync(order);
        Assert.InRange(rows.Sum(r => r.TotalWithTaxMinor) - (long)(total * 100m), -2, 2);
        var open = await OpenAsync(rows[1].Number) + await OpenAsync(rows[2].Number);
        Assert.InRange(open - (long)((total - half) * 100m), -2, 2);
        var held = await HeldAsync(order);
        Assert.Equal((held.Minor, held.TaxedMinor), (held.TakenMinor, held.TaxedTakenMinor));
        Assert.Equal(0, held.HomeMinor);
        Assert.Equal(before, await FaultsAsync());

        // All of it back: what was taxed with the deposit goes back with the goods.
        foreach (var number in new[] { rows[1].Number, rows[2].Number })
            await petra.PostAsJsonAsync(
                $"/api/invoices/{number}/credit",
                new { reason = "all back", charges = true },
                Cancel
            );
        rows = await RowsAsync(order);
        Assert.Equal(0, rows.Sum(r => r.Kind == BillKind.Credit ? -r.TotalWithTaxMinor : r.TotalWithTaxMinor));
        var taxes = await House.DbAsync(db =>
            db.Entries.Where(e => rows.Select(r => r.Number).Contains(e.Document))
                .Where(e => db.Accounts.Any(a => a.Code == e.Account && a.Use == Core.Ledger.AccountUse.TaxOwed))
                .SumAsync(e => e.CreditMinor - e.DebitMinor, Cancel)
        );
        Assert.Equal(0, taxes);
        Assert.Equal(before, await FaultsAsync());
    }

    private static XDocument Xml(string text) => XDocument.Parse(text);

    private static string Of(XDocument paper, string name) =>
        paper.Descendants().First(e => e.Name.LocalName == name).Value;

    private Task<DepositRow> HeldAsync(string order) =>
        House.DbAsync(db =>
            db.Deposits.AsNoTracking()
                .FirstAsync(d => db.Orders.Any(o => o.Id == d.OrderId && o.Number == order), Cancel)
        );

    [Fact]
    public async Task One_that_is_not_needed_goes_back_with_its_tax()
    {
        var petra = await House.AsAsync(Petra);
        var before = await FaultsAsync();
        var (order, total) = await OrderedAsync($"7 x {Shackle}");
        var deposit = await DepositedAsync(petra, order, total);
        var nell = await House.AsAsync(Havergal);
        var cancelled = await nell.ActAsync(
            $"/api/orders/{order}/cancel",
            await SeenAsync(nell, $"/api/orders/{order}"),
            new { reason = "the yard closed" }
        );
        Assert.True(cancelled.IsSuccessStatusCode, await cancelled.Content.ReadAsStringAsync(Cancel));
        var both = await Task.WhenAll(
            Enumerable
                .Range(0, 2)
                .Select(_ =>
                    petra.PostAsJsonAsync($"/api/invoices/{deposit}/credit", new { reason = "cancelled" }, Cancel)
                )
        );
        Assert.Single(both, b => b.IsSuccessStatusCode);
        Assert.Equal("nothing_to_credit", await both.Single(b => !b.IsSuccessStatusCode).CodeAsync());
        var note = (await RowsAsync(order))[^1];
        Assert.Equal((BillKind.Credit, (long)(total * 100m)), (note.Kind, note.TotalWithTaxMinor));
        // It is owed to them, as what any credit note leaves over.
        Assert.Equal(-note.TotalWithTaxMinor, await OpenAsync(note.Number));
        Assert.Equal(before, await FaultsAsync());
    }

    [Fact]
    public async Task Where_the_house_does_not_a_deposit_is_prepaid_as_before()
    {
        var seller = House.Services.GetService(typeof(Data.Seller)) as Data.Seller;
        var row = new HouseRow
        {
            Name = seller!.Name,
            Address = seller.Address[0],
            Mail = seller.Mail,
            TaxesAdvances = false,
        };
        seller.Take(row);
        try
        {
            var petra = await House.AsAsync(Petra);
            var (order, total) = await OrderedAsync($"7 x {Shackle}");
            Assert.True((await NoteAsync(petra, order, total, Today)).IsSuccessStatusCode);
            await ShipAsync(order);
            await InvoicedAsync(petra, order);
            var only = Assert.Single(await RowsAsync(order));
            Assert.Equal((only.TotalWithTaxMinor, 0), (only.PrepaidMinor, await OpenAsync(only.Number)));
        }
        finally
        {
            row.TaxesAdvances = true;
            seller.Take(row);
        }
    }
}
