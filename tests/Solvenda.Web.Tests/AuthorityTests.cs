using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Whose authority counts, who decides, who sees what, and whose undo it is.</summary>
public sealed class AuthorityTests(House house) : MoneyCalls(house)
{
    [Fact]
    public async Task Fields_that_carry_money_or_authority_are_not_a_clerks()
    {
        var (quill, mohr, paz) = (await House.AsAsync(Quill), await House.AsAsync(Mohr), await House.AsAsync(Paz));
        foreach (
            var values in new object[]
            {
                new { accountManager = "Bastian Mohr" },
                new { parent = "B-0014" },
                new { taxExempt = "yes" },
                new { paymentDays = "90" },
                new { priceList = "house" },
            }
        )
        {
            foreach (var clerk in new[] { quill, mohr })
                Assert.Equal(
                    HttpStatusCode.Forbidden,
                    (await ChangeAsync(clerk, $"/api/records/buyers/{Tressel}", values)).StatusCode
                );
        }
        var agreement = new
        {
            values = new
            {
                buyer = "B-0001",
                words = "for me",
                scope = "all",
                kind = "percentOff",
                breaks = "0: 40",
                from = "2026-01-01",
            },
        };
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await quill.PostAsJsonAsync("/api/records/agreements", agreement, Cancel)).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (await ChangeAsync(paz, $"/api/records/buyers/{Tressel}", new { phone = "1" })).StatusCode
        );
    }

    [Fact]
    public async Task Whose_buyer_it_is_sees_on_the_desk_what_somebody_else_changed()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        const string Theirs = "/api/records/buyers/1";
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(paz, Theirs, new { paymentDays = "45" })).StatusCode);
        async Task<JsonElement[]> ToldAsync(HttpClient who) =>
            [
                .. (await (await who.GetAsync("/api/desk", Cancel)).JsonAsync())
                    .GetProperty("items")
                    .EnumerateArray()
                    .Where(i => i.GetProperty("path").GetString() == "/records/buyers/1"),
            ];
        var told = Assert.Single(await ToldAsync(quill));
        Assert.Equal(
            ("days to pay changed by Paz", "30 → 45"),
            (told.GetProperty("reason").GetString(), told.GetProperty("rest").GetString())
        );
        Assert.Empty(await ToldAsync(paz));
        // Given to another seller, both are told.
        await ChangeAsync(paz, Theirs, new { accountManager = "Bastian Mohr", paymentDays = "30" });
        Assert.Single(await ToldAsync(quill));
        Assert.Single(await ToldAsync(await House.AsAsync(Mohr)));
        await ChangeAsync(paz, Theirs, new { accountManager = "Sorcha Quill" });
    }

    [Fact]
    public async Task Whoever_typed_asked_for_or_owns_a_figure_does_not_decide_on_it()
    {
        // Havergal is a clerk and a lead at once; the figures are hers, so they are not hers to decide.
        var (nell, paz) = (await House.AsAsync(Havergal), await House.AsAsync(Paz));
        var (number, sheet) = await QuoteAsync(nell, "BB2-10-NV x 180 m -6%");
        Assert.Equal("needed", State(sheet));
        var asked = await (
            await nell.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "a good buyer" })
        ).JsonAsync();
        var round = asked.GetProperty("asks")[0];
        Assert.Equal("Nell Havergal", round.GetProperty("askedBy").GetString());
        var id = round.GetProperty("id").GetInt64();
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await nell.PostAsJsonAsync($"/api/asks/{id}/grant", new { note = "" }, Cancel)).StatusCode
        );
        var grant = await paz.PostAsJsonAsync($"/api/asks/{id}/grant", new { note = "" }, Cancel);
        Assert.Equal(HttpStatusCode.OK, grant.StatusCode);
        // It was for that much: more of the same price is asked anew.
        var now = await SeenAsync(nell, $"/api/quotes/{number}");
        Assert.Equal("granted", State(now));
        var key = now.GetProperty("lines")[0].GetProperty("key").GetInt64();
        Assert.Equal("needed", State(await SetAsync(nell, now, "quantity", "400", key)));
    }

    [Fact]
    public async Task An_order_whose_ask_was_granted_is_not_held_in_lists()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        var (number, sheet) = await OrderAsync(quill, "BB2-10-NV x 20 m -10%");
        async Task<string?> ListedAsync() =>
            (await (await quill.GetAsync($"/api/lists/orders?filter={number}&columns=terms", Cancel)).JsonAsync())
                .GetProperty("rows")[0]
                .GetProperty("cells")[0]
                .GetString();
        Assert.Equal("held", await ListedAsync());
        var asked = await quill.ActAsync($"/api/orders/{number}/ask", sheet, new { why = "they wait" });
        Assert.Equal("held", await ListedAsync());
        var id = (await asked.JsonAsync()).GetProperty("asks")[0].GetProperty("id").GetInt64();
        await paz.PostAsJsonAsync($"/api/asks/{id}/grant", new { note = "" }, Cancel);
        var seen = await (await quill.GetAsync($"/api/orders/{number}", Cancel)).JsonAsync();
        Assert.Equal(Stops(seen.Sheet()).Any() ? "held" : "open", await ListedAsync());
        Assert.DoesNotContain("approval/discount", Stops(seen.Sheet()));
    }

    [Fact]
    public async Task Undo_is_ones_own_and_never_takes_back_what_a_colleague_did()
    {
        var (quill, nell) = (await House.AsAsync(Quill), await House.AsAsync(Havergal));
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 10");
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await SetAsync(quill, sheet, "quantity", "20", key);
        sheet = await SetAsync(nell, sheet, "quantity", "30", key);
        var refused = await quill.UndoAsync(sheet);
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        var problem = await refused.JsonAsync();
        Assert.Equal("changed_since", problem.GetProperty("code").GetString());
        Assert.StartsWith("Nell Havergal", problem.GetProperty("title").GetString(), StringComparison.Ordinal);
        // What he does since is no reason; hers is.
        sheet = await SetAsync(quill, sheet, "note", "in a bag", key);
        Assert.Equal(HttpStatusCode.OK, (await quill.UndoAsync(sheet)).StatusCode);
        Assert.StartsWith(
            "Nell Havergal",
            (await (await quill.UndoAsync(sheet)).JsonAsync()).GetProperty("title").GetString(),
            StringComparison.Ordinal
        );
        // Hers goes back by her; then his is the last again.
        Assert.Equal(HttpStatusCode.OK, (await nell.UndoAsync(sheet)).StatusCode);
        Assert.Equal("nothing_to_undo", await (await nell.UndoAsync(sheet)).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await quill.UndoAsync(sheet)).StatusCode);
        var now = await SeenAsync(nell, $"/api/quotes/{number}");
        Assert.Equal(10m, now.GetProperty("lines")[0].GetProperty("quantity").GetDecimal());
    }

    [Fact]
    public async Task What_was_taken_back_is_put_in_again_in_its_order_until_something_else_is_typed()
    {
        var (quill, nell) = (await House.AsAsync(Quill), await House.AsAsync(Havergal));
        var (_, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 10");
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await SetAsync(quill, sheet, "quantity", "20", key);
        sheet = await SetAsync(quill, sheet, "discount", "3", key);
        var before = sheet;
        async Task<string?> RedoAsync()
        {
            var answer = await quill.PostAsync($"/api/sheets/{sheet.GetProperty("id").GetInt64()}/redo", null, Cancel);
            if (answer.StatusCode != HttpStatusCode.OK)
                return await answer.CodeAsync();
            sheet = await answer.SheetAsync();
            return null;
        }
        Assert.Equal("nothing_to_redo", await RedoAsync());
        for (var i = 0; i < 3; i++)
            sheet = await (await quill.UndoAsync(sheet)).SheetAsync();
        Assert.Empty(sheet.GetProperty("lines").EnumerateArray());
        for (var i = 0; i < 3; i++)
            Assert.Null(await RedoAsync());
        Assert.Equal("nothing_to_redo", await RedoAsync());
        Assert.Equal(before.GetProperty("lines").ToString(), sheet.GetProperty("lines").ToString());
        Assert.Equal(Total(before), Total(sheet));
        // What was put in again is taken back again; a colleague's change of the same field stands in the way.
        sheet = await (await quill.UndoAsync(sheet)).SheetAsync();
        sheet = await SetAsync(nell, sheet, "discount", "1", key);
        Assert.Equal("changed_since", await RedoAsync());
        sheet = await (await nell.UndoAsync(sheet)).SheetAsync();
        sheet = await SetAsync(quill, sheet, "note", "in a bag", key);
        Assert.Equal("nothing_to_redo", await RedoAsync());
    }

    [Fact]
    public async Task Cost_floor_and_margin_are_seen_by_role()
    {
        var (quill, planner) = (await House.AsAsync(Quill), await House.AsAsync(Castellane));
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 10 m");
        static JsonElement[] Secrets(JsonElement sheet) =>
            [
                sheet.GetProperty("lines")[0].GetProperty("cost"),
                sheet.GetProperty("lines")[0].GetProperty("floor"),
                sheet.GetProperty("lines")[0].GetProperty("marginPercent"),
                sheet.GetProperty("tally").GetProperty("margin"),
            ];
        Assert.All(Secrets(sheet), s => Assert.Equal(JsonValueKind.Number, s.ValueKind));
        var seen = await SeenAsync(planner, $"/api/quotes/{number}");
        Assert.All(Secrets(seen), s => Assert.Equal(JsonValueKind.Null, s.ValueKind));
        Assert.Empty(seen.GetProperty("headroom").EnumerateArray());
        Assert.Equal(HttpStatusCode.Forbidden, (await quill.GetAsync("/api/asks/1", Cancel)).StatusCode);
    }

    [Fact]
    public async Task A_key_sees_what_its_scopes_open_and_nothing_else()
    {
        async Task<HttpClient> KeyAsync(string scopes)
        {
            var key = Tokens.New();
            await using var db = await House
                .Services.GetRequiredService<IDbContextFactory<SolvendaDb>>()
                .CreateDbContextAsync(Cancel);
            db.ApiKeys.Add(
                new ApiKey
                {
                    Name = scopes,
                    Hash = Tokens.Sha256(key),
                    Scopes = scopes,
                    CreatedAt = DateTime.UnixEpoch,
                }
            );
            await db.SaveChangesAsync(Cancel);
            var client = House.CreateClient();
            client.DefaultRequestHeaders.Authorization = new("Bearer", key);
            return client;
        }
        var question = new
        {
            buyer = "Tressel & Vane Rigging",
            lines = new[] { new { item = "BB2-10-NV", quantity = 10 } },
        };
        var plain = await KeyAsync("price");
        var sheet = await (await plain.PostAsJsonAsync("/api/v1/price", question, Cancel)).JsonAsync();
        Assert.Equal(2.2264m, sheet.GetProperty("lines")[0].GetProperty("netPrice").GetDecimal());
        Assert.Equal(JsonValueKind.Null, sheet.GetProperty("lines")[0].GetProperty("cost").ValueKind);
        Assert.Equal(JsonValueKind.Null, sheet.GetProperty("tally").GetProperty("margin").ValueKind);
        Assert.Empty(sheet.GetProperty("headroom").EnumerateArray());
        Assert.Equal(HttpStatusCode.Forbidden, (await plain.GetAsync("/api/v1/requests/1", Cancel)).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await plain.PostAsync("/api/v1/inbound?filename=a.txt", new ByteArrayContent([65]), Cancel)).StatusCode
        );
        var costs = await KeyAsync("price cost");
        var seen = await (await costs.PostAsJsonAsync("/api/v1/price", question, Cancel)).JsonAsync();
        Assert.Equal(1.6242m, seen.GetProperty("lines")[0].GetProperty("cost").GetDecimal());
        Assert.Empty(seen.GetProperty("headroom").EnumerateArray());
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await (await KeyAsync("read")).PostAsJsonAsync("/api/v1/price", question, Cancel)).StatusCode
        );
    }

    [Theory]
    [InlineData(Quill, true)]
    [InlineData(Stroud, false)]
    [InlineData(Castellane, false)]
    public async Task What_one_may_not_do_is_not_offered(long person, bool writes)
    {
        var (number, _) = await QuoteAsync(await House.AsAsync(Quill), "SHK-BOW-10 x 12");
        var client = await House.AsAsync(person);
        var quote = await (await client.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync();
        Assert.Equal(writes, quote.GetProperty("mayWithdraw").GetBoolean());
        Assert.All(
            quote.GetProperty("sheet").GetProperty("findings").EnumerateArray(),
            f => Assert.False(f.GetProperty("mayWaive").GetBoolean())
        );
        var session = await (await client.GetAsync("/api/session", Cancel)).JsonAsync();
        Assert.Equal(writes, session.GetProperty("person").GetProperty("mayWrite").GetBoolean());
    }
}
