using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// What a person does to a request: done, refused, on an older state, by the wrong role, and when it is over.
/// </summary>
public sealed class RequestActTests(House house) : ReadingCalls(house)
{
    private static int _count;

    private async Task<JsonElement> NewAsync(
        string body = "please send 20 pcs SHK-BOW-10 and 3 boxes of bow shackles 10 mm\n\n60 m PS3-16-BK",
        string from = "bosun@oystercatcher.example"
    )
    {
        var id = $"act-{Interlocked.Increment(ref _count)}";
        var taken = await ReceiveAsync(Mail(body, id, from), $"{id}.eml");
        return await OpenAsync(await House.AsAsync(Havergal), taken);
    }

    // Every act on a request, with something that it would take.
    private static IEnumerable<(string What, Func<long, object> Body)> Acts() =>
        [
            (
                "settle",
                v => new
                {
                    version = v,
                    line = 1,
                    itemCode = "SHK-BOW-10",
                    quantity = 5m,
                    unit = "C62",
                    remember = false,
                }
            ),
            (
                "correct",
                v => new
                {
                    version = v,
                    field = "poNumber",
                    value = "A-1",
                }
            ),
            (
                "split",
                v => new
                {
                    version = v,
                    line = 1,
                    first = 5m,
                }
            ),
            ("join", v => new { version = v, line = 1 }),
            (
                "choose",
                v => new
                {
                    version = v,
                    line = 0,
                    part = 0,
                    start = 0,
                    length = 20,
                }
            ),
            ("set-aside", v => new { version = v, reason = "none of ours" }),
            ("turn", v => new { version = v, intoOrder = true }),
        ];

    private static Task<HttpResponseMessage> PostAsync(HttpClient client, string number, string what, object body) =>
        client.PostAsJsonAsync($"/api/requests/{number}/{what}", body, Cancel);

    private static string Number(JsonElement request) => request.GetProperty("number").GetString()!;

    [Fact]
    public async Task Who_only_looks_does_none_of_it_and_a_stranger_is_told_nothing()
    {
        var request = await NewAsync();
        var planner = await House.AsAsync(Castellane);
        var stranger = House.CreateClient();
        foreach (var (what, body) in Acts())
        {
            Assert.Equal(
                (what, HttpStatusCode.Forbidden),
                (what, (await PostAsync(planner, Number(request), what, body(Version(request)))).StatusCode)
            );
            Assert.Equal(
                (what, HttpStatusCode.Unauthorized),
                (what, (await PostAsync(stranger, Number(request), what, body(Version(request)))).StatusCode)
            );
        }
        var havergal = await House.AsAsync(Havergal);
        Assert.Equal(Version(request), Version(await OpenAsync(havergal, request)));
    }

    [Fact]
    public async Task Nothing_is_saved_over_what_somebody_else_did_meanwhile()
    {
        var havergal = await House.AsAsync(Havergal);
        var request = await NewAsync();
        var old = Version(request);
        var now = await DoAsync(
            havergal,
            request,
            "correct",
            new
            {
                version = old,
                field = "poNumber",
                value = "FIRST",
            }
        );
        foreach (var (what, body) in Acts())
        {
            var answer = await PostAsync(havergal, Number(request), what, body(old));
            Assert.Equal((what, "stale"), (what, await answer.CodeAsync()));
        }
        var after = await OpenAsync(havergal, request);
        Assert.Equal(Version(now), Version(after));
        Assert.Equal("FIRST", after.GetProperty("reading").GetProperty("poNumber").GetProperty("value").GetString());
    }

