using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Records are made, changed and switched off by those who may, and their history says so.</summary>
public sealed class RecordTests(House house) : RecordCalls(house)
{
    [Fact]
    public async Task Every_kind_lists_opens_exports_and_comes_back_as_it_was()
    {
        var paz = await House.AsAsync(Paz);
        var kinds = (await (await paz.GetAsync("/api/lists", Cancel)).JsonAsync())
            .EnumerateArray()
            .Where(k => k.GetProperty("mayChange").GetBoolean() || k.GetProperty("name").GetString() == "settings")
            .ToList();
        Assert.True(kinds.Count >= 18, $"only {kinds.Count} kinds");
        foreach (var kind in kinds.Select(k => k.GetProperty("name").GetString()!))
        {
            var page = await (await paz.GetAsync($"/api/lists/{kind}?take=1", Cancel)).JsonAsync();
            foreach (var row in page.GetProperty("rows").EnumerateArray())
                Assert.Equal(
                    HttpStatusCode.OK,
                    (await paz.GetAsync($"/api/records/{kind}/{row.GetProperty("id").GetInt64()}", Cancel)).StatusCode
                );
            // Settings are the administrator's alone.
            if (kind == "settings" || page.GetProperty("total").GetInt32() == 0)
                continue;
            foreach (var format in new[] { "csv", "xlsx" })
            {
                var file = await (
                    await paz.GetAsync($"/api/lists/{kind}/export?format={format}", Cancel)
                ).Content.ReadAsByteArrayAsync(Cancel);
                var seen = await LookAsync(paz, kind, $"{kind}.{format}", file);
                Assert.Equal(
                    (kind, format, "looked", "", 0, 0, 0, page.GetProperty("total").GetInt32()),
                    (
                        kind,
                        format,
                        seen.GetProperty("state").GetString(),
                        seen.GetProperty("problem").GetString(),
                        seen.GetProperty("refusedCount").GetInt32(),
                        seen.GetProperty("new").GetInt32(),
                        seen.GetProperty("changed").GetInt32(),
                        seen.GetProperty("same").GetInt32()
                    )
                );
            }
        }
    }

    [Fact]
    public async Task A_record_is_made_changed_and_switched_off_and_its_history_says_so()
    {
        var paz = await House.AsAsync(Paz);
        var made = await paz.PostAsJsonAsync(
            "/api/records/items",
            new
            {
                values = new
                {
                    code = "TST-1",
                    words = "A thing",
                    family = "rope",
                    stockUnit = "MTR",
                    salesUnits = "CL = 100",
                    gtin = "2999000101009",
                    weightKg = "0.25",
                },
            },
            Cancel
        );
        Assert.Equal(
            "record_field",
            await (
                await paz.PostAsJsonAsync(
                    "/api/records/items",
                    new
                    {
                        values = new
                        {
                            code = "TST-2",
                            words = "x",
                            family = "nothing",
                            stockUnit = "MTR",
                        },
                    },
                    Cancel
                )
            ).CodeAsync()
        );
        Assert.Equal(
            "record_double",
            await (
                await paz.PostAsJsonAsync(
                    "/api/records/items",
                    new
                    {
                        values = new
                        {
                            code = "TST-1",
                            words = "x",
                            family = "rope",
                            stockUnit = "MTR",
                        },
                    },
                    Cancel
                )
            ).CodeAsync()
        );
        var id = (await made.JsonAsync()).GetProperty("id").GetInt64();

        Assert.Equal("record_field", await (await PutAsync(paz, id, 1, new { gtin = "2999000101008" })).CodeAsync());
        Assert.Equal("record_field", await (await PutAsync(paz, id, 1, new { salesUnits = "CL 100" })).CodeAsync());
        var changed = await (
            await PutAsync(paz, id, 1, new { salesUnits = "CL = 200; PF = 2400", words = "A better thing" })
        ).JsonAsync();
        Assert.Equal("CL = 200; PF = 2400", changed.GetProperty("values").GetProperty("salesUnits").GetString());
        Assert.Contains(
            changed.GetProperty("history").EnumerateArray(),
            h => h.GetProperty("before").GetString() == "CL = 100" && h.GetProperty("who").GetString() == "Leandro Paz"
        );
        Assert.Equal(
            (HttpStatusCode.Conflict, "stale"),
            await CodeOf(await PutAsync(paz, id, 1, new { words = "mine" }))
        );

        var off = await SendAsync(
            paz,
            HttpMethod.Post,
            $"/api/records/items/{id}/switch",
            2,
            new { on = false, why = "nobody buys it" }
        );
        Assert.False((await off.JsonAsync()).GetProperty("active").GetBoolean());
        Assert.Equal(
            0,
            (await (await paz.GetAsync("/api/lists/items?filter=TST-1", Cancel)).JsonAsync())
                .GetProperty("total")
                .GetInt32()
        );
        Assert.Equal(
            1,
            (await (await paz.GetAsync("/api/lists/items?filter=TST-1+active:no", Cancel)).JsonAsync())
                .GetProperty("total")
                .GetInt32()
        );
        var priced = await House
            .Machine()
            .PostAsJsonAsync(
                "/api/v1/price",
                new { buyer = "1", lines = new[] { new { item = "TST-1", quantity = 1 } } },
                Cancel
            );
        Assert.Contains(
            (await priced.JsonAsync()).GetProperty("findings").EnumerateArray(),
            f => f.GetProperty("check").GetString() == "sold-there"
        );
    }

