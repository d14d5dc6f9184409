using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>An order is changed after part of it went, is being picked, or is billed.</summary>
public sealed class ChangedBegunTests(House house) : BilledCalls(house)
{
    private async Task<HttpClient> NellAsync() => await House.AsAsync(Havergal);

    // Ten shackles of which three went and are billed and two are in hand, and 33 m of rope.
    private async Task<(string Order, long Key, string InHand)> BegunAsync(bool billed = true)
    {
        var nell = await NellAsync();
        var (order, sheet) = await OrderAsync(nell, $"10 x {Shackle}", $"33 x {Rope}");
        sheet = await SetAsync(nell, sheet, "poNumber", "PO-" + order);
        sheet = await SetAsync(nell, sheet, "shippingRule", "as it comes");
        sheet = await SetAsync(nell, sheet, "sheetDiscount", "1.23 EUR");
        var done = await nell.ActAsync($"/api/orders/{order}/confirm", sheet);
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        var key = await KeyAsync(nell, order, 0);
        await ShipAsync(order, new { key, quantity = 3 });
        if (billed)
            await InvoicedAsync(await House.AsAsync(Petra), order);
        var juno = await House.AsAsync(Castellane);
        var lines = new[] { new { key, quantity = 2 } };
        var released = await juno.PostAsJsonAsync("/api/goods/release", new { order, lines }, Cancel);
        return (order, key, (await released.JsonAsync())[0].GetString()!);
    }

    private async Task<JsonElement> ChangingAsync(string order)
    {
        var nell = await NellAsync();
        var opened = await nell.PostAsync($"/api/orders/{order}/change", null, Cancel);
        Assert.True(opened.IsSuccessStatusCode, await opened.Content.ReadAsStringAsync(Cancel));
        return (await opened.JsonAsync()).Sheet();
    }

    private async Task<HttpResponseMessage> SetLineAsync(JsonElement sheet, long key, string field, string value) =>
        await TryAsync(
            sheet,
            new
            {
                kind = "set",
                line = key,
                field,
                value,
            }
        );

    private async Task<HttpResponseMessage> TryAsync(JsonElement sheet, object edit) =>
        await (await NellAsync()).ActAsync(
            $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits",
            sheet,
            new[] { edit }
        );

    private async Task<JsonElement> LineSetAsync(JsonElement sheet, long key, string field, string value)
    {
        var done = await SetLineAsync(sheet, key, field, value);
        Assert.True(done.IsSuccessStatusCode, await done.Content.ReadAsStringAsync(Cancel));
        return (await done.JsonAsync()).Sheet();
    }

    private async Task<JsonElement> ConfirmedAsync(string order)
    {
        var nell = await NellAsync();
        var done = await nell.ActAsync($"/api/orders/{order}/confirm", await SeenAsync(nell, $"/api/orders/{order}"));
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        return (await done.JsonAsync()).Sheet();
    }

    private async Task<HttpResponseMessage> SendAsync(string shipment)
    {
        var juno = await House.AsAsync(Castellane);
        var seen = (await (await juno.GetAsync($"/api/shipments/{shipment}", Cancel)).JsonAsync())
            .GetProperty("version")
            .GetInt64();
        return await juno.PostAsJsonAsync($"/api/shipments/{shipment}/send", new { asAsked = true, seen }, Cancel);
    }

