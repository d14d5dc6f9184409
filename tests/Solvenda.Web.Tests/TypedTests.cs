using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Requests that are typed: on a buyer's page, on the telephone, on the road; and two made of one.</summary>
public sealed class TypedTests(House house) : QueueCalls(house)
{
    private static MultipartFormDataContent Form(params (string Name, string Value)[] said)
    {
        var form = new MultipartFormDataContent();
        foreach (var (name, value) in said)
            form.Add(new StringContent(value), name);
        return form;
    }

    private Task<BuyerRow> BuyerAsync(string name) =>
        House.DbAsync(db => db.Buyers.AsNoTracking().SingleAsync(b => b.Name == name, Cancel));

    private static async Task<(string Secret, long Key)> PageAsync(HttpClient who, long buyer)
    {
        var given = await PostAsync(who, $"/api/buyers/{buyer}/portal", new { label = "office", days = 30 });
        return (
            given.GetProperty("address").GetString()!.Split("/ask/")[1],
            given.GetProperty("keys")[0].GetProperty("id").GetInt64()
        );
    }

    [Fact]
    public async Task A_buyers_page_makes_a_request_of_theirs_and_shows_no_prices()
    {
        var nell = await House.AsAsync(Havergal);
        var lomond = await BuyerAsync("Lomond Reach Harbour Trust");
        var (secret, key) = await PageAsync(nell, lomond.Id);
        var theirs = House.CreateClient();
        var page = await theirs.GetStringAsync($"/api/portal/{secret}", Cancel);
        Assert.Contains("Lomond Reach", page, StringComparison.Ordinal);
        Assert.DoesNotContain("price", page, StringComparison.OrdinalIgnoreCase);
        var sent = await theirs.PostAsync(
            $"/api/portal/{secret}",
            Form(
                ("kind", "order"),
                ("text", "20 x SHK-BOW-10"),
                ("poNumber", "LR-77"),
                ("who", "Isla"),
                ("mail", "isla@lomond.example")
            ),
            Cancel
        );
        var number = (await sent.JsonAsync()).GetProperty("number").GetString()!;
        var request = await WeighedAsync(number);
        Assert.Equal(("portal", lomond.Id, "Order"), (request.Channel, request.BuyerId, request.Kind));
        // Whatever is written there, it is that buyer's, and nothing of it goes through by itself.
        var cass = await House.AsAsync(Whitlock);
        var through = await cass.PostAsJsonAsync(
            "/api/setup/ways",
            new
            {
                said = new
                {
                    channel = "portal",
                    buyer = (long?)null,
                    keeper = Havergal,
                    open = true,
                    through = true,
                    leastSurePercent = 90,
                    passes = Array.Empty<string>(),
                    newAddresses = true,
                },
                seen = 0,
            },
            Cancel
        );
        Assert.Equal("way_through", await through.CodeAsync());
        // Ended, it leads nowhere; so does a guess.
        await nell.DeleteAsync($"/api/buyers/{lomond.Id}/portal/{key}", Cancel);
        foreach (var link in new[] { secret, "guess" })
            Assert.Equal(
                "link_unknown",
                await (await theirs.PostAsync($"/api/portal/{link}", Form(("text", "x")), Cancel)).CodeAsync()
            );
    }

    [Fact]
    public async Task A_page_takes_nothing_empty_nothing_endless_and_nothing_of_programs()
    {
        var nell = await House.AsAsync(Havergal);
        var (secret, _) = await PageAsync(nell, (await BuyerAsync("Gull Rock Boatyard")).Id);
        var theirs = House.CreateClient();
        async Task<string> RefusedAsync(params (string, string)[] said) =>
            await (await theirs.PostAsync($"/api/portal/{secret}", Form(said), Cancel)).CodeAsync();
        Assert.Equal("typed_empty", await RefusedAsync(("text", "  ")));
        Assert.Equal("typed_long", await RefusedAsync(("text", new string('x', 20_001))));
        Assert.Equal("typed_long", await RefusedAsync(("text", "x"), ("who", "a\nBcc: b@c.example")));
        Assert.Equal("date", await RefusedAsync(("text", "x"), ("wanted", "soon")));
        Assert.Equal("portal_robot", await RefusedAsync(("text", "x"), ("website", "http://spam.example")));
        Assert.Equal(
            "form_missing",
            await (await theirs.PostAsJsonAsync($"/api/portal/{secret}", new { text = "x" }, Cancel)).CodeAsync()
        );
        // Twenty an hour are enough for one page.
        HttpResponseMessage? last = null;
        for (var i = 0; i < 21; i++)
            last = await theirs.PostAsync($"/api/portal/{secret}", Form(("text", "")), Cancel);
        Assert.Equal(HttpStatusCode.TooManyRequests, last!.StatusCode);
        Assert.Equal(
            0,
            await House.DbAsync(db =>
                db.Requests.CountAsync(r => r.Channel == "portal" && r.FromWords.Contains("Gull"), Cancel)
            )
        );
    }

