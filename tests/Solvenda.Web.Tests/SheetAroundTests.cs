using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// What stands around a sheet: notes to its lines, what would it take, lines from elsewhere, files, who else is there.
/// </summary>
public sealed class SheetAroundTests(House house) : MoneyCalls(house)
{
    private static long Id(JsonElement sheet) => sheet.GetProperty("id").GetInt64();

    private static long Key(JsonElement sheet, int at) => sheet.GetProperty("lines")[at].GetProperty("key").GetInt64();

    private static async Task<JsonElement> GetAsync(HttpClient client, string path) =>
        await (await client.GetAsync(path, Cancel)).JsonAsync();

    [Fact]
    public async Task A_line_knows_the_next_break_its_stock_and_the_rules_that_lost()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m");
        var notes = await GetAsync(quill, $"/api/sheets/{Id(sheet)}/lines/{Key(sheet, 0)}/notes");
        Assert.Equal(200m, notes.GetProperty("break").GetProperty("from").GetDecimal());
        Assert.Equal(
            (200 * 2.178m) - sheet.GetProperty("lines")[0].GetProperty("net").GetDecimal(),
            notes.GetProperty("break").GetProperty("moreInAll").GetDecimal(),
            2
        );
        Assert.NotEmpty(notes.GetProperty("stock").EnumerateArray());
        Assert.NotEmpty(notes.GetProperty("toThisBuyer").EnumerateArray());
        Assert.DoesNotContain(
            notes.GetProperty("lost").EnumerateArray(),
            l => l.GetProperty("why").GetString()!.Length == 0
        );
    }

    [Theory]
    [InlineData("shackle 10 tressel", "paid last", "SHK-BOW-10")]
    [InlineData("tressel BB2-10-NV", "paid last", "BB2-10-NV")]
    [InlineData("chain 10 nordvass", "would pay", "CHN-SL-10")]
    public async Task What_a_buyer_paid_last_is_found_by_a_word_of_each(string words, string kind, string code)
    {
        var quill = await House.AsAsync(Quill);
        var found = (await GetAsync(quill, $"/api/find?q={Uri.EscapeDataString(words)}"))[0];
        Assert.Equal((kind, code), (found.GetProperty("kind").GetString(), found.GetProperty("number").GetString()));
    }

    [Fact]
    public async Task The_next_break_is_with_the_discount_of_the_line_and_none_where_the_price_is_typed()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m -10%", "BB2-10-NV x 180 m @2.30");
        var less = await GetAsync(quill, $"/api/sheets/{Id(sheet)}/lines/{Key(sheet, 0)}/notes");
        Assert.Equal(
            392.04m - sheet.GetProperty("lines")[0].GetProperty("net").GetDecimal(),
            less.GetProperty("break").GetProperty("moreInAll").GetDecimal()
        );
        var typed = await GetAsync(quill, $"/api/sheets/{Id(sheet)}/lines/{Key(sheet, 1)}/notes");
        Assert.Equal(JsonValueKind.Null, typed.GetProperty("break").ValueKind);
        Assert.Empty(typed.GetProperty("cheaper").EnumerateArray());
    }

    [Fact]
    public async Task A_wished_total_says_what_it_takes_and_changes_nothing_until_it_is_done()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m", "SHK-BOW-10 x 40");
        var before = sheet.GetProperty("tally").GetProperty("totalWithTax").GetDecimal();
        var reach = await GetAsync(quill, $"/api/sheets/{Id(sheet)}/reach?wish={before - 20m}");
        var wish = reach.GetProperty("wish");
        Assert.Equal(before - 20m, wish.GetProperty("total").GetDecimal());
        Assert.False(wish.GetProperty("asks").GetBoolean());
        Assert.True(reach.GetProperty("freeTotal").GetDecimal() < before);
        Assert.Equal(
            sheet.GetProperty("version").GetInt64(),
            (await SeenAsync(quill, $"/api/quotes/{number}")).GetProperty("version").GetInt64()
        );
        var done = await quill.EditAsync(sheet, wish.GetProperty("edits")[0]);
        Assert.Equal(before - 20m, done.GetProperty("tally").GetProperty("totalWithTax").GetDecimal());
        // Much less needs somebody, and says whom.
        var deep = (await GetAsync(quill, $"/api/sheets/{Id(sheet)}/reach?wish={before * 0.7m}")).GetProperty("wish");
        Assert.True(deep.GetProperty("asks").GetBoolean());
        Assert.NotEmpty(deep.GetProperty("approvers").EnumerateArray());
        foreach (var nonsense in new[] { "much", "99999999", "120 %" })
            Assert.NotEqual(
                "",
                (await GetAsync(quill, $"/api/sheets/{Id(sheet)}/reach?wish={Uri.EscapeDataString(nonsense)}"))
                    .GetProperty("wish")
                    .GetProperty("whyNot")
                    .GetString()
            );
    }

    [Fact]
    public async Task A_wished_margin_is_typed_on_every_line_with_a_cost()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m", "SHK-BOW-10 x 40");
        var wish = (
            await GetAsync(quill, $"/api/sheets/{Id(sheet)}/reach?wish={Uri.EscapeDataString("40 %")}")
        ).GetProperty("wish");
        Assert.Equal(2, wish.GetProperty("edits").GetArrayLength());
        Assert.Equal(40m, wish.GetProperty("marginAfter").GetDecimal(), 1);
    }

    [Fact]
    public async Task Lines_of_an_earlier_order_come_at_todays_prices_or_at_those_of_then()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill);
        var sources = await GetAsync(quill, $"/api/sheets/{Id(sheet)}/sources");
        var order = sources.EnumerateArray().First(s => s.GetProperty("kind").GetString() == "order");
        var lines = await GetAsync(
            quill,
            $"/api/sheets/{Id(sheet)}/sources/order/{order.GetProperty("key").GetString()}"
        );
        Assert.Equal(order.GetProperty("lines").GetInt32(), lines.GetArrayLength());
        var line = lines.EnumerateArray().First(l => l.GetProperty("priceThen").ValueKind == JsonValueKind.Number);
        sheet = await quill.EditAsync(
            sheet,
            new
            {
                kind = "add",
                field = line.GetProperty("code").GetString(),
                value = line.GetProperty("then").GetString(),
            }
        );
        var taken = sheet.GetProperty("lines")[0];
        Assert.Equal(line.GetProperty("priceThen").GetDecimal(), taken.GetProperty("netPrice").GetDecimal());
        Assert.Equal(line.GetProperty("quantity").GetDecimal(), taken.GetProperty("quantity").GetDecimal());
        // Another buyer's order is none of this one's.
        var strange = await House.DbAsync(db =>
            db.Orders.Where(o => o.Dossier.BuyerId != Tressel).Select(o => o.Number).FirstAsync(Cancel)
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await quill.GetAsync($"/api/sheets/{Id(sheet)}/sources/order/{strange}", Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task An_assortment_keeps_items_and_quantities_and_is_ones_own()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 12 -3%", "? SVC-EYE x 2", "teak ladder x 1 @240");
        sheet = await quill.EditAsync(sheet, new { kind = "addHeading", value = "Tackle" });
        var kept = await quill.PostAsJsonAsync(
            $"/api/sheets/{Id(sheet)}/assortments",
            new
            {
                name = "the usual tackle",
                forAll = false,
                keys = Array.Empty<long>(),
            },
            Cancel
        );
        var key = await kept.Content.ReadAsStringAsync(Cancel);
        var lines = await GetAsync(quill, $"/api/sheets/{Id(sheet)}/sources/assortment/{key}");
        Assert.Equal(
            ["SHK-BOW-10 x 12 C62", "? SVC-EYE x 2 C62", "teak ladder x 1 C62 @240", "# Tackle"],
            lines.EnumerateArray().Select(l => l.GetProperty("text").GetString())
        );
        var mohr = await House.AsAsync(Mohr);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await mohr.GetAsync($"/api/sheets/{Id(sheet)}/sources/assortment/{key}", Cancel)).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await mohr.DeleteAsync($"/api/sheets/assortments/{key}", Cancel)).StatusCode
        );
        (await quill.DeleteAsync($"/api/sheets/assortments/{key}", Cancel)).EnsureSuccessStatusCode();
        var usual = await GetAsync(quill, $"/api/sheets/{Id(sheet)}/sources/usual/usual");
        Assert.NotEmpty(usual.EnumerateArray());
        var catalogue = await GetAsync(quill, $"/api/sheets/{Id(sheet)}/sources/catalogue/all?q=bow%20shackle");
        Assert.All(
            catalogue.EnumerateArray().Take(2),
            l => Assert.StartsWith("SHK-BOW", l.GetProperty("code").GetString(), StringComparison.Ordinal)
        );
    }

    private static readonly string[] Wanted = ["job", "wanted"];
    private static readonly string[] Unknown = ["weather"];

    private static readonly byte[] Picture = [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 1, 2, 3];

    private static Task<HttpResponseMessage> PutAsync(HttpClient client, string number, byte[] bytes, string query) =>
        client.PostAsync($"/api/documents/quote/{number}/files?{query}", new ByteArrayContent(bytes), Cancel);

    [Fact]
    public async Task A_file_is_for_the_house_until_it_is_shown_to_the_buyer_and_only_what_is_inert_is()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 12");
        var inner = await (await PutAsync(quill, number, Picture, "filename=../../yard.png")).JsonAsync();
        Assert.Equal("yard.png", inner[0].GetProperty("name").GetString());
        var page = Encoding.UTF8.GetBytes("<script>alert(1)</script>");
        Assert.Equal(
            "file_type",
            await (await PutAsync(quill, number, page, "filename=x.png&forBuyer=true")).CodeAsync()
        );
        Assert.Equal("file_empty", await (await PutAsync(quill, number, [], "filename=x.png")).CodeAsync());
        var kept = await (await PutAsync(quill, number, page, "filename=x.html")).JsonAsync();
        var id = kept.EnumerateArray()
            .First(f => f.GetProperty("name").GetString() == "x.html")
            .GetProperty("id")
            .GetInt64();
        var got = await quill.GetAsync($"/api/files/{id}", Cancel);
        Assert.Equal("application/octet-stream", got.Content.Headers.ContentType!.MediaType);
        Assert.Equal("attachment", got.Content.Headers.ContentDisposition!.DispositionType);

        var letter = new
        {
            to = "fionn@tresselvane.example",
            subject = $"for you {number}",
            text = "here: {link}",
        };
        (await quill.ActAsync($"/api/quotes/{number}/send", sheet, letter)).EnsureSuccessStatusCode();
        var link = await House.LinkAsync(letter.subject);
        var picture = inner[0].GetProperty("id").GetInt64();
        var buyer = House.CreateClient();
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await buyer.GetAsync($"/api/offers/{link}/files/{picture}", Cancel)).StatusCode
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await buyer.GetAsync($"/api/files/{picture}", Cancel)).StatusCode);
        (
            await quill.PostAsJsonAsync($"/api/files/{picture}/shown", new { forBuyer = true }, Cancel)
        ).EnsureSuccessStatusCode();
        Assert.Equal(Picture, await buyer.GetByteArrayAsync($"/api/offers/{link}/files/{picture}", Cancel));
        // Whoever may look but not write takes nothing away.
        var stroud = await House.AsAsync(Stroud);
        Assert.Equal(HttpStatusCode.Forbidden, (await stroud.DeleteAsync($"/api/files/{picture}", Cancel)).StatusCode);
        (await quill.DeleteAsync($"/api/files/{picture}", Cancel)).EnsureSuccessStatusCode();
        var left = await GetAsync(quill, $"/api/documents/quote/{number}/files");
        Assert.Equal(["inner", "out"], left.EnumerateArray().Select(f => f.GetProperty("kind").GetString()));
    }

    [Fact]
    public async Task Two_who_have_it_open_hear_of_each_other_and_of_changes_as_they_are_made()
    {
        var (quill, mohr) = (await House.AsAsync(Quill), await House.AsAsync(Mohr));
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 12");
        using var stream = await mohr.GetAsync(
            $"/api/presence/{number}",
            HttpCompletionOption.ResponseHeadersRead,
            Cancel
        );
        Assert.Equal("text/event-stream", stream.Content.Headers.ContentType!.MediaType);
        using var heard = new StreamReader(await stream.Content.ReadAsStreamAsync(Cancel));
        using var mine = await quill.GetAsync(
            $"/api/presence/{number}",
            HttpCompletionOption.ResponseHeadersRead,
            Cancel
        );
        async Task UntilAsync(string words)
        {
            while (await heard.ReadLineAsync(Cancel) is { } line)
            {
                if (line.Contains(words, StringComparison.Ordinal))
                    return;
            }
            Assert.Fail($"The stream ended before it said {words}.");
        }
        await UntilAsync("Sorcha Quill");
        (
            await quill.PostAsJsonAsync($"/api/presence/{number}", new { line = Key(sheet, 0) }, Cancel)
        ).EnsureSuccessStatusCode();
        await UntilAsync($"\"line\":{Key(sheet, 0)}");
        await SetAsync(quill, sheet, "quantity", "13", Key(sheet, 0));
        await UntilAsync("\"changed\":true");
    }

    [Fact]
    public async Task Columns_are_ones_own_and_only_those_that_there_are()
    {
        var quill = await House.AsAsync(Quill);
        var (number, _) = await QuoteAsync(quill);
        (await quill.PostAsJsonAsync("/api/sheets/columns", Wanted, Cancel)).EnsureSuccessStatusCode();
        Assert.Equal(
            ["wanted", "job"],
            (await GetAsync(quill, $"/api/quotes/{number}"))
                .GetProperty("columns")
                .EnumerateArray()
                .Select(c => c.GetString())
        );
        Assert.Equal(
            "field_unknown",
            await (await quill.PostAsJsonAsync("/api/sheets/columns", Unknown, Cancel)).CodeAsync()
        );
        var mohr = await House.AsAsync(Mohr);
        Assert.Empty((await GetAsync(mohr, $"/api/quotes/{number}")).GetProperty("columns").EnumerateArray());
    }
}
