using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Many records changed at once, by a filter or from a file; and what prices make of them.</summary>
public sealed class RecordsTogetherTests(House house) : RecordCalls(house)
{
    [Fact]
    public async Task All_that_fit_a_filter_are_changed_together_if_they_are_still_as_many_as_were_seen()
    {
        var paz = await House.AsAsync(Paz);
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
                        await paz.GetAsync("/api/lists/items?filter=code:ALL-&columns=leadDays&sort=code", Cancel)
                    ).JsonAsync()
                )
                    .GetProperty("rows")
                    .EnumerateArray()
                    .Select(r => r.GetProperty("cells")[0].GetString()),
            ];
        var foot = await (
            await paz.GetAsync("/api/lists/items/foot?filter=code:ALL-&columns=code,family,leadDays", Cancel)
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
                await (await House.AsAsync(Castellane)).PostAsJsonAsync(
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
        var paz = await House.AsAsync(Paz);
        var foot = await (
            await paz.GetAsync(
                "/api/lists/buyers/foot?filter=Havnlys&columns=name,creditLimit,currency,isProspect",
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
        var paz = await House.AsAsync(Paz);
        var day = DateOnly.FromDateTime(House.Time.GetUtcNow().UtcDateTime);
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
        var paz = await House.AsAsync(Paz);
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
            await paz.GetAsync("/api/lists/items?filter=IMP-00&columns=code,weightKg&sort=code", Cancel)
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
}
