using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What is kept on file and carries money is asked about where policy says so, by every door.</summary>
public sealed class KeptTests(House house) : MoneyCalls(house)
{
    private const long Oduya = 1;
    private const string Buyer = "/api/records/buyers/3";

    private Task<long?> LimitAsync() =>
        House.DbAsync(db => db.Buyers.Where(b => b.Id == 3).Select(b => b.CreditLimitMinor).FirstAsync(Cancel));

    private static Task<HttpResponseMessage> AskAsync(HttpClient who, string kind, object values, long? id = null) =>
        who.PostAsJsonAsync(
            $"/api/records/{kind}/ask",
            new
            {
                id,
                values,
                why = "they grow",
            },
            Cancel
        );

    private static async Task<long> AskedAsync(HttpClient who, string kind, object values, long? id = null)
    {
        var asked = await AskAsync(who, kind, values, id);
        Assert.Equal(HttpStatusCode.OK, asked.StatusCode);
        return (await asked.JsonAsync()).GetProperty("id").GetInt64();
    }

    private static Task<HttpResponseMessage> GrantAsync(HttpClient who, long ask) =>
        who.PostAsJsonAsync($"/api/asks/{ask}/grant", new { }, Cancel);

    private static string Text(decimal value) => value.ToString(System.Globalization.CultureInfo.InvariantCulture);

    private static object Agreement(string code, string breaks) =>
        new
        {
            code,
            buyer = "B-0001",
            words = "a test",
            scope = "item",
            item = "SHK-BOW-10",
            kind = "percent off",
            breaks,
            from = "2026-01-01",
        };

