using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Sheets through the real host: edits, undo, grants, revisions, orders.</summary>
public sealed class SheetTests(House house) : SheetCalls(house)
{
    [Fact]
    public async Task A_stale_edit_gets_409_with_what_changed_and_changes_nothing()
    {
        var (sorcha, nell) = (await House.AsAsync(4), await House.AsAsync(3));
        var (number, sheet) = await NewQuoteAsync(sorcha);
        var fresh = await (
            await EditAsync(sorcha, sheet, new { kind = "add", value = "SHK-BOW-10 x 12" })
        ).SheetAsync();
        Assert.Equal(49.80m, fresh.GetProperty("lines")[0].GetProperty("net").GetDecimal());
        var stale = await EditAsync(nell, sheet, new { kind = "add", value = "THM-SS-12 x 5" });
        Assert.Equal(HttpStatusCode.Conflict, stale.StatusCode);
        var problem = await stale.JsonAsync();
        Assert.Equal("stale", problem.GetProperty("code").GetString());
        Assert.Contains("Sorcha Quill", problem.GetProperty("title").GetString(), StringComparison.Ordinal);
        // Only what was not seen yet.
        Assert.Equal(
            "Sorcha Quill",
            Assert.Single(problem.GetProperty("facts").EnumerateArray()).GetProperty("who").GetString()
        );
        var now = await (await sorcha.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync();
        Assert.Equal(1, now.GetProperty("sheet").GetProperty("lines").GetArrayLength());
    }

    [Fact]
    public async Task Bad_input_says_what_was_kept_and_undo_brings_lines_back()
    {
        var sorcha = await House.AsAsync(4);
        var (_, empty) = await NewQuoteAsync(sorcha);
        var sheet = await (
            await EditAsync(
                sorcha,
                empty,
                new { kind = "add", value = "PS3-12-WH x 100 m" },
                new { kind = "add", value = "eye splice x 2" }
            )
        ).SheetAsync();
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        foreach (
            var (field, value) in new[]
            {
                ("quantity", "a lot"),
                ("discount", "101"),
                ("margin", "100"),
                ("unit", "furlong"),
                ("item", "NO-SUCH"),
            }
        )
        {
            var refused = await EditAsync(
                sorcha,
                sheet,
                new
                {
                    kind = "set",
                    line = key,
                    field,
                    value,
                }
            );
            Assert.Equal((field, HttpStatusCode.UnprocessableEntity), (field, refused.StatusCode));
            Assert.Contains(
                "kept",
                (await refused.JsonAsync()).GetProperty("title").GetString(),
                StringComparison.Ordinal
            );
        }
        var without = await (await EditAsync(sorcha, sheet, new { kind = "remove", line = key })).SheetAsync();
        Assert.Equal(1, without.GetProperty("lines").GetArrayLength());
        var back = await (await sorcha.UndoAsync(without)).SheetAsync();
        Assert.Equal(sheet.GetProperty("tally").GetRawText(), back.GetProperty("tally").GetRawText());
    }

    [Fact]
    public async Task The_figures_of_a_granted_ask_cannot_be_passed_by_a_sheet_discount()
    {
        var (sorcha, paz) = (await House.AsAsync(4), await House.AsAsync(2));
        var (number, empty) = await NewQuoteAsync(sorcha);
        var sheet = await (
            await EditAsync(sorcha, empty, new { kind = "add", value = "BB2-10-NV x 180 m -12%" })
        ).SheetAsync();
        Assert.Equal("needed", sheet.GetProperty("approval").GetProperty("state").GetString());
        var letter = new
        {
            to = "fionn@tresselvane.example",
            subject = "x",
            text = "{link}",
        };
        Assert.Equal("stopped", await (await ActAsync(sorcha, number, "send", letter)).CodeAsync());
        Assert.Equal("reason_missing", await (await ActAsync(sorcha, number, "ask", new { why = " " })).CodeAsync());
        var asked = await (await ActAsync(sorcha, number, "ask", new { why = "they must have it" })).JsonAsync();
        var ask = asked.GetProperty("asks")[0].GetProperty("id").GetInt64();

        // Havergal leads too, but her authority ends at 5 %.
        var nell = await House.AsAsync(3);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await nell.PostAsJsonAsync($"/api/asks/{ask}/grant", new { note = "" }, Cancel)).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (await paz.PostAsJsonAsync($"/api/asks/{ask}/grant", new { note = "" }, Cancel)).StatusCode
        );
        Assert.Equal(
            "ask_decided",
            await (await paz.PostAsJsonAsync($"/api/asks/{ask}/send-back", new { note = "no" }, Cancel)).CodeAsync()
        );

