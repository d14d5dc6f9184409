using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What a buyer sees and does by the link in their letter, and what the house hears of it.</summary>
public sealed class BuyerPageTests(House house) : MoneyCalls(house)
{
    private async Task<(string Number, string Link)> SentAsync(HttpClient seller, params string[] lines)
    {
        var (number, sheet) = await QuoteAsync(seller, lines);
        var subject = $"for you {number}";
        (
            await seller.ActAsync(
                $"/api/quotes/{number}/send",
                sheet,
                new
                {
                    to = "fionn@tresselvane.example",
                    subject,
                    text = "here: {link}",
                }
            )
        ).EnsureSuccessStatusCode();
        return (number, await House.LinkAsync(subject));
    }

    private async Task<JsonElement> OfferAsync(string link) =>
        await (await House.CreateClient().GetAsync($"/api/offers/{link}", Cancel)).JsonAsync();

    private async Task<string[]> EventsAsync(string number) =>
        await House.DbAsync(db =>
            db.Events.Where(e => e.Subject.StartsWith(number))
                .OrderBy(e => e.Id)
                .Select(e => e.Code)
                .ToArrayAsync(Cancel)
        );

    [Fact]
    public async Task It_shows_what_is_on_the_sheet_and_nothing_that_is_ours_alone()
    {
        var quill = await House.AsAsync(Quill);
        var (number, link) = await SentAsync(quill, "BB2-10-NV x 180 m -5%", "SHK-BOW-10 x 12");
        var sheet = await SeenAsync(quill, $"/api/quotes/{number}");
        var offer = await OfferAsync(link);
        Assert.Equal(
            sheet.GetProperty("tally").GetProperty("totalWithTax").GetDecimal(),
            offer.GetProperty("totalWithTax").GetDecimal()
        );
        var lines = offer.GetProperty("lines").EnumerateArray().ToList();
        Assert.Equal(["BB2-10-NV", "SHK-BOW-10"], lines.Select(l => l.GetProperty("code").GetString()));
        Assert.Equal([5m, 0m], lines.Select(l => l.GetProperty("discountPercent").GetDecimal()));
        Assert.Equal(offer.GetProperty("goods").GetDecimal(), lines.Sum(l => l.GetProperty("amount").GetDecimal()));
        var fields = offer.EnumerateObject().Concat(lines[0].EnumerateObject()).Select(p => p.Name.ToUpperInvariant());
        Assert.DoesNotContain(
            fields,
            f => f.Contains("COST") || f.Contains("MARGIN") || f.Contains("FLOOR") || f.Contains("FINDING")
        );
    }

    [Fact]
    public async Task Its_parts_add_up_to_its_total()
    {
        var quill = await House.AsAsync(Quill);
        var (_, link) = await SentAsync(quill, "BB2-10-NV x 37.5 m -3.3%", "SHK-BOW-10 x 7", "SVC-EYE x 3");
        var offer = await OfferAsync(link);
        decimal Of(string name) => offer.GetProperty(name).GetDecimal();
        Assert.Equal(
            Of("totalWithoutTax"),
            Of("goods")
                - Of("sheetDiscount")
                + offer.GetProperty("charges").EnumerateArray().Sum(c => c.GetProperty("amount").GetDecimal())
        );
        Assert.Equal(
            Of("totalTax"),
            offer.GetProperty("taxes").EnumerateArray().Sum(t => t.GetProperty("tax").GetDecimal())
        );
        Assert.Equal(Of("totalWithTax"), Of("totalWithoutTax") + Of("totalTax"));
    }

    [Fact]
    public async Task Each_opening_is_counted_and_the_houses_own_looking_is_none()
    {
        var quill = await House.AsAsync(Quill);
        var (number, link) = await SentAsync(quill, "SHK-BOW-10 x 12");
        (await quill.GetAsync($"/api/quotes/{number}/preview", Cancel)).EnsureSuccessStatusCode();
        (await quill.GetAsync($"/api/offers/{link}", Cancel)).EnsureSuccessStatusCode();
        Assert.DoesNotContain("quote.opened", await EventsAsync(number));
        await OfferAsync(link);
        await OfferAsync(link);
        Assert.Equal(2, (await EventsAsync(number)).Count(e => e == "quote.opened"));
        Assert.Equal(
            2,
            await House.DbAsync(db =>
                db.Quotes.Where(q => q.Number == number).Select(q => q.Opened).SingleAsync(Cancel)
            )
        );
    }

