using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>The door that prices a sheet that nobody keeps.</summary>
public sealed class PriceDoorTests(House house) : SheetCalls(house)
{
    [Fact]
    public async Task The_price_door_answers_with_build_tally_and_findings_and_stores_nothing()
    {
        var body = new
        {
            buyer = "Tressel & Vane Rigging",
            lines = new object[]
            {
                new
                {
                    item = "BB2-10-NV",
                    quantity = 180,
                    discountPercent = 12,
                },
                new { item = "NO-SUCH", quantity = 1 },
            },
        };
        var view = await (await House.Machine().PostAsJsonAsync("/api/v1/price", body, Cancel)).JsonAsync();
        var line = view.GetProperty("lines")[0];
        Assert.Equal(
            [2.42m, 2.2264m, 1.9592m],
            line.GetProperty("build").EnumerateArray().Select(s => s.GetProperty("price").GetDecimal())
        );
        Assert.Equal(
            (352.66m, 17.10m, 2.0823m),
            (
                line.GetProperty("net").GetDecimal(),
                line.GetProperty("marginPercent").GetDecimal(),
                line.GetProperty("floor").GetDecimal()
            )
        );
        Assert.Equal(
            "freight 9.50",
            string.Join(
                "; ",
                view.GetProperty("tally")
                    .GetProperty("chargeLines")
                    .EnumerateArray()
                    .Select(c =>
                        $"{c.GetProperty("kind").GetString()} {c.GetProperty("amount").GetDecimal().ToString("0.00", CultureInfo.InvariantCulture)}"
                    )
            )
        );
        Assert.Equal(445.46m, view.GetProperty("tally").GetProperty("totalWithTax").GetDecimal());
        Assert.Contains(
            view.GetProperty("findings").EnumerateArray(),
            f => f.GetProperty("check").GetString() == "item" && f.GetProperty("outcome").GetString() == "stop"
        );
    }

    [Theory]
    [InlineData("""{"buyer":"nobody","lines":[]}""", "buyer_unknown")]
    [InlineData("""{"buyer":"1","currency":"XXQ","lines":[]}""", "currency_unknown")]
    [InlineData(
        """{"buyer":"1","lines":[{"item":"BB2-10-NV","quantity":1,"netPrice":1,"discountPercent":2}]}""",
        "number"
    )]
    [InlineData("""{"buyer":"1","lines":[{"item":"BB2-10-NV","quantity":1,"marginPercent":100}]}""", "number")]
    public async Task The_price_door_refuses_by_code(string json, string code)
    {
        var answer = await House
            .Machine()
            .PostAsync("/api/v1/price", new StringContent(json, System.Text.Encoding.UTF8, "application/json"), Cancel);
        Assert.Equal((HttpStatusCode.UnprocessableEntity, code), (answer.StatusCode, await answer.CodeAsync()));
    }

    [Theory]
    [InlineData("")]
    [InlineData("{}")]
    [InlineData("""{"buyer":1,"lines":[]}""")]
    [InlineData("""{"buyer":"1","lines":[{"quantity":1}]}""")]
    public async Task What_cannot_be_understood_is_a_problem_with_a_code_not_a_failure(string json)
    {
        var answer = await House
            .Machine()
            .PostAsync("/api/v1/price", new StringContent(json, System.Text.Encoding.UTF8, "application/json"), Cancel);
        Assert.Equal((HttpStatusCode.BadRequest, "malformed"), (answer.StatusCode, await answer.CodeAsync()));
    }

