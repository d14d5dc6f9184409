using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Orders made of several quotes, frames that are called off, lines that are closed short.</summary>
public sealed class FrameTests(House house) : MoneyCalls(house)
{
    private static JsonElement Line(JsonElement document, int at) => document.Sheet().GetProperty("lines")[at];

    private static long Key(JsonElement document, int at) => Line(document, at).GetProperty("key").GetInt64();

    private static async Task<JsonElement> GetAsync(HttpClient who, string number) =>
        await (await who.GetAsync($"/api/orders/{number}", Cancel)).JsonAsync();

    private static async Task<(string Number, JsonElement Document)> FrameAsync(HttpClient who, params string[] lines)
    {
        var (number, sheet) = await OrderAsync(who, lines);
        sheet = await SetAsync(who, sheet, "kind", "call-off");
        sheet = await SetAsync(who, sheet, "poNumber", "FR-" + number);
        var confirmed = await who.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.True(confirmed.StatusCode == HttpStatusCode.OK, await confirmed.Content.ReadAsStringAsync(Cancel));
        return (number, await confirmed.JsonAsync());
    }

    private static Task<HttpResponseMessage> CallAsync(HttpClient who, string frame, long line, decimal quantity) =>
        who.PostAsJsonAsync(
            $"/api/orders/{frame}/call-off",
            new { release = $"R-{quantity}", lines = new[] { new { line, quantity } } },
            Cancel
        );

    [Fact]
    public async Task A_frame_takes_nothing_from_stock_and_what_is_called_off_of_it_has_its_prices()
    {
        var quill = await House.AsAsync(Quill);
        var (frame, document) = await FrameAsync(quill, "BB2-10-NV x 400 m", "SHK-BOW-10 x 50");
        Assert.Equal(0m, await CommittedAsync(frame));
        var agreed = Line(document, 0).GetProperty("netPrice").GetDecimal();
        var called = await (await CallAsync(quill, frame, Key(document, 0), 30m)).JsonAsync();
        var release = called.GetProperty("number").GetString()!;
        var order = await GetAsync(quill, release);
        var line = Assert.Single(order.Sheet().GetProperty("lines").EnumerateArray());
        // So few of them alone would cost more.
        Assert.Equal(
            (30m, agreed),
            (line.GetProperty("quantity").GetDecimal(), line.GetProperty("netPrice").GetDecimal())
        );
        Assert.Equal("R-30", order.Sheet().Term("releaseNumber"));
        Assert.Empty(Stops(order.Sheet()));
        var confirmed = await quill.ActAsync($"/api/orders/{release}/confirm", order.Sheet());
        Assert.True(confirmed.StatusCode == HttpStatusCode.OK, await confirmed.Content.ReadAsStringAsync(Cancel));
        Assert.Equal(30m, await CommittedAsync(release));
        var now = (await GetAsync(quill, frame)).GetProperty("callOff");
        Assert.Equal(
            [(400m, 30m, 370m), (50m, 0m, 50m)],
            now.GetProperty("lines")
                .EnumerateArray()
                .Select(l =>
                    (
                        l.GetProperty("ordered").GetDecimal(),
                        l.GetProperty("called").GetDecimal(),
                        l.GetProperty("rest").GetDecimal()
                    )
                )
        );
        Assert.Equal(release, now.GetProperty("releases")[0].GetProperty("number").GetString());
    }

