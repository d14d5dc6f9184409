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

/// <summary>There is no way around the rules about money: each of these was a way once.</summary>
public sealed class MoneyTests(House house) : IClassFixture<House>
{
    private const long Paz = 2;
    private const long Havergal = 3;
    private const long Quill = 4;
    private const long Mohr = 5;
    private const long Stroud = 6;
    private const long Castellane = 8;
    private const long Tressel = 1;

    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    private static async Task<(string Number, JsonElement Sheet)> QuoteAsync(HttpClient client, params string[] lines)
    {
        var made = await client.PostAsJsonAsync("/api/quotes", new { buyerId = Tressel, matter = "a test" }, Cancel);
        var number = (await made.JsonAsync()).GetProperty("number").GetString()!;
        var sheet = await SeenAsync(client, $"/api/quotes/{number}");
        foreach (var line in lines)
            sheet = await client.EditAsync(sheet, new { kind = "add", value = line });
        return (number, sheet);
    }

    private static async Task<(string Number, JsonElement Sheet)> OrderAsync(HttpClient client, params string[] lines)
    {
        var made = await client.PostAsync($"/api/buyers/{Tressel}/orders", null, Cancel);
        var number = (await made.JsonAsync()).GetProperty("number").GetString()!;
        var sheet = await SeenAsync(client, $"/api/orders/{number}");
        foreach (var line in lines)
            sheet = await client.EditAsync(sheet, new { kind = "add", value = line });
        return (number, sheet);
    }

    private static async Task<JsonElement> SeenAsync(HttpClient client, string path) =>
        (await (await client.GetAsync(path, Cancel)).JsonAsync()).Sheet();

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

    private static string State(JsonElement sheet) => sheet.GetProperty("approval").GetProperty("state").GetString()!;

    private static decimal Total(JsonElement sheet) =>
        sheet.GetProperty("tally").GetProperty("totalWithoutTax").GetDecimal();

    private static IEnumerable<string> Stops(JsonElement sheet) =>
        sheet
            .GetProperty("findings")
            .EnumerateArray()
            .Where(f => f.GetProperty("outcome").GetString() == "stop")
            .Select(f => f.GetProperty("check").GetString() + "/" + f.GetProperty("field").GetString());

