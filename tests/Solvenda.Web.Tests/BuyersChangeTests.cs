using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What buyers want otherwise of orders that we confirmed, by EDI and by mail.</summary>
public sealed class BuyersChangeTests(House house) : QueueCalls(house)
{
    private static readonly int[] First = [1];
    private static int _control = 900;

    // An 860 of Tressel & Vane, as their software would send it.
    private async Task<JsonElement> ChangeAsync(string po, params string[] lines)
    {
        var control = Interlocked
            .Increment(ref _control)
            .ToString("000000000", System.Globalization.CultureInfo.InvariantCulture);
        string[] body =
        [
            "ST*860*0001",
            $"BCH*04*SA*{po}**1*20260310",
            "N1*BT*Tressel & Vane Rigging*92*TV",
            .. lines,
            $"CTT*{lines.Length}",
        ];
        string[] all =
        [
            $"ISA*00*          *00*          *ZZ*TRESSEL        *ZZ*BRINEMOOR      *260310*0914*U*00401*{control}*0*P*>",
            $"GS*PC*TRESSEL*BRINEMOOR*20260310*0914*{control}*X*004010",
            .. body,
            $"SE*{body.Length + 1}*0001",
            $"GE*1*{control}",
            $"IEA*1*{control}",
        ];
        return await ReceiveAsync(string.Join("~\n", all) + "~\n", $"change-{control}.x12");
    }

