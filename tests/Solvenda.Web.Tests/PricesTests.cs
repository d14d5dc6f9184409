using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What would they pay, and raising many prices at once.</summary>
public sealed class PricesTests(House house) : MoneyCalls(house)
{
    private static object Rise(
        string family = "hardware",
        decimal percent = 4m,
        string from = "2027-01-01",
        int decimals = 2
    ) =>
        new
        {
            family,
            list = "house",
            percent,
            from,
            decimals,
        };

    private static async Task<JsonElement> AskAsync(HttpClient client, string question) =>
        await (await client.GetAsync($"/api/prices/question?{question}", Cancel)).JsonAsync();

    [Fact]
    public async Task A_price_explains_itself_and_shows_its_cost_to_those_who_see_costs()
    {
        var quill = await House.AsAsync(Quill);
        var answer = await AskAsync(quill, "buyer=Tressel%20%26%20Vane%20Rigging&item=BB2-10-NV&quantity=180");
        var sheet = await QuoteAsync(quill, "BB2-10-NV x 180 m");
        Assert.Equal(
            sheet.Sheet.GetProperty("lines")[0].GetProperty("netPrice").GetDecimal(),
            answer.GetProperty("price").GetDecimal()
        );
        Assert.Equal(
            JsonValueKind.Null,
            (await AskAsync(await House.AsAsync(Castellane), "buyer=Tressel%20%26%20Vane%20Rigging&item=BB2-10-NV"))
                .GetProperty("cost")
                .ValueKind
        );
        Assert.NotEqual(0, answer.GetProperty("build").GetArrayLength());
    }

    [Theory]
    [InlineData("buyer=Nobody&item=BB2-10-NV", "buyer_unknown")]
    [InlineData("buyer=Tressel%20%26%20Vane%20Rigging&item=NO-SUCH", "item_unknown")]
    [InlineData("buyer=Tressel%20%26%20Vane%20Rigging&item=BB2-10-NV&unit=furlong", "unit")]
    [InlineData("buyer=Tressel%20%26%20Vane%20Rigging&item=BB2-10-NV&quantity=0", "number")]
    [InlineData("buyer=Tressel%20%26%20Vane%20Rigging&item=BB2-10-NV&quantity=-5", "number")]
    public async Task A_question_that_names_nothing_says_what(string question, string code) =>
        Assert.Equal(
            code,
            await (await (await House.AsAsync(Quill)).GetAsync($"/api/prices/question?{question}", Cancel)).CodeAsync()
        );

    [Theory]
    [InlineData("hardware", 0, "2027-01-01", 2, "number")]
    [InlineData("hardware", -100, "2027-01-01", 2, "number")]
    [InlineData("hardware", 1001, "2027-01-01", 2, "number")]
    [InlineData("hardware", 4, "2027-01-01", 3, "number")]
    [InlineData("hardware", 4, "2026-11-26", 2, "date")]
    [InlineData("hardware", 4, "2040-01-01", 2, "date")]
    [InlineData("no-such", 4, "2027-01-01", 2, "nothing_moves")]
    public async Task A_rise_that_cannot_be_moves_nothing(
        string family,
        double percent,
        string from,
        int decimals,
        string code
    )
    {
        var paz = await House.AsAsync(Paz);
        var before = await CountAsync();
        var answer = await paz.PostAsJsonAsync(
            "/api/prices/rise",
            Rise(family, (decimal)percent, from, decimals),
            Cancel
        );
        Assert.Equal(code, await answer.CodeAsync());
        Assert.Equal(before, await CountAsync());
    }

    [Fact]
    public async Task What_was_shown_before_is_what_moves_and_today_stays_as_it_is()
    {
        var paz = await House.AsAsync(Paz);
        var (family, percent) = ("rope", 4m);
        var shown = await (
            await paz.PostAsJsonAsync("/api/prices/rise/preview", Rise(family, percent), Cancel)
        ).JsonAsync();
        var moved = shown.GetProperty("moved").EnumerateArray().ToList();
        Assert.NotEmpty(moved);
        Assert.All(
            moved,
            m =>
                Assert.Equal(
                    Math.Round(m.GetProperty("before").GetDecimal() * 1.04m, 2, MidpointRounding.AwayFromZero),
                    m.GetProperty("after").GetDecimal()
                )
        );
        var braid = "buyer=Tressel%20%26%20Vane%20Rigging&item=BB2-10-NV&quantity=10";
        var today = (await AskAsync(paz, braid)).GetProperty("price").GetDecimal();
        var before = await CountAsync();
        var done = await paz.PostAsJsonAsync("/api/prices/rise", Rise(family, percent), Cancel);
        Assert.Equal(HttpStatusCode.OK, done.StatusCode);
        Assert.Equal(before + moved.Count, await CountAsync());
        Assert.Equal(today, (await AskAsync(paz, braid)).GetProperty("price").GetDecimal());
        Assert.True((await AskAsync(paz, braid + "&day=2027-01-01")).GetProperty("price").GetDecimal() > today);
        // Again from the same day, it would be on top of itself.
        var again = await paz.PostAsJsonAsync("/api/prices/rise/preview", Rise(family, percent), Cancel);
        Assert.True(again.IsSuccessStatusCode);
    }

    [Fact]
    public async Task Who_keeps_no_records_raises_no_price()
    {
        var castellane = await House.AsAsync(Castellane);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await castellane.PostAsJsonAsync("/api/prices/rise", Rise(), Cancel)).StatusCode
        );
    }

    private Task<int> CountAsync() => House.DbAsync(db => db.ListPrices.CountAsync(Cancel));
}
