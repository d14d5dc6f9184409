using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What a buyer chooses of what they are offered: options, alternatives, and one of several quotes.</summary>
public sealed class ChoiceTests(House house) : MoneyCalls(house)
{
    private async Task<string> SendAsync(HttpClient seller, string number, JsonElement sheet)
    {
        var subject = $"for you {number}";
        var letter = new
        {
            to = "fionn@tresselvane.example",
            subject,
            text = "here: {link}",
        };
        (await seller.ActAsync($"/api/quotes/{number}/send", sheet, letter)).EnsureSuccessStatusCode();
        return await House.LinkAsync(subject);
    }

    private async Task<JsonElement> OfferAsync(string link, string? of = null) =>
        await (
            await House.CreateClient().GetAsync($"/api/offers/{link}{(of is null ? "" : $"?of={of}")}", Cancel)
        ).JsonAsync();

    private Task<HttpResponseMessage> AnswerAsync(string link, string what, object body) =>
        House.CreateClient().PostAsJsonAsync($"/api/offers/{link}/{what}", body, Cancel);

    private static long Key(JsonElement offer, int at) => offer.GetProperty("lines")[at].GetProperty("key").GetInt64();

    private static decimal Total(JsonElement offer, string name = "totalWithTax") =>
        offer.GetProperty(name).GetDecimal();

