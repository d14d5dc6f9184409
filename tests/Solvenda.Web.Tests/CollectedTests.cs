using System.Net;
using System.Net.Http.Json;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>One invoice for all that goes to a buyer in a month.</summary>
public sealed class CollectedTests(House house) : BilledCalls(house)
{
    private DateOnly MonthEnd => new(Today.Year, Today.Month, DateTime.DaysInMonth(Today.Year, Today.Month));

    private async Task CollectsAsync(bool yes) =>
        await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == Tressel)
                .ExecuteUpdateAsync(b => b.SetProperty(x => x.CollectsInvoices, yes), Cancel)
        );

    private static Task<HttpResponseMessage> CollectAsync(HttpClient who, DateOnly until) =>
        who.PostAsJsonAsync(
            "/api/invoices/collected",
            new
            {
                buyer = Tressel,
                currency = "EUR",
                until,
            },
            Cancel
        );

    private async Task<(string Invoice, string First, string Second)> CollectedAsync(HttpClient petra)
    {
        var (first, _) = await OrderedAsync($"7 x {Shackle}", $"33 x {Rope}");
        var (second, _) = await OrderedAsync($"11 x {Shackle}");
        await ShipAsync(first);
        await ShipAsync(second);
        var made = await (await CollectAsync(petra, MonthEnd)).JsonAsync();
        return (Assert.Single(made.EnumerateArray()).GetProperty("number").GetString()!, first, second);
    }

    [Fact]
    public async Task All_of_a_month_is_one_row_and_one_invoice_for_all_its_orders()
    {
        var petra = await House.AsAsync(Petra);
        await CollectAsync(petra, Today);
        await CollectsAsync(true);
        var (first, _) = await OrderedAsync($"7 x {Shackle}");
        var (second, _) = await OrderedAsync($"11 x {Shackle}");
        await ShipAsync(first);
        await ShipAsync(second);
        var due = await (await petra.GetAsync("/api/invoices/due", Cancel)).JsonAsync();
        var rows = due.GetProperty("orders").EnumerateArray().ToList();
        Assert.DoesNotContain(rows, r => r.GetProperty("order").GetString() == first);
        var month = rows.Single(r =>
            r.GetProperty("collected") is { ValueKind: System.Text.Json.JsonValueKind.Object } c
            && c.GetProperty("buyer").GetInt64() == Tressel
        );
        Assert.Equal(2, month.GetProperty("collected").GetProperty("orders").GetInt32());
        // Nothing went before this month; nobody else may.
        Assert.Equal("nothing_to_invoice", await (await CollectAsync(petra, MonthEnd.AddMonths(-1))).CodeAsync());
        var sorcha = await House.AsAsync(4);
        Assert.Equal(HttpStatusCode.Forbidden, (await CollectAsync(sorcha, MonthEnd)).StatusCode);
        // Two at once: one wins.
        var both = await Task.WhenAll(CollectAsync(petra, MonthEnd), CollectAsync(petra, MonthEnd));
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(b => b.StatusCode).Order());
        var number = (await both.Single(b => b.IsSuccessStatusCode).JsonAsync())[0].GetProperty("number").GetString()!;
        await CollectsAsync(false);
        foreach (var order in new[] { first, second })
        {
            Assert.Equal(MoneyTrack.Invoiced, await MoneyAsync(order));
            var money = await (await petra.GetAsync($"/api/orders/{order}/money", Cancel)).JsonAsync();
            var shown = Assert.Single(money.GetProperty("invoices").EnumerateArray());
            Assert.Equal(
                (number, true),
                (shown.GetProperty("number").GetString(), shown.GetProperty("isCollected").GetBoolean())
            );
        }
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task Its_papers_name_each_order_and_a_part_payment_is_one_of_all()
    {
        var petra = await House.AsAsync(Petra);
        await CollectAsync(petra, Today);
        var (number, first, second) = await CollectedAsync(petra);
        var ubl = await petra.GetStringAsync($"/api/invoices/{number}/ubl", Cancel);
        Assert.DoesNotContain("OrderReference", ubl, StringComparison.Ordinal);
        Assert.Contains($"<cbc:Note>PO-{second} / {second}</cbc:Note>", ubl, StringComparison.Ordinal);
        var words = PdfText
            .Read(await petra.GetByteArrayAsync($"/api/invoices/{number}/pdf", Cancel))
            .Pages.SelectMany(p => p.Words.Select(w => w.Text))
            .ToList();
        Assert.Contains(first, words);
        Assert.Contains(second, words);
        var total = (await OpenAsync(number)) / 100m;
        await PostAsync(
            petra,
            $"/api/owed/{Tressel}/receipts",
            new
            {
                amount = total - 1m,
                currency = "EUR",
                day = Today,
                how = "cash",
                words = number,
                takes = new[] { new { number, amount = total - 1m } },
            }
        );
        Assert.Equal((MoneyTrack.PartPaid, MoneyTrack.PartPaid), (await MoneyAsync(first), await MoneyAsync(second)));
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task A_note_is_for_one_of_its_orders_and_all_notes_together_bring_it_to_nothing()
    {
        var petra = await House.AsAsync(Petra);
        await CollectAsync(petra, Today);
        var (number, first, second) = await CollectedAsync(petra);
        var path = $"/api/invoices/{number}/credit";
        var unsaid = await petra.PostAsJsonAsync(path, new { reason = "wet" }, Cancel);
        Assert.Equal("which_order", await unsaid.CodeAsync());
        var stranger = await petra.PostAsJsonAsync(path, new { reason = "wet", order = "S26-99999" }, Cancel);
        Assert.Equal("which_order", await stranger.CodeAsync());
        var key = await KeyAsync(petra, second, 0);
        var lines = new[] { new { key, quantity = 4m } };
        await PostAsync(
            petra,
            path,
            new
            {
                reason = "wet",
                order = second,
                lines,
            }
        );
        var left = await (await petra.GetAsync($"/api/invoices/{number}/creditable", Cancel)).JsonAsync();
        Assert.Equal(
            [(first, 7m), (first, 33m), (second, 7m)],
            left.EnumerateArray().Select(l => (l.GetProperty("order").GetString()!, l.GetProperty("left").GetDecimal()))
        );
        foreach (var order in new[] { first, second })
            await PostAsync(
                petra,
                path,
                new
                {
                    reason = "all of it",
                    order,
                    charges = true,
                }
            );
        Assert.Equal(0, await OpenAsync(number));
        Assert.Equal((MoneyTrack.Paid, MoneyTrack.Paid), (await MoneyAsync(first), await MoneyAsync(second)));
        Assert.Empty(await MoneyFaultsAsync());
    }
}
