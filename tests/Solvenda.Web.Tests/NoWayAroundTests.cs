using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Every way around an approval that we could think of, tried; none of them leads out of the house.</summary>
public sealed class NoWayAroundTests(House house) : MoneyCalls(house)
{
    private const string Over = "BB2-10-NV x 180 m -12%";

    private static async Task<HttpStatusCode> SendAsync(HttpClient who, string number, JsonElement sheet) =>
        (
            await who.ActAsync(
                $"/api/quotes/{number}/send",
                sheet,
                new
                {
                    to = "fionn@tresselvane.example",
                    subject = $"way {number}",
                    text = "{link}",
                }
            )
        ).StatusCode;

    private static async Task<(string Number, long Ask)> AskedAsync(HttpClient who, string line = Over)
    {
        var (number, sheet) = await QuoteAsync(who, line);
        var asked = await (await who.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "please" })).JsonAsync();
        return (number, asked.GetProperty("asks")[0].GetProperty("id").GetInt64());
    }

    private static Task<HttpResponseMessage> GrantAsync(HttpClient who, long ask) =>
        who.PostAsJsonAsync($"/api/asks/{ask}/grant", new { }, Cancel);

    private async Task<(string Number, JsonElement Sheet, long Key)> GrantedAsync(HttpClient quill)
    {
        var (number, ask) = await AskedAsync(quill);
        (await GrantAsync(await House.AsAsync(Paz), ask)).EnsureSuccessStatusCode();
        var sheet = await SeenAsync(quill, $"/api/quotes/{number}");
        Assert.Equal("granted", State(sheet));
        return (number, sheet, sheet.GetProperty("lines")[0].GetProperty("key").GetInt64());
    }

    [Fact]
    public async Task Sending_without_asking_or_while_it_waits_is_refused()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, Over);
        Assert.Equal(HttpStatusCode.Conflict, await SendAsync(quill, number, sheet));
        await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "please" });
        Assert.Equal(
            HttpStatusCode.Conflict,
            await SendAsync(quill, number, await SeenAsync(quill, $"/api/quotes/{number}"))
        );
    }

    [Theory]
    [InlineData("discount", "12.1")]
    [InlineData("net", "1.90")]
    [InlineData("quantity", "181")]
    [InlineData("margin", "10")]
    public async Task A_line_made_worse_after_the_grant_is_asked_anew(string field, string value)
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet, key) = await GrantedAsync(quill);
        sheet = await SetAsync(quill, sheet, field, value, key);
        Assert.Equal("needed", State(sheet));
        Assert.Equal(HttpStatusCode.Conflict, await SendAsync(quill, number, sheet));
    }

    [Theory]
    [InlineData("sheetDiscount", "9")]
    [InlineData("sheetDiscount", "50 EUR")]
    [InlineData("paymentDays", "60")]
    public async Task A_term_made_worse_after_the_grant_is_asked_anew(string term, string value)
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet, _) = await GrantedAsync(quill);
        sheet = await SetAsync(quill, sheet, term, value);
        Assert.Equal("needed", State(sheet));
        Assert.Equal(HttpStatusCode.Conflict, await SendAsync(quill, number, sheet));
    }

    [Theory]
    [InlineData("freight", "-20", null)]
    [InlineData("quantity", "-5", "line")]
    [InlineData("net", "-1", "line")]
    public async Task What_is_negative_is_taken_by_no_door(string field, string value, string? where)
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "BB2-10-NV x 10 m");
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        var before = Total(sheet);
        await SetAsync(quill, sheet, field, value, where is null ? null : key);
        Assert.True(Total(await SeenAsync(quill, $"/api/quotes/{await NumberAsync(sheet)}")) >= before);
    }

    private Task<string> NumberAsync(JsonElement sheet)
    {
        var id = sheet.GetProperty("id").GetInt64();
        return House.DbAsync(db => db.Quotes.Where(q => q.SheetId == id).Select(q => q.Number).FirstAsync(Cancel));
    }

    [Fact]
    public async Task Quick_entry_and_paste_are_judged_like_typing()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m @1.90");
        Assert.Equal("needed", State(sheet));
        var (_, other) = await QuoteAsync(quill);
        using var paste = new HttpRequestMessage(
            HttpMethod.Post,
            $"/api/sheets/{other.GetProperty("id").GetInt64()}/paste"
        )
        {
            Content = JsonContent.Create(
                new { text = "item\tquantity\tunit\tprice\nBB2-10-NV\t180\tm\t1.90", after = (long?)null }
            ),
        };
        paste.Headers.TryAddWithoutValidation("If-Match", $"\"{other.GetProperty("version").GetInt64()}\"");
        await quill.SendAsync(paste, Cancel);
        var pasted = await SeenAsync(quill, $"/api/quotes/{await NumberAsync(other)}");
        Assert.Equal("needed", State(pasted));
    }

    [Fact]
    public async Task Undo_after_a_grant_brings_nothing_back_that_was_not_granted()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m -14%");
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await SetAsync(quill, sheet, "discount", "11", key);
        var asked = await (
            await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "please" })
        ).JsonAsync();
        await GrantAsync(await House.AsAsync(Paz), asked.GetProperty("asks")[0].GetProperty("id").GetInt64());
        var id = sheet.GetProperty("id").GetInt64();
        await quill.PostAsync($"/api/sheets/{id}/undo", null, Cancel);
        var now = await SeenAsync(quill, $"/api/quotes/{number}");
        Assert.Equal(14m, now.GetProperty("lines")[0].GetProperty("discountPercent").GetDecimal());
        Assert.Equal("needed", State(now));
        Assert.Equal(HttpStatusCode.Conflict, await SendAsync(quill, number, now));
    }

    [Fact]
    public async Task A_copy_and_a_revision_carry_no_grant_that_is_not_theirs()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet, _) = await GrantedAsync(quill);
        var copy = await (
            await quill.PostAsJsonAsync(
                $"/api/quotes/{number}/copy",
                new { revision = (string?)null, toChoose = false },
                Cancel
            )
        ).JsonAsync();
        var copied = copy.GetProperty("number").GetString()!;
        var other = await SeenAsync(quill, $"/api/quotes/{copied}");
        Assert.Equal("needed", State(other));
        Assert.Equal(HttpStatusCode.Conflict, await SendAsync(quill, copied, other));
        Assert.Equal(HttpStatusCode.OK, await SendAsync(quill, number, sheet));
        (await quill.PostAsync($"/api/quotes/{number}/revise", null, Cancel)).EnsureSuccessStatusCode();
        var revised = await SeenAsync(quill, $"/api/quotes/{number}");
        var key = revised.GetProperty("lines")[0].GetProperty("key").GetInt64();
        revised = await SetAsync(quill, revised, "discount", "13", key);
        Assert.Equal("needed", State(revised));
        Assert.Equal(HttpStatusCode.Conflict, await SendAsync(quill, number, revised));
    }

    [Fact]
    public async Task A_cost_that_rose_since_the_grant_is_asked_about_anew()
    {
        var quill = await House.AsAsync(Quill);
        var (number, _, _) = await GrantedAsync(quill);
        var (item, day) = await House.DbAsync(async db =>
            (
                await db.Items.Where(i => i.Code == "BB2-10-NV").Select(i => i.Id).FirstAsync(Cancel),
                DateOnly.FromDateTime(House.Time.GetUtcNow().UtcDateTime)
            )
        );
        var paz = await House.AsAsync(Paz);
        var cost = new
        {
            values = new
            {
                item = "BB2-10-NV",
                from = day.ToString("yyyy-MM-dd", null),
                cost = "1.8000",
            },
        };
        (await paz.PostAsJsonAsync("/api/records/costs", cost, Cancel)).EnsureSuccessStatusCode();
        var now = await SeenAsync(quill, $"/api/quotes/{number}");
        Assert.Equal("needed", State(now));
        Assert.Equal(HttpStatusCode.Conflict, await SendAsync(quill, number, now));
        await House.DbAsync(db => db.Costs.Where(c => c.ItemId == item && c.From == day).ExecuteDeleteAsync(Cancel));
        await House.DbAsync(db =>
            db.Counters.ExecuteUpdateAsync(s => s.SetProperty(c => c.Value, c => c.Value + 1), Cancel)
        );
    }

    [Fact]
    public async Task Two_who_decide_at_once_decide_once()
    {
        var quill = await House.AsAsync(Quill);
        var (number, ask) = await AskedAsync(quill);
        var (paz, oduya) = (await House.AsAsync(Paz), await House.AsAsync(1));
        var answers = await Task.WhenAll(
            GrantAsync(paz, ask),
            GrantAsync(oduya, ask),
            paz.PostAsJsonAsync($"/api/asks/{ask}/send-back", new { note = "no" }, Cancel),
            GrantAsync(paz, ask)
        );
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.OK);
        Assert.Equal(3, answers.Count(a => a.StatusCode == HttpStatusCode.Conflict));
        var decided = await House.DbAsync(db =>
            db.Events.CountAsync(
                e => e.Subject == number && (e.Code == "ask.granted" || e.Code == "ask.sent_back"),
                Cancel
            )
        );
        Assert.Equal(1, decided);
    }

    [Fact]
    public async Task Nobody_decides_their_own_through_a_stand_in_or_a_second_role()
    {
        var quill = await House.AsAsync(Quill);
        var day = DateOnly.FromDateTime(House.Time.GetUtcNow().UtcDateTime);
        // Paz names Quill as his stand-in, and gives her as much as he has; what she typed goes past her all the same.
        await House.DbAsync(async db =>
        {
            db.Absences.Add(
                new AbsenceRow
                {
                    PersonId = Paz,
                    From = day,
                    To = day,
                    StandInId = Quill,
                }
            );
            return await db.SaveChangesAsync(Cancel);
        });
        var (_, ask) = await AskedAsync(quill);
        Assert.Equal(
            [1L],
            await House.DbAsync(db =>
                db.AskHolders.Where(h => h.AskId == ask).Select(h => h.PersonId).ToListAsync(Cancel)
            )
        );
        Assert.Equal(HttpStatusCode.Forbidden, (await GrantAsync(quill, ask)).StatusCode);
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (
                await (await House.AsAsync(1)).PostAsJsonAsync($"/api/asks/{ask}/pass-on", new { to = Quill }, Cancel)
            ).StatusCode
        );
        await House.DbAsync(db => db.Absences.Where(a => a.StandInId == Quill).ExecuteDeleteAsync(Cancel));
        // A seller with enough authority is no approver of what nobody gave her.
        var (_, small) = await AskedAsync(await House.AsAsync(7), "SHK-BOW-10 x 10 -5%");
        Assert.Equal(HttpStatusCode.Forbidden, (await GrantAsync(quill, small)).StatusCode);
        // Havergal is clerk and lead at once; Mohr asks for what she typed, on his own quote.
        var (nell, mohr) = (await House.AsAsync(Havergal), await House.AsAsync(Mohr));
        var (number, sheet) = await QuoteAsync(mohr, "SHK-BOW-10 x 10");
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await SetAsync(nell, sheet, "discount", "5.5", key);
        var asked = await (await mohr.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "please" })).JsonAsync();
        var hers = asked.GetProperty("asks")[0].GetProperty("id").GetInt64();
        foreach (var who in new[] { nell, mohr })
            Assert.Equal(HttpStatusCode.Forbidden, (await GrantAsync(who, hers)).StatusCode);
    }

    [Fact]
    public async Task A_buyers_link_that_was_used_is_not_used_again()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 10 m");
        Assert.Equal(HttpStatusCode.OK, await SendAsync(quill, number, sheet));
        var link = await House.LinkAsync($"way {number}");
        using var buyer = House.CreateClient();
        Task<HttpResponseMessage> AcceptAsync() =>
            buyer.PostAsJsonAsync($"/api/offers/{link}/accept", new { name = "F", poNumber = $"N-{number}" }, Cancel);
        var answers = await Task.WhenAll(AcceptAsync(), AcceptAsync());
        Assert.Single(answers, a => a.IsSuccessStatusCode);
        Assert.False((await AcceptAsync()).IsSuccessStatusCode);
    }

    [Fact]
    public async Task An_order_made_worse_than_what_was_accepted_is_asked_about()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet, _) = await GrantedAsync(quill);
        Assert.Equal(HttpStatusCode.OK, await SendAsync(quill, number, sheet));
        var link = await House.LinkAsync($"way {number}");
        (
            await House
                .CreateClient()
                .PostAsJsonAsync($"/api/offers/{link}/accept", new { name = "F", poNumber = $"W-{number}" }, Cancel)
        ).EnsureSuccessStatusCode();
        var made = await (await quill.PostAsync($"/api/quotes/{number}/order", null, Cancel)).JsonAsync();
        var order = made.GetProperty("number").GetString()!;
        var now = await SeenAsync(quill, $"/api/orders/{order}");
        Assert.NotEqual("needed", State(now));
        var key = now.GetProperty("lines")[0].GetProperty("key").GetInt64();
        now = await SetAsync(quill, now, "discount", "13", key);
        Assert.Equal("needed", State(now));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await quill.ActAsync($"/api/orders/{order}/confirm", now, new { })).StatusCode
        );
    }

    [Fact]
    public async Task What_a_channel_brings_is_judged_by_whoever_takes_it_over()
    {
        // An order by EDI at half our price, larger than what they may owe.
        var text = string.Join(
            '\n',
            "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000978*0*P*>~",
            "GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*978*X*004010~",
            "ST*850*0001~",
            "BEG*00*SA*NG-99002**20260305~",
            "CUR*BY*USD~",
            "N1*BT*Northgannet Marine Depot*92*NG-HQ~",
            "PO1*1*2000*EA*200.00*PE*VP*SET-MOOR-10~",
            "CTT*1*2000~",
            "SE*7*0001~",
            "GE*1*978~",
            "IEA*1*000000978~"
        );
        var nell = await House.AsAsync(Havergal);
        var (order, sheet) = await OrderOfAsync(nell, text, "half.x12");
        // Theirs is not taken by itself, and what they would owe stops it.
        Assert.Contains("po-price/net", Stops(sheet));
        Assert.Contains("credit/", Stops(sheet));
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await SetAsync(nell, sheet, "net", "200", key);
        Assert.Equal("needed", State(sheet));
        Assert.Equal("stopped", await (await nell.ActAsync($"/api/orders/{order}/confirm", sheet)).CodeAsync());
        // A channel is no person: what machines bring has the authority that they were given, which is none.
        var confirmed = await House.Machine().PostAsync($"/api/orders/{order}/confirm", null, Cancel);
        Assert.Equal("stopped", await confirmed.CodeAsync());
    }
}