    [Fact]
    public async Task Whoever_calls_is_found_by_number_and_name_and_what_they_say_is_read()
    {
        var nell = await House.AsAsync(Havergal);
        var playhouse = await BuyerAsync("Marlinspike Playhouse");
        var digits = playhouse.Phone![^7..];
        foreach (var q in new[] { digits, "marlin", "Odile" })
        {
            var found = await (await nell.GetAsync($"/api/callers?q={Uri.EscapeDataString(q)}", Cancel)).JsonAsync();
            Assert.Contains(
                found.EnumerateArray(),
                c =>
                    c.GetProperty("code").GetString() == playhouse.Code
                    && c.GetProperty("who").GetString() == "Odile Garrity"
            );
        }
        Assert.Empty((await (await nell.GetAsync("/api/callers?q=%25", Cancel)).JsonAsync()).EnumerateArray());
        var sent = await nell.PostAsync(
            "/api/requests/typed?by=phone",
            Form(
                ("buyer", playhouse.Code),
                ("who", "Odile Garrity"),
                ("kind", "quote"),
                ("text", "200 m PS3-16-BK\n10 x SHK-BOW-10")
            ),
            Cancel
        );
        var request = await WeighedAsync((await sent.JsonAsync()).GetProperty("number").GetString()!);
        Assert.Equal(("phone", playhouse.Id, "RequestForQuotation"), (request.Channel, request.BuyerId, request.Kind));
        // The paper is read where it can be, and kept where not.
        using var paper = Form(("buyer", playhouse.Code), ("kind", "order"), ("text", ""));
        paper.Add(
            new ByteArrayContent(
                await File.ReadAllBytesAsync(Path.Combine(Folders.Root(), "docs/screenshots/desk.png"), Cancel)
            ),
            "files",
            "paper.png"
        );
        var photo = await nell.PostAsync("/api/requests/typed?by=field", paper, Cancel);
        var came = await House.DbAsync(async db =>
        {
            var number = (await photo.JsonAsync()).GetProperty("number").GetString()!;
            return await db.Requests.AsNoTracking().SingleAsync(r => r.Number == number, Cancel);
        });
        Assert.Equal(("field", (long?)playhouse.Id), (came.Channel, came.BuyerId));
        Assert.Contains("paper.png", came.Parts, StringComparison.Ordinal);
        var nobody = await nell.PostAsync(
            "/api/requests/typed?by=phone",
            Form(("buyer", "B-9999"), ("text", "x")),
            Cancel
        );
        Assert.Equal("buyer_unknown", await nobody.CodeAsync());
    }

    [Fact]
    public async Task Lines_become_a_request_of_their_own_with_the_same_message_beside_it()
    {
        var number = (await ReceiveAsync(Order("TWO-1"), "two1.x12")).GetProperty("number").GetString()!;
        var request = await WeighedAsync(number);
        var nell = await House.AsAsync(Havergal);
        Task<HttpResponseMessage> DivideAsync(params int[] lines) =>
            nell.PostAsJsonAsync($"/api/requests/{number}/divide", new { version = request.Version, lines }, Cancel);
        Assert.Equal("split_lines", await (await DivideAsync(1, 2)).CodeAsync());
        Assert.Equal("split_lines", await (await DivideAsync()).CodeAsync());
        var beside = (await (await DivideAsync(2)).JsonAsync()).GetProperty("number").GetString()!;
        Assert.Equal("stale", await (await DivideAsync(1)).CodeAsync());
        async Task<List<string?>> ItemsAsync(string of) =>
            [
                .. (await (await nell.GetAsync($"/api/requests/{of}", Cancel)).JsonAsync())
                    .GetProperty("reading")
                    .GetProperty("lines")
                    .EnumerateArray()
                    .Select(l => l.GetProperty("itemCode").GetString()),
            ];
        Assert.Equal(["SHK-BOW-10"], await ItemsAsync(number));
        Assert.Equal(["THM-SS-12"], await ItemsAsync(beside));
    }

    [Fact]
    public async Task A_file_is_tried_on_a_way_and_nothing_of_it_is_kept()
    {
        var cass = await House.AsAsync(Whitlock);
        var before = await House.DbAsync(db => db.Requests.CountAsync(Cancel));
        var tried = await cass.PostAsync(
            "/api/setup/ways/edi/test?name=try.x12",
            new StringContent(Order("TRY-1")),
            Cancel
        );
        var one = (await tried.JsonAsync())[0];
        Assert.Equal(("TRY-1", 2), (one.GetProperty("poNumber").GetString(), one.GetProperty("lines").GetInt32()));
        Assert.Contains("USD", one.GetProperty("worth").GetString()!, StringComparison.Ordinal);
        Assert.NotEqual(JsonValueKind.Undefined, one.GetProperty("held").ValueKind);
        Assert.Equal(before, await House.DbAsync(db => db.Requests.CountAsync(Cancel)));
    }
}