        var granted = (await (await sorcha.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync()).GetProperty("sheet");
        var worse = await (
            await EditAsync(
                sorcha,
                granted,
                new
                {
                    kind = "set",
                    field = "sheetDiscount",
                    value = "1",
                }
            )
        ).SheetAsync();
        Assert.Equal("needed", worse.GetProperty("approval").GetProperty("state").GetString());
        Assert.Equal(
            "drafting",
            (await (await sorcha.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync())
                .GetProperty("state")
                .GetString()
        );
        Assert.Equal("stopped", await (await ActAsync(sorcha, number, "send", letter)).CodeAsync());
    }

    [Fact]
    public async Task A_link_answers_only_for_the_live_revision()
    {
        var sorcha = await House.AsAsync(4);
        var (number, empty) = await NewQuoteAsync(sorcha, 14);
        await EditAsync(sorcha, empty, new { kind = "add", value = "SHK-BOW-10 x 10" });
        Assert.Equal(
            "link_missing",
            await (
                await ActAsync(
                    sorcha,
                    number,
                    "send",
                    new
                    {
                        to = "a@b.example",
                        subject = "x",
                        text = "no link",
                    }
                )
            ).CodeAsync()
        );
        Assert.Equal(
            "address",
            await (
                await ActAsync(
                    sorcha,
                    number,
                    "send",
                    new
                    {
                        to = "nowhere",
                        subject = "x",
                        text = "{link}",
                    }
                )
            ).CodeAsync()
        );
        var first = await SendAsync(sorcha, number, "first");
        await sorcha.PostAsync($"/api/quotes/{number}/revise", null, Cancel);
        var buyer = House.CreateClient();
        var refused = await buyer.PostAsJsonAsync(
            $"/api/offers/{first}/accept",
            new { name = "A", poNumber = "1" },
            Cancel
        );
        Assert.Equal("offer_closed", await refused.CodeAsync());
        Assert.Contains(
            "newer revision",
            (await refused.JsonAsync()).GetProperty("title").GetString(),
            StringComparison.Ordinal
        );

        var second = await SendAsync(sorcha, number, "second");
        Assert.Equal(
            "name_missing",
            await (await buyer.PostAsJsonAsync($"/api/offers/{second}/accept", new { name = " " }, Cancel)).CodeAsync()
        );
        Assert.Equal(
            "reason_missing",
            await (
                await buyer.PostAsJsonAsync($"/api/offers/{second}/decline", new { reason = "" }, Cancel)
            ).CodeAsync()
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await buyer.PostAsJsonAsync($"/api/offers/{second}/decline", new { reason = "10 % too dear" }, Cancel)
            ).StatusCode
        );
        Assert.Equal(
            "offer_closed",
            await (await buyer.PostAsJsonAsync($"/api/offers/{second}/accept", new { name = "A" }, Cancel)).CodeAsync()
        );
        Assert.Equal(
            "quote_state",
            await (await sorcha.PostAsync($"/api/quotes/{number}/order", null, Cancel)).CodeAsync()
        );
        Assert.Equal("link_unknown", await (await buyer.GetAsync($"/api/offers/{second}x", Cancel)).CodeAsync());
        var offer = await (await buyer.GetAsync($"/api/offers/{second}", Cancel)).Content.ReadAsStringAsync(Cancel);
        Assert.DoesNotContain("margin", offer, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("cost", offer, StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public async Task What_was_offered_is_what_is_ordered_whatever_prices_do_meanwhile()
    {
        var (sorcha, paz) = (await House.AsAsync(4), await House.AsAsync(2));
        var (number, empty) = await NewQuoteAsync(sorcha, 14);
        await EditAsync(sorcha, empty, new { kind = "add", value = "SWV-GV-10 x 10" });
        var link = await SendAsync(sorcha, number, "kept");
        var buyer = House.CreateClient();
        var offered = (await (await buyer.GetAsync($"/api/offers/{link}", Cancel)).JsonAsync())
            .GetProperty("totalWithTax")
            .GetDecimal();

        var price = (await (await paz.GetAsync("/api/lists/prices?filter=item:SWV-GV-10", Cancel)).JsonAsync())
            .GetProperty("rows")[0]
            .GetProperty("id")
            .GetInt64();
        using var dearer = new HttpRequestMessage(HttpMethod.Put, $"/api/records/prices/{price}")
        {
            Content = JsonContent.Create(new { values = new { price = "19.80" } }),
        };
        dearer.Headers.TryAddWithoutValidation("If-Match", "\"1\"");
        Assert.Equal(HttpStatusCode.OK, (await paz.SendAsync(dearer, Cancel)).StatusCode);

        Assert.Equal(
            offered,
            (await (await buyer.GetAsync($"/api/offers/{link}", Cancel)).JsonAsync())
                .GetProperty("totalWithTax")
                .GetDecimal()
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await buyer.PostAsJsonAsync($"/api/offers/{link}/accept", new { name = "A", poNumber = "1" }, Cancel)
            ).StatusCode
        );
        var made = await (await sorcha.PostAsync($"/api/quotes/{number}/order", null, Cancel)).JsonAsync();
        var order = (
            await (await sorcha.GetAsync($"/api/orders/{made.GetProperty("number").GetString()}", Cancel)).JsonAsync()
        ).GetProperty("sheet");
        Assert.Equal(offered, order.GetProperty("tally").GetProperty("totalWithTax").GetDecimal());
        // A line that changes is another purchase, at the price of the sheet's day as it stands now.
        var more = await (
            await EditAsync(
                sorcha,
                order,
                new
                {
                    kind = "set",
                    line = order.GetProperty("lines")[0].GetProperty("key").GetInt64(),
                    field = "quantity",
                    value = "11",
                }
            )
        ).SheetAsync();
        Assert.Equal(19.80m, more.GetProperty("lines")[0].GetProperty("listPrice").GetDecimal());
    }

    // Acts on a quote as somebody who has just looked at it.
    private static async Task<HttpResponseMessage> ActAsync(HttpClient client, string number, string act, object body)
    {
        var seen = await (await client.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync();
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/quotes/{number}/{act}")
        {
            Content = JsonContent.Create(body),
        };
        request.Headers.TryAddWithoutValidation(
            "If-Match",
            $"\"{seen.GetProperty("sheet").GetProperty("version").GetInt64()}\""
        );
        return await client.SendAsync(request, Cancel);
    }

    // The link stands only in the letter: it is taken from where the letter arrived.
    private static async Task<string> SendAsync(HttpClient client, string number, string subject)
    {
        var sent = await ActAsync(
            client,
            number,
            "send",
            new
            {
                to = "office@gullrockboatyard.example",
                subject,
                text = "here: {link}",
            }
        );
        Assert.Equal(HttpStatusCode.OK, sent.StatusCode);
        for (var tries = 0; tries < 100; tries++)
        {
            var post = await (await client.GetAsync("/api/demo/post", Cancel)).JsonAsync();
            var name = post.EnumerateArray()
                .Where(p => p.GetProperty("subject").GetString() == subject)
                .Select(p => p.GetProperty("name").GetString())
                .FirstOrDefault();
            if (name is not null)
                return (await (await client.GetAsync($"/api/demo/post/{name}", Cancel)).JsonAsync())
                    .GetProperty("text")
                    .GetString()!
                    .Trim()
                    .Split('/')[^1];
            await Task.Delay(100, Cancel);
        }
        throw new InvalidOperationException(
            string.Create(CultureInfo.InvariantCulture, $"The letter “{subject}” did not arrive.")
        );
    }
}