    [Fact]
    public async Task The_buyer_takes_what_they_want_signs_that_total_and_that_becomes_the_order()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(
            quill,
            "SHK-BOW-10 x 12",
            "or SHK-BOW-12 x 12",
            "? SVC-EYE x 4",
            "BB2-10-NV x 180 m"
        );
        Assert.Equal(
            ["1a", "1b", "2", "3"],
            sheet.GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("number").GetString())
        );
        var link = await SendAsync(quill, number, sheet);
        var offer = await OfferAsync(link);
        var asSent = Total(offer);
        long[] chosen = [Key(offer, 1), Key(offer, 2)];
        var seen = await (await AnswerAsync(link, "choice", new { chosen })).JsonAsync();
        // 12 at 5.42 in place of 12 at 4.15, four splices at 11.50, and their tax.
        Assert.Equal(Total(offer, "goods") + (12 * (5.42m - 4.15m)) + (4 * 11.50m), Total(seen, "goods"));
        // To look is not to take.
        Assert.Equal(asSent, Total(await OfferAsync(link)));
        var accepted = await (await AnswerAsync(link, "accept", new { name = "Fionn", chosen })).JsonAsync();
        Assert.Equal(Total(seen), Total(accepted));
        var order = await (await quill.PostAsync($"/api/quotes/{number}/order", null, Cancel)).JsonAsync();
        var made = await SeenAsync(quill, $"/api/orders/{order.GetProperty("number").GetString()}");
        Assert.Equal(
            ["SHK-BOW-12", "SVC-EYE", "BB2-10-NV"],
            made.GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("code").GetString())
        );
        Assert.Equal(Total(seen), made.GetProperty("tally").GetProperty("totalWithTax").GetDecimal());
        Assert.DoesNotContain(Stops(made), s => s.StartsWith("as-accepted", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_cannot_be_chosen_is_refused_and_nothing_is_accepted()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 12", "or SHK-BOW-12 x 12", "BB2-10-NV x 180 m");
        var link = await SendAsync(quill, number, sheet);
        var offer = await OfferAsync(link);
        foreach (long[] chosen in new[] { new[] { Key(offer, 0), Key(offer, 1) }, [Key(offer, 2)], [999] })
        {
            var no = await AnswerAsync(link, "accept", new { name = "Fionn", chosen });
            Assert.Equal((HttpStatusCode.UnprocessableEntity, "choice"), (no.StatusCode, await no.CodeAsync()));
        }
        Assert.True((await OfferAsync(link)).GetProperty("open").GetBoolean());
    }

    [Fact]
    public async Task Of_two_quotes_the_one_that_is_taken_is_marked_and_the_other_answered()
    {
        var quill = await House.AsAsync(Quill);
        var (first, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 12");
        var copy = await (
            await quill.PostAsJsonAsync($"/api/quotes/{first}/copy", new { toChoose = true }, Cancel)
        ).JsonAsync();
        var second = copy.GetProperty("number").GetString()!;
        var other = await SeenAsync(quill, $"/api/quotes/{second}");
        other = await SetAsync(
            quill,
            other,
            "quantity",
            "20",
            other.GetProperty("lines")[0].GetProperty("key").GetInt64()
        );
        var link = await SendAsync(quill, first, await SeenAsync(quill, $"/api/quotes/{first}"));
        // What has not left the house is not shown.
        Assert.Single((await OfferAsync(link)).GetProperty("toChoose").EnumerateArray());
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await House.CreateClient().GetAsync($"/api/offers/{link}?of={second}", Cancel)).StatusCode
        );
        await SendAsync(quill, second, other);
        Assert.Equal(2, (await OfferAsync(link)).GetProperty("toChoose").GetArrayLength());
        Assert.Equal(second, (await OfferAsync(link, second)).GetProperty("number").GetString());
        (await AnswerAsync(link, "accept", new { name = "Fionn", of = second })).EnsureSuccessStatusCode();
        var states = await House.DbAsync(db =>
            db.Quotes.Where(q => q.Number == first || q.Number == second)
                .OrderBy(q => q.Number)
                .Select(q => $"{q.State} {q.DeclineReason}")
                .ToListAsync(Cancel)
        );
        Assert.Equal([$"Declined {second} was taken instead", "Accepted "], states);
        // A quote of somebody else's is not reached by that link.
        var (strange, _) = await QuoteAsync(quill, "SHK-BOW-10 x 1");
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await House.CreateClient().GetAsync($"/api/offers/{link}?of={strange}", Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task A_copy_has_the_prices_of_today_and_says_what_moved_and_the_old_one_stays()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 12 -2%");
        await SendAsync(quill, number, sheet);
        // Its prices then are kept on it; the list of today is another.
        await House.DbAsync(async db =>
        {
            var row = await db.Quotes.Where(q => q.Number == number).Select(q => q.Sheet).FirstAsync(Cancel);
            row.Kept = row.Kept.Replace("4.15", "3.95", StringComparison.Ordinal);
            return await db.SaveChangesAsync(Cancel);
        });
        var made = await (
            await quill.PostAsJsonAsync($"/api/quotes/{number}/copy", new { toChoose = false }, Cancel)
        ).JsonAsync();
        var copy = made.GetProperty("number").GetString()!;
        var fresh = await SeenAsync(quill, $"/api/quotes/{copy}");
        Assert.Equal(4.15m, fresh.GetProperty("lines")[0].GetProperty("basePrice").GetDecimal());
        var moved = await House.DbAsync(db =>
            db.Events.Where(e => e.Subject == copy && e.Code == "quote.copied").Select(e => e.Facts).SingleAsync(Cancel)
        );
        Assert.Contains("SHK-BOW-10 3.8710", moved, StringComparison.Ordinal);
        Assert.Equal(
            3.95m,
            (await SeenAsync(quill, $"/api/quotes/{number}"))
                .GetProperty("lines")[0]
                .GetProperty("basePrice")
                .GetDecimal()
        );
    }

    [Fact]
    public async Task Two_revisions_stand_beside_each_other_line_by_line()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 12", "BB2-10-NV x 180 m", "SVC-EYE x 2");
        await SendAsync(quill, number, sheet);
        var b = (await (await quill.PostAsync($"/api/quotes/{number}/revise", null, Cancel)).JsonAsync()).Sheet();
        long Line(int at) => b.GetProperty("lines")[at].GetProperty("key").GetInt64();
        b = await SetAsync(quill, b, "quantity", "20", Line(0));
        b = await quill.EditAsync(b, new { kind = "remove", line = Line(1) });
        b = await quill.EditAsync(b, new { kind = "add", value = "SHK-BOW-12 x 3" });
        await SetAsync(quill, b, "paymentDays", "45");
        var beside = await (await quill.GetAsync($"/api/beside?then={number}·A&now={number}·B", Cancel)).JsonAsync();
        Assert.Equal(
            ["changed", "gone", "same", "added"],
            beside.GetProperty("pairs").EnumerateArray().Select(p => p.GetProperty("change").GetString())
        );
        var changed = beside.GetProperty("pairs")[0];
        Assert.Equal(
            "12 → 20",
            $"{changed.GetProperty("moved")[0].GetProperty("then")} → {changed.GetProperty("moved")[0].GetProperty("now")}"
        );
        Assert.Equal(8 * 4.15m, changed.GetProperty("more").GetDecimal());
        Assert.Contains(
            beside.GetProperty("terms").EnumerateArray(),
            t => t.GetProperty("field").GetString() == "paymentDays"
        );
        // A quote of its own is compared by what its lines are.
        var copy = await (
            await quill.PostAsJsonAsync($"/api/quotes/{number}/copy", new { toChoose = false }, Cancel)
        ).JsonAsync();
        var own = await (
            await quill.GetAsync($"/api/beside?then={number}·B&now={copy.GetProperty("number").GetString()}", Cancel)
        ).JsonAsync();
        Assert.All(
            own.GetProperty("pairs").EnumerateArray(),
            p => Assert.Equal("same", p.GetProperty("change").GetString())
        );
        var (other, _) = await QuoteAsync(quill, "SHK-BOW-10 x 1");
        Assert.Equal(
            "other_matter",
            await (await quill.GetAsync($"/api/beside?then={number}&now={other}", Cancel)).CodeAsync()
        );
    }
}
