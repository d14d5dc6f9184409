using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Following;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Core.Units;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Goods on their way out: released, picked, packed, gone; and what stays.</summary>
public sealed class ShippingTests(House house) : MoneyCalls(house), IAsyncLifetime
{
    private const string Rope = "PS3-12-WH";
    private const string Shackle = "SHK-BOW-12";
    private const string Jacket = "LJ-150-AD";

    // Their credit is not what this is about, and nothing else waits for these items.
    public async ValueTask InitializeAsync()
    {
        await House.DbAsync(async db =>
        {
            await db
                .Buyers.Where(b => b.Id == Tressel)
                .ExecuteUpdateAsync(b => b.SetProperty(x => x.CreditLimitMinor, 900_000_000L), Cancel);
            await db
                .Orders.Where(o => db.Commitments.Any(c => c.OrderId == o.Id))
                .ExecuteUpdateAsync(o => o.SetProperty(x => x.Terms, TermsTrack.Cancelled), Cancel);
            await db.Commitments.ExecuteDeleteAsync(Cancel);
            return await db.OpenItems.Where(o => o.BuyerId == Tressel).ExecuteDeleteAsync(Cancel);
        });
        foreach (var item in new[] { Rope, Shackle, Jacket })
            await CountedAsync(item, 1_000, 0);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<OrderRow> RowAsync(string order) =>
        House.DbAsync(db => db.Orders.AsNoTracking().FirstAsync(o => o.Number == order, Cancel));

    private Task<decimal> OnHandAsync(string item) =>
        House.DbAsync(db =>
            db.Stock.Where(s => s.Warehouse == "Skerrow quay" && db.Items.Any(i => i.Id == s.ItemId && i.Code == item))
                .Select(s => s.OnHand)
                .FirstAsync(Cancel)
        );

    private async Task<string> ConfirmedAsync(string rule, params string[] lines)
    {
        var nell = await House.AsAsync(Havergal);
        var (number, sheet) = await OrderAsync(nell, lines);
        sheet = await SetAsync(nell, sheet, "poNumber", "PO-" + number);
        sheet = await SetAsync(nell, sheet, "shippingRule", rule);
        var done = await nell.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        return number;
    }

    private static Task<HttpResponseMessage> ReleaseAsync(HttpClient who, string order, params object[] lines) =>
        who.PostAsJsonAsync("/api/goods/release", new { order, lines }, Cancel);

    private static async Task<JsonElement> ShipmentAsync(HttpClient who, string number) =>
        await (await who.GetAsync($"/api/shipments/{number}", Cancel)).JsonAsync();

    private static async Task<HttpResponseMessage> SendAsync(HttpClient who, string number, bool asAsked = true) =>
        await who.PostAsJsonAsync(
            $"/api/shipments/{number}/send",
            new { asAsked, seen = (await ShipmentAsync(who, number)).GetProperty("version").GetInt64() },
            Cancel
        );

    private static async Task<HttpResponseMessage> PickAsync(HttpClient who, string number, params object[] picked) =>
        await who.PostAsJsonAsync(
            $"/api/shipments/{number}/pick",
            new { picked, seen = (await ShipmentAsync(who, number)).GetProperty("version").GetInt64() },
            Cancel
        );

    [Fact]
    public async Task What_is_released_lies_there_still_and_leaves_when_it_is_sent()
    {
        var order = await ConfirmedAsync("whole lines", $"120 x {Rope}", $"12 x {Shackle}", "2 x SVC-EYE");
        var juno = await House.AsAsync(Castellane);
        var released = await (await ReleaseAsync(juno, order)).JsonAsync();
        var number = released[0].GetString()!;
        Assert.Equal($"{order}/1", number);
        Assert.Equal(1_000m, await OnHandAsync(Rope));
        Assert.Equal(GoodsTrack.Picking, (await RowAsync(order)).Goods);
        var view = await ShipmentAsync(juno, number);
        var picks = view.GetProperty("picks").EnumerateArray().ToList();
        Assert.Equal(2, picks.Count);
        var bins = picks.ConvertAll(p => p.GetProperty("bin").GetString());
        Assert.Equal(bins.Order(StringComparer.Ordinal), bins);
        Assert.Contains("splice", view.GetProperty("services")[0].GetString(), StringComparison.OrdinalIgnoreCase);

        Assert.Equal("not_picked", await (await SendAsync(juno, number, asAsked: false)).CodeAsync());
        Assert.True((await SendAsync(juno, number)).IsSuccessStatusCode);
        var row = await RowAsync(order);
        Assert.Equal((GoodsTrack.Shipped, MoneyTrack.ToInvoice), (row.Goods, row.Money));
        Assert.Equal((880m, 988m), (await OnHandAsync(Rope), await OnHandAsync(Shackle)));
        Assert.Equal(0m, await CommittedAsync(order));
        var moved = await House.DbAsync(db =>
            db.StockMovements.Where(m => m.Document == number).Select(m => m.Quantity).ToListAsync(Cancel)
        );
        Assert.Equal(-132m, moved.Sum());
        Assert.Contains($"{order}-1.sent".ToLowerInvariant(), await LettersAsync(order));
        var note = await juno.GetAsync($"/api/shipments/{number}/note", Cancel);
        Assert.Equal("application/pdf", note.Content.Headers.ContentType?.MediaType);
        Assert.Equal("shipment_state", await (await SendAsync(juno, number)).CodeAsync());
        Assert.Equal("all_gone", await (await ReleaseAsync(juno, order)).CodeAsync());
        Assert.Equal("", await FaultsAsync());
    }

    [Fact]
    public async Task What_is_not_all_there_goes_as_the_buyer_wants_it()
    {
        var juno = await House.AsAsync(Castellane);
        var whole = await ConfirmedAsync("whole lines", $"600 x {Rope}", $"10 x {Shackle}");
        var together = await ConfirmedAsync("all together", $"100 x {Rope}", $"10 x {Shackle}");
        var comes = await ConfirmedAsync("as it comes", $"400 x {Rope}", $"10 x {Shackle}");
        // Once there are no longer all of them: the first in turn has 500 of 600.
        await CountedAsync(Rope, 500, 0);
        Assert.Equal("not_here", await (await ReleaseAsync(juno, together)).CodeAsync());
        await (await ReleaseAsync(juno, whole)).JsonAsync();
        Assert.Single((await ShipmentAsync(juno, $"{whole}/1")).GetProperty("picks").EnumerateArray());
        await PostAsync(juno, $"/api/shipments/{whole}/1/send", new { asAsked = true, seen = 1 });
        Assert.Equal(GoodsTrack.PartShipped, (await RowAsync(whole)).Goods);

        // What lies there is the earlier order's by turn; nobody else gets it.
        Assert.Equal(10m, (await ShippedAsync(comes)).Sum());
        await CountedAsync(Rope, 1_100, 0);
        Assert.Equal([600m], await ShippedAsync(whole));
        Assert.Equal(GoodsTrack.Shipped, (await RowAsync(whole)).Goods);
        Assert.Equal([100m, 10m], await ShippedAsync(together));
        Assert.Equal([400m], await ShippedAsync(comes));
        Assert.Equal("", await FaultsAsync());

        async Task<decimal[]> ShippedAsync(string order)
        {
            var answer = await House.Machine().PostAsync($"/api/v1/orders/{order}/shipments", null, Cancel);
            Assert.True(answer.StatusCode == HttpStatusCode.Created, await answer.Content.ReadAsStringAsync(Cancel));
            return
            [
                .. (await answer.JsonAsync())
                    .GetProperty("lines")
                    .EnumerateArray()
                    .Select(l => l.GetProperty("quantity").GetDecimal()),
            ];
        }
    }

    [Fact]
    public void What_lies_in_two_houses_leaves_from_both_and_a_bundle_over_two_from_none()
    {
        Shelf rope = new(new ItemId(1), "quay");
        Shelf elsewhere = new(new ItemId(1), "depot");
        Shelf shackle = new(new ItemId(2), "depot");
        var line = new SheetLine(
            7,
            LineKind.Item,
            new ItemId(3),
            "a set",
            4m,
            Unit.Piece,
            ByHand.None,
            [],
            false,
            "",
            new AskedFor("a set", null, null, null, null, 1m)
        );
        decimal[] MayGo(params (Shelf Shelf, decimal Quantity)[] needs) =>
            [
                .. new OrderGoods(
                    1,
                    ShippingRule.WholeLines,
                    [
                        new GoodsLine(
                            line,
                            null,
                            new GoodsSoFar(4m, 0m, 0m),
                            [.. needs.Select(n => new ShelfNeed(n.Shelf, n.Quantity, default))]
                        ),
                    ],
                    needs.ToDictionary(n => n.Shelf, n => n.Quantity)
                )
                    .MayGo()
                    .Select(p => p.Quantity),
            ];
        Assert.Equal([1m, 3m], MayGo((rope, 1m), (elsewhere, 3m)));
        Assert.Equal([0m], MayGo((rope, 40m), (shackle, 8m)));
    }

    [Fact]
    public async Task What_is_picked_short_stays_as_a_back_order()
    {
        var order = await ConfirmedAsync("as it comes", $"50 x {Shackle}", $"100 x {Rope}");
        var juno = await House.AsAsync(Castellane);
        await ReleaseAsync(juno, order);
        var number = $"{order}/1";
        Assert.Equal("quantity", await (await PickAsync(juno, number, Pick(1, Shackle, 51))).CodeAsync());
        Assert.Equal(
            HttpStatusCode.OK,
            (await PickAsync(juno, number, Pick(1, Shackle, 48), Pick(2, Rope, 0))).StatusCode
        );
        // Seen by nobody since: an old page does not overwrite it.
        var stale = await juno.PostAsJsonAsync(
            $"/api/shipments/{number}/pick",
            new { picked = new[] { Pick(1, Shackle, 50) }, seen = 1 },
            Cancel
        );
        Assert.Equal("stale", await stale.CodeAsync());
        Assert.True((await SendAsync(juno, number, asAsked: false)).IsSuccessStatusCode);
        Assert.Equal((952m, 1_000m), (await OnHandAsync(Shackle), await OnHandAsync(Rope)));
        Assert.Equal(102m, await CommittedAsync(order));
        Assert.Equal(GoodsTrack.PartShipped, (await RowAsync(order)).Goods);
        var goods = await (await juno.GetAsync("/api/goods", Cancel)).JsonAsync();
        var back = goods
            .GetProperty("waiting")
            .EnumerateArray()
            .Single(w => w.GetProperty("order").GetString() == order);
        Assert.Equal((2, true), (back.GetProperty("lines").GetInt32(), back.GetProperty("mayGo").GetBoolean()));
        Assert.Equal("", await FaultsAsync());
    }

    private static object Pick(long line, string item, decimal picked, params string[] serials) =>
        new
        {
            line,
            item,
            picked,
            serials,
        };

    [Fact]
    public async Task What_goes_by_number_goes_with_each_number_once()
    {
        var (one, two) = (
            await ConfirmedAsync("whole lines", $"2 x {Jacket}"),
            await ConfirmedAsync("whole lines", $"1 x {Jacket}")
        );
        var juno = await House.AsAsync(Castellane);
        await ReleaseAsync(juno, one);
        await ReleaseAsync(juno, two);
        Assert.Equal("serials_missing", await (await SendAsync(juno, $"{one}/1")).CodeAsync());
        Assert.Equal(
            "serials_missing",
            await (await PickAsync(juno, $"{one}/1", Pick(1, Jacket, 2, "T-1", "T-1"))).CodeAsync()
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (await PickAsync(juno, $"{one}/1", Pick(1, Jacket, 2, "t-1", "T-2"))).StatusCode
        );
        Assert.Equal("serial_gone", await (await PickAsync(juno, $"{two}/1", Pick(1, Jacket, 1, "T-2"))).CodeAsync());
        Assert.True((await SendAsync(juno, $"{one}/1")).IsSuccessStatusCode);
        // What is dropped is free again.
        await juno.PostAsJsonAsync($"/api/shipments/{two}/1/drop", new { reason = "they ring back", seen = 1 }, Cancel);
        Assert.Equal(GoodsTrack.Waiting, (await RowAsync(two)).Goods);
        Assert.Equal("shipment_state", await (await SendAsync(juno, $"{two}/1")).CodeAsync());
    }

    [Fact]
    public async Task Two_at_once_ship_it_once_and_what_is_picked_is_not_cancelled()
    {
        var order = await ConfirmedAsync("whole lines", $"30 x {Shackle}");
        var machine = House.Machine();
        var both = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(_ => machine.PostAsync($"/api/v1/orders/{order}/shipments", null, Cancel))
        );
        Assert.Single(both, b => b.StatusCode == HttpStatusCode.Created);
        foreach (var other in both.Where(b => b.StatusCode != HttpStatusCode.Created))
            Assert.Equal("all_gone", await other.CodeAsync());
        Assert.Equal(970m, await OnHandAsync(Shackle));
        var cancelled = await machine.PostAsJsonAsync(
            $"/api/v1/orders/{order}/cancel",
            new { reason = "too late" },
            Cancel
        );
        Assert.Equal("order_begun", await cancelled.CodeAsync());
        Assert.Single(await House.DbAsync(db => db.Shipments.Where(s => s.Order.Number == order).ToListAsync(Cancel)));
    }

