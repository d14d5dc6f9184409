using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What a buyer owes: asked about, let pass up to a value and a day, paid ahead, blocked, limited by a
/// file.</summary>
public sealed class CreditTests(House house) : MoneyCalls(house)
{
    private const long Oduya = 1;
    private const long Vantongeren = 9;
    private const string Plenty = "SHK-BOW-10 x 400";

    private static async Task<decimal> HeadroomAsync(HttpClient who)
    {
        var credit = (await (await who.GetAsync($"/api/buyers/{Tressel}/answers", Cancel)).JsonAsync()).GetProperty(
            "credit"
        );
        return credit.GetProperty("limit").GetDecimal() - credit.GetProperty("exposure").GetDecimal();
    }

    // An order of theirs that goes over what they may owe, and is clear but for that; they have 1,000 left before.
    private async Task<(string Number, JsonElement Sheet)> OverAsync(HttpClient who)
    {
        var stroud = await House.AsAsync(Stroud);
        var limit = await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == Tressel).Select(b => b.CreditLimitMinor!.Value).FirstAsync(Cancel)
        );
        var room = (limit / 100m) + 1_000m - await HeadroomAsync(who);
        var set = new { creditLimit = room.ToString(System.Globalization.CultureInfo.InvariantCulture) };
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(stroud, $"/api/records/buyers/{Tressel}", set)).StatusCode);
        var (number, sheet) = await OrderAsync(who, Plenty);
        sheet = await SetAsync(who, sheet, "poNumber", "TV-" + number);
        sheet = await SetAsync(who, sheet, "wanted", "");
        Assert.Equal(["credit/"], Stops(sheet));
        return (number, sheet);
    }

    private static async Task<long> AskAsync(HttpClient who, string number, JsonElement sheet)
    {
        var asked = await who.ActAsync($"/api/orders/{number}/ask", sheet, new { why = "they always pay" });
        Assert.Equal(HttpStatusCode.OK, asked.StatusCode);
        var waiting = (await asked.JsonAsync()).GetProperty("asks").EnumerateArray();
        return waiting.Last(a => a.GetProperty("outcome").GetString() == "waiting").GetProperty("id").GetInt64();
    }

    private static Task<HttpResponseMessage> GrantAsync(HttpClient who, long ask, object body) =>
        who.PostAsJsonAsync($"/api/asks/{ask}/grant", body, Cancel);

    private DateOnly Today => House.Services.GetRequiredService<HouseClock>().Today;

    private Task<HttpResponseMessage> DepositAsync(
        HttpClient who,
        string number,
        decimal amount,
        string reference = "SCT 0731"
    ) =>
        who.PostAsJsonAsync(
            $"/api/orders/{number}/deposits",
            new
            {
                amount,
                receivedOn = Today,
                reference,
            },
            Cancel
        );

    [Fact]
    public async Task What_goes_over_the_limit_is_asked_of_credit_control_and_granted_for_this_order_alone()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        var (number, sheet) = await OverAsync(quill);
        var next = (await (await quill.GetAsync($"/api/orders/{number}", Cancel)).JsonAsync()).GetProperty("next");
        Assert.Equal("Ask Ephraim Stroud", next.GetProperty("words").GetString());
        Assert.Equal("stopped", await (await quill.ActAsync($"/api/orders/{number}/confirm", sheet)).CodeAsync());
        var ask = await AskAsync(quill, number, sheet);
        var page = await (await stroud.GetAsync($"/api/asks/{ask}", Cancel)).JsonAsync();
        var credit = page.GetProperty("credit");
        Assert.Equal(
            credit.GetProperty("exposure").GetDecimal(),
            credit.GetProperty("parts").EnumerateArray().Sum(p => p.GetProperty("amount").GetDecimal())
        );
        Assert.Contains("over the limit", page.GetProperty("sentence").GetString(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await GrantAsync(stroud, ask, new { note = "once" })).StatusCode);
        // More of it than was granted stops again; as it was, it goes.
        sheet = await SeenAsync(quill, $"/api/orders/{number}");
        Assert.Empty(Stops(sheet));
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        Assert.Equal(["credit/"], Stops(await SetAsync(quill, sheet, "quantity", "480", key)));
        sheet = await SeenAsync(quill, $"/api/orders/{number}");
        sheet = await SetAsync(quill, sheet, "quantity", "400", key);
        Assert.Empty(Stops(sheet));
        // Another order of theirs is another matter.
        await OverAsync(quill);
        // What was granted ends: a day later than that it stops.
        var until = await House.DbAsync(db => db.Asks.Where(a => a.Id == ask).Select(a => a.Until).FirstAsync(Cancel));
        Assert.Equal(14, until!.Value.DayNumber - Today.DayNumber);
        await House.DbAsync(db =>
            db.Asks.Where(a => a.Id == ask)
                .ExecuteUpdateAsync(s => s.SetProperty(a => a.Until, until.Value.AddDays(-15)), Cancel)
        );
        sheet = await SeenAsync(quill, $"/api/orders/{number}");
        Assert.Equal("stopped", await (await quill.ActAsync($"/api/orders/{number}/confirm", sheet)).CodeAsync());
        await House.DbAsync(db =>
            db.Asks.Where(a => a.Id == ask).ExecuteUpdateAsync(s => s.SetProperty(a => a.Until, until), Cancel)
        );
        Assert.Equal(HttpStatusCode.OK, (await quill.ActAsync($"/api/orders/{number}/confirm", sheet)).StatusCode);
    }

    [Fact]
    public async Task Granted_up_to_less_it_stays_stopped_until_it_is_less()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        var (number, sheet) = await OverAsync(quill);
        var ask = await AskAsync(quill, number, sheet);
        var past = new { until = Today.AddDays(-1) };
        Assert.Equal("date", await (await GrantAsync(stroud, ask, past)).CodeAsync());
        var granted = await GrantAsync(stroud, ask, new { figure = "credit", upTo = 100m });
        Assert.Equal(HttpStatusCode.OK, granted.StatusCode);
        sheet = await SeenAsync(quill, $"/api/orders/{number}");
        Assert.Equal(["credit/"], Stops(sheet));
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        var fits = (int)((await HeadroomAsync(quill) + 70m) / (4.15m * 1.23m));
        sheet = await SetAsync(
            quill,
            sheet,
            "quantity",
            fits.ToString(System.Globalization.CultureInfo.InvariantCulture),
            key
        );
        Assert.Empty(Stops(sheet));
    }

    [Fact]
    public async Task Nobody_else_decides_on_credit_nor_on_an_order_of_their_own()
    {
        var (quill, paz, havergal) = (
            await House.AsAsync(Quill),
            await House.AsAsync(Paz),
            await House.AsAsync(Havergal)
        );
        var (number, sheet) = await OverAsync(quill);
        foreach (var who in new[] { quill, paz, havergal })
        {
            var waived = await who.PostAsJsonAsync(
                $"/api/orders/{number}/waive",
                new
                {
                    check = "credit",
                    line = (long?)null,
                    reason = "a good buyer",
                },
                Cancel
            );
            Assert.Equal(HttpStatusCode.Forbidden, waived.StatusCode);
        }
        var ask = await AskAsync(quill, number, sheet);
        foreach (var who in new[] { quill, paz, havergal })
            Assert.Equal(HttpStatusCode.Forbidden, (await GrantAsync(who, ask, new { })).StatusCode);
        // Whoever may decide any amount does not on what they sell themselves.
        await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == number)
                .ExecuteUpdateAsync(s => s.SetProperty(o => o.SellerId, Oduya), Cancel)
        );
        var own = await (await House.AsAsync(Oduya)).PostAsJsonAsync(
            $"/api/orders/{number}/waive",
            new
            {
                check = "credit",
                line = (long?)null,
                reason = "mine",
            },
            Cancel
        );
        Assert.Equal(HttpStatusCode.Forbidden, own.StatusCode);
    }

    [Fact]
    public async Task A_deposit_counts_once_and_within_what_the_order_comes_to()
    {
        var (quill, petra) = (await House.AsAsync(Quill), await House.AsAsync(Vantongeren));
        var (number, sheet) = await OverAsync(quill);
        var total = sheet.GetProperty("tally").GetProperty("totalWithTax").GetDecimal();
        Assert.Equal(HttpStatusCode.Forbidden, (await DepositAsync(quill, number, 1m)).StatusCode);
        Assert.Equal("number", await (await DepositAsync(petra, number, total + 0.01m)).CodeAsync());
        Assert.Equal("number", await (await DepositAsync(petra, number, -1m)).CodeAsync());
        Assert.Equal("number", await (await DepositAsync(petra, number, 1.001m)).CodeAsync());
        Assert.Equal("reference_missing", await (await DepositAsync(petra, number, 1m, " ")).CodeAsync());
        var before = await HeadroomAsync(quill);
        var noted = await (await DepositAsync(petra, number, total)).JsonAsync();
        Assert.Equal("", noted.GetProperty("stop").GetString());
        // Once: neither the same money again, nor more than the order comes to.
        Assert.Equal("deposit_noted", await (await DepositAsync(petra, number, 1m)).CodeAsync());
        Assert.Equal("number", await (await DepositAsync(petra, number, 0.01m, "SCT 0732")).CodeAsync());
        Assert.Equal(before + total, await HeadroomAsync(quill));
        sheet = await SeenAsync(quill, $"/api/orders/{number}");
        Assert.Empty(Stops(sheet));
        Assert.Equal(HttpStatusCode.OK, (await quill.ActAsync($"/api/orders/{number}/confirm", sheet)).StatusCode);
        Assert.Equal(before, await HeadroomAsync(quill));
    }

    [Fact]
    public async Task Who_is_blocked_stops_until_the_block_is_lifted_and_only_credit_control_sets_it()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        const string Path = "/api/records/buyers/2";
        var blocked = new { creditBlocked = "talks go on" };
        Assert.Equal(HttpStatusCode.Forbidden, (await ChangeAsync(quill, Path, blocked)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(stroud, Path, blocked)).StatusCode);
        var made = await quill.PostAsync("/api/buyers/2/orders", null, Cancel);
        var number = (await made.JsonAsync()).GetProperty("number").GetString()!;
        var sheet = await SeenAsync(quill, $"/api/orders/{number}");
        sheet = await quill.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-10 x 4" });
        Assert.Contains("credit/", Stops(sheet));
        Assert.Contains("talks go on", sheet.GetProperty("findings").GetRawText(), StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.OK,
            (await ChangeAsync(stroud, Path, new { creditBlocked = "", creditLimit = "30000" })).StatusCode
        );
        sheet = await SeenAsync(quill, $"/api/orders/{number}");
        Assert.DoesNotContain("talks go on", sheet.GetProperty("findings").GetRawText(), StringComparison.Ordinal);
        var credit = (await (await quill.GetAsync("/api/buyers/2/answers", Cancel)).JsonAsync()).GetProperty("credit");
        Assert.StartsWith("Ephraim Stroud", credit.GetProperty("setBy").GetString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_block_after_the_grant_stops_the_order_all_the_same()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        var (number, sheet) = await OverAsync(quill);
        var ask = await AskAsync(quill, number, sheet);
        Assert.Equal(HttpStatusCode.OK, (await GrantAsync(stroud, ask, new { })).StatusCode);
        Assert.Empty(Stops(await SeenAsync(quill, $"/api/orders/{number}")));
        var path = $"/api/records/buyers/{Tressel}";
        Assert.Equal(
            HttpStatusCode.OK,
            (await ChangeAsync(stroud, path, new { creditBlocked = "cheques came back" })).StatusCode
        );
        sheet = await SeenAsync(quill, $"/api/orders/{number}");
        Assert.Equal(["credit/"], Stops(sheet));
        Assert.Equal("stopped", await (await quill.ActAsync($"/api/orders/{number}/confirm", sheet)).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(stroud, path, new { creditBlocked = "" })).StatusCode);
        Assert.Empty(Stops(await SeenAsync(quill, $"/api/orders/{number}")));
    }

    [Fact]
    public async Task Limits_come_from_a_file_of_who_may_set_them_and_the_list_can_be_taken_back_in()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        async Task<JsonElement> TakeAsync(HttpClient who)
        {
            var begun = await who.PostAsync(
                "/api/records/buyers/imports?filename=limits.csv",
                new ByteArrayContent(Encoding.UTF8.GetBytes("code,creditLimit,creditUntil\nB-0015,12345,2027-03-31\n")),
                Cancel
            );
            Assert.Equal(HttpStatusCode.OK, begun.StatusCode);
            var id = (await begun.JsonAsync()).GetProperty("id").GetInt64();
            var looked = await RecordCalls.SettledAsync(who, id);
            await who.PostAsync($"/api/imports/{id}/take", null, Cancel);
            return looked.GetProperty("state").GetString() == "taken"
                ? looked
                : await RecordCalls.SettledAsync(who, id);
        }
        Task<long?> LimitAsync() =>
            House.DbAsync(db =>
                db.Buyers.Where(b => b.Code == "B-0015").Select(b => b.CreditLimitMinor).FirstAsync(Cancel)
            );
        var before = await LimitAsync();
        await TakeAsync(quill);
        Assert.Equal(before, await LimitAsync());
        await TakeAsync(stroud);
        Assert.Equal(12_345_00, await LimitAsync());
        var csv = await stroud.GetStringAsync("/api/credit/csv", Cancel);
        Assert.Contains("creditLimit,creditUntil", csv, StringComparison.Ordinal);
        Assert.Contains("12345", csv, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.Forbidden, (await quill.GetAsync("/api/credit", Cancel)).StatusCode);
    }

    [Fact]
    public async Task The_list_and_the_desk_say_who_is_over_and_what_waits_because_of_it()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        var (number, _) = await OverAsync(quill);
        var list = await (await stroud.GetAsync("/api/credit", Cancel)).JsonAsync();
        var row = list.GetProperty("rows").EnumerateArray().Single(r => r.GetProperty("buyerId").GetInt64() == Tressel);
        Assert.Contains(row.GetProperty("held").EnumerateArray(), h => h.GetString() == number);
        Assert.Contains(number, await stroud.GetStringAsync("/api/desk", Cancel), StringComparison.Ordinal);
        var late = list.GetProperty("rows").EnumerateArray().First(r => r.GetProperty("beyondGrace").GetBoolean());
        Assert.True(late.GetProperty("overdueAmount").GetDecimal() > 0);
    }
}
