using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Setup: authority that nobody widens for themselves, the line, stand-ins, policies.</summary>
public sealed class SetupTests(House house) : MoneyCalls(house)
{
    private const long Oduya = 1;
    private const long Whitlock = 10;

    private static Task<HttpResponseMessage> LimitAsync(HttpClient who, long person, string kind, decimal? limit) =>
        who.PostAsJsonAsync(
            "/api/setup/authority",
            new
            {
                person,
                kind,
                limit,
            },
            Cancel
        );

    private static async Task<JsonElement> CellAsync(HttpClient who, long person, string kind) =>
        (await (await who.GetAsync("/api/setup/authority", Cancel)).JsonAsync())
            .GetProperty("lines")
            .EnumerateArray()
            .First(l =>
                l.GetProperty("person").ValueKind == JsonValueKind.Number
                && l.GetProperty("person").GetInt64() == person
            )
            .GetProperty("cells")
            .EnumerateArray()
            .First(c => c.GetProperty("kind").GetString() == kind);

    private static object Draft(
        string code,
        string figure = "discount",
        object? when = null,
        string route = "firstAble",
        params string[] named
    ) =>
        new
        {
            code,
            figure,
            route,
            when = when ?? Array.Empty<object>(),
            named,
            buyers = Array.Empty<long>(),
            groups = Array.Empty<string>(),
            families = Array.Empty<string>(),
            channels = Array.Empty<string>(),
            hands = Array.Empty<string>(),
            patienceHours = 4,
            from = "2026-01-01",
            to = (string?)null,
        };

    private static async Task<HttpResponseMessage> SeenAsync(
        HttpClient who,
        HttpMethod method,
        string path,
        long version,
        object? body = null
    )
    {
        using var request = new HttpRequestMessage(method, path)
        {
            Content = body is null ? null : JsonContent.Create(body),
        };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
        return await who.SendAsync(request, Cancel);
    }