    private static async Task<HttpResponseMessage> ChangeAsync(HttpClient client, string path, object values)
    {
        var record = await (await client.GetAsync(path, Cancel)).JsonAsync();
        using var request = new HttpRequestMessage(HttpMethod.Put, path)
        {
            Content = JsonContent.Create(new { values }),
        };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{record.GetProperty("version").GetInt64()}\"");
        return await client.SendAsync(request, Cancel);
    }

    private async Task<JsonElement> ReceiveAsync(string text, string name) =>
        await (
            await house
                .Machine()
                .PostAsync(
                    $"/api/v1/inbound?filename={name}",
                    new ByteArrayContent(Encoding.UTF8.GetBytes(text)),
                    Cancel
                )
        ).JsonAsync();

    [Fact]
    public async Task What_a_buyers_edi_states_beside_its_lines_changes_nothing_of_ours()
    {
        var text = string.Join(
            '\n',
            "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000977*0*P*>~",
            "GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*977*X*004010~",
            "ST*850*0001~",
            "BEG*00*SA*NG-99001**20260305~",
            "CUR*BY*USD~",
            "FOB*PP**DDP Gannet~",
            "ITD*01*3*****365~",
            "SAC*A*C310***500000~",
            "N1*BT*Northgannet Marine Depot*92*NG-HQ~",
            "PO1*1*10*EA*405.00*PE*VP*SET-MOOR-10~",
            "CTT*1*10~",
            "SE*10*0001~",
            "GE*1*977~",
            "IEA*1*000000977~"
        );
        var nell = await house.AsAsync(Havergal);
        var number = (await ReceiveAsync(text, "hostile.x12")).GetProperty("number").GetString();
        var request = await (await nell.GetAsync($"/api/requests/{number}", Cancel)).JsonAsync();
        var turned = await nell.PostAsJsonAsync(
            $"/api/requests/{number}/turn",
            new { version = request.GetProperty("version").GetInt64(), intoOrder = true },
            Cancel
        );
        var order = (await turned.JsonAsync()).GetProperty("number").GetString();
        var sheet = await SeenAsync(nell, $"/api/orders/{order}");
        Assert.True(Total(sheet) > 4_000m, $"the total is {Total(sheet)}");
        Assert.NotEqual("365", sheet.Term("paymentDays"));
        Assert.NotEqual("DDP", sheet.Term("incoterm"));
        Assert.Equal(
            ["po-terms/incoterm", "po-terms/paymentDays", "po-terms/sheetDiscount"],
            Stops(sheet)
                .Where(s => s.StartsWith("po-terms", StringComparison.Ordinal))
                .Intersect(["po-terms/incoterm", "po-terms/paymentDays", "po-terms/sheetDiscount"])
                .Order()
        );
        // Taking theirs is typing, by whoever takes it, and judged so.
        var taken = await SetAsync(nell, sheet, "paymentDays", "365");
        Assert.Equal("needed", State(taken));
        Assert.Equal("incoterm", (await SetAsync(nell, taken, "incoterm", "DDP")).GetProperty("code").GetString());
    }

    [Fact]
    public async Task Freight_and_days_by_hand_are_bounded_and_judged()
    {
        var quill = await house.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "CHN-SL-10 x 500");
        Assert.Equal("number", (await SetAsync(quill, sheet, "freight", "-5000")).GetProperty("code").GetString());
        Assert.Equal("number", (await SetAsync(quill, sheet, "paymentDays", "366")).GetProperty("code").GetString());
        Assert.Equal(
            "date",
            (await SetAsync(quill, sheet, "validUntil", "2031-01-01")).GetProperty("code").GetString()
        );
        Assert.Equal("notNeeded", State(sheet));
        Assert.Equal("needed", State(await SetAsync(quill, sheet, "freight", "0")));
        var (_, another) = await QuoteAsync(quill, "CHN-SL-10 x 5");
        Assert.Equal("needed", State(await SetAsync(quill, another, "paymentDays", "120")));
    }

    [Fact]
    public async Task Enums_are_words_and_nothing_is_put_back_past_the_bounds()
    {
        var quill = await house.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 10");
        foreach (var kind in new object[] { 0, "0", "restore" })
            Assert.Equal(
                HttpStatusCode.BadRequest,
                (
                    await quill.ActAsync(
                        $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits",
                        sheet,
                        new[] { new { kind, value = "x" } }
                    )
                ).StatusCode
            );
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        foreach (var (field, value) in new[] { ("quantity", "-5"), ("discount", "500"), ("net", "460000") })
            Assert.Equal("number", (await SetAsync(quill, sheet, field, value, key)).GetProperty("code").GetString());
    }

    [Fact]
    public async Task Fields_that_carry_money_or_authority_are_not_a_clerks()
    {
        var (quill, mohr, paz) = (await house.AsAsync(Quill), await house.AsAsync(Mohr), await house.AsAsync(Paz));
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
        var (quill, paz) = (await house.AsAsync(Quill), await house.AsAsync(Paz));
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
        Assert.Single(await ToldAsync(await house.AsAsync(Mohr)));
        await ChangeAsync(paz, Theirs, new { accountManager = "Sorcha Quill" });
    }

    [Fact]
    public async Task Whoever_typed_asked_for_or_owns_a_figure_does_not_decide_on_it()
    {
        // Havergal is a clerk and a lead at once; the figures are hers, so they are not hers to decide.
        var (nell, paz) = (await house.AsAsync(Havergal), await house.AsAsync(Paz));
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
        var (quill, paz) = (await house.AsAsync(Quill), await house.AsAsync(Paz));
        var (number, sheet) = await OrderAsync(quill, "BB2-10-NV x 20 m -10%");
        async Task<string?> ListedAsync() =>
            (await (await quill.GetAsync("/api/orders?open=true", Cancel)).JsonAsync())
                .EnumerateArray()
                .First(o => o.GetProperty("number").GetString() == number)
                .GetProperty("terms")
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
        var (quill, nell) = (await house.AsAsync(Quill), await house.AsAsync(Havergal));
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
    public async Task Another_message_under_the_same_number_is_a_request_and_so_is_the_same_file_next_week()
    {
        static string Edi(int quantity) =>
            $"ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000978*0*P*>~GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*978*X*004010~ST*850*0001~BEG*00*SA*NG-99002**20260305~CUR*BY*USD~PO1*1*{quantity}*EA*9.75*PE*VP*SET-MOOR-10~CTT*1*{quantity}~SE*6*0001~GE*1*978~IEA*1*000000978~";
        var first = (await ReceiveAsync(Edi(10), "a.x12")).GetProperty("number").GetString();
        Assert.Equal(first, (await ReceiveAsync(Edi(10), "b.x12")).GetProperty("number").GetString());
        var other = (await ReceiveAsync(Edi(20), "c.x12")).GetProperty("number").GetString();
        Assert.NotEqual(first, other);
        var nell = await house.AsAsync(Havergal);
        var seen = await (await nell.GetAsync($"/api/requests/{other}", Cancel)).JsonAsync();
        Assert.Contains(first!, seen.GetRawText(), StringComparison.Ordinal);
        const string Weekly = "item;quantity\nSHK-BOW-10;20\n";
        var one = (await ReceiveAsync(Weekly, "weekly.csv")).GetProperty("number").GetString();
        Assert.NotEqual(one, (await ReceiveAsync(Weekly, "weekly.csv")).GetProperty("number").GetString());
    }

    [Fact]
    public async Task Cost_floor_and_margin_are_seen_by_role()
    {
        var (quill, planner) = (await house.AsAsync(Quill), await house.AsAsync(Castellane));
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
            await using var db = await house
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
            var client = house.CreateClient();
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

    [Fact]
    public async Task A_confirmed_order_counts_once_in_what_its_buyer_owes()
    {
        var (quill, stroud) = (await house.AsAsync(Quill), await house.AsAsync(Stroud));
        async Task<decimal> ExposureAsync() =>
            (await (await stroud.GetAsync($"/api/buyers/{Tressel}/answers", Cancel)).JsonAsync())
                .GetProperty("owed")
                .GetProperty("exposure")
                .GetDecimal();
        var before = await ExposureAsync();
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 2");
        sheet = await SetAsync(quill, sheet, "poNumber", "TV-" + number);
        Assert.Empty(Stops(sheet));
        var confirmed = await quill.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.Equal(HttpStatusCode.OK, confirmed.StatusCode);
        var with = (await confirmed.JsonAsync()).Sheet().GetProperty("tally").GetProperty("totalWithTax").GetDecimal();
        Assert.Equal(before + with, await ExposureAsync());
        Assert.DoesNotContain("credit/", Stops(await SeenAsync(quill, $"/api/orders/{number}")));
    }

    [Fact]
    public async Task An_order_that_differs_from_what_was_accepted_has_to_be_meant()
    {
        var quill = await house.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 4");
        var subject = "accepted " + number;
        var letter = new
        {
            to = "office@tresselvane.example",
            subject,
            text = "{link}",
        };
        Assert.Equal(HttpStatusCode.OK, (await quill.ActAsync($"/api/quotes/{number}/send", sheet, letter)).StatusCode);
        var mail = await Answers.EventuallyAsync(() =>
            Directory
                .GetFiles(Path.Combine(house.DataFolder, "outside", "post"), "*.eml")
                .Select(File.ReadAllText)
                .FirstOrDefault(t => t.Contains(subject, StringComparison.Ordinal))
        );
        var link = mail.Split("/offer/")[1].Split('\r', '\n', ' ', '=')[0];
        var accept = await house
            .CreateClient()
            .PostAsJsonAsync($"/api/offers/{link}/accept", new { name = "F", poNumber = "TV-" + number }, Cancel);
        Assert.Equal(HttpStatusCode.OK, accept.StatusCode);
        var made = await (await quill.PostAsync($"/api/quotes/{number}/order", null, Cancel)).JsonAsync();
        var path = $"/api/orders/{made.GetProperty("number").GetString()}";
        var order = await SeenAsync(quill, path);
        Assert.Empty(Stops(order));
        var key = order.GetProperty("lines")[0].GetProperty("key").GetInt64();
        var dearer = await SetAsync(quill, order, "net", "4.60", key);
        Assert.Equal(["as-accepted/"], Stops(dearer));
        Assert.Equal("stopped", await (await quill.ActAsync($"{path}/confirm", dearer)).CodeAsync());
        var waive = new
        {
            check = "as-accepted",
            line = (long?)null,
            reason = "they know",
        };
        Assert.Equal(HttpStatusCode.OK, (await quill.PostAsJsonAsync($"{path}/waive", waive, Cancel)).StatusCode);
        var meant = await SeenAsync(quill, path);
        Assert.Equal(HttpStatusCode.OK, (await quill.ActAsync($"{path}/confirm", meant)).StatusCode);
    }

    [Fact]
    public async Task Nobody_adds_up_two_currencies()
    {
        var paz = await house.AsAsync(Paz);
        var filter = Uri.EscapeDataString("creditLimit>100");
        var buyers = await (await paz.GetAsync($"/api/records/buyers?filter={filter}&take=500", Cancel)).JsonAsync();
        Assert.NotEmpty(buyers.GetProperty("rows").EnumerateArray());
        var answers = await (await paz.GetAsync($"/api/buyers/{Tressel}/answers", Cancel)).JsonAsync();
        Assert.Equal("EUR", answers.GetProperty("currency").GetString());
        Assert.Equal(JsonValueKind.String, answers.GetProperty("atRates").ValueKind);
        Assert.True(answers.GetProperty("thisYear").GetDecimal() > 0m);
    }
}
