using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Requests;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What ways do by themselves beside orders, and what is said once of a partner.</summary>
public sealed class WayKindTests(House house) : QueueCalls(house)
{
    [Fact]
    public async Task Who_asks_for_a_price_has_a_quote_begun_where_the_way_says_so_and_nothing_is_sent()
    {
        var text =
            "From: office@petrelpointmarina.example\r\nTo: orders@brinemoor.example\r\nSubject: your prices\r\n\r\n"
            + "Hello,\r\n\r\nplease quote for\r\n\r\n20 x SHK-BOW-10\r\n5 x GHOST-ITEM-99\r\n\r\nRegards\r\n";
        async Task<string> CameAsync(string id) =>
            (await ReceiveAsync($"Message-ID: <{id}@petrelpointmarina.example>\r\n{text}", $"{id}.eml"))
                .GetProperty("number")
                .GetString()!;
        await SetAsync(Said("machine", false) with { Quotes = true, LeastSurePercent = 70 });
        var waits = await WeighedAsync(await CameAsync("rfq-1"));
        await SetAsync(Said("machine", false) with { Quotes = true, FreeLines = true, LeastSurePercent = 70 });
        var begun = await CameAsync("rfq-2");
        var row = await Answers.EventuallyAsync(() =>
            House.DbAsync(db =>
                db.Requests.AsNoTracking()
                    .FirstOrDefaultAsync(r => r.Number == begun && r.State == RequestState.Turned, Cancel)
            )
        );
        await SetAsync(Said("machine", false));
        Assert.True(row.Through);
        Assert.Equal(RequestState.NeedsYou, waits.State);
        var quote = await House.DbAsync(db =>
            db.Quotes.Where(q => q.RequestId == row.Id).Select(q => q.Number).SingleAsync(Cancel)
        );
        var view = await (await (await House.AsAsync(Havergal)).GetAsync($"/api/quotes/{quote}", Cancel)).JsonAsync();
        Assert.Equal("drafting", view.GetProperty("state").GetString());
        Assert.Equal(2, view.Sheet().GetProperty("lines").GetArrayLength());
        Assert.False(await House.DbAsync(db => db.Outbox.AnyAsync(o => EF.Functions.Like(o.Key, quote + "%"), Cancel)));
    }

    [Fact]
    public async Task The_unit_that_a_partner_leaves_out_is_said_once_and_not_asked_again()
    {
        static string WithoutUnit(string po) =>
            Order(po).Replace("*40*EA***VP*SHK-BOW-10", "*40****VP*PS3-12-WH", StringComparison.Ordinal);
        async Task<RequestRow> CameAsync(string po) =>
            await WeighedAsync((await ReceiveAsync(WithoutUnit(po), $"{po}.x12")).GetProperty("number").GetString()!);
        var asked = await CameAsync("UNIT-1");
        Assert.True(ReadingView.FromJson(asked.Reading).Lines[0].NeedsYou);
        var said = Said("edi", false) with { Buyer = asked.BuyerId };
        var wrong = said with { Settings = new Dictionary<string, string> { ["unit"] = "furlongs" } };
        var whitlock = await House.AsAsync(Whitlock);
        var refused = await whitlock.PostAsJsonAsync("/api/setup/ways", new { said = wrong, seen = 0 }, Cancel);
        Assert.Equal("way_setting", await refused.CodeAsync());
        await SetAsync(said with { Settings = new Dictionary<string, string> { ["unit"] = "metres" } });
        var line = ReadingView.FromJson((await CameAsync("UNIT-2")).Reading).Lines[0];
        Assert.Equal(("MTR", false), (line.Unit, line.NeedsYou));
        (await whitlock.DeleteAsync($"/api/setup/ways/edi/{asked.BuyerId}", Cancel)).EnsureSuccessStatusCode();
    }
}