    private async Task AllGoneAndBilledAsync(string order, string inHand)
    {
        var sent = await SendAsync(inHand);
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync(Cancel));
        await ShipAsync(order);
        await InvoicedAsync(await House.AsAsync(Petra), order);
        Assert.Equal(MoneyTrack.Invoiced, await MoneyAsync(order));
        var total = await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == order).Select(o => o.Sheet.TotalWithTaxMinor).FirstAsync(Cancel)
        );
        // Tax of the parts may differ from the order's by cents.
        Assert.InRange((await RowsAsync(order)).Sum(r => r.TotalWithTaxMinor) - total, -1, 1);
        Assert.Empty(await MoneyFaultsAsync());
        Assert.DoesNotContain(order, await FaultsAsync(), StringComparison.Ordinal);
    }

    private static List<JsonElement> Lines(JsonElement sheet) => [.. sheet.GetProperty("lines").EnumerateArray()];

    private static List<decimal> Quantities(JsonElement sheet) =>
        Lines(sheet).ConvertAll(l => l.GetProperty("quantity").GetDecimal());

    private static decimal Net(JsonElement line) => line.GetProperty("netPrice").GetDecimal();

    [Fact]
    public async Task A_line_falls_no_lower_than_what_went_and_keeps_its_price()
    {
        var (order, key, inHand) = await BegunAsync();
        var sheet = await ChangingAsync(order);
        var price = Net(Lines(sheet)[0]);
        Assert.Equal(5m, Lines(sheet)[0].GetProperty("begun").GetDecimal());
        var low = await SetLineAsync(sheet, key, "quantity", "4");
        Assert.Equal("order_begun", await low.CodeAsync());
        Assert.Contains(" 5 went", await low.Content.ReadAsStringAsync(Cancel), StringComparison.Ordinal);
        sheet = await LineSetAsync(sheet, key, "quantity", "8");
        // Nothing of it leaves while it is changed.
        Assert.Equal("order_state", await (await SendAsync(inHand)).CodeAsync());
        sheet = await ConfirmedAsync(order);
        Assert.Equal([8m, 33m], Quantities(sheet));
        Assert.Equal(price, Net(Lines(sheet)[0]));
        // Two in hand, three that wait, and the rope.
        Assert.Equal(38m, await CommittedAsync(order));
        await AllGoneAndBilledAsync(order, inHand);
    }

    [Fact]
    public async Task Another_price_makes_the_rest_a_line_of_its_own_and_undo_puts_it_together()
    {
        var (order, key, inHand) = await BegunAsync();
        var nell = await NellAsync();
        var sheet = await ChangingAsync(order);
        var price = Net(Lines(sheet)[0]);
        sheet = await LineSetAsync(sheet, key, "discount", "5");
        Assert.Equal([5m, 5m, 33m], Quantities(sheet));
        var undone = await nell.ActAsync($"/api/sheets/{sheet.GetProperty("id").GetInt64()}/undo", sheet);
        sheet = (await undone.JsonAsync()).Sheet();
        Assert.Equal([10m, 33m], Quantities(sheet));
        sheet = await LineSetAsync(sheet, key, "discount", "5");
        var (went, rest) = (Lines(sheet)[0], Lines(sheet)[1]);
        Assert.Equal((price, 0m), (Net(went), went.GetProperty("discountPercent").GetDecimal()));
        Assert.Equal(5m, rest.GetProperty("discountPercent").GetDecimal());
        // What went is billed at its price; what is left of the line is another matter by now.
        Assert.Equal("order_begun", await (await SetLineAsync(sheet, key, "discount", "7")).CodeAsync());
        await ConfirmedAsync(order);
        Assert.Equal(40m, await CommittedAsync(order));
        await AllGoneAndBilledAsync(order, inHand);
    }

    [Fact]
    public async Task What_is_taken_out_takes_its_share_of_the_discount_and_the_charges_stand()
    {
        var (order, key, inHand) = await BegunAsync();
        var nell = await NellAsync();
        var sheet = await ChangingAsync(order);
        var charges = sheet.GetProperty("tally").GetProperty("charges").GetRawText();
        foreach (var field in new[] { "sheetDiscount", "freight", "kind" })
        {
            var fixedOne = await TryAsync(
                sheet,
                new
                {
                    kind = "set",
                    field,
                    value = field == "kind" ? Core.Sheets.OrderKind.All[^1].Words : "5",
                }
            );
            Assert.Equal("order_begun", await fixedOne.CodeAsync());
        }
        sheet = await nell.EditAsync(
            sheet,
            new { kind = "remove", line = Lines(sheet)[1].GetProperty("key").GetInt64() }
        );
        sheet = await nell.EditAsync(sheet, new { kind = "remove", line = key });
        Assert.Equal([5m], Quantities(sheet));
        Assert.Equal(charges, sheet.GetProperty("tally").GetProperty("charges").GetRawText());
        var off = sheet.GetProperty("tally").GetProperty("sheetDiscount").GetDecimal();
        Assert.InRange(off, 0.01m, 1.22m);
        await ConfirmedAsync(order);
        Assert.Equal(2m, await CommittedAsync(order));
        Assert.True((await SendAsync(inHand)).IsSuccessStatusCode);
        await InvoicedAsync(await House.AsAsync(Petra), order);
        Assert.Equal(MoneyTrack.Invoiced, await MoneyAsync(order));
        Assert.Empty(await MoneyFaultsAsync());
        // All of it went: there is nothing left to change.
        var opened = await nell.PostAsync($"/api/orders/{order}/change", null, Cancel);
        Assert.Equal("order_begun", await opened.CodeAsync());
    }

    [Fact]
    public async Task Before_it_is_billed_its_price_is_set_right_for_all_of_it()
    {
        var (order, key, inHand) = await BegunAsync(billed: false);
        var sheet = await ChangingAsync(order);
        sheet = await LineSetAsync(sheet, key, "discount", "5");
        Assert.Equal([10m, 33m], Quantities(sheet));
        // It becomes something else: what went was what it was.
        sheet = await LineSetAsync(sheet, key, "item", "SHK-BOW-10");
        Assert.Equal([5m, 5m, 33m], Quantities(sheet));
        Assert.Equal(Shackle, Lines(sheet)[0].GetProperty("code").GetString());
        await ConfirmedAsync(order);
        await AllGoneAndBilledAsync(order, inHand);
    }

    [Fact]
    public async Task What_was_closed_short_after_part_went_is_opened_again()
    {
        var (order, key, inHand) = await BegunAsync();
        var nell = await NellAsync();
        var closed = await nell.ActAsync(
            $"/api/orders/{order}/close-lines",
            await SeenAsync(nell, $"/api/orders/{order}"),
            new { lines = new[] { key }, reason = "they closed the yard" }
        );
        Assert.True(closed.IsSuccessStatusCode, await closed.Content.ReadAsStringAsync(Cancel));
        Assert.Equal(35m, await CommittedAsync(order));
        var opened = await nell.PostAsJsonAsync($"/api/orders/{order}/open-lines", new { }, Cancel);
        Assert.True(opened.IsSuccessStatusCode, await opened.Content.ReadAsStringAsync(Cancel));
        Assert.Equal([5m, 5m, 33m], Quantities((await opened.JsonAsync()).Sheet()));
        await ConfirmedAsync(order);
        Assert.Equal(40m, await CommittedAsync(order));
        await AllGoneAndBilledAsync(order, inHand);
    }

    [Fact]
    public async Task It_is_left_as_it_was_confirmed_and_two_at_once_do_not_both_win()
    {
        var (order, key, inHand) = await BegunAsync();
        var (nell, juno) = (await NellAsync(), await House.AsAsync(Castellane));
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await juno.PostAsync($"/api/orders/{order}/change", null, Cancel)).StatusCode
        );
        var sheet = await ChangingAsync(order);
        await LineSetAsync(sheet, key, "net", "1.00");
        var left = await nell.PostAsync($"/api/orders/{order}/leave-as-confirmed", null, Cancel);
        Assert.Equal([10m, 33m], Quantities((await left.JsonAsync()).Sheet()));
        Assert.Equal(40m, await CommittedAsync(order));
        var both = await Task.WhenAll(
            nell.PostAsync($"/api/orders/{order}/change", null, Cancel),
            juno.PostAsJsonAsync("/api/goods/ship", new { order, lines = Array.Empty<object>() }, Cancel)
        );
        // Whichever came first: what went stands, and what did not waits.
        Assert.True(both[0].IsSuccessStatusCode || both[1].IsSuccessStatusCode);
        if (both[0].IsSuccessStatusCode)
            await ConfirmedAsync(order);
        Assert.DoesNotContain(order, await FaultsAsync(), StringComparison.Ordinal);
        Assert.True((await SendAsync(inHand)).IsSuccessStatusCode);
    }
}
