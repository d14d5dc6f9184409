using System.Net.Http.Json;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// What a buyer has by default goes onto a document, and acts there: addresses with their days, shipping rules, a limit
/// shared by the children of a parent, the stock of a bundle's parts.
/// </summary>
public sealed class TermsTests(House house) : IClassFixture<House>
{
    private const long Paz = 2;
    private const long Stroud = 6;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static Task<JsonElement> SetAsync(
        HttpClient client,
        JsonElement sheet,
        string field,
        string value,
        long? line = null
    ) =>
        client.EditAsync(
            sheet,
            new
            {
                kind = "set",
                line,
                field,
                value,
            }
        );

    private static Task<JsonElement> AddAsync(HttpClient client, JsonElement sheet, string value) =>
        client.EditAsync(sheet, new { kind = "add", value });

    private static async Task<(string Number, JsonElement Sheet)> OrderAsync(HttpClient client, long buyer)
    {
        var number = (await (await client.PostAsync($"/api/buyers/{buyer}/orders", null, Cancel)).JsonAsync())
            .GetProperty("number")
            .GetString()!;
        return (
            number,
            (await (await client.GetAsync($"/api/orders/{number}", Cancel)).JsonAsync()).GetProperty("sheet")
        );
    }

    private static DayOfWeek ArrivesOn(JsonElement sheet, int line) =>
        DateOnly
            .Parse(
                sheet.GetProperty("lines")[line].GetProperty("promise").GetString()!,
                System.Globalization.CultureInfo.InvariantCulture
            )
            .DayOfWeek;

    [Fact]
    public async Task An_address_is_named_by_its_code_and_its_days_are_kept()
    {
        var paz = await house.AsAsync(Paz);
        var (_, sheet) = await OrderAsync(paz, 1);
        sheet = await AddAsync(paz, sheet, "SHK-BOW-10 x 4");
        sheet = await SetAsync(paz, sheet, "deliverTo", "loft");
        Assert.Equal(
            ("The Sail Loft, Careening Lane, Skerrow", "IE", "here"),
            (
                sheet.Term("deliverTo"),
                sheet.Term("deliverToCountry"),
                sheet.TermOf("deliverTo").GetProperty("source").GetString()
            )
        );
        Assert.Contains(ArrivesOn(sheet, 0), new[] { DayOfWeek.Monday, DayOfWeek.Wednesday, DayOfWeek.Friday });
        sheet = await SetAsync(paz, sheet, "billTo", "OFFICE");
        Assert.Equal("Vane House, 11 Bell Street, Skerrow", sheet.Term("billTo"));
        // An address that they do not have is not taken, nor one of a warehouse that we do not have.
        Assert.Equal(
            "address_unknown",
            (await SetAsync(paz, sheet, "deliverTo", "1 Nowhere")).GetProperty("code").GetString()
        );
        Assert.Equal(
            "warehouse",
            (await SetAsync(paz, sheet, "shipFrom", "Mars depot")).GetProperty("code").GetString()
        );
    }

    [Fact]
    public async Task All_together_gives_every_line_the_latest_date_and_on_call_none()
    {
        var paz = await house.AsAsync(Paz);
        var (_, sheet) = await OrderAsync(paz, 1);
        sheet = await AddAsync(paz, sheet, "SHK-BOW-10 x 4");
        sheet = await AddAsync(paz, sheet, "SHK-BOW-12 x 90000");
        string? Promise(int line) => sheet.GetProperty("lines")[line].GetProperty("promise").GetString();
        Assert.NotEqual(Promise(0), Promise(1));
        Assert.Equal(
            "shipping_rule",
            (await SetAsync(paz, sheet, "shippingRule", "whenever")).GetProperty("code").GetString()
        );
        sheet = await SetAsync(paz, sheet, "shippingRule", "all together");
        Assert.Equal(Promise(0), Promise(1));
        sheet = await SetAsync(paz, sheet, "shippingRule", "as it comes");
        Assert.Equal(2, sheet.GetProperty("lines")[1].GetProperty("arrivals").GetArrayLength());
        sheet = await SetAsync(paz, sheet, "shippingRule", "on call");
        Assert.Equal((null, null), (Promise(0), Promise(1)));
    }

    [Fact]
    public async Task The_children_of_a_parent_share_its_limit()
    {
        var stroud = await house.AsAsync(Stroud);
        var paz = await house.AsAsync(Paz);
        // 17 is a child of 14, whose limit is 30,000 euros.
        var child = await (await paz.GetAsync("/api/records/buyers/17", Cancel)).JsonAsync();
        using var change = new HttpRequestMessage(HttpMethod.Put, "/api/records/buyers/17")
        {
            Content = JsonContent.Create(new { values = new { parentId = "B-0014", parent = "B-0014" } }),
        };
        change.Headers.TryAddWithoutValidation("If-Match", $"\"{child.GetProperty("version").GetInt64()}\"");
        Assert.Equal(
            "B-0014",
            (await (await paz.SendAsync(change, Cancel)).JsonAsync())
                .GetProperty("values")
                .GetProperty("parent")
                .GetString()
        );
        var before = (await (await stroud.GetAsync("/api/buyers/14/answers", Cancel)).JsonAsync()).GetProperty(
            "credit"
        );
        Assert.Equal("Gull Rock Boatyard", before.GetProperty("sharedWith").GetString());
        var owed = (await (await stroud.GetAsync("/api/buyers/17/answers", Cancel)).JsonAsync()).GetProperty("credit");
        Assert.Equal(
            (30_000m, before.GetProperty("exposure").GetDecimal()),
            (owed.GetProperty("limit").GetDecimal(), owed.GetProperty("exposure").GetDecimal())
        );
        var (_, sheet) = await OrderAsync(paz, 17);
        sheet = await AddAsync(paz, sheet, "SHK-BOW-10 x 9000");
        Assert.Contains(
            sheet.GetProperty("findings").EnumerateArray(),
            f =>
                f.GetProperty("check").GetString() == "credit"
                && f.GetProperty("words")
                    .GetString()!
                    .Contains("shared by all of Gull Rock Boatyard", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task A_bundle_is_promised_from_the_stock_of_its_parts()
    {
        var paz = await house.AsAsync(Paz);
        var (_, sheet) = await OrderAsync(paz, 1);
        sheet = await AddAsync(paz, sheet, "SET-MOOR-10 x 2");
        var line = sheet.GetProperty("lines")[0];
        Assert.NotEmpty(line.GetProperty("parts").EnumerateArray());
        Assert.Equal(JsonValueKind.String, line.GetProperty("promise").ValueKind);
        var free = line.GetProperty("freeNow").GetDecimal();
        Assert.Equal(decimal.Floor(free), free);
        // More sets than the scarcest part makes: later, never from the shelf.
        var many = await SetAsync(
            paz,
            sheet,
            "quantity",
            (free + 1).ToString(System.Globalization.CultureInfo.InvariantCulture),
            line.GetProperty("key").GetInt64()
        );
        var later = many.GetProperty("lines")[0].GetProperty("promise");
        Assert.True(
            later.ValueKind == JsonValueKind.Null
                || string.CompareOrdinal(later.GetString(), line.GetProperty("promise").GetString()) > 0
        );
    }
}
