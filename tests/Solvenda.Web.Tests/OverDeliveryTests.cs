using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>More goes than was ordered, as far as the buyer takes it.</summary>
public sealed class OverDeliveryTests(House house) : BilledCalls(house)
{
    private const long Whitlock = 10;

    private Task<int> TakesAsync(decimal? percent) =>
        House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == Tressel)
                .ExecuteUpdateAsync(b => b.SetProperty(x => x.OverDelivery, percent), Cancel)
        );

    private static async Task<string> ReleasedAsync(HttpClient juno, string order, params object[] lines)
    {
        var done = await juno.PostAsJsonAsync("/api/goods/release", new { order, lines }, Cancel);
        Assert.True(done.IsSuccessStatusCode, await done.Content.ReadAsStringAsync(Cancel));
        return (await done.JsonAsync())[0].GetString()!;
    }

    private static Task<HttpResponseMessage> PickAsync(
        HttpClient juno,
        JsonElement shipment,
        string item,
        decimal picked
    ) =>
        juno.PostAsJsonAsync(
            $"/api/shipments/{shipment.GetProperty("number").GetString()}/pick",
            new
            {
                picked = new[]
                {
                    new
                    {
                        line = Pick(shipment, item).GetProperty("line").GetInt64(),
                        item,
                        picked,
                        serials = Array.Empty<string>(),
                    },
                },
                seen = shipment.GetProperty("version").GetInt64(),
            },
            Cancel
        );

    private static JsonElement Pick(JsonElement shipment, string item) =>
        shipment.GetProperty("picks").EnumerateArray().First(p => p.GetProperty("item").GetString() == item);

    private static async Task<JsonElement> SeenShipmentAsync(HttpClient juno, string number) =>
        await (await juno.GetAsync($"/api/shipments/{number}", Cancel)).JsonAsync();

    private static Task<HttpResponseMessage> SendAsync(HttpClient juno, JsonElement shipment) =>
        juno.PostAsJsonAsync(
            $"/api/shipments/{shipment.GetProperty("number").GetString()}/send",
            new { asAsked = true, seen = shipment.GetProperty("version").GetInt64() },
            Cancel
        );

    private Task<List<(decimal Quantity, decimal Net)>> LinesAsync(string order) =>
        House.DbAsync(async db =>
            (
                await db
                    .Orders.Where(o => o.Number == order)
                    .SelectMany(o => o.Sheet.StoredLines)
                    .OrderBy(l => l.Position)
                    .Select(l => new { l.Quantity, l.NetMinor })
                    .ToListAsync(Cancel)
            ).ConvertAll(l => (l.Quantity, l.NetMinor / 100m))
        );

    [Fact]
    public async Task The_line_is_longer_at_its_price_and_the_last_invoice_brings_it()
    {
        await TakesAsync(10m);
        var (order, total) = await OrderedAsync($"10 x {Shackle}", $"33 x {Rope}");
        var (juno, petra) = (await House.AsAsync(Castellane), await House.AsAsync(Petra));
        var before = await LinesAsync(order);
        var key = await KeyAsync(juno, order, 0);
        await ShipAsync(order, new { key, quantity = 3 });
        await InvoicedAsync(petra, order);
        var number = await ReleasedAsync(juno, order);
        var shipment = await SeenShipmentAsync(juno, number);
        // Seven are left of ten, and one in ten more is taken; of rope 3.3 m.
        Assert.Equal(
            (8m, 36.3m),
            (
                Pick(shipment, Shackle).GetProperty("most").GetDecimal(),
                Pick(shipment, Rope).GetProperty("most").GetDecimal()
            )
        );
        Assert.Equal("quantity", await (await PickAsync(juno, shipment, Shackle, 9m)).CodeAsync());
        await (await PickAsync(juno, shipment, Shackle, 8m)).JsonAsync();
        shipment = await SeenShipmentAsync(juno, number);
        await (await PickAsync(juno, shipment, Rope, 35.5m)).JsonAsync();
        var sent = await SendAsync(juno, await SeenShipmentAsync(juno, number));
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync(Cancel));
        var lines = await LinesAsync(order);
        Assert.Equal([11m, 35.5m], lines.ConvertAll(l => l.Quantity));
        foreach (var (was, now) in before.Zip(lines))
            Assert.InRange((now.Net / now.Quantity) - (was.Net / was.Quantity), -0.01m, 0.01m);
        Assert.Equal(0m, await CommittedAsync(order));
        await InvoicedAsync(petra, order);
        Assert.Equal(MoneyTrack.Invoiced, await MoneyAsync(order));
        var row = await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == order)
                .Select(o => new { o.Goods, o.Sheet.TotalWithTaxMinor })
                .FirstAsync(Cancel)
        );
        Assert.Equal(GoodsTrack.Shipped, row.Goods);
        Assert.True(row.TotalWithTaxMinor > total * 100m);
        Assert.InRange((await RowsAsync(order)).Sum(r => r.TotalWithTaxMinor) - row.TotalWithTaxMinor, -1, 1);
        Assert.Empty(await MoneyFaultsAsync());
        Assert.DoesNotContain(order, await FaultsAsync(), StringComparison.Ordinal);
        // What was ordered is still there to be looked at.
        var (_, versions) = await House.DbAsync(async db =>
            (
                0,
                await db.OrderVersions.CountAsync(
                    v => db.Orders.Any(o => o.Id == v.OrderId && o.Number == order),
                    Cancel
                )
            )
        );
        Assert.Equal(1, versions);
    }

    [Fact]
    public async Task Nothing_goes_beyond_while_more_of_the_line_is_to_come()
    {
        await TakesAsync(20m);
        var (order, _) = await OrderedAsync($"10 x {Shackle}");
        var juno = await House.AsAsync(Castellane);
        var key = await KeyAsync(juno, order, 0);
        var (first, second) = (
            await ReleasedAsync(juno, order, new { key, quantity = 4 }),
            await ReleasedAsync(juno, order, new { key, quantity = 6 })
        );
        var shipment = await SeenShipmentAsync(juno, second);
        Assert.Equal(6m, Pick(shipment, Shackle).GetProperty("most").GetDecimal());
        Assert.Equal("quantity", await (await PickAsync(juno, shipment, Shackle, 7m)).CodeAsync());
        await (await SendAsync(juno, await SeenShipmentAsync(juno, first))).JsonAsync();
        shipment = await SeenShipmentAsync(juno, second);
        Assert.Equal(8m, Pick(shipment, Shackle).GetProperty("most").GetDecimal());
        await (await PickAsync(juno, shipment, Shackle, 8m)).JsonAsync();
        // Meanwhile they say that they take nothing beyond: what was picked is said anew.
        await TakesAsync(0m);
        shipment = await SeenShipmentAsync(juno, second);
        Assert.Equal("not_picked", await (await SendAsync(juno, shipment)).CodeAsync());
        await (await PickAsync(juno, shipment, Shackle, 6m)).JsonAsync();
        await (await SendAsync(juno, await SeenShipmentAsync(juno, second))).JsonAsync();
        Assert.Equal([10m], (await LinesAsync(order)).ConvertAll(l => l.Quantity));
    }

    [Fact]
    public async Task What_another_house_says_that_it_sent_may_be_more()
    {
        await TakesAsync(null);
        var cass = await House.AsAsync(Whitlock);
        var setting = (
            await (await cass.GetAsync("/api/lists/settings?filter=code=over-delivery-percent", Cancel)).JsonAsync()
        )
            .GetProperty("rows")[0]
            .GetProperty("id")
            .GetInt64();
        var path = $"/api/records/settings/{setting}";
        async Task<HttpResponseMessage> HouseAsync(string percent)
        {
            var record = await (await cass.GetAsync(path, Cancel)).JsonAsync();
            using var put = new HttpRequestMessage(HttpMethod.Put, path)
            {
                Content = JsonContent.Create(new { values = new { value = percent } }),
            };
            put.Headers.TryAddWithoutValidation("If-Match", $"\"{record.GetProperty("version").GetInt64()}\"");
            return await cass.SendAsync(put, Cancel);
        }
        Assert.Equal("record_field", await (await HouseAsync("26")).CodeAsync());
        Assert.Equal("record_field", await (await HouseAsync("-1")).CodeAsync());
        Assert.True((await HouseAsync("10")).IsSuccessStatusCode);
        var (order, _) = await OrderedAsync($"10 x {Shackle}", $"20 x {Rope}");
        using var machine = House.Machine();
        Task<HttpResponseMessage> SaidAsync(decimal quantity) =>
            machine.PostAsJsonAsync(
                $"/api/v1/orders/{order}/shipments",
                new { lines = new[] { new { key = 1, quantity } } },
                Cancel
            );
        Assert.Equal("not_here", await (await SaidAsync(12m)).CodeAsync());
        Assert.Equal(HttpStatusCode.Created, (await SaidAsync(11m)).StatusCode);
        Assert.Equal([11m, 20m], (await LinesAsync(order)).ConvertAll(l => l.Quantity));
        Assert.Equal("not_here", await (await SaidAsync(1m)).CodeAsync());
        // What by the count does not lie there does not go beyond it.
        await CountedAsync(Rope, 20, 0);
        var counted = await machine.PostAsJsonAsync(
            $"/api/v1/orders/{order}/shipments",
            new { lines = new[] { new { key = 2, quantity = 21 } } },
            Cancel
        );
        Assert.Equal("not_here", await counted.CodeAsync());
        await CountedAsync(Rope, 1_000, 0);
        Assert.Equal(20m, await CommittedAsync(order));
        Assert.True((await HouseAsync("0")).IsSuccessStatusCode);
    }
}