    [Fact]
    public async Task Who_may_not_does_not()
    {
        var planner = await House.AsAsync(Castellane);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await planner.PostAsJsonAsync("/api/records/items", new { values = new { code = "NO" } }, Cancel)
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await planner.PostAsync(
                    "/api/records/items/imports?filename=a.csv",
                    new StringContent("code\nX"),
                    Cancel
                )
            ).StatusCode
        );
        // A seller keeps buyers, but not what they may owe; the credit controller does.
        var sorcha = await House.AsAsync(Quill);
        var id = (
            await (
                await sorcha.PostAsJsonAsync(
                    "/api/records/buyers",
                    new
                    {
                        values = new
                        {
                            code = "B-T1",
                            name = "Testing Quay",
                            country = "IE",
                            currency = "EUR",
                            isProspect = "yes",
                            language = "en",
                        },
                    },
                    Cancel
                )
            ).JsonAsync()
        ).GetProperty("id").GetInt64();
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await SendAsync(
                    sorcha,
                    HttpMethod.Put,
                    $"/api/records/buyers/{id}",
                    1,
                    new { values = new { creditLimit = "9000" } }
                )
            ).StatusCode
        );
        Assert.Equal(
            "record_field",
            await (
                await SendAsync(
                    sorcha,
                    HttpMethod.Put,
                    $"/api/records/buyers/{id}",
                    1,
                    new { values = new { isProspect = "no" } }
                )
            ).CodeAsync()
        );
        var limited = await SendAsync(
            await House.AsAsync(Stroud),
            HttpMethod.Put,
            $"/api/records/buyers/{id}",
            1,
            new { values = new { creditLimit = "9000" } }
        );
        Assert.Equal("9000", (await limited.JsonAsync()).GetProperty("values").GetProperty("creditLimit").GetString());
    }

    [Fact]
    public async Task What_a_customer_lacks_is_told_all_at_once_each_at_its_field()
    {
        var quill = await House.AsAsync(Quill);
        var values = new
        {
            code = "B-T2",
            name = "Half Known",
            country = "IE",
            currency = "EUR",
            language = "en",
        };
        var refused = await (await quill.PostAsJsonAsync("/api/records/buyers", new { values }, Cancel)).JsonAsync();
        Assert.Equal(
            ["paymentDays", "incoterm", "contactMail", "documentsBy", "address"],
            refused.GetProperty("facts").EnumerateArray().Select(f => f.GetProperty("field").GetString())
        );
    }

    [Fact]
    public async Task An_item_goes_and_names_what_follows_it_in_one_step()
    {
        var paz = await House.AsAsync(Paz);
        var id = (
            await (
                await paz.PostAsJsonAsync(
                    "/api/records/items",
                    new
                    {
                        values = new
                        {
                            code = "OLD-1",
                            words = "An old thing",
                            family = "rope",
                            stockUnit = "MTR",
                        },
                    },
                    Cancel
                )
            ).JsonAsync()
        ).GetProperty("id").GetInt64();
        Assert.Equal(
            "record_field",
            await (
                await SendAsync(
                    paz,
                    HttpMethod.Post,
                    $"/api/records/items/{id}/switch",
                    1,
                    new
                    {
                        on = false,
                        why = "gone",
                        values = new { successor = "NO-SUCH" },
                    }
                )
            ).CodeAsync()
        );
        var off = await (
            await SendAsync(
                paz,
                HttpMethod.Post,
                $"/api/records/items/{id}/switch",
                1,
                new
                {
                    on = false,
                    why = "gone",
                    values = new { successor = "bb2-10-nv" },
                }
            )
        ).JsonAsync();
        Assert.Equal(
            (false, "BB2-10-NV", 3L),
            (
                off.GetProperty("active").GetBoolean(),
                off.GetProperty("values").GetProperty("successor").GetString(),
                off.GetProperty("version").GetInt64()
            )
        );
    }

    [Fact]
    public async Task The_word_of_a_unit_is_taken_for_its_code()
    {
        var paz = await House.AsAsync(Paz);
        var values = new
        {
            list = "house",
            item = "CHN-SS-10",
            unit = "m",
            price = "31.5",
            currency = "EUR",
            from = "2030-01-01",
        };
        var made = await paz.PostAsJsonAsync("/api/records/prices", new { values }, Cancel);
        Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync(Cancel));
        var id = (await made.JsonAsync()).GetProperty("id").GetInt64();
        var kept = await (await paz.GetAsync($"/api/records/prices/{id}", Cancel)).Content.ReadAsStringAsync(Cancel);
        Assert.Contains("MTR", kept, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Two_tax_rates_of_one_class_never_hold_on_the_same_day()
    {
        var paz = await House.AsAsync(Paz);
        Task<HttpResponseMessage> MakeAsync(string from, string? to, string of = "standard") =>
            paz.PostAsJsonAsync(
                "/api/records/tax-rates",
                new
                {
                    values = new
                    {
                        country = "FR",
                        @class = of,
                        percent = "20",
                        from,
                        to = to ?? "",
                    },
                },
                Cancel
            );
        Assert.Equal(HttpStatusCode.OK, (await MakeAsync("2030-01-01", "2030-12-31")).StatusCode);
        foreach (
            var (from, to) in new (string, string?)[]
            {
                ("2030-12-31", null),
                ("2029-01-01", "2030-01-01"),
                ("2030-03-01", "2030-04-01"),
                ("2029-01-01", null),
            }
        )
        {
            var refused = await MakeAsync(from, to);
            Assert.Equal("record_field", await refused.CodeAsync());
            Assert.Contains("overlap", await refused.Content.ReadAsStringAsync(Cancel), StringComparison.Ordinal);
        }
        // The day after, another class, and one that is switched off stand in nobody's way.
        Assert.Equal(HttpStatusCode.OK, (await MakeAsync("2031-01-01", null)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await MakeAsync("2030-01-01", null, "reduced")).StatusCode);
        Assert.Equal("record_field", await (await MakeAsync("2040-01-01", null)).CodeAsync());
        // A file is held to the same.
        var looked = await LookAsync(
            paz,
            "tax-rates",
            "rates.csv",
            System.Text.Encoding.UTF8.GetBytes("country,class,percent,from,to\nFR,standard,21,2035-01-01,\n")
        );
        var id = looked.GetProperty("id").GetInt64();
        (await paz.PostAsync($"/api/imports/{id}/take", null, Cancel)).EnsureSuccessStatusCode();
        var problem = (await SettledAsync(paz, id)).GetProperty("problem").GetString();
        Assert.Contains("overlap", problem, StringComparison.Ordinal);
    }
}
