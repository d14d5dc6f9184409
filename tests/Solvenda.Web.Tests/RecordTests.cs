using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Master data through the real host: who may, what is refused, what is kept; files in and out.</summary>
public sealed class RecordTests(House house) : IClassFixture<House>
{
    private const long Paz = 2;
    private const long Quill = 4;
    private const long Stroud = 6;
    private const long Castellane = 8;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Every_kind_lists_opens_exports_and_comes_back_as_it_was()
    {
        var paz = await house.AsAsync(Paz);
        var kinds = (await (await paz.GetAsync("/api/records", Cancel)).JsonAsync()).EnumerateArray().ToList();
        Assert.True(kinds.Count >= 18, $"only {kinds.Count} kinds");
        foreach (var kind in kinds.Select(k => k.GetProperty("name").GetString()!))
        {
            var page = await (await paz.GetAsync($"/api/records/{kind}?take=1", Cancel)).JsonAsync();
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
                    await paz.GetAsync($"/api/records/{kind}/export?format={format}", Cancel)
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
        var paz = await house.AsAsync(Paz);
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
            (await (await paz.GetAsync("/api/records/items?filter=TST-1", Cancel)).JsonAsync())
                .GetProperty("total")
                .GetInt32()
        );
        Assert.Equal(
            1,
            (await (await paz.GetAsync("/api/records/items?filter=TST-1+active:no", Cancel)).JsonAsync())
                .GetProperty("total")
                .GetInt32()
        );
        var priced = await house
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
        var planner = await house.AsAsync(Castellane);
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
        var sorcha = await house.AsAsync(Quill);
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
            await house.AsAsync(Stroud),
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
        var quill = await house.AsAsync(Quill);
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
        var paz = await house.AsAsync(Paz);
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
    public async Task All_that_fit_a_filter_are_changed_together_if_they_are_still_as_many_as_were_seen()
    {
        var paz = await house.AsAsync(Paz);
        for (var i = 0; i < 3; i++)
            await paz.PostAsJsonAsync(
                "/api/records/items",
                new
                {
                    values = new
                    {
                        code = $"ALL-{i}",
                        words = "of all",
                        family = "rope",
                        stockUnit = "MTR",
                        leadDays = $"{i + 2}",
                    },
                },
                Cancel
            );
        async Task<List<string?>> LeadsAsync() =>
            [
                .. (
                    await (
                        await paz.GetAsync("/api/records/items?filter=code:ALL-&columns=leadDays&sort=code", Cancel)
                    ).JsonAsync()
                )
                    .GetProperty("rows")
                    .EnumerateArray()
                    .Select(r => r.GetProperty("cells")[0].GetString()),
            ];
        var foot = await (
            await paz.GetAsync("/api/records/items/foot?filter=code:ALL-&columns=code,family,leadDays", Cancel)
        ).JsonAsync();
        Assert.Equal(["", "", "2 to 4"], foot.GetProperty("cells").EnumerateArray().Select(c => c.GetString()));

        Assert.Equal(
            (HttpStatusCode.Conflict, "stale"),
            await CodeOf(
                await paz.PostAsJsonAsync(
                    "/api/records/items/bulk",
                    new
                    {
                        filter = "code:ALL-",
                        count = 2,
                        values = new { leadDays = "9" },
                    },
                    Cancel
                )
            )
        );
        Assert.Equal(
            "record_field",
            await (
                await paz.PostAsJsonAsync(
                    "/api/records/items/bulk",
                    new
                    {
                        filter = "code:ALL-",
                        count = 3,
                        values = new { leadDays = "soon" },
                    },
                    Cancel
                )
            ).CodeAsync()
        );
        Assert.Equal(["2", "3", "4"], await LeadsAsync());
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await paz.PostAsJsonAsync(
                    "/api/records/items/bulk",
                    new
                    {
                        filter = "code:ALL-",
                        count = 3,
                        values = new { leadDays = "9" },
                    },
                    Cancel
                )
            ).StatusCode
        );
        Assert.Equal(["9", "9", "9"], await LeadsAsync());
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await (await house.AsAsync(Castellane)).PostAsJsonAsync(
                    "/api/records/items/bulk",
                    new
                    {
                        filter = "",
                        count = 0,
                        values = new { leadDays = "1" },
                    },
                    Cancel
                )
            ).StatusCode
        );
    }

    [Fact]
    public async Task Amounts_at_the_foot_are_added_by_their_currency()
    {
        var paz = await house.AsAsync(Paz);
        var foot = await (
            await paz.GetAsync(
                "/api/records/buyers/foot?filter=Havnlys&columns=name,creditLimit,currency,isProspect",
                Cancel
            )
        ).JsonAsync();
        Assert.Equal(
            ["", "NOK 900,000", "", "none"],
            foot.GetProperty("cells").EnumerateArray().Select(c => c.GetString())
        );
    }

    [Fact]
    public async Task A_new_agreement_is_in_the_next_price_and_a_rise_only_from_its_day()
    {
        var paz = await house.AsAsync(Paz);
        var day = DateOnly.FromDateTime(DateTime.UtcNow);
        var next = new DateOnly(day.Year, day.Month, 1).AddMonths(1);
        async Task<decimal> PayAsync(DateOnly on, int quantity) =>
            (
                await (
                    await paz.GetAsync(
                        $"/api/prices/question?buyer=B-0014&item=CHN-SL-10&quantity={quantity}&day={on:yyyy-MM-dd}",
                        Cancel
                    )
                ).JsonAsync()
            )
                .GetProperty("price")
                .GetDecimal();
        Assert.Equal(7.90m, await PayAsync(day, 300));

        var values = new
        {
            code = "AG-T1",
            words = "chain",
            buyer = "B-0014",
            scope = "family",
            family = "chain",
            kind = "percent off",
            breaks = "0: 5; 250: 10",
            from = day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
        };
        Assert.Equal(
            HttpStatusCode.OK,
            (await paz.PostAsJsonAsync("/api/records/agreements", new { values }, Cancel)).StatusCode
        );
        Assert.Equal((7.505m, 7.11m), (await PayAsync(day, 100), await PayAsync(day, 300)));

        var rise = new
        {
            family = "chain",
            list = "house",
            percent = 4,
            from = next.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            decimals = 2,
        };
        var preview = await (await paz.PostAsJsonAsync("/api/prices/rise/preview", rise, Cancel)).JsonAsync();
        Assert.Contains(
            preview.GetProperty("moved").EnumerateArray(),
            m => m.GetProperty("item").GetString() == "CHN-SL-10" && m.GetProperty("after").GetDecimal() == 8.22m
        );
        Assert.Equal(7.11m, await PayAsync(next, 300));
        Assert.Equal(HttpStatusCode.OK, (await paz.PostAsJsonAsync("/api/prices/rise", rise, Cancel)).StatusCode);
        // Ten percent off 8.22; and the day before as it was.
        Assert.Equal((7.398m, 7.11m), (await PayAsync(next, 300), await PayAsync(next.AddDays(-1), 300)));
        var again = await (await paz.PostAsJsonAsync("/api/prices/rise/preview", rise, Cancel)).JsonAsync();
        Assert.Empty(again.GetProperty("moved").EnumerateArray());
        Assert.NotEmpty(again.GetProperty("left").EnumerateArray());
    }

    [Fact]
    public async Task An_import_tells_every_bad_cell_and_takes_all_or_nothing()
    {
        var paz = await house.AsAsync(Paz);
        var bad = new StringBuilder("Item code;Description;Family;Unit;Weight;EAN\n");
        for (var i = 0; i < 500; i++)
            bad.Append(
                    CultureInfo.InvariantCulture,
                    $"IMP-{i:000};Thing {i};rope;MTR;0,{i % 9 + 1:0}5;{(i % 2 == 0 ? "123" : "")}\n"
                )
                .Append(CultureInfo.InvariantCulture, $"IMQ-{i:000};Thing {i};nothing;MTR;heavy;\n");
        var seen = await LookAsync(paz, "items", "bad.csv", Encoding.UTF8.GetBytes(bad.ToString()));
        // 250 GTINs, 500 families, 500 weights.
        Assert.Equal(
            ("looked", 1_000, 1_250),
            (
                seen.GetProperty("state").GetString(),
                seen.GetProperty("total").GetInt32(),
                seen.GetProperty("refusedCount").GetInt32()
            )
        );
        Assert.Equal(
            "import_state",
            await (
                await paz.PostAsync($"/api/imports/{seen.GetProperty("id").GetInt64()}/take", null, Cancel)
            ).CodeAsync()
        );
        var all = await (
            await paz.GetAsync($"/api/imports/{seen.GetProperty("id").GetInt64()}/refused", Cancel)
        ).Content.ReadAsStringAsync(Cancel);
        Assert.Equal(1_251, all.Trim().Split('\n').Length);

        var good =
            "Item code;Description;Family;Unit;Weight\nIMP-001;Thing 1;rope;MTR;1.250,5\nIMP-002;Thing 2;rope;MTR;0,5\n";
        var looked = await LookAsync(paz, "items", "good.csv", Encoding.Latin1.GetBytes(good));
        Assert.Equal((0, 2), (looked.GetProperty("refusedCount").GetInt32(), looked.GetProperty("new").GetInt32()));
        var id = looked.GetProperty("id").GetInt64();
        await paz.PostAsync($"/api/imports/{id}/take", null, Cancel);
        Assert.Equal("taken", (await SettledAsync(paz, id)).GetProperty("state").GetString());
        var page = await (
            await paz.GetAsync("/api/records/items?filter=IMP-00&columns=code,weightKg&sort=code", Cancel)
        ).JsonAsync();
        Assert.Equal(
            ["IMP-001 1250.5", "IMP-002 0.5"],
            page.GetProperty("rows")
                .EnumerateArray()
                .Select(r => string.Join(' ', r.GetProperty("cells").EnumerateArray().Select(c => c.GetString())))
        );

        // A comma and three digits may be either; the house does not guess.
        var doubt = await LookAsync(
            paz,
            "items",
            "doubt.csv",
            Encoding.UTF8.GetBytes("code;words;family;unit;weight\nIMP-003;x;rope;MTR;1,250\n")
        );
        Assert.Contains(
            "decimal signs or thousands",
            doubt.GetProperty("refused")[0].GetProperty("why").GetString(),
            StringComparison.Ordinal
        );
        foreach (
            var (name, bytes) in new[]
            {
                ("empty.csv", Array.Empty<byte>()),
                ("noise.xlsx", [(byte)'P', (byte)'K', 1, 2, 3, 4]),
                ("other.csv", Encoding.UTF8.GetBytes("a;b\n1;2\n")),
            }
        )
            Assert.Equal(
                (name, "failed"),
                (name, (await LookAsync(paz, "items", name, bytes)).GetProperty("state").GetString())
            );
    }

    [Fact]
    public async Task What_a_buyers_and_an_items_page_answer_adds_up()
    {
        var sorcha = await house.AsAsync(Quill);
        var buyer = await (await sorcha.GetAsync("/api/buyers/1/answers", Cancel)).JsonAsync();
        Assert.Equal(6338.05m, buyer.GetProperty("owed").GetProperty("owes").GetDecimal());
        var months = buyer.GetProperty("months").EnumerateArray().Sum(m => m.GetProperty("net").GetDecimal());
        Assert.True(months > 0 && months >= buyer.GetProperty("thisYear").GetDecimal());
        Assert.Contains(
            buyer.GetProperty("agreements").EnumerateArray(),
            a => a.GetProperty("code").GetString() == "AG-0001"
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await sorcha.PostAsJsonAsync("/api/buyers/1/talks", new { words = "wants it by Thursday" }, Cancel)
            ).StatusCode
        );
        Assert.Equal(
            "order",
            (await (await sorcha.PostAsync("/api/buyers/1/orders", null, Cancel)).JsonAsync())
                .GetProperty("kind")
                .GetString()
        );

        var item = await (await sorcha.GetAsync("/api/items/3/answers", Cancel)).JsonAsync();
        foreach (var stock in item.GetProperty("stock").EnumerateArray())
            Assert.Equal(
                Math.Max(0m, stock.GetProperty("onHand").GetDecimal() - stock.GetProperty("committed").GetDecimal()),
                stock.GetProperty("free").GetDecimal()
            );
        Assert.NotEmpty(item.GetProperty("sales").EnumerateArray());
    }

    [Theory]
    [
        InlineData("tressel", "buyer B-0001"),
        InlineData("Tresel", "buyer B-0001"),
        InlineData("oystercacher", "buyer B-0002"),
        InlineData("båtvarv", "buyer B-0009"),
        InlineData("batvarv nordvass", "buyer B-0009")
    ]
    [
        InlineData("rope navy braid 10", "item BB2-10-NV"),
        InlineData("2999000101146", "item BB2-10-NV"),
        InlineData("bb2-10-n", "item BB2-10-NV"),
        InlineData("\" * ^ (", null),
        InlineData("xqzzy", null)
    ]
    public async Task The_finder_finds_words_in_any_order_and_forgives_slips(string typed, string? first)
    {
        var found = await (
            await (await house.AsAsync(Quill)).GetAsync($"/api/find?q={Uri.EscapeDataString(typed)}", Cancel)
        ).JsonAsync();
        Assert.Equal(
            first,
            found
                .EnumerateArray()
                .Select(f => $"{f.GetProperty("kind").GetString()} {f.GetProperty("number").GetString()}")
                .FirstOrDefault()
        );
    }

    [Fact]
    public async Task A_view_is_ones_own_or_everybodys()
    {
        var (paz, planner) = (await house.AsAsync(Paz), await house.AsAsync(Castellane));
        var view = new
        {
            name = "thin ropes",
            forAll = false,
            filter = "family:rope",
            columns = new[] { "code", "weightKg" },
            sort = "weightKg",
        };
        Assert.Single(
            (await (await paz.PostAsJsonAsync("/api/views/items", view, Cancel)).JsonAsync()).EnumerateArray()
        );
        Assert.Empty((await (await planner.GetAsync("/api/views/items", Cancel)).JsonAsync()).EnumerateArray());
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await planner.PostAsJsonAsync("/api/views/items", view with { forAll = true }, Cancel)).StatusCode
        );
        var all = await (
            await paz.PostAsJsonAsync("/api/views/items", view with { forAll = true }, Cancel)
        ).JsonAsync();
        Assert.Single((await (await planner.GetAsync("/api/views/items", Cancel)).JsonAsync()).EnumerateArray());
        var id = all.EnumerateArray().First(v => !v.GetProperty("mine").GetBoolean()).GetProperty("id").GetInt64();
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await planner.DeleteAsync($"/api/views/items/{id}", Cancel)).StatusCode
        );
        Assert.Equal(HttpStatusCode.NoContent, (await paz.DeleteAsync($"/api/views/items/{id}", Cancel)).StatusCode);
    }

    [Fact]
    public async Task A_file_of_an_item_is_shown_only_where_it_is_a_picture()
    {
        var paz = await house.AsAsync(Paz);
        byte[] png = [0x89, 0x50, 0x4E, 0x47, 1, 2, 3];
        await paz.PostAsync("/api/items/5/files?filename=chain.png", new ByteArrayContent(png), Cancel);
        var page = Encoding.UTF8.GetBytes("<script>alert(1)</script>");
        var files = (
            await (
                await paz.PostAsync(
                    "/api/items/5/files?filename=..%2F..%2Fsheet.png",
                    new ByteArrayContent(page),
                    Cancel
                )
            ).JsonAsync()
        )
            .EnumerateArray()
            .ToList();
        Assert.Equal(
            ["chain.png True", "sheet.png False"],
            files.Select(f => $"{f.GetProperty("name").GetString()} {f.GetProperty("isPicture").GetBoolean()}")
        );
        var shown = await paz.GetAsync($"/api/items/5/files/{files[0].GetProperty("id").GetInt64()}", Cancel);
        Assert.Equal(
            ("image/png", "nosniff"),
            (shown.Content.Headers.ContentType!.MediaType, shown.Headers.GetValues("X-Content-Type-Options").Single())
        );
        var loaded = await paz.GetAsync($"/api/items/5/files/{files[1].GetProperty("id").GetInt64()}", Cancel);
        Assert.Equal(
            ("application/octet-stream", "attachment"),
            (loaded.Content.Headers.ContentType!.MediaType, loaded.Content.Headers.ContentDisposition!.DispositionType)
        );
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await (await house.AsAsync(Castellane)).DeleteAsync(
                    $"/api/items/5/files/{files[0].GetProperty("id").GetInt64()}",
                    Cancel
                )
            ).StatusCode
        );
    }

    private static async Task<JsonElement> LookAsync(HttpClient client, string kind, string name, byte[] bytes)
    {
        var begun = await client.PostAsync(
            $"/api/records/{kind}/imports?filename={name}",
            new ByteArrayContent(bytes),
            Cancel
        );
        Assert.Equal(HttpStatusCode.OK, begun.StatusCode);
        return await SettledAsync(client, (await begun.JsonAsync()).GetProperty("id").GetInt64());
    }

    private static async Task<JsonElement> SettledAsync(HttpClient client, long id)
    {
        for (var tries = 0; tries < 200; tries++)
        {
            var view = await (await client.GetAsync($"/api/imports/{id}", Cancel)).JsonAsync();
            if (view.GetProperty("state").GetString() is not ("looking" or "taking"))
                return view;
            await Task.Delay(50, Cancel);
        }
        throw new InvalidOperationException("The import does not end.");
    }

    private static Task<HttpResponseMessage> PutAsync(HttpClient client, long id, long version, object values) =>
        SendAsync(client, HttpMethod.Put, $"/api/records/items/{id}", version, new { values });

    private static async Task<HttpResponseMessage> SendAsync(
        HttpClient client,
        HttpMethod method,
        string path,
        long version,
        object body
    )
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
        return await client.SendAsync(request, Cancel);
    }

    private static async Task<(HttpStatusCode, string)> CodeOf(HttpResponseMessage answer) =>
        (answer.StatusCode, await answer.CodeAsync());
}
