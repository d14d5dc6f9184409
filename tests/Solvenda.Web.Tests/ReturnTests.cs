using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Goods that come back: asked, decided, here, and credited or replaced.</summary>
public sealed class ReturnTests(House house) : BilledCalls(house)
{
    private static object Asked(long key, decimal quantity, string what = "credit", string reason = "too short") =>
        new
        {
            lines = new[] { new { key, quantity } },
            @for = what,
            reason,
        };

    private Task<decimal> OnHandAsync(string item) =>
        House.DbAsync(db =>
            db.Stock.Where(s => s.Warehouse == "Skerrow quay" && db.Items.Any(i => i.Id == s.ItemId && i.Code == item))
                .Select(s => s.OnHand)
                .FirstAsync(Cancel)
        );

    private static JsonElement Last(JsonElement view) => view.GetProperty("returns").EnumerateArray().Last();

    private static string State(JsonElement view, int _ = 0) => Last(view).GetProperty("state").GetString()!;

    [Fact]
    public async Task What_comes_back_goes_to_the_shelf_and_is_credited_on_its_invoices()
    {
        var (petra, nell) = (await House.AsAsync(Petra), await House.AsAsync(Havergal));
        var juno = await House.AsAsync(Castellane);
        var (order, _) = await OrderedAsync($"20 x {Shackle}");
        var key = await KeyAsync(nell, order, 0);
        await ShipAsync(order, new { key, quantity = 12 });
        await InvoicedAsync(petra, order);
        await ShipAsync(order);
        await InvoicedAsync(petra, order);
        var path = $"/api/orders/{order}/returns";
        var much = await nell.PostAsJsonAsync(path, Asked(key, 21), Cancel);
        Assert.Equal("too_much", await much.CodeAsync());
        Assert.Equal("too_much", await (await nell.PostAsJsonAsync(path, Asked(key, -1), Cancel)).CodeAsync());
        Assert.Equal("too_much", await (await nell.PostAsJsonAsync(path, Asked(key, 0.5m), Cancel)).CodeAsync());
        var asked = await PostAsync(nell, path, Asked(key, 15));
        Assert.Equal(5m, asked.GetProperty("lines")[0].GetProperty("left").GetDecimal());
        // Not before it is allowed, not by everybody, and once.
        Assert.Equal("return_state", await (await juno.PostAsJsonAsync($"{path}/1/take", new { }, Cancel)).CodeAsync());
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await juno.PostAsJsonAsync($"{path}/1/decide", new { allow = true }, Cancel)).StatusCode
        );
        Assert.Equal("allowed", State(await PostAsync(nell, $"{path}/1/decide", new { allow = true })));
        var before = await OnHandAsync(Shackle);
        var came = new
        {
            lines = new[]
            {
                new
                {
                    key,
                    quantity = 14,
                    toStock = 13,
                },
            },
        };
        var both = await Task.WhenAll(
            juno.PostAsJsonAsync($"{path}/1/take", came, Cancel),
            juno.PostAsJsonAsync($"{path}/1/take", came, Cancel)
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(a => a.StatusCode).Order());
        Assert.Equal(13m, await OnHandAsync(Shackle) - before);
        var settled = await PostAsync(petra, $"{path}/1/settle", new { });
        Assert.Equal("settled", State(settled));
        // Twelve of the first invoice, and two of the second.
        Assert.Equal(2, Last(settled).GetProperty("settledBy").GetArrayLength());
        Assert.Equal(
            "return_state",
            await (await petra.PostAsJsonAsync($"{path}/1/settle", new { }, Cancel)).CodeAsync()
        );
        var letters = await LettersAsync($"{order}-R1".ToLowerInvariant());
        Assert.Equal(2, letters.Count);
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task What_is_faulty_is_replaced_without_charge()
    {
        var nell = await House.AsAsync(Havergal);
        var (order, _) = await OrderedAsync($"6 x {Shackle}", $"30 x {Rope}");
        await ShipAsync(order);
        var key = await KeyAsync(nell, order, 0);
        var path = $"/api/orders/{order}/returns";
        await PostAsync(nell, path, Asked(key, 2, "replacement", "cracked"));
        await PostAsync(nell, $"{path}/1/decide", new { allow = true, words = "keep the pieces" });
        // They need not come back: they are replaced at once.
        var settled = await PostAsync(nell, $"{path}/1/settle", new { });
        var fresh = Last(settled).GetProperty("settledBy")[0].GetString()!;
        var sheet = await SeenAsync(nell, $"/api/orders/{fresh}");
        Assert.Equal(2m, sheet.GetProperty("lines")[0].GetProperty("quantity").GetDecimal());
        Assert.Equal(1, sheet.GetProperty("lines").GetArrayLength());
        Assert.Equal(0m, sheet.GetProperty("tally").GetProperty("totalWithTax").GetDecimal());
    }

    [Fact]
    public async Task What_is_refused_says_why_and_may_be_asked_again()
    {
        var nell = await House.AsAsync(Havergal);
        var (order, _) = await OrderedAsync($"6 x {Shackle}");
        await ShipAsync(order);
        var key = await KeyAsync(nell, order, 0);
        var path = $"/api/orders/{order}/returns";
        await PostAsync(nell, path, Asked(key, 6));
        var mute = await nell.PostAsJsonAsync($"{path}/1/decide", new { allow = false }, Cancel);
        Assert.Equal("reason_missing", await mute.CodeAsync());
        var no = await PostAsync(nell, $"{path}/1/decide", new { allow = false, words = "it was cut to length" });
        Assert.Equal("refused", State(no));
        Assert.Equal(6m, no.GetProperty("lines")[0].GetProperty("left").GetDecimal());
        await PostAsync(nell, path, Asked(key, 1));
        await PostAsync(nell, $"{path}/2/decide", new { allow = true });
        // It is on no invoice yet.
        var early = await nell.PostAsJsonAsync($"{path}/2/settle", new { }, Cancel);
        Assert.Equal("not_invoiced", await early.CodeAsync());
        // What nobody decided yet, and what is back, is on the desk of whoever has the next step.
        await PostAsync(nell, path, Asked(key, 1, reason: "one more"));
        var desk = await (await nell.GetAsync("/api/desk", Cancel)).JsonAsync();
        Assert.Contains(
            desk.GetProperty("items").EnumerateArray(),
            i => i.GetProperty("number").GetString() == $"{order}/R3" && i.GetProperty("act").GetString() == "decide"
        );
    }
}
