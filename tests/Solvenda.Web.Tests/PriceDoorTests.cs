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
}