    [Fact]
    public async Task A_machine_ships_what_it_names_and_a_repeat_ships_nothing_more()
    {
        var order = await ConfirmedAsync("all together", $"30 x {Shackle}", $"60 x {Rope}");
        async Task<HttpResponseMessage> ShipAsync(object body, string key)
        {
            var machine = House.Machine();
            machine.DefaultRequestHeaders.Add("Idempotency-Key", key);
            return await machine.PostAsJsonAsync($"/api/v1/orders/{order}/shipments", body, Cancel);
        }
        var part = new { lines = new[] { new { key = 1, quantity = 5 } } };
        var first = await (await ShipAsync(part, $"{order}-a")).JsonAsync();
        Assert.Equal($"{order}/1", first.GetProperty("number").GetString());
        Assert.Equal(5m, first.GetProperty("lines")[0].GetProperty("quantity").GetDecimal());
        var again = await (await ShipAsync(part, $"{order}-a")).JsonAsync();
        Assert.Equal(first.GetProperty("number").GetString(), again.GetProperty("number").GetString());
        Assert.Equal(995m, await OnHandAsync(Shackle));
        foreach (
            var (key, quantity, code) in new[] { (1, 26m, "not_here"), (1, -1m, "quantity"), (9, 1m, "line_gone") }
        )
            Assert.Equal(
                code,
                await (
                    await ShipAsync(new { lines = new[] { new { key, quantity } } }, $"{order}-{key}-{quantity}")
                ).CodeAsync()
            );
        Assert.Equal(GoodsTrack.PartShipped, (await RowAsync(order)).Goods);
    }

