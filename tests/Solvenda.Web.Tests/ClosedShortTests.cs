using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What is left of an order that went in part is closed short.</summary>
public sealed class ClosedShortTests(House house) : BilledCalls(house)
{
    private static async Task<HttpResponseMessage> CloseAsync(HttpClient who, string order, params int[] places)
    {
        var seen = await SeenAsync(who, $"/api/orders/{order}");
        var lines = places.Select(p => seen.GetProperty("lines")[p].GetProperty("key").GetInt64()).ToList();
        return await who.ActAsync(
            $"/api/orders/{order}/close-lines",
            seen,
            new { lines, reason = "they closed the yard" }
        );
    }

    private async Task<(string Order, string First)> PartGoneAsync()
    {
        var nell = await House.AsAsync(Havergal);
        var (order, sheet) = await OrderAsync(nell, $"10 x {Shackle}", $"33 x {Rope}");
        sheet = await SetAsync(nell, sheet, "poNumber", "PO-" + order);
        sheet = await SetAsync(nell, sheet, "shippingRule", "as it comes");
        sheet = await SetAsync(nell, sheet, "sheetDiscount", "1.23 EUR");
        var done = await nell.ActAsync($"/api/orders/{order}/confirm", sheet);
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        var key = await KeyAsync(nell, order, 0);
        await ShipAsync(order, new { key, quantity = 3 });
        return (order, await InvoicedAsync(await House.AsAsync(Petra), order));
    }

    [Fact]
    public async Task What_went_and_what_is_in_hand_stays_and_the_cents_agree()
    {
        var (order, first) = await PartGoneAsync();
        var (nell, juno, petra) = (
            await House.AsAsync(Havergal),
            await House.AsAsync(Castellane),
            await House.AsAsync(Petra)
        );
        var key = await KeyAsync(nell, order, 0);
        var lines = new[] { new { key, quantity = 2 } };
        var released = await juno.PostAsJsonAsync("/api/goods/release", new { order, lines }, Cancel);
        var shipment = (await released.JsonAsync())[0].GetString()!;
        var closed = await CloseAsync(nell, order, 0);
        Assert.True(closed.IsSuccessStatusCode, await closed.Content.ReadAsStringAsync(Cancel));
        var shown = (await closed.JsonAsync()).Sheet().GetProperty("lines").EnumerateArray().ToList();
        Assert.Equal([5m, 5m, 33m], shown.ConvertAll(l => l.GetProperty("quantity").GetDecimal()));
        Assert.Equal([true, false, true], shown.ConvertAll(l => l.GetProperty("counts").GetBoolean()));
        // Two are in somebody's hands, and the rope is still promised.
        Assert.Equal(35m, await CommittedAsync(order));
        var sent = await juno.PostAsJsonAsync(
            $"/api/shipments/{shipment}/send",
            new
            {
                asAsked = true,
                seen = (await (await juno.GetAsync($"/api/shipments/{shipment}", Cancel)).JsonAsync())
                    .GetProperty("version")
                    .GetInt64(),
            },
            Cancel
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync(Cancel));
        await ShipAsync(order);
        await InvoicedAsync(petra, order);
        Assert.Equal(MoneyTrack.Invoiced, await MoneyAsync(order));
        var rows = await RowsAsync(order);
        var total = await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == order).Select(o => o.Sheet.TotalWithTaxMinor).FirstAsync(Cancel)
        );
        // Tax of the parts may differ from the order's by cents.
        Assert.InRange(rows.Sum(r => r.TotalWithTaxMinor) - total, -1, 1);

        // What was billed before it was closed goes back line by line, and whole.
        var back = await petra.PostAsJsonAsync(
            $"/api/invoices/{first}/credit",
            new
            {
                lines = new[] { new { key, quantity = 1 } },
                charges = false,
                reason = "one was bent",
            },
            Cancel
        );
        Assert.True(back.IsSuccessStatusCode, await back.Content.ReadAsStringAsync(Cancel));
        var rest = await petra.PostAsJsonAsync(
            $"/api/invoices/{first}/credit",
            new { charges = true, reason = "all of it" },
            Cancel
        );
        Assert.True(rest.IsSuccessStatusCode, await rest.Content.ReadAsStringAsync(Cancel));
        rows = await RowsAsync(order);
        Assert.Equal(rows[0].TotalWithTaxMinor, rows.Skip(2).Sum(r => r.TotalWithTaxMinor));
    }

    [Fact]
    public async Task All_that_is_left_may_go_and_the_order_is_done_with_what_went()
    {
        var (order, _) = await PartGoneAsync();
        var nell = await House.AsAsync(Havergal);
        var juno = await House.AsAsync(Castellane);
        Assert.Equal(HttpStatusCode.Forbidden, (await CloseAsync(juno, order, 0, 1)).StatusCode);
        // Two at once: the second has not seen what the first did.
        var seen = await SeenAsync(nell, $"/api/orders/{order}");
        var body = new
        {
            lines = seen.GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("key").GetInt64()),
            reason = "they closed the yard",
        };
        var both = await Task.WhenAll(
            nell.ActAsync($"/api/orders/{order}/close-lines", seen, body),
            nell.ActAsync($"/api/orders/{order}/close-lines", seen, body)
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(b => b.StatusCode).Order());
        Assert.Equal(0m, await CommittedAsync(order));
        var row = await House.DbAsync(db => db.Orders.AsNoTracking().FirstAsync(o => o.Number == order, Cancel));
        Assert.Equal((GoodsTrack.Shipped, MoneyTrack.Invoiced), (row.Goods, row.Money));
        Assert.Equal("line_gone", await (await CloseAsync(nell, order, 0)).CodeAsync());
        var seenAgain = await nell.GetAsync($"/api/orders/{order}", Cancel);
        var moves = (await seenAgain.JsonAsync()).GetProperty("moves").EnumerateArray();
        Assert.DoesNotContain(moves, m => m.GetProperty("code").GetString() is "closeShort" or "openLines");
    }
}