    [Fact]
    public async Task Nobody_gives_more_than_they_have_nor_anything_to_themselves()
    {
        var (paz, oduya, stroud) = (await House.AsAsync(Paz), await House.AsAsync(Oduya), await House.AsAsync(Stroud));
        Assert.Equal(HttpStatusCode.Forbidden, (await LimitAsync(paz, Quill, "discount", 16)).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await LimitAsync(stroud, Quill, "discount", 9)).StatusCode);
        Assert.Equal("own_authority", await (await LimitAsync(paz, Paz, "discount", 16)).CodeAsync());
        foreach (var wrong in new decimal[] { -1, 101 })
            Assert.Equal("limit", await (await LimitAsync(oduya, Quill, "discount", wrong)).CodeAsync());
        Assert.Equal("limit", await (await LimitAsync(oduya, Quill, "no such kind", 5)).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await LimitAsync(paz, Quill, "discount", 10)).StatusCode);
        Assert.Equal("10 %", (await CellAsync(paz, Quill, "discount")).GetProperty("said").GetString());
        // It holds at once for what is typed.
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 10 -9.5%");
        Assert.Equal("notNeeded", State(sheet));
        await LimitAsync(oduya, Quill, "discount", 8);
    }

    [Fact]
    public async Task What_an_administrator_does_not_have_somebody_who_has_must_agree_to()
    {
        var (cass, oduya, mohr) = (
            await House.AsAsync(Whitlock),
            await House.AsAsync(Oduya),
            await House.AsAsync(Mohr)
        );
        Assert.Equal(HttpStatusCode.OK, (await LimitAsync(cass, Mohr, "value", 30_000)).StatusCode);
        var cell = await CellAsync(cass, Mohr, "value");
        Assert.Equal("20,000", cell.GetProperty("said").GetString());
        Assert.False(cell.GetProperty("mayAgree").GetBoolean());
        var proposal = cell.GetProperty("proposal").GetInt64();
        Task<HttpResponseMessage> AgreeAsync(HttpClient who, bool yes) =>
            who.PostAsJsonAsync($"/api/setup/authority/{proposal}", new { yes }, Cancel);
        Assert.Equal(HttpStatusCode.Forbidden, (await AgreeAsync(cass, true)).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await AgreeAsync(await House.AsAsync(Havergal), true)).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await AgreeAsync(mohr, true)).StatusCode);
        Assert.True((await CellAsync(oduya, Mohr, "value")).GetProperty("mayAgree").GetBoolean());
        Assert.Equal(HttpStatusCode.OK, (await AgreeAsync(oduya, true)).StatusCode);
        Assert.Equal("30,000", (await CellAsync(cass, Mohr, "value")).GetProperty("said").GetString());
        Assert.Equal(HttpStatusCode.NotFound, (await AgreeAsync(oduya, true)).StatusCode);
        // Taking away needs nobody.
        Assert.Equal(HttpStatusCode.OK, (await LimitAsync(cass, Mohr, "value", 20_000)).StatusCode);
        Assert.Equal("20,000", (await CellAsync(cass, Mohr, "value")).GetProperty("said").GetString());
    }

    [Fact]
    public async Task While_nobody_holds_authority_of_a_kind_its_first_holder_is_named_and_never_oneself()
    {
        var cass = await House.AsAsync(Whitlock);
        var held = await House.DbAsync(db => db.Authorities.Where(a => a.Kind == "terms").ToListAsync(Cancel));
        await House.DbAsync(db => db.Authorities.Where(a => a.Kind == "terms").ExecuteDeleteAsync(Cancel));
        Assert.Equal("own_authority", await (await LimitAsync(cass, Whitlock, "terms", 10)).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await LimitAsync(cass, Paz, "terms", 30)).StatusCode);
        var facts = await House.DbAsync(db =>
            db.Events.Where(e => e.Code == "authority.set")
                .OrderByDescending(e => e.Id)
                .Select(e => e.Facts)
                .FirstAsync(Cancel)
        );
        Assert.True(JsonDocument.Parse(facts).RootElement.GetProperty("first").GetBoolean());
        // The second is given by the first, or agreed to.
        await LimitAsync(cass, Quill, "terms", 20);
        Assert.Equal("none", (await CellAsync(cass, Quill, "terms")).GetProperty("said").GetString());
        await House.DbAsync(async db =>
        {
            await db.Authorities.Where(a => a.Kind == "terms").ExecuteDeleteAsync(Cancel);
            foreach (var row in held)
                row.Id = 0;
            db.Authorities.AddRange(held);
            return await db.SaveChangesAsync(Cancel);
        });
    }

    [Fact]
    public async Task A_policy_is_written_tried_let_hold_and_asks_and_one_dropped_asks_no_more()
    {
        var cass = await House.AsAsync(Whitlock);
        var draft = Draft(
            "over-cap",
            "discount",
            new[]
            {
                new
                {
                    figure = "value",
                    over = true,
                    value = 100,
                },
            },
            "named",
            "1"
        );
        var trial = await (await cass.PostAsJsonAsync("/api/setup/policies/try", draft, Cancel)).JsonAsync();
        Assert.True(trial.GetProperty("asked").GetInt32() > 5);
        Assert.Equal("Wilhelmina Oduya", trial.GetProperty("by")[0].GetProperty("name").GetString());
        Assert.Equal(trial.GetProperty("asked").GetInt32(), trial.GetProperty("documents").GetArrayLength());
        var id = (await (await cass.PostAsJsonAsync("/api/setup/policies", draft, Cancel)).JsonAsync()).GetInt64();
        Assert.Equal("policy", await (await cass.PostAsJsonAsync("/api/setup/policies", draft, Cancel)).CodeAsync());
        var quill = await House.AsAsync(Quill);
        async Task<int> AsksAsync()
        {
            var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m -9%");
            var asked = await (
                await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "once" })
            ).JsonAsync();
            return asked.GetProperty("asks").GetArrayLength();
        }
        // A draft asks nobody.
        Assert.Equal(1, await AsksAsync());
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await SeenAsync(cass, HttpMethod.Post, $"/api/setup/policies/{id}/hold", 0, new { holds = true })
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await SeenAsync(cass, HttpMethod.Post, $"/api/setup/policies/{id}/hold", 1, new { holds = true })
            ).StatusCode
        );
        Assert.Equal(2, await AsksAsync());
        var price = await (
            await House
                .Machine()
                .PostAsJsonAsync(
                    "/api/v1/price",
                    new
                    {
                        buyer = "Tressel & Vane Rigging",
                        seller = "quill",
                        lines = new[]
                        {
                            new
                            {
                                item = "BB2-10-NV",
                                quantity = 180,
                                unit = "MTR",
                                discountPercent = 9,
                            },
                        },
                    },
                    Cancel
                )
        ).JsonAsync();
        Assert.Contains(
            price.GetProperty("approvals").EnumerateArray(),
            a =>
                a.GetProperty("policy").GetString() == "over-cap"
                && a.GetProperty("route")[0].GetString() == "Wilhelmina Oduya"
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (await SeenAsync(cass, HttpMethod.Delete, $"/api/setup/policies/{id}", 2)).StatusCode
        );
        Assert.Equal(1, await AsksAsync());
    }

    [Theory]
    [InlineData("Bad Code", "discount")]
    [InlineData("x", "discount")]
    [InlineData("good-code", "no-such-figure")]
    public async Task A_policy_that_cannot_be_is_refused(string code, string figure) =>
        Assert.Equal(
            "policy",
            await (
                await (await House.AsAsync(Whitlock)).PostAsJsonAsync(
                    "/api/setup/policies",
                    Draft(code, figure),
                    Cancel
                )
            ).CodeAsync()
        );

    [Fact]
    public async Task A_named_policy_names_somebody_who_is_there()
    {
        var cass = await House.AsAsync(Whitlock);
        foreach (var named in new string[][] { [], ["999"], ["no-such-team"], ["a,b"] })
            Assert.Equal(
                "policy",
                await (
                    await cass.PostAsJsonAsync(
                        "/api/setup/policies",
                        Draft("named-one", route: "named", named: named),
                        Cancel
                    )
                ).CodeAsync()
            );
    }

    [Fact]
    public async Task The_reporting_line_runs_in_no_ring()
    {
        var cass = await House.AsAsync(Whitlock);
        Task<HttpResponseMessage> MoveAsync(long person, long? to) =>
            cass.PostAsJsonAsync("/api/setup/reports-to", new { person, to }, Cancel);
        Assert.Equal("reports_in_ring", await (await MoveAsync(Oduya, Quill)).CodeAsync());
        Assert.Equal("reports_in_ring", await (await MoveAsync(Paz, Paz)).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await MoveAsync(Mohr, Havergal)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await MoveAsync(Mohr, Paz)).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await (await House.AsAsync(Paz)).PostAsJsonAsync(
                    "/api/setup/reports-to",
                    new { person = Quill, to = Oduya },
                    Cancel
                )
            ).StatusCode
        );
    }

    [Fact]
    public async Task A_stand_in_is_ones_own_to_name_and_for_days_ahead()
    {
        var (quill, mohr) = (await House.AsAsync(Quill), await House.AsAsync(Mohr));
        static object Away(long person, string from, string to, long? standIn) =>
            new
            {
                person,
                from,
                to,
                standIn,
            };
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await quill.PostAsJsonAsync("/api/setup/away", Away(Mohr, "2027-01-04", "2027-01-08", Quill), Cancel)
            ).StatusCode
        );
        foreach (
            var wrong in new[]
            {
                Away(Mohr, "2027-01-08", "2027-01-04", Quill),
                Away(Mohr, "2026-01-04", "2026-01-05", Quill),
                Away(Mohr, "2027-01-04", "2027-01-05", Mohr),
            }
        )
            Assert.Equal("away", await (await mohr.PostAsJsonAsync("/api/setup/away", wrong, Cancel)).CodeAsync());
        var set = await mohr.PostAsJsonAsync("/api/setup/away", Away(Mohr, "2027-01-04", "2027-01-08", Quill), Cancel);
        var id = (await set.JsonAsync()).GetInt64();
        Assert.Equal(
            "away",
            await (
                await mohr.PostAsJsonAsync("/api/setup/away", Away(Mohr, "2027-01-08", "2027-01-09", null), Cancel)
            ).CodeAsync()
        );
        Assert.Equal(HttpStatusCode.Forbidden, (await quill.DeleteAsync($"/api/setup/away/{id}", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await mohr.DeleteAsync($"/api/setup/away/{id}", Cancel)).StatusCode);
    }
}