    [Fact]
    public async Task Without_a_rate_there_is_a_stop_that_names_it_and_no_figure_made_up()
    {
        var answer = await House
            .Machine()
            .PostAsJsonAsync(
                "/api/v1/price",
                new
                {
                    buyer = "1",
                    currency = "JPY",
                    lines = new[] { new { item = "BB2-10-NV", quantity = 1 } },
                },
                Cancel
            );
        var view = await answer.JsonAsync();
        Assert.Equal(JsonValueKind.Null, view.GetProperty("lines")[0].GetProperty("netPrice").ValueKind);
        Assert.Contains(
            view.GetProperty("findings").EnumerateArray(),
            f =>
                f.GetProperty("outcome").GetString() == "stop"
                && f.GetProperty("words").GetString()!.Contains("JPY", StringComparison.Ordinal)
        );
        Assert.DoesNotContain("79,228", view.ToString(), StringComparison.Ordinal);
    }

    private static async Task<string> ApprovalsAsync(HttpClient client, object body)
    {
        var view = await (await client.PostAsJsonAsync("/api/v1/price", body, Cancel)).JsonAsync();
        return string.Join(
            "; ",
            view.GetProperty("approvals")
                .EnumerateArray()
                .Select(a =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{a.GetProperty("policy")} {a.GetProperty("figure").GetDecimal():0.##}"
                    )
                    + $"/{a.GetProperty("limit")}: "
                    + string.Join(" > ", a.GetProperty("route").EnumerateArray().Select(r => r.GetString() ?? "nobody"))
                )
        );
    }

    private static object Asked(
        decimal discount,
        string? seller,
        decimal? onAll = null,
        decimal? freight = null,
        int quantity = 40
    ) =>
        new
        {
            buyer = "Tressel & Vane Rigging",
            seller,
            sheetDiscountPercent = onAll,
            charges = freight is null ? [] : new[] { new { kind = "freight", amount = freight } },
            lines = new[]
            {
                new
                {
                    item = "SHK-BOW-10",
                    quantity,
                    discountPercent = discount,
                },
            },
        };

    [Theory]
    [InlineData(8, "Sorcha Quill", "")]
    [InlineData(12, "Sorcha Quill", "discount 12/8: Leandro Paz")]
    [InlineData(12, "quill", "discount 12/8: Leandro Paz")]
    [InlineData(12, "Leandro Paz", "")]
    public async Task Approvals_say_which_policy_fires_for_whom_and_who_is_asked(
        int discount,
        string seller,
        string expected
    ) => Assert.Equal(expected, await ApprovalsAsync(House.Machine(), Asked(discount, seller)));

    [Fact]
    public async Task What_is_given_on_the_whole_and_freight_under_the_table_count_too()
    {
        Assert.Equal(
            "sheet-discount 12/8: Leandro Paz",
            await ApprovalsAsync(House.Machine(), Asked(0, "Sorcha Quill", onAll: 12))
        );
        Assert.StartsWith(
            "freight 210/100",
            await ApprovalsAsync(House.Machine(), Asked(0, "Sorcha Quill", freight: 0, quantity: 20_000)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_key_without_the_scope_learns_nothing_of_who_may_decide_what()
    {
        var client = House.CreateClient();
        var key = "key-without-authority";
        await House.DbAsync(async db =>
        {
            db.ApiKeys.Add(
                new Data.Rows.ApiKey
                {
                    Name = "a shop",
                    Hash = Solvenda.Acts.Acting.Tokens.Sha256(key),
                    Scopes = "price cost",
                }
            );
            return await db.SaveChangesAsync(Cancel);
        });
        client.DefaultRequestHeaders.Authorization = new("Bearer", key);
        using var refused = await client.PostAsJsonAsync("/api/v1/price", Asked(12, "Sorcha Quill"), Cancel);
        Assert.Equal(HttpStatusCode.Forbidden, refused.StatusCode);
        Assert.Equal("", await ApprovalsAsync(client, Asked(12, null)));
    }

    [Fact]
    public async Task A_seller_whom_we_do_not_have_is_said()
    {
        using var unknown = await House.Machine().PostAsJsonAsync("/api/v1/price", Asked(8, "Nobody Known"), Cancel);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, unknown.StatusCode);
        Assert.Equal("seller_unknown", (await unknown.JsonAsync()).GetProperty("code").GetString());
    }
}