    [Fact]
    public async Task The_print_is_what_was_sent_also_when_the_sheet_is_revised()
    {
        var quill = await House.AsAsync(Quill);
        var (number, link) = await SentAsync(quill, "SHK-BOW-10 x 12");
        var before = await PrintAsync();
        Assert.StartsWith("%PDF", Encoding.Latin1.GetString(before[..8]), StringComparison.Ordinal);
        (await quill.PostAsync($"/api/quotes/{number}/revise", null, Cancel)).EnsureSuccessStatusCode();
        var sheet = await SeenAsync(quill, $"/api/quotes/{number}");
        await quill.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-10 x 500" });
        Assert.Equal(before, await PrintAsync());

        async Task<byte[]> PrintAsync() =>
            await (
                await House.CreateClient().GetAsync($"/api/offers/{link}/print", Cancel)
            ).Content.ReadAsByteArrayAsync(Cancel);
    }

    [Fact]
    public async Task Saying_yes_twice_is_one_yes_and_the_order_has_their_number()
    {
        var quill = await House.AsAsync(Quill);
        var (number, link) = await SentAsync(quill, "SHK-BOW-10 x 12");
        var buyer = House.CreateClient();
        var yes = new { name = "Fionn Tressel", poNumber = "TV-2026-77" };
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(_ => buyer.PostAsJsonAsync($"/api/offers/{link}/accept", yes, Cancel))
        );
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.OK);
        foreach (var refused in answers.Where(a => a.StatusCode != HttpStatusCode.OK))
            Assert.Equal("offer_closed", await refused.CodeAsync());
        Assert.Single(await EventsAsync(number), "quote.accepted");
        var made = await (await quill.PostAsync($"/api/quotes/{number}/order", null, Cancel)).JsonAsync();
        var order = await SeenAsync(quill, $"/api/orders/{made.GetProperty("number").GetString()}");
        Assert.Equal("TV-2026-77", order.Term("poNumber"));
    }

    [Theory]
    [InlineData("accept", "name", "", "name_missing")]
    [InlineData(
        "accept",
        "poNumber",
        "0123456789012345678901234567890123456789012345678901234567890123456789",
        "too_long"
    )]
    [InlineData("decline", "reason", "  ", "reason_missing")]
    public async Task An_answer_that_lacks_something_says_what_and_leaves_the_offer_open(
        string what,
        string field,
        string value,
        string code
    )
    {
        var quill = await House.AsAsync(Quill);
        var (_, link) = await SentAsync(quill, "SHK-BOW-10 x 12");
        var body = new Dictionary<string, string>
        {
            ["name"] = "Fionn",
            ["poNumber"] = "1",
            ["reason"] = "no",
            [field] = value,
        };
        var answer = await House.CreateClient().PostAsJsonAsync($"/api/offers/{link}/{what}", body, Cancel);
        Assert.Equal(code, await answer.CodeAsync());
        Assert.True((await OfferAsync(link)).GetProperty("open").GetBoolean());
    }

    [Fact]
    public async Task A_withdrawn_quote_says_so_to_whoever_comes_by_its_link()
    {
        var quill = await House.AsAsync(Quill);
        var (number, link) = await SentAsync(quill, "SHK-BOW-10 x 12");
        (
            await quill.PostAsJsonAsync($"/api/quotes/{number}/withdraw", new { reason = "sold out" }, Cancel)
        ).EnsureSuccessStatusCode();
        var offer = await OfferAsync(link);
        Assert.False(offer.GetProperty("open").GetBoolean());
        // Why is ours to know.
        Assert.DoesNotContain("sold out", offer.GetRawText(), StringComparison.Ordinal);
        Assert.Equal(
            "offer_closed",
            await (
                await House.CreateClient().PostAsJsonAsync($"/api/offers/{link}/accept", new { name = "A" }, Cancel)
            ).CodeAsync()
        );
    }

    [Fact]
    public async Task A_link_is_not_to_be_guessed_and_is_kept_by_its_hash_alone()
    {
        var quill = await House.AsAsync(Quill);
        var (number, link) = await SentAsync(quill, "SHK-BOW-10 x 12");
        Assert.True(link.Length >= 40);
        var kept = await House.DbAsync(db =>
            db.Quotes.Where(q => q.Number == number).Select(q => q.TokenHash).SingleAsync(Cancel)
        );
        Assert.NotEqual(link, kept);
        Assert.Equal(
            "link_unknown",
            await (await House.CreateClient().GetAsync($"/api/offers/{kept}", Cancel)).CodeAsync()
        );
    }
}