    [Fact]
    public async Task Of_two_who_call_the_last_off_at_once_one_gets_it_and_cancelling_gives_it_back()
    {
        var quill = await House.AsAsync(Quill);
        var (frame, document) = await FrameAsync(quill, "SHK-BOW-10 x 20", "SVC-EYE x 2");
        var key = Key(document, 0);
        var answers = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => CallAsync(quill, frame, key, 12m)));
        var got = Assert.Single(answers, a => a.IsSuccessStatusCode);
        foreach (var refused in answers.Where(a => !a.IsSuccessStatusCode))
            Assert.Equal("call_off_rest", await refused.CodeAsync());
        Assert.Equal("call_off_rest", await (await CallAsync(quill, frame, key, -1m)).CodeAsync());
        Assert.Equal("call_off_rest", await (await CallAsync(quill, frame, 999, 1m)).CodeAsync());
        var release = (await got.JsonAsync()).GetProperty("number").GetString()!;
        // More than is left, typed later, is a stop.
        var order = await GetAsync(quill, release);
        var more = await SetAsync(quill, order.Sheet(), "quantity", "21", Key(order, 0));
        Assert.Contains("call-off/quantity", Stops(more));
        await quill.ActAsync($"/api/orders/{release}/cancel", more, new { reason = "a slip" });
        // Nothing said: all that is left.
        var rest = await PostAsync(quill, $"/api/orders/{frame}/call-off", new { release = "R-all" });
        var all = await GetAsync(quill, rest.GetProperty("number").GetString()!);
        Assert.Equal(
            [20m, 2m],
            all.Sheet().GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("quantity").GetDecimal())
        );
        var empty = await quill.PostAsJsonAsync($"/api/orders/{frame}/call-off", new { release = "" }, Cancel);
        Assert.Equal("call_off_empty", await empty.CodeAsync());
    }

    [Fact]
    public async Task A_frame_is_called_off_once_it_is_confirmed_and_keeps_what_was_called_off()
    {
        var quill = await House.AsAsync(Quill);
        var (open, _) = await OrderAsync(quill, "SHK-BOW-10 x 5");
        Assert.Equal("order_state", await (await CallAsync(quill, open, 1, 1m)).CodeAsync());
        var (frame, document) = await FrameAsync(quill, "SHK-BOW-10 x 20");
        await CallAsync(quill, frame, Key(document, 0), 12m);
        var changing = await PostAsync(quill, $"/api/orders/{frame}/change");
        Assert.Equal("order_state", await (await CallAsync(quill, frame, Key(document, 0), 1m)).CodeAsync());
        var less = await SetAsync(quill, changing.Sheet(), "quantity", "11", Key(document, 0));
        Assert.Contains("call-off/quantity", Stops(less));
        var castellane = await House.AsAsync(Castellane);
        Assert.Equal(HttpStatusCode.Forbidden, (await CallAsync(castellane, frame, 1, 1m)).StatusCode);
    }

    [Fact]
    public async Task Of_a_line_of_a_frame_that_was_closed_short_nothing_more_is_called_off()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 20", "THM-SS-12 x 8");
        sheet = await SetAsync(quill, sheet, "kind", "call-off");
        sheet = await SetAsync(quill, sheet, "poNumber", "FR-" + number);
        // What will happen says so: nothing is taken, and no day is given.
        var will = await (await quill.GetAsync($"/api/orders/{number}/confirming", Cancel)).JsonAsync();
        Assert.Contains(
            "until a part of it is called off",
            will.GetProperty("stock")[0].GetString(),
            StringComparison.Ordinal
        );
        Assert.Empty(will.GetProperty("noDay").EnumerateArray());
        var frame = await (await quill.ActAsync($"/api/orders/{number}/confirm", sheet)).JsonAsync();
        await quill.ActAsync(
            $"/api/orders/{number}/close-lines",
            frame.Sheet(),
            new { lines = new[] { Key(frame, 0) }, reason = "not made any more" }
        );
        Assert.Equal("call_off_rest", await (await CallAsync(quill, number, Key(frame, 0), 1m)).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await CallAsync(quill, number, Key(frame, 1), 8m)).StatusCode);
    }

    [Fact]
    public async Task Several_accepted_quotes_become_one_order_that_nobody_is_asked_about()
    {
        var quill = await House.AsAsync(Quill);
        var first = await AcceptedAsync(quill, "SHK-BOW-10 x 4 -5%");
        var second = await AcceptedAsync(quill, "BB2-10-NV x 20 m", "SVC-EYE x 1");
        var seen = await (await quill.GetAsync($"/api/quotes/{first}", Cancel)).JsonAsync();
        Assert.Contains(
            seen.GetProperty("turnWith").EnumerateArray(),
            q => q.GetProperty("number").GetString() == second
        );
        var made = await PostAsync(quill, $"/api/quotes/{first}/order", new { with = new[] { second } });
        var number = made.GetProperty("number").GetString()!;
        var order = await GetAsync(quill, number);
        Assert.Equal(
            ["SHK-BOW-10", "BB2-10-NV", "SVC-EYE"],
            order
                .Sheet()
                .GetProperty("lines")
                .EnumerateArray()
                .Where(l => l.GetProperty("kind").GetString() == "item")
                .Select(l => l.GetProperty("code").GetString())
        );
        Assert.DoesNotContain("as-accepted/", Stops(order.Sheet()));
        Assert.Equal("notNeeded", State(order.Sheet()));
        var quotes = await House.DbAsync(db =>
            db.Quotes.Where(q => q.Number == first || q.Number == second)
                .Select(q => q.Order!.Number)
                .ToListAsync(Cancel)
        );
        Assert.Equal([number, number], quotes);
        // What was accepted binds: less or dearer has to be meant.
        var dearer = await SetAsync(quill, order.Sheet(), "net", "9", Key(order, 1));
        Assert.Contains("as-accepted/", Stops(dearer));
        Assert.Equal(
            "order_made",
            await (await quill.PostAsync($"/api/quotes/{second}/order", null, Cancel)).CodeAsync()
        );
    }

    [Fact]
    public async Task Quotes_with_other_terms_or_not_accepted_need_orders_of_their_own()
    {
        var quill = await House.AsAsync(Quill);
        var first = await AcceptedAsync(quill, "SHK-BOW-10 x 4");
        var (longer, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 2");
        async Task<string> WithAsync(string other) =>
            await (
                await quill.PostAsJsonAsync($"/api/quotes/{first}/order", new { with = new[] { other } }, Cancel)
            ).CodeAsync();
        Assert.Equal("quote_state", await WithAsync(longer));
        sheet = await SetAsync(quill, sheet, "incotermPlace", "another quay");
        await AcceptedAsync(quill, longer, sheet);
        Assert.Equal("not_together", await WithAsync(longer));
        // The same amount off each of them would be given once.
        async Task<string> LessAsync()
        {
            var (number, quote) = await QuoteAsync(quill, "SHK-BOW-10 x 9");
            return await AcceptedAsync(quill, number, await SetAsync(quill, quote, "sheetDiscount", "1 EUR"));
        }
        var (one, two) = (await LessAsync(), await LessAsync());
        var both = await quill.PostAsJsonAsync($"/api/quotes/{one}/order", new { with = new[] { two } }, Cancel);
        Assert.Equal("not_together", await both.CodeAsync());
        // Nothing was made on the way.
        Assert.Null(
            await House.DbAsync(db => db.Quotes.Where(q => q.Number == first).Select(q => q.OrderId).FirstAsync(Cancel))
        );
    }

    [Fact]
    public async Task Part_of_a_quote_goes_now_and_the_rest_later()
    {
        var quill = await House.AsAsync(Quill);
        var quote = await AcceptedAsync(quill, "SHK-BOW-10 x 40");
        var made = await PostAsync(quill, $"/api/quotes/{quote}/order", new { onCall = true });
        var frame = made.GetProperty("number").GetString()!;
        var document = await GetAsync(quill, frame);
        Assert.Equal("call-off", document.Sheet().Term("kind"));
        await quill.ActAsync($"/api/orders/{frame}/confirm", document.Sheet());
        Assert.Equal(HttpStatusCode.OK, (await CallAsync(quill, frame, Key(document, 0), 15m)).StatusCode);
        var left = (await GetAsync(quill, frame)).GetProperty("callOff").GetProperty("lines")[0];
        Assert.Equal(25m, left.GetProperty("rest").GetDecimal());
        // The frame owes nothing, and counts as sold in what was called off alone.
        Assert.Equal("", await FaultsAsync());
    }

    [Fact]
    public async Task A_line_is_closed_short_its_stock_is_free_the_buyer_is_told_and_it_can_be_opened_again()
    {
        var quill = await House.AsAsync(Quill);
        var (number, document) = await ConfirmedAsync(quill, "SHK-BOW-10 x 4", "BB2-10-NV x 20 m");
        Assert.Equal(24m, await CommittedAsync(number));
        Task<HttpResponseMessage> CloseAsync(JsonElement seen, string reason, params long[] lines) =>
            quill.ActAsync($"/api/orders/{number}/close-lines", seen.Sheet(), new { lines, reason });
        var (first, second) = (Key(document, 0), Key(document, 1));
        Assert.Equal("reason_missing", await (await CloseAsync(document, " ", first)).CodeAsync());
        Assert.Equal("lines_all", await (await CloseAsync(document, "all", first, second)).CodeAsync());
        Assert.Equal("line_gone", await (await CloseAsync(document, "none", 99)).CodeAsync());
        var closed = await (await CloseAsync(document, "they have enough", second)).JsonAsync();
        Assert.Equal("stale", await (await CloseAsync(document, "an old page", first)).CodeAsync());
        Assert.Equal(4m, await CommittedAsync(number));
        Assert.True(Total(closed.Sheet()) < Total(document.Sheet()));
        Assert.Equal("they have enough", Line(closed, 1).GetProperty("says").GetProperty("closedWhy").GetString());
        Assert.Contains(await LettersAsync(number), l => l.Contains(".closed.", StringComparison.Ordinal));
        Assert.Equal("", await FaultsAsync());
        var again = await PostAsync(quill, $"/api/orders/{number}/open-lines");
        Assert.Equal("open", again.GetProperty("tracks").GetProperty("terms").GetString());
        var confirmed = await quill.ActAsync($"/api/orders/{number}/confirm", again.Sheet());
        Assert.True(confirmed.StatusCode == HttpStatusCode.OK, await confirmed.Content.ReadAsStringAsync(Cancel));
        Assert.Equal(24m, await CommittedAsync(number));
        Assert.Equal("", await FaultsAsync());
    }

    [Fact]
    public async Task A_line_of_what_is_not_confirmed_is_taken_out_and_not_closed()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 4", "SVC-EYE x 2");
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        var refused = await quill.ActAsync(
            $"/api/orders/{number}/close-lines",
            sheet,
            new { lines = new[] { key }, reason = "x" }
        );
        Assert.Equal("order_state", await refused.CodeAsync());
        Assert.Equal(
            TermsTrack.Open,
            await House.DbAsync(db => db.Orders.Where(o => o.Number == number).Select(o => o.Terms).FirstAsync(Cancel))
        );
    }
}