    [Fact]
    public async Task What_is_held_or_not_confirmed_does_not_go_and_sellers_release_nothing()
    {
        var nell = await House.AsAsync(Havergal);
        var (open, _) = await OrderAsync(nell, $"5 x {Shackle}");
        Assert.Equal("order_state", await (await ReleaseAsync(nell, open)).CodeAsync());
        var held = await ConfirmedAsync("whole lines", $"5 x {Shackle}");
        await nell.PostAsJsonAsync($"/api/orders/{held}/hold", new { reason = "they ring back" }, Cancel);
        Assert.Equal("order_held", await (await ReleaseAsync(nell, held)).CodeAsync());
        var quill = await House.AsAsync(Quill);
        Assert.Equal(HttpStatusCode.Forbidden, (await ReleaseAsync(quill, held)).StatusCode);
        Assert.Equal(0, await House.DbAsync(db => db.Shipments.CountAsync(s => s.Order.Number == held, Cancel)));
    }

    private static object Deed(string deed, List<long> ids) =>
        new
        {
            deed,
            given = "",
            ids,
            count = ids.Count,
        };

    [Fact]
    public async Task Many_are_released_and_sent_in_rounds()
    {
        var orders = new List<string>();
        for (var i = 0; i < 5; i++)
            orders.Add(await ConfirmedAsync("whole lines", $"3 x {Shackle}"));
        var ids = await House.DbAsync(db =>
            db.Orders.Where(o => orders.Contains(o.Number)).Select(o => o.Id).ToListAsync(Cancel)
        );
        var juno = await House.AsAsync(Castellane);
        var round = await RoundAsync(juno, "orders", Deed("release", ids));
        Assert.Equal(5, round.GetProperty("done").GetInt32());
        var made = await House.DbAsync(db =>
            db.Shipments.Where(s => ids.Contains(s.OrderId)).Select(s => s.Id).ToListAsync(Cancel)
        );
        round = await RoundAsync(juno, "shipments", Deed("send", made));
        Assert.Equal(5, round.GetProperty("done").GetInt32());
        Assert.Equal(
            5,
            await House.DbAsync(db =>
                db.Shipments.CountAsync(s => made.Contains(s.Id) && s.State == ShipmentState.Gone, Cancel)
            )
        );
        Assert.Equal(985m, await OnHandAsync(Shackle));
    }
}
