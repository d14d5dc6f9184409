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

/// <summary>No way around what money is: what a buyer states, what is bounded, what is counted.</summary>
public sealed class MoneyTests(House house) : MoneyCalls(house)
{
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
        var nell = await House.AsAsync(Havergal);
        var (_, sheet) = await OrderOfAsync(nell, text, "hostile.x12");
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
        var quill = await House.AsAsync(Quill);
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
        var quill = await House.AsAsync(Quill);
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
    public async Task Another_message_under_the_same_number_is_a_request_and_so_is_the_same_file_next_week()
    {
        static string Edi(int quantity) =>
            $"ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000978*0*P*>~GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*978*X*004010~ST*850*0001~BEG*00*SA*NG-99002**20260305~CUR*BY*USD~PO1*1*{quantity}*EA*9.75*PE*VP*SET-MOOR-10~CTT*1*{quantity}~SE*6*0001~GE*1*978~IEA*1*000000978~";
        var first = (await ReceiveAsync(Edi(10), "a.x12")).GetProperty("number").GetString();
        Assert.Equal(first, (await ReceiveAsync(Edi(10), "b.x12")).GetProperty("number").GetString());
        var other = (await ReceiveAsync(Edi(20), "c.x12")).GetProperty("number").GetString();
        Assert.NotEqual(first, other);
        var nell = await House.AsAsync(Havergal);
        var seen = await (await nell.GetAsync($"/api/requests/{other}", Cancel)).JsonAsync();
        Assert.Contains(first!, seen.GetRawText(), StringComparison.Ordinal);
        const string Weekly = "item;quantity\nSHK-BOW-10;20\n";
        var one = (await ReceiveAsync(Weekly, "weekly.csv")).GetProperty("number").GetString();
        Assert.NotEqual(one, (await ReceiveAsync(Weekly, "weekly.csv")).GetProperty("number").GetString());
    }

    [Fact]
    public async Task A_confirmed_order_counts_once_in_what_its_buyer_owes()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        async Task<decimal> ExposureAsync() =>
            (await (await stroud.GetAsync($"/api/buyers/{Tressel}/answers", Cancel)).JsonAsync())
                .GetProperty("credit")
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
        var quill = await House.AsAsync(Quill);
        var number = await AcceptedAsync(quill, "SHK-BOW-10 x 4");
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
        var paz = await House.AsAsync(Paz);
        var filter = Uri.EscapeDataString("creditLimit>100");
        var buyers = await (await paz.GetAsync($"/api/lists/buyers?filter={filter}&take=500", Cancel)).JsonAsync();
        Assert.NotEmpty(buyers.GetProperty("rows").EnumerateArray());
        var answers = await (await paz.GetAsync($"/api/buyers/{Tressel}/answers", Cancel)).JsonAsync();
        Assert.Equal("EUR", answers.GetProperty("currency").GetString());
        Assert.Equal(JsonValueKind.String, answers.GetProperty("atRates").ValueKind);
        Assert.True(answers.GetProperty("thisYear").GetDecimal() > 0m);
    }
}