    // Confirmed under a PO of its own; credit is not what this is about.
    private async Task<(string Order, string Po)> ConfirmedOrderAsync(HttpClient quill)
    {
        await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == Tressel)
                .ExecuteUpdateAsync(b => b.SetProperty(x => x.CreditLimitMinor, 100_000_000L), Cancel)
        );
        var (number, _) = await ConfirmedAsync(quill, "SHK-BOW-10 x 40", "THM-SS-12 x 20", "CLT-AL-04 x 5");
        return (number, "PO-" + number);
    }

    private static async Task<JsonElement> ViewAsync(HttpClient who, string request, string query = "") =>
        await (await who.GetAsync($"/api/requests/{request}/change{query}", Cancel)).JsonAsync();

    private static string[] Kinds(JsonElement view) =>
        [.. view.GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("kind").GetString()!)];

    private async Task<string> RequestAsync(string po, params string[] lines) =>
        (await ChangeAsync(po, lines)).GetProperty("number").GetString()!;

    // A letter that takes the whole order back.
    private async Task<string> TakenBackAsync(string po)
    {
        var letter =
            $"From: Fionn Tressel <fionn@tresselvane.example>\nTo: orders@brinemoor.example\nSubject: {po}\nMessage-ID: <{Guid.NewGuid():N}@tresselvane.example>\nDate: Mon, 9 Mar 2026 09:00:00 +0000\n\nHello,\nplease cancel our order {po}.\nThanks\nFionn\n";
        return (await ReceiveAsync(letter, "cancel.eml")).GetProperty("number").GetString()!;
    }

    private static Task<HttpResponseMessage> TakeAsync(HttpClient who, JsonElement view, params int[] lines) =>
        who.PostAsJsonAsync(
            $"/api/requests/{view.GetProperty("request").GetString()}/take-change",
            new
            {
                version = view.GetProperty("version").GetInt64(),
                order = view.GetProperty("order").GetString(),
                lines,
                day = true,
            },
            Cancel
        );

    [Fact]
    public async Task A_way_may_put_changes_onto_their_orders_by_itself_and_never_takes_a_whole_order_back()
    {
        var quill = await House.AsAsync(Quill);
        var (order, po) = await ConfirmedOrderAsync(quill);
        var said = new Acts.Ways.WaySaid("machine", Tressel, true, false, 70, [], false, Quill) { Changes = true };
        var whitlock = await House.AsAsync(Whitlock);
        var set = await whitlock.PostAsJsonAsync("/api/setup/ways", new { said, seen = 0 }, Cancel);
        Assert.True(set.IsSuccessStatusCode, await set.Content.ReadAsStringAsync(Cancel));
        var request = await RequestAsync(po, "POC*1*QI*60*20*EA**PE*VP*SHK-BOW-10");
        await Answers.EventuallyAsync(() =>
            House.DbAsync(db =>
                db.Requests.AsNoTracking().FirstOrDefaultAsync(r => r.Number == request && r.Changes == order, Cancel)
            )
        );
        var changing = await (await quill.GetAsync($"/api/orders/{order}", Cancel)).JsonAsync();
        Assert.Equal("open", changing.GetProperty("tracks").GetProperty("terms").GetString());
        Assert.Equal(60m, changing.Sheet().GetProperty("lines")[0].GetProperty("quantity").GetDecimal());
        // What nobody knows waits, and so does who takes all of it back.
        var unknown = await RequestAsync(po, "POC*1*QI*60*20*EA**PE*VP*GHOST-ITEM-99");
        var gone = await RequestAsync(po);
        foreach (var waits in new[] { unknown, gone })
        {
            var row = await WeighedAsync(waits);
            Assert.Equal((RequestState.NeedsYou, null), (row.State, row.Changes));
        }
        var drop = await whitlock.DeleteAsync($"/api/setup/ways/machine/{Tressel}", Cancel);
        Assert.True(drop.IsSuccessStatusCode);
    }

    [Fact]
    public async Task It_is_shown_beside_the_order_taken_by_line_and_confirmed_anew()
    {
        var quill = await House.AsAsync(Quill);
        var (order, po) = await ConfirmedOrderAsync(quill);
        var request = await RequestAsync(
            po,
            "POC*1*QI*60*20*EA*2.00*PE*VP*SHK-BOW-10",
            "POC*2*DI*20*20*EA**PE*VP*THM-SS-12",
            "POC*9*AI*7*7*EA**PE*VP*SHK-BOW-08"
        );
        var view = await ViewAsync(quill, request);
        Assert.Equal(order, view.GetProperty("order").GetString());
        Assert.Equal(["changed", "gone", "same", "new"], Kinds(view));
        var first = view.GetProperty("lines")[0];
        Assert.StartsWith("40 ", first.GetProperty("confirmed").GetString(), StringComparison.Ordinal);
        Assert.StartsWith("60 ", first.GetProperty("wanted").GetString(), StringComparison.Ordinal);
        Assert.Equal(["quantity", "price"], first.GetProperty("moved").EnumerateArray().Select(m => m.GetString()!));
        // Looking changes nothing.
        var untouched = await (await quill.GetAsync($"/api/orders/{order}", Cancel)).JsonAsync();
        Assert.Equal("confirmed", untouched.GetProperty("tracks").GetProperty("terms").GetString());
        Assert.Equal(3, untouched.Sheet().GetProperty("lines").GetArrayLength());

        var committed = await CommittedAsync(order);
        Assert.Equal(HttpStatusCode.OK, (await TakeAsync(quill, view, 1, 3)).StatusCode);
        var changing = await (await quill.GetAsync($"/api/orders/{order}", Cancel)).JsonAsync();
        var lines = changing.Sheet().GetProperty("lines").EnumerateArray().ToList();
        Assert.Equal([60m, 20m, 5m, 7m], lines.Select(l => l.GetProperty("quantity").GetDecimal()));
        // What was confirmed holds until it is confirmed anew.
        Assert.Equal(committed, await CommittedAsync(order));
        Assert.Equal(
            "stale",
            await (await TakeAsync(quill, view, 1)).CodeAsync() is "request_done" or "stale" ? "stale" : "else"
        );
        Assert.Equal(
            order,
            (await (await quill.GetAsync($"/api/requests/{request}", Cancel)).JsonAsync())
                .GetProperty("turnedInto")
                .GetProperty("number")
                .GetString()
        );
        var facts = await House.DbAsync(db =>
            db.Events.Where(e => e.Subject == order && e.Code == "order.change_taken")
                .Select(e => e.Facts)
                .SingleAsync(Cancel)
        );
        Assert.Contains(
            "taken back",
            JsonDocument.Parse(facts).RootElement.GetProperty("left")[0].GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task What_it_comes_to_counts_the_order_once_in_what_they_owe()
    {
        var quill = await House.AsAsync(Quill);
        var (order, po) = await ConfirmedOrderAsync(quill);
        var stroud = await House.AsAsync(Stroud);
        var owes = (await (await stroud.GetAsync("/api/credit", Cancel)).JsonAsync())
            .GetProperty("rows")
            .EnumerateArray()
            .Single(r => r.GetProperty("buyerId").GetInt64() == Tressel)
            .GetProperty("exposure")
            .GetDecimal();
        // So much that one shackle more fits, and the order twice does not.
        await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == Tressel)
                .ExecuteUpdateAsync(b => b.SetProperty(x => x.CreditLimitMinor, (long)((owes + 20m) * 100)), Cancel)
        );
        var view = await ViewAsync(quill, await RequestAsync(po, "POC*1*QI*41*1*EA**PE*VP*SHK-BOW-10"));
        Assert.True(view.GetProperty("total").GetDecimal() > 20m);
        Assert.DoesNotContain("credit limit", view.GetProperty("does").GetRawText(), StringComparison.Ordinal);
        Assert.Equal(order, view.GetProperty("order").GetString());
    }

    [Fact]
    public async Task It_is_not_taken_with_a_letter_that_says_why_and_the_order_stays()
    {
        var quill = await House.AsAsync(Quill);
        var (order, po) = await ConfirmedOrderAsync(quill);
        var view = await ViewAsync(quill, await RequestAsync(po, "POC*1*DI*40*40*EA**PE*VP*SHK-BOW-10"));
        var path = $"/api/requests/{view.GetProperty("request").GetString()}/refuse-change";
        var body = new
        {
            version = view.GetProperty("version").GetInt64(),
            order,
            reason = "",
        };
        Assert.Equal("reason_missing", await (await quill.PostAsJsonAsync(path, body, Cancel)).CodeAsync());
        var said = await PostAsync(quill, path, body with { reason = "They are galvanised already." });
        Assert.Equal("fionn@tresselvane.example", said.GetProperty("toldTo").GetString());
        var document = await (await quill.GetAsync($"/api/orders/{order}", Cancel)).JsonAsync();
        Assert.Equal("confirmed", document.GetProperty("tracks").GetProperty("terms").GetString());
        var request = await (
            await quill.GetAsync($"/api/requests/{view.GetProperty("request").GetString()}", Cancel)
        ).JsonAsync();
        Assert.Equal("answered", request.GetProperty("state").GetString());
        Assert.Equal(
            "request_done",
            await (await quill.PostAsJsonAsync(path, body with { reason = "again" }, Cancel)).CodeAsync()
        );
    }

    [Fact]
    public async Task A_letter_that_takes_the_whole_order_back_cancels_it_and_frees_its_stock()
    {
        var quill = await House.AsAsync(Quill);
        var (order, po) = await ConfirmedOrderAsync(quill);
        var view = await ViewAsync(quill, await TakenBackAsync(po));
        Assert.True(view.GetProperty("whole").GetBoolean());
        Assert.True(await CommittedAsync(order) > 0);
        Assert.Equal(HttpStatusCode.OK, (await TakeAsync(quill, view)).StatusCode);
        Assert.Equal(0m, await CommittedAsync(order));
        Assert.Contains(await LettersAsync(order), l => l.Contains(".cancelled.", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_letter_that_takes_some_of_it_back_leaves_the_rest_of_the_order()
    {
        var quill = await House.AsAsync(Quill);
        var (order, po) = await ConfirmedOrderAsync(quill);
        var letter =
            $"From: Fionn Tressel <fionn@tresselvane.example>\nTo: orders@brinemoor.example\nSubject: {po}\nMessage-ID: <{Guid.NewGuid():N}@tresselvane.example>\nDate: Mon, 9 Mar 2026 09:00:00 +0000\n\nHello,\nplease cancel from our order {po}:\n\n10 pcs SHK-BOW-10\n\nThanks\nFionn\n";
        var number = (await ReceiveAsync(letter, "less.eml")).GetProperty("number").GetString()!;
        var view = await ViewAsync(quill, number);
        Assert.False(view.GetProperty("whole").GetBoolean());
        Assert.Equal("30", view.GetProperty("lines")[0].GetProperty("wanted").GetString());
        Assert.Equal(order, view.GetProperty("order").GetString());
        Assert.Equal(HttpStatusCode.OK, (await TakeAsync(quill, view, 1)).StatusCode);
        var changing = await SeenAsync(quill, $"/api/orders/{order}");
        Assert.Equal(30m, changing.GetProperty("lines")[0].GetProperty("quantity").GetDecimal());
    }

    [Fact]
    public async Task After_part_of_it_went_no_more_is_taken_back_than_is_left()
    {
        var (quill, juno) = (await House.AsAsync(Quill), await House.AsAsync(Castellane));
        var (order, po) = await ConfirmedOrderAsync(quill);
        await CountedAsync("SHK-BOW-10", 1_000, 0);
        var sent = await juno.PostAsJsonAsync(
            "/api/goods/ship",
            new { order, lines = new[] { new { key = 1, quantity = 25 } } },
            Cancel
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync(Cancel));
        var less = await ViewAsync(quill, await RequestAsync(po, "POC*1*QD*20*20*EA**PE*VP*SHK-BOW-10"));
        Assert.Contains("25 went", less.GetProperty("mayTake").GetString(), StringComparison.Ordinal);
        Assert.Equal("order_begun", await (await TakeAsync(quill, less, 1)).CodeAsync());
        var whole = await ViewAsync(quill, await TakenBackAsync(po));
        Assert.Contains("not taken back whole", whole.GetProperty("mayTake").GetString(), StringComparison.Ordinal);
        var more = await ViewAsync(quill, await RequestAsync(po, "POC*1*QI*60*20*EA**PE*VP*SHK-BOW-10"));
        Assert.Equal("", more.GetProperty("mayTake").GetString());
        Assert.True((await TakeAsync(quill, more, 1)).IsSuccessStatusCode);
        var seen = await SeenAsync(quill, $"/api/orders/{order}");
        Assert.Equal(60m, seen.GetProperty("lines")[0].GetProperty("quantity").GetDecimal());
        var done = await quill.ActAsync($"/api/orders/{order}/confirm", seen);
        Assert.True(done.IsSuccessStatusCode, await done.Content.ReadAsStringAsync(Cancel));
        // What is left of the sixty, and the other lines.
        Assert.Equal(60m - 25m + 20m + 5m, await CommittedAsync(order));
    }

    [Fact]
    public async Task Neither_the_order_of_somebody_else_nor_what_has_gone_is_changed()
    {
        var quill = await House.AsAsync(Quill);
        var (order, po) = await ConfirmedOrderAsync(quill);
        var view = await ViewAsync(quill, await RequestAsync(po, "POC*1*QI*60*20*EA**PE*VP*SHK-BOW-10"));
        var other = await House.DbAsync(db =>
            db.Orders.Where(o => o.Dossier.BuyerId != Tressel).Select(o => o.Number).FirstAsync(Cancel)
        );
        var answer = await quill.PostAsJsonAsync(
            $"/api/requests/{view.GetProperty("request").GetString()}/take-change",
            new
            {
                version = view.GetProperty("version").GetInt64(),
                order = other,
                lines = First,
                day = false,
            },
            Cancel
        );
        Assert.Equal("change_of_other", await answer.CodeAsync());
        await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == order)
                .ExecuteUpdateAsync(o => o.SetProperty(x => x.Goods, Core.Documents.GoodsTrack.Shipped), Cancel)
        );
        var gone = await ViewAsync(quill, view.GetProperty("request").GetString()!);
        Assert.Contains("gone", gone.GetProperty("mayTake").GetString(), StringComparison.Ordinal);
        Assert.Equal("order_begun", await (await TakeAsync(quill, gone, 1)).CodeAsync());
        // Put back, for the proofs of others.
        await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == order)
                .ExecuteUpdateAsync(o => o.SetProperty(x => x.Goods, Core.Documents.GoodsTrack.Waiting), Cancel)
        );
        var castellane = await House.AsAsync(Castellane);
        Assert.Equal(HttpStatusCode.Forbidden, (await TakeAsync(castellane, gone, 1)).StatusCode);
    }
}
