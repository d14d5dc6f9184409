using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>A record's page, its files, views of lists, and the finder.</summary>
public sealed class RecordPageTests(House house) : RecordCalls(house)
{
    [Fact]
    public async Task What_a_buyers_and_an_items_page_answer_adds_up()
    {
        var sorcha = await House.AsAsync(Quill);
        var buyer = await (await sorcha.GetAsync("/api/buyers/1/answers", Cancel)).JsonAsync();
        Assert.Equal(6338.05m, buyer.GetProperty("credit").GetProperty("parts")[0].GetProperty("amount").GetDecimal());
        var months = buyer.GetProperty("months").EnumerateArray().Sum(m => m.GetProperty("net").GetDecimal());
        Assert.True(months > 0 && months >= buyer.GetProperty("thisYear").GetDecimal());
        Assert.Contains(
            buyer.GetProperty("agreements").EnumerateArray(),
            a => a.GetProperty("code").GetString() == "AG-0001"
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await sorcha.PostAsJsonAsync("/api/buyers/1/talks", new { words = "wants it by Thursday" }, Cancel)
            ).StatusCode
        );
        Assert.Equal(
            "order",
            (await (await sorcha.PostAsync("/api/buyers/1/orders", null, Cancel)).JsonAsync())
                .GetProperty("kind")
                .GetString()
        );

        var item = await (await sorcha.GetAsync("/api/items/3/answers", Cancel)).JsonAsync();
        foreach (var stock in item.GetProperty("stock").EnumerateArray())
            Assert.Equal(
                Math.Max(0m, stock.GetProperty("onHand").GetDecimal() - stock.GetProperty("committed").GetDecimal()),
                stock.GetProperty("free").GetDecimal()
            );
        Assert.NotEmpty(item.GetProperty("sales").EnumerateArray());
    }

    [Theory]
    [
        InlineData("tressel", "buyer B-0001"),
        InlineData("Tresel", "buyer B-0001"),
        InlineData("oystercacher", "buyer B-0002"),
        InlineData("båtvarv", "buyer B-0009"),
        InlineData("batvarv nordvass", "buyer B-0009")
    ]
    [
        InlineData("rope navy braid 10", "item BB2-10-NV"),
        InlineData("2999000101146", "item BB2-10-NV"),
        InlineData("bb2-10-n", "item BB2-10-NV"),
        // What is called so, before a set that holds some; 12 mm, before UN 1263 and a post code that begins so.
        InlineData("shackle 20", "item SHK-BOW-20"),
        InlineData("shackle", "item SHK-BOW-20"),
        InlineData("12", "item SET-DOCK-12"),
        InlineData("\" * ^ (", null),
        InlineData("xqzzy", null)
    ]
    public async Task The_finder_finds_words_in_any_order_and_forgives_slips(string typed, string? first)
    {
        var found = await (
            await (await House.AsAsync(Quill)).GetAsync($"/api/find?q={Uri.EscapeDataString(typed)}", Cancel)
        ).JsonAsync();
        Assert.Equal(
            first,
            found
                .EnumerateArray()
                .Select(f => $"{f.GetProperty("kind").GetString()} {f.GetProperty("number").GetString()}")
                .FirstOrDefault()
        );
    }

    [Fact]
    public async Task A_view_is_ones_own_or_everybodys()
    {
        var (paz, planner) = (await House.AsAsync(Paz), await House.AsAsync(Castellane));
        var view = new
        {
            name = "thin ropes",
            forAll = false,
            filter = "family:rope",
            columns = new[] { "code", "weightKg" },
            sort = "weightKg",
        };
        Assert.Single(
            (await (await paz.PostAsJsonAsync("/api/views/items", view, Cancel)).JsonAsync()).EnumerateArray()
        );
        Assert.Empty((await (await planner.GetAsync("/api/views/items", Cancel)).JsonAsync()).EnumerateArray());
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await planner.PostAsJsonAsync("/api/views/items", view with { forAll = true }, Cancel)).StatusCode
        );
        var all = await (
            await paz.PostAsJsonAsync("/api/views/items", view with { forAll = true }, Cancel)
        ).JsonAsync();
        Assert.Single((await (await planner.GetAsync("/api/views/items", Cancel)).JsonAsync()).EnumerateArray());
        var id = all.EnumerateArray().First(v => !v.GetProperty("mine").GetBoolean()).GetProperty("id").GetInt64();
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await planner.DeleteAsync($"/api/views/items/{id}", Cancel)).StatusCode
        );
        Assert.Equal(HttpStatusCode.NoContent, (await paz.DeleteAsync($"/api/views/items/{id}", Cancel)).StatusCode);
    }

    [Fact]
    public async Task A_file_of_an_item_is_shown_only_where_it_is_a_picture()
    {
        var paz = await House.AsAsync(Paz);
        byte[] png = [0x89, 0x50, 0x4E, 0x47, 1, 2, 3];
        await paz.PostAsync("/api/items/5/files?filename=chain.png", new ByteArrayContent(png), Cancel);
        var page = Encoding.UTF8.GetBytes("<script>alert(1)</script>");
        var files = (
            await (
                await paz.PostAsync(
                    "/api/items/5/files?filename=..%2F..%2Fsheet.png",
                    new ByteArrayContent(page),
                    Cancel
                )
            ).JsonAsync()
        )
            .EnumerateArray()
            .ToList();
        Assert.Equal(
            ["chain.png True", "sheet.png False"],
            files.Select(f => $"{f.GetProperty("name").GetString()} {f.GetProperty("isPicture").GetBoolean()}")
        );
        var shown = await paz.GetAsync($"/api/items/5/files/{files[0].GetProperty("id").GetInt64()}", Cancel);
        Assert.Equal(
            ("image/png", "nosniff"),
            (shown.Content.Headers.ContentType!.MediaType, shown.Headers.GetValues("X-Content-Type-Options").Single())
        );
        var loaded = await paz.GetAsync($"/api/items/5/files/{files[1].GetProperty("id").GetInt64()}", Cancel);
        Assert.Equal(
            ("application/octet-stream", "attachment"),
            (loaded.Content.Headers.ContentType!.MediaType, loaded.Content.Headers.ContentDisposition!.DispositionType)
        );
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await (await House.AsAsync(Castellane)).DeleteAsync(
                    $"/api/items/5/files/{files[0].GetProperty("id").GetInt64()}",
                    Cancel
                )
            ).StatusCode
        );
    }
}