    [Fact]
    public async Task A_seller_asks_for_a_limit_and_it_is_kept_once_it_is_granted()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        var before = await LimitAsync() ?? 0;
        var limit = ((before / 100m) + 5_000m).ToString(System.Globalization.CultureInfo.InvariantCulture);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await ChangeAsync(quill, Buyer, new { creditLimit = limit })).StatusCode
        );
        var ask = await AskedAsync(quill, "buyers", new { creditLimit = limit }, 3);
        var page = await (await stroud.GetAsync($"/api/asks/{ask}", Cancel)).JsonAsync();
        Assert.Equal(limit, page.GetProperty("change")[0].GetProperty("after").GetString());
        Assert.NotEqual(JsonValueKind.Null, page.GetProperty("credit").ValueKind);
        Assert.Equal(before, await LimitAsync());
        foreach (var who in new[] { quill, await House.AsAsync(Paz) })
            Assert.Equal(HttpStatusCode.Forbidden, (await GrantAsync(who, ask)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await GrantAsync(stroud, ask)).StatusCode);
        Assert.Equal(before + 5_000_00, await LimitAsync());
        Assert.Equal("ask_decided", await (await GrantAsync(stroud, ask)).CodeAsync());
    }

    [Fact]
    public async Task Who_may_give_so_much_gives_it_and_more_goes_up()
    {
        var stroud = await House.AsAsync(Stroud);
        var now = (await LimitAsync() ?? 0) / 100m;
        // In pounds, 25,000 euros' worth is less than 25,000.
        var refused = await ChangeAsync(stroud, Buyer, new { creditLimit = Text(now + 25_000m) });
        Assert.Equal("asks_first", await refused.CodeAsync());
        Assert.Equal(
            HttpStatusCode.OK,
            (await ChangeAsync(stroud, Buyer, new { creditLimit = Text(now + 100m) })).StatusCode
        );
        // The day on which a limit ends is no way around: a limit that holds longer is given anew.
        var ask = await AskedAsync(stroud, "buyers", new { creditLimit = Text(now + 90_000m) }, 3);
        Assert.Equal(HttpStatusCode.OK, (await GrantAsync(await House.AsAsync(Oduya), ask)).StatusCode);
        Assert.Equal((long)((now + 90_000m) * 100m), await LimitAsync());
    }

    [Fact]
    public async Task Nothing_goes_along_with_an_ask_that_is_not_the_askers_to_set()
    {
        var quill = await House.AsAsync(Quill);
        // A seller asks for a limit, and for nothing else that is not theirs.
        foreach (
            var values in new object[]
            {
                new { creditLimit = "99000", paymentDays = "120" },
                new { creditLimit = "99000", taxExempt = "yes" },
                new { creditLimit = "99000", priceList = "house" },
                new { creditLimit = "99000", creditBlocked = "" },
                new
                {
                    creditLimit = "99000",
                    accountManager = "Sorcha Quill",
                    graceDays = "90",
                },
            }
        )
            Assert.Equal(HttpStatusCode.Forbidden, (await AskAsync(quill, "buyers", values, 3)).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await AskAsync(quill, "agreements", Agreement("K-9", "0: 95"))).StatusCode
        );
        Assert.Equal(HttpStatusCode.Forbidden, (await AskAsync(quill, "costs", new { cost = "1" }, 1)).StatusCode);
    }

    [Fact]
    public async Task What_was_changed_since_is_not_kept_over()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        var now = (await LimitAsync() ?? 0) / 100m;
        var ask = await AskedAsync(quill, "buyers", new { creditLimit = Text(now + 300m) }, 3);
        Assert.Equal(
            HttpStatusCode.OK,
            (await ChangeAsync(stroud, Buyer, new { creditLimit = Text(now - 1m) })).StatusCode
        );
        Assert.Equal("stale", await (await GrantAsync(stroud, ask)).CodeAsync());
        var back = await stroud.PostAsJsonAsync($"/api/asks/{ask}/send-back", new { note = "it moved" }, Cancel);
        Assert.Equal(HttpStatusCode.OK, back.StatusCode);
        var again = await AskedAsync(quill, "buyers", new { creditLimit = Text(now + 300m) }, 3);
        var taken = await quill.PostAsJsonAsync($"/api/asks/{again}/withdraw", new { }, Cancel);
        Assert.Equal(HttpStatusCode.OK, taken.StatusCode);
        Assert.Equal("ask_decided", await (await GrantAsync(stroud, again)).CodeAsync());
    }

    [Fact]
    public async Task An_agreement_under_the_floor_is_kept_by_nobody_alone_who_may_not_pass_floors()
    {
        // A lead who may not pass floors: of Paz's authority only the margin is taken.
        await House.DbAsync(db =>
            db.Authorities.Where(a => a.PersonId == Paz && a.Kind == "margin")
                .ExecuteUpdateAsync(s => s.SetProperty(a => a.Limit, 25m), Cancel)
        );
        var (paz, oduya) = (await House.AsAsync(Paz), await House.AsAsync(Oduya));
        var fine = await paz.PostAsJsonAsync(
            "/api/records/agreements",
            new { values = Agreement("K-1", "0: 1") },
            Cancel
        );
        Assert.Equal(HttpStatusCode.OK, fine.StatusCode);
        var under = await paz.PostAsJsonAsync(
            "/api/records/agreements",
            new { values = Agreement("K-2", "0: 1; 500: 95") },
            Cancel
        );
        Assert.Equal("asks_first", await under.CodeAsync());
        // Nor by changing what stands there, many at once, switching on what was off, or a file.
        var id = (await fine.JsonAsync()).GetProperty("id").GetInt64();
        Assert.Equal(
            "asks_first",
            await (await ChangeAsync(paz, $"/api/records/agreements/{id}", new { breaks = "0: 95" })).CodeAsync()
        );
        var bulk = await paz.PostAsJsonAsync(
            "/api/records/agreements/bulk",
            new { values = new { breaks = "0: 95" }, ids = new[] { id } },
            Cancel
        );
        Assert.Equal("asks_first", await bulk.CodeAsync());
        var begun = await paz.PostAsync(
            "/api/records/agreements/imports?filename=a.csv",
            new ByteArrayContent(
                Encoding.UTF8.GetBytes(
                    "code,buyer,words,scope,item,kind,breaks,from\nK-3,B-0001,x,item,SHK-BOW-10,percent off,0: 95,2026-01-01\n"
                )
            ),
            Cancel
        );
        var looked = await RecordCalls.SettledAsync(paz, (await begun.JsonAsync()).GetProperty("id").GetInt64());
        Assert.Contains("under the floor", looked.GetRawText(), StringComparison.Ordinal);
        // Asked and granted, it is made as it was typed.
        var ask = await AskedAsync(paz, "agreements", Agreement("K-2", "0: 1; 500: 95"));
        Assert.Equal(HttpStatusCode.OK, (await GrantAsync(oduya, ask)).StatusCode);
        Assert.True(await House.DbAsync(db => db.Agreements.AnyAsync(a => a.Code == "K-2", Cancel)));
        Assert.False(await House.DbAsync(db => db.Agreements.AnyAsync(a => a.Code == "K-3", Cancel)));
    }

    [Fact]
    public async Task Fields_that_carry_money_are_asked_about_where_a_policy_says_so_and_only_there()
    {
        var (paz, oduya) = (await House.AsAsync(Paz), await House.AsAsync(Oduya));
        const string Path = "/api/records/buyers/6";
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(paz, Path, new { incoterm = "FCA" })).StatusCode);
        Assert.Equal("ask_not_needed", await (await AskAsync(paz, "buyers", new { phone = "2" }, 6)).CodeAsync());
        await House.DbAsync(async db =>
        {
            db.Policies.Add(
                new PolicyRow
                {
                    Code = "money-on-file",
                    Figure = "kept-change",
                    Route = RouteKind.FirstAble,
                    Buyers = "6",
                    Holds = true,
                }
            );
            return await db.SaveChangesAsync(Cancel);
        });
        Assert.Equal("asks_first", await (await ChangeAsync(paz, Path, new { incoterm = "EXW" })).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(paz, Path, new { phone = "3" })).StatusCode);
        Assert.Equal(
            HttpStatusCode.OK,
            (await ChangeAsync(paz, "/api/records/buyers/7", new { incoterm = "FCA" })).StatusCode
        );
        var ask = await AskedAsync(paz, "buyers", new { incoterm = "EXW" }, 6);
        Assert.Equal(HttpStatusCode.OK, (await GrantAsync(oduya, ask)).StatusCode);
        Assert.Equal(
            "EXW",
            await House.DbAsync(db => db.Buyers.Where(b => b.Id == 6).Select(b => b.Incoterm).FirstAsync(Cancel))
        );
    }
}