    [Theory]
    [InlineData("settle", "itemCode", "NO-SUCH", "item_unknown")]
    [InlineData("settle", "unit", "furlong", "unit")]
    [InlineData("settle", "quantity", "-1", "number")]
    [InlineData("settle", "line", "99", "not_found")]
    [InlineData("correct", "field", "colour", "field_unknown")]
    [InlineData("split", "first", "0", "number")]
    [InlineData("split", "first", "20000", "number")]
    [InlineData("join", "line", "99", "not_found")]
    [InlineData("choose", "length", "0", "text_chosen")]
    [InlineData("choose", "part", "9", "text_chosen")]
    [InlineData("set-aside", "reason", " ", "reason_missing")]
    public async Task What_cannot_be_is_refused_by_its_code_and_the_reading_stays(
        string what,
        string field,
        string value,
        string code
    )
    {
        var havergal = await House.AsAsync(Havergal);
        var request = await NewAsync();
        var good = JsonSerializer.SerializeToNode(Acts().Single(a => a.What == what).Body(Version(request)))!;
        good[field] = decimal.TryParse(value, NumberStyles.Any, CultureInfo.InvariantCulture, out var number)
            ? number
            : value;
        var answer = await PostAsync(havergal, Number(request), what, good);
        Assert.Equal(code, await answer.CodeAsync());
        Assert.Equal(Version(request), Version(await OpenAsync(havergal, request)));
    }

    [Theory]
    [InlineData("kind", "order", "order")]
    [InlineData("contact", "Fionn", "Fionn")]
    [InlineData("wanted", "2026-12-24", "2026-12-24")]
    [InlineData("wanted", "24 December 2026", "2026-12-24")]
    [InlineData("incoterm", "dap", "DAP")]
    [InlineData("currency", "sek", "SEK")]
    [InlineData("paymentDays", "45", "45")]
    public async Task A_field_of_the_head_is_corrected_as_it_is_typed(string field, string value, string said)
    {
        var havergal = await House.AsAsync(Havergal);
        var request = await NewAsync();
        var after = await DoAsync(
            havergal,
            request,
            "correct",
            new
            {
                version = Version(request),
                field,
                value,
            }
        );
        var reading = after.GetProperty("reading").GetProperty(field);
        Assert.Equal(
            said,
            (reading.ValueKind == JsonValueKind.Object ? reading.GetProperty("value") : reading).ToString()
        );
    }

    [Theory]
    [InlineData("kind", "poem", "kind_unknown")]
    [InlineData("buyer", "99999", "buyer_unknown")]
    [InlineData("wanted", "soonish", "date")]
    [InlineData("incoterm", "XYZ", "incoterm")]
    [InlineData("currency", "XXQ", "currency_unknown")]
    [InlineData("paymentDays", "some", "number")]
    public async Task A_field_of_the_head_that_cannot_be_keeps_the_old_one(string field, string value, string code)
    {
        var havergal = await House.AsAsync(Havergal);
        var request = await NewAsync();
        var answer = await PostAsync(
            havergal,
            Number(request),
            "correct",
            new
            {
                version = Version(request),
                field,
                value,
            }
        );
        Assert.Equal(code, await answer.CodeAsync());
        Assert.Contains(
            field is "kind" or "buyer" ? "" : "kept",
            (await answer.JsonAsync()).GetProperty("title").GetString(),
            StringComparison.Ordinal
        );
        Assert.Equal(Version(request), Version(await OpenAsync(havergal, request)));
    }

    [Fact]
    public async Task A_line_is_settled_split_joined_and_left_out_one_after_the_other()
    {
        var havergal = await House.AsAsync(Havergal);
        var request = await NewAsync();
        Assert.Equal(3, Lines(request).Count());
        request = await DoAsync(
            havergal,
            request,
            "settle",
            new
            {
                version = Version(request),
                line = 1,
                itemCode = "SHK-BOW-12",
                quantity = 24m,
                unit = "C62",
                remember = false,
            }
        );
        Assert.Equal(("SHK-BOW-12", 24m), (Lines(request).First().Item, Lines(request).First().Quantity));
        request = await DoAsync(
            havergal,
            request,
            "split",
            new
            {
                version = Version(request),
                line = 1,
                first = 10m,
            }
        );
        Assert.Equal([10m, 14m], Lines(request).Take(2).Select(l => l.Quantity!.Value));
        request = await DoAsync(havergal, request, "join", new { version = Version(request), line = 1 });
        Assert.Equal(24m, Lines(request).First().Quantity);
        var left = await havergal.PostAsync(
            $"/api/requests/{Number(request)}/leave-out/2?version={Version(request)}",
            null,
            Cancel
        );
        Assert.Equal(2, Lines(await left.JsonAsync()).Count());
    }

