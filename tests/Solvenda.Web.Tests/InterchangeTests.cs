using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Several interchanges in one file: a request for each, and an answer to each.</summary>
public sealed class InterchangeTests(House house) : MoneyCalls(house)
{
    private static string Order(string number, char element, char end, string po) =>
        $"ISA~00~          ~00~          ~ZZ~NORTHGANNET    ~ZZ~BRINEMOOR      ~260305~0914~U~00401~{number}~0~P~>|GS~PO~NORTHGANNET~BRINEMOOR~20260305~0914~1~X~004010|ST~850~0001|BEG~00~SA~{po}~~20260305|PO1~1~12~EA~~~VP~SHK-BOW-10|CTT~1|SE~5~0001|GE~1~1|IEA~1~{number}|"
            .Replace('~', '\u0001')
            .Replace('|', end)
            .Replace('\u0001', element);

    [Fact]
    public async Task Each_becomes_a_request_and_gets_its_own_997()
    {
        var taken = await ReceiveAsync(
            Order("000000871", '*', '~', "NG-81") + "\r\n" + Order("000000872", '|', '!', "NG-82"),
            "two.x12"
        );
        var number = taken.GetProperty("number").GetString()!;
        var numbers = await House.DbAsync(db =>
            db.Requests.Where(r => r.PoKey == "NG81" || r.PoKey == "NG82").Select(r => r.Number).ToListAsync(Cancel)
        );
        Assert.Equal(2, numbers.Count);
        Assert.Contains(number, numbers);
        var sent = await House.DbAsync(db =>
            db.Outbox.Where(o => o.Name.Contains(number)).OrderBy(o => o.Id).ToListAsync(Cancel)
        );
        Assert.Equal([$"997-{number}.x12", $"997-{number}-2.x12"], sent.Select(o => o.Name));
        // Each names the one that it answers (AK1 and AK2), by its own group.
        Assert.All(
            sent,
            o =>
                Assert.Contains(
                    "AK9*A*1*1*1",
                    System.Text.Encoding.Latin1.GetString(o.Payload),
                    StringComparison.Ordinal
                )
        );
    }

    [Fact]
    public async Task The_answer_to_an_order_is_for_that_one_of_the_file()
    {
        var havergal = await House.AsAsync(Havergal);
        await ReceiveAsync(Order("000000873", '*', '~', "NG-83") + Order("000000874", '*', '~', "NG-84"), "pair.x12");
        var request = await House.DbAsync(db =>
            db.Requests.Where(r => r.PoKey == "NG84").Select(r => new { r.Number, r.Version }).SingleAsync(Cancel)
        );
        var made = await havergal.PostAsJsonAsync(
            $"/api/requests/{request.Number}/turn",
            new { version = request.Version, intoOrder = true },
            Cancel
        );
        made.EnsureSuccessStatusCode();
        var order = await SeenAsync(
            havergal,
            $"/api/orders/{(await made.JsonAsync()).GetProperty("number").GetString()}"
        );
        Assert.Equal("NG-84", order.Term("poNumber"));
        Assert.Equal(12m, order.GetProperty("lines")[0].GetProperty("quantity").GetDecimal());
    }
}
