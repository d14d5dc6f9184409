using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Goods that go by lot, released as a wave.</summary>
public sealed class LotTests(House house) : BilledCalls(house)
{
    private Task<GoodsTrack> GoodsAsync(string order) =>
        House.DbAsync(db => db.Orders.Where(o => o.Number == order).Select(o => o.Goods).FirstAsync(Cancel));

    private static async Task<JsonElement> ShipmentAsync(HttpClient who, string number) =>
        await (await who.GetAsync($"/api/shipments/{number}", Cancel)).JsonAsync();

    private static async Task<HttpResponseMessage> SendAsync(HttpClient who, string number) =>
        await who.PostAsJsonAsync(
            $"/api/shipments/{number}/send",
            new { asAsked = true, seen = (await ShipmentAsync(who, number)).GetProperty("version").GetInt64() },
            Cancel
        );

    private static async Task<HttpResponseMessage> PickAsync(HttpClient who, string number, params object[] picked) =>
        await who.PostAsJsonAsync(
            $"/api/shipments/{number}/pick",
            new { picked, seen = (await ShipmentAsync(who, number)).GetProperty("version").GetInt64() },
            Cancel
        );

    [Fact]
    public async Task What_goes_by_lot_says_which_and_the_one_in_front_is_taken_where_nobody_does()
    {
        const string Paint = "CTG-AF-BK-5";
        await CountedAsync(Paint, 100, 0);
        await House.DbAsync(db =>
            db.Stock.Where(s => db.Items.Any(i => i.Id == s.ItemId && i.Code == Paint))
                .ExecuteUpdateAsync(s => s.SetProperty(x => x.Lot, ""), Cancel)
        );
        var one = (await OrderedAsync($"5 x {Paint}")).Number;
        var two = (await OrderedAsync($"3 x {Paint}")).Number;
        var juno = await House.AsAsync(Castellane);
        var wave = new
        {
            deed = "release",
            given = "before lunch",
            ids = await IdsAsync(one, two),
            count = 2,
        };
        var round = await juno.PostAsJsonAsync("/api/lists/orders/deeds", wave, Cancel);
        Assert.True(round.IsSuccessStatusCode, await round.Content.ReadAsStringAsync(Cancel));
        await Answers.UntilAsync(async () => await GoodsAsync(two) == GoodsTrack.Picking);
        Assert.Equal("before lunch", (await ShipmentAsync(juno, $"{two}/1")).GetProperty("wave").GetString());
        var list = await juno.GetAsync("/api/goods/pick-list?wave=before%20lunch", Cancel);
        Assert.Equal("application/pdf", list.Content.Headers.ContentType!.MediaType);
        // Nobody knows what lies in front: it has to be said.
        Assert.Equal("lots", await (await SendAsync(juno, $"{one}/1")).CodeAsync());
        object Of(decimal picked, string lots) =>
            new
            {
                line = 1,
                item = Paint,
                picked,
                lots,
            };
        Assert.Equal("lots", await (await PickAsync(juno, $"{one}/1", Of(5, "A 1, B 3"))).CodeAsync());
        Assert.True((await PickAsync(juno, $"{one}/1", Of(5, "l26a 2, l26b 3"))).IsSuccessStatusCode);
        Assert.True((await SendAsync(juno, $"{one}/1")).IsSuccessStatusCode);
        // The one that was picked last lies in front, and goes where nobody says another.
        Assert.True((await SendAsync(juno, $"{two}/1")).IsSuccessStatusCode);
        var pick = (await ShipmentAsync(juno, $"{two}/1")).GetProperty("picks")[0];
        Assert.Equal("L26B 3", pick.GetProperty("lots").GetString());
        // Whoever has to call a lot back finds all that took it along.
        var found = await (await juno.GetAsync("/api/lists/shipments?filter=open:any+lot:l26b", Cancel)).JsonAsync();
        Assert.Contains($"{one}/1", found.ToString(), StringComparison.Ordinal);
        Assert.Contains($"{two}/1", found.ToString(), StringComparison.Ordinal);
        var note = await juno.GetByteArrayAsync($"/api/shipments/{one}/1/note", Cancel);
        Assert.Contains(
            "L26A 2, L26B 3",
            string.Join(' ', Formats.Pdf.PdfText.Read(note).Pages.SelectMany(p => p.Words.Select(w => w.Text))),
            StringComparison.Ordinal
        );
    }

    private async Task<List<long>> IdsAsync(params string[] orders) =>
        await House.DbAsync(db =>
            db.Orders.Where(o => EF.Parameter(orders).Contains(o.Number)).Select(o => o.Id).ToListAsync(Cancel)
        );
}