    [Fact]
    public async Task What_is_set_aside_or_turned_is_over_and_says_so()
    {
        var havergal = await House.AsAsync(Havergal);
        var aside = await NewAsync();
        var done = await DoAsync(havergal, aside, "set-aside", new { version = Version(aside), reason = "a test" });
        Assert.Equal("setAside", done.GetProperty("state").GetString());
        var turned = await NewAsync();
        turned = await CorrectAsync(havergal, turned, "buyer", "1");
        var made = await PostAsync(
            havergal,
            Number(turned),
            "turn",
            new { version = Version(turned), intoOrder = false }
        );
        Assert.Equal("quote", (await made.JsonAsync()).GetProperty("kind").GetString());
        foreach (var request in new[] { aside, turned })
        {
            var now = await OpenAsync(havergal, request);
            foreach (var (what, body) in Acts())
            {
                var answer = await PostAsync(havergal, Number(request), what, body(Version(now)));
                Assert.Equal((what, "request_done"), (what, await answer.CodeAsync()));
            }
        }
    }

    [Fact]
    public async Task A_request_without_a_buyer_or_that_is_no_order_is_not_turned()
    {
        var havergal = await House.AsAsync(Havergal);
        var nobody = await NewAsync("please send 20 pcs SHK-BOW-10", "somebody@nowhere-known.example");
        Assert.Equal(
            "buyer_unknown",
            await (
                await PostAsync(havergal, Number(nobody), "turn", new { version = Version(nobody), intoOrder = true })
            ).CodeAsync()
        );
        var other = await CorrectAsync(havergal, nobody, "kind", "notForUs");
        Assert.Equal(
            "not_to_turn",
            await (
                await PostAsync(havergal, Number(nobody), "turn", new { version = Version(other), intoOrder = true })
            ).CodeAsync()
        );
    }

    [Fact]
    public async Task What_is_left_over_is_taken_up_or_said_to_mean_nothing_before_anything_is_made_of_it()
    {
        var havergal = await House.AsAsync(Havergal);
        var request = await NewAsync(
            "please send 20 pcs SHK-BOW-10 for our PO 4711-9.\nThe 12 swivels go to the south site. Not the 77 we spoke of."
        );
        Assert.Equal("needsYou", request.GetProperty("state").GetString());
        JsonElement[] Left() => [.. request.GetProperty("reading").GetProperty("leftOvers").EnumerateArray()];
        Assert.Equal(2, Left().Length);
        var turned = await PostAsync(
            havergal,
            Number(request),
            "turn",
            new { version = Version(request), intoOrder = true }
        );
        Assert.Equal("left_over", await turned.CodeAsync());

        var first = Left()[0].GetProperty("where");
        request = await DoAsync(
            havergal,
            request,
            "choose",
            new
            {
                version = Version(request),
                line = 0,
                part = 0,
                start = first.GetProperty("start").GetInt32(),
                length = first.GetProperty("length").GetInt32(),
            }
        );
        Assert.Equal(12m, Lines(request).Last().Quantity);
        Assert.Single(Left());
        var second = Left()[0].GetProperty("where").GetProperty("start").GetInt32();
        object Dismiss(int start) =>
            new
            {
                version = Version(request),
                part = 0,
                start,
            };
        Assert.Equal(
            "not_found",
            await (await PostAsync(havergal, Number(request), "dismiss", Dismiss(second + 1))).CodeAsync()
        );
        request = await DoAsync(havergal, request, "dismiss", Dismiss(second));
        Assert.Empty(Left());
        Assert.DoesNotContain("not all", request.GetProperty("reason").GetString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_kind_that_is_not_sure_is_asked_and_settled_by_saying_it()
    {
        var havergal = await House.AsAsync(Havergal);
        var request = await NewAsync("this is not an order yet: 20 pcs SHK-BOW-10");
        Assert.Contains("is it", request.GetProperty("reason").GetString(), StringComparison.Ordinal);
        request = await CorrectAsync(havergal, request, "kind", "order");
        Assert.DoesNotContain("is it", request.GetProperty("reason").GetString(), StringComparison.Ordinal);
        Assert.Equal(1m, request.GetProperty("reading").GetProperty("kindSure").GetDecimal());
    }
}
