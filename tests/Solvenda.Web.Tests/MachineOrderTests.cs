using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Orders by the machines' door.</summary>
public sealed class MachineOrderTests(House house) : MoneyCalls(house)
{
    private const string Depot = "Northgannet Marine Depot";

    private static object Body(string po, string item = "SHK-BOW-10", decimal quantity = 2m, string buyer = "B-0001") =>
        new
        {
            buyer,
            poNumber = po,
            wanted = "2027-01-12",
            lines = new[]
            {
                new
                {
                    item,
                    quantity,
                    unit = "C62",
                },
            },
        };

    private static async Task<HttpResponseMessage> TakeAsync(HttpClient machine, object body, string? key = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/v1/orders")
        {
            Content = JsonContent.Create(body),
        };
        if (key is not null)
            request.Headers.Add("Idempotency-Key", key);
        return await machine.SendAsync(request, Cancel);
    }

    private static string Number(JsonElement order) => order.GetProperty("number").GetString()!;

    private static string[] Stopped(JsonElement order) =>
        [
            .. order
                .GetProperty("findings")
                .EnumerateArray()
                .Where(f => f.GetProperty("outcome").GetString() == "stop")
                .Select(f => f.GetProperty("check").GetString()!),
        ];

    [Fact]
    public async Task An_order_is_taken_looked_at_confirmed_and_cancelled()
    {
        var machine = House.Machine();
        var taken = await TakeAsync(
            machine,
            new
            {
                buyer = "B-0001",
                poNumber = "TV-9",
                wanted = "2027-01-12",
                paymentDays = 30,
                orderedBy = "Fionn",
                lines = new[]
                {
                    new
                    {
                        item = "BB2-10-NV",
                        quantity = 20m,
                        unit = "MTR",
                        price = (decimal?)2.42m,
                    },
                },
            }
        );
        Assert.Equal(HttpStatusCode.Created, taken.StatusCode);
        var order = await taken.JsonAsync();
        Assert.Equal($"/api/v1/orders/{Number(order)}", taken.Headers.Location!.OriginalString);
        Assert.Equal(
            ("open", "waiting", "notDue", "EUR"),
            (
                order.GetProperty("terms").GetString(),
                order.GetProperty("goods").GetString(),
                order.GetProperty("money").GetString(),
                order.GetProperty("currency").GetString()
            )
        );
        var line = order.GetProperty("lines")[0];
        Assert.Equal(
            ("BB2-10-NV", 20m, "MTR"),
            (
                line.GetProperty("item").GetString(),
                line.GetProperty("quantity").GetDecimal(),
                line.GetProperty("unit").GetString()
            )
        );
        Assert.Equal(JsonValueKind.String, line.GetProperty("promised").ValueKind);
        var person = await House.AsAsync(Quill);
        Assert.Equal("Fionn", (await SeenAsync(person, $"/api/orders/{Number(order)}")).Term("orderedBy"));
        var done = await machine.PostAsync($"/api/v1/orders/{Number(order)}/confirm", null, Cancel);
        Assert.Equal("confirmed", (await done.JsonAsync()).GetProperty("terms").GetString());
        var seen = await (await machine.GetAsync($"/api/v1/orders/{Number(order)}", Cancel)).JsonAsync();
        Assert.Equal(
            line.GetProperty("promised").GetString(),
            seen.GetProperty("lines")[0].GetProperty("promised").GetString()
        );
        var path = $"/api/v1/orders/{Number(order)}/cancel";
        Assert.Equal(
            "reason_missing",
            await (await machine.PostAsJsonAsync(path, new { reason = "" }, Cancel)).CodeAsync()
        );
        var gone = await machine.PostAsJsonAsync(path, new { reason = "sold out at theirs" }, Cancel);
        Assert.Equal("cancelled", (await gone.JsonAsync()).GetProperty("terms").GetString());
        Assert.Equal(
            "order_state",
            await (await machine.PostAsJsonAsync(path, new { reason = "again" }, Cancel)).CodeAsync()
        );
    }

    [Fact]
    public async Task The_same_key_is_the_same_order_and_another_body_under_it_is_refused()
    {
        var machine = House.Machine();
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => TakeAsync(machine, Body("KEY-1"), "key-1"))
        );
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.Created);
        Assert.Equal(5, answers.Count(a => a.StatusCode == HttpStatusCode.OK));
        var numbers = new List<string>();
        foreach (var answer in answers)
            numbers.Add(Number(await answer.JsonAsync()));
        Assert.Single(numbers.Distinct());
        await machine.PostAsJsonAsync($"/api/v1/orders/{numbers[0]}/cancel", new { reason = "x" }, Cancel);
        // As it is now, not as it was answered then.
        var now = await (await TakeAsync(machine, Body("KEY-1"), "key-1")).JsonAsync();
        Assert.Equal("cancelled", now.GetProperty("terms").GetString());
        var other = await TakeAsync(machine, Body("KEY-2"), "key-1");
        Assert.Equal((HttpStatusCode.UnprocessableEntity, "key_used"), (other.StatusCode, await other.CodeAsync()));
        Assert.Equal("too_long", await (await TakeAsync(machine, Body("KEY-3"), new string('k', 201))).CodeAsync());
        // After a month it is forgotten.
        await House.DbAsync(db =>
            db.Repeats.Where(r => r.Key == "key-1")
                .ExecuteUpdateAsync(s => s.SetProperty(r => r.At, r => r.At.AddDays(-31)), Cancel)
        );
        Assert.Equal(HttpStatusCode.Created, (await TakeAsync(machine, Body("KEY-2"), "key-1")).StatusCode);
    }

    [Theory]
    [InlineData("""{"buyer":"B-9999","lines":[{"item":"SHK-BOW-10","quantity":1}]}""", "buyer_unknown", "buyer")]
    [InlineData("""{"buyer":"B-0001","lines":[]}""", "too_many_lines", "lines")]
    [InlineData("""{"buyer":"B-0001","lines":[{"item":"NO-SUCH","quantity":1}]}""", "item_unknown", "lines[0].item")]
    [InlineData("""{"buyer":"B-0001","lines":[{"item":"SHK-BOW-10","quantity":0}]}""", "number", "lines[0].quantity")]
    [InlineData("""{"buyer":"B-0001","lines":[{"item":"SHK-BOW-10","quantity":-2}]}""", "number", "lines[0].quantity")]
    [InlineData(
        """{"buyer":"B-0001","lines":[{"item":"SHK-BOW-10","quantity":1,"unit":"LTR"}]}""",
        "unit",
        "lines[0].unit"
    )]
    [InlineData(
        """{"buyer":"B-0001","lines":[{"item":"SHK-BOW-10","quantity":1,"price":-1}]}""",
        "number",
        "lines[0].price"
    )]
    [InlineData(
        """{"buyer":"B-0001","colour":"red","lines":[{"item":"SHK-BOW-10","quantity":1}]}""",
        "field_unknown",
        "colour"
    )]
    [InlineData(
        """{"buyer":"B-0001","paymentDays":999,"lines":[{"item":"SHK-BOW-10","quantity":1}]}""",
        "number",
        "paymentDays"
    )]
    [InlineData(
        """{"buyer":"B-0001","job":{"a":1},"lines":[{"item":"SHK-BOW-10","quantity":1}]}""",
        "field_unknown",
        "job"
    )]
    [InlineData(
        """{"buyer":"B-0001","currency":"XXY","lines":[{"item":"SHK-BOW-10","quantity":1}]}""",
        "currency_unknown",
        "currency"
    )]
    public async Task What_is_wrong_is_named_and_nothing_is_taken(string body, string code, string field)
    {
        var before = await House.DbAsync(db => db.Orders.CountAsync(Cancel));
        using var content = new StringContent(body, MediaTypeHeaderValue.Parse("application/json"));
        var answer = await House.Machine().PostAsync("/api/v1/orders", content, Cancel);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        var problem = await answer.JsonAsync();
        Assert.Equal(
            (code, field),
            (problem.GetProperty("code").GetString(), problem.GetProperty("field").GetString())
        );
        Assert.Equal(before, await House.DbAsync(db => db.Orders.CountAsync(Cancel)));
    }

    [Fact]
    public async Task What_stops_it_is_told_with_the_refusal()
    {
        var machine = House.Machine();
        var order = await (await TakeAsync(machine, Body("STOP-1", quantity: 9_000m))).JsonAsync();
        Assert.Equal("held", order.GetProperty("terms").GetString());
        var refused = await machine.PostAsync($"/api/v1/orders/{Number(order)}/confirm", null, Cancel);
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        var problem = await refused.JsonAsync();
        Assert.Equal("stopped", problem.GetProperty("code").GetString());
        Assert.Equal(
            Stopped(order).Order(),
            problem
                .GetProperty("facts")
                .EnumerateArray()
                .Where(f => f.GetProperty("outcome").GetString() == "stop")
                .Select(f => f.GetProperty("check").GetString()!)
                .Order()
        );
    }

    [Fact]
    public async Task The_same_PO_by_mail_by_EDI_and_by_a_machine_at_once_is_one_order_and_two_that_are_stopped()
    {
        var machine = House.Machine();
        var quill = await House.AsAsync(Quill);
        var from = await House.DbAsync(db =>
            db.Buyers.Where(b => b.Name == Depot).Select(b => b.ContactMail).FirstAsync(Cancel)
        );
        var mail =
            $"From: {from}\nTo: orders@brinemoor.example\nMessage-ID: <tri-1@depot.example>\nSubject: PO 7700451\n\nOur PO 7700451: please send 4 x SHK-BOW-10.\n";
        const string Edi =
            "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000771*0*P*>~GS*PO*N*B*20260305*0914*1*X*004010~ST*850*0001~BEG*00*SA*PO-7700451**20260305~PO1*1*4*EA*5.1*PE*VP*SHK-BOW-10~SE*4*0001~GE*1*1~IEA*1*000000771~";
        var (one, two, three) = (
            ReceiveAsync(mail, "a.eml"),
            ReceiveAsync(Edi, "b.edi"),
            TakeAsync(machine, Body("7700451", quantity: 4m, buyer: Depot))
        );
        await Task.WhenAll(one, two, three);
        async Task<string> TurnedAsync(JsonElement request)
        {
            var number = Number(request);
            var view = await (await quill.GetAsync($"/api/requests/{number}", Cancel)).JsonAsync();
            var turned = await quill.PostAsJsonAsync(
                $"/api/requests/{number}/turn",
                new { version = view.GetProperty("version").GetInt64(), intoOrder = true },
                Cancel
            );
            return Number(await turned.JsonAsync());
        }
        string[] orders =
        [
            Number(await (await three).JsonAsync()),
            await TurnedAsync(await one),
            await TurnedAsync(await two),
        ];
        var stopped = 0;
        foreach (var number in orders)
        {
            var order = await (await machine.GetAsync($"/api/v1/orders/{number}", Cancel)).JsonAsync();
            if (Stopped(order).Contains("po-number"))
                stopped++;
        }
        Assert.Equal(2, stopped);
    }

    [Fact]
    public async Task Of_two_orders_for_the_last_piece_confirmed_at_once_one_gets_it()
    {
        var machine = House.Machine();
        const string Item = "THM-SS-16";
        await House.DbAsync(async db =>
        {
            var item = await db.Items.FirstAsync(i => i.Code == Item, Cancel);
            item.LeadDays = null;
            await db.Incoming.Where(i => i.ItemId == item.Id).ExecuteDeleteAsync(Cancel);
            await db.Commitments.Where(c => c.ItemId == item.Id).ExecuteDeleteAsync(Cancel);
            return await db.SaveChangesAsync(Cancel);
        });
        await CountedAsync(Item, 5m, 0m);
        var orders = new List<string>();
        for (var i = 0; i < 4; i++)
            orders.Add(Number(await (await TakeAsync(machine, Body($"LAST-{i}", Item, 5m))).JsonAsync()));
        var answers = await Task.WhenAll(
            orders.Select(o => machine.PostAsync($"/api/v1/orders/{o}/confirm", null, Cancel))
        );
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.OK);
        foreach (var no in answers.Where(a => a.StatusCode != HttpStatusCode.OK))
            Assert.Equal("stopped", await no.CodeAsync());
        var committed = await House.DbAsync(db =>
            db.Commitments.Where(c => db.Items.Any(i => i.Id == c.ItemId && i.Code == Item))
                .Select(c => c.Quantity)
                .ToListAsync(Cancel)
        );
        Assert.Equal(5m, committed.Sum());
    }

    [Fact]
    public async Task Of_two_orders_for_the_last_of_a_limit_confirmed_at_once_one_gets_it()
    {
        var machine = House.Machine();
        var orders = new List<JsonElement>();
        for (var i = 0; i < 3; i++)
            orders.Add(await (await TakeAsync(machine, Body($"LIMIT-{i}", quantity: 20m))).JsonAsync());
        var one = orders[0].GetProperty("totalWithTax").GetDecimal();
        var credit = await (
            await (await House.AsAsync(Quill)).GetAsync($"/api/orders/{Number(orders[0])}/credit", Cancel)
        ).JsonAsync();
        var exposure = credit.GetProperty("exposure").GetDecimal();
        var limit = await LimitAsync((long)((exposure + one * 1.5m) * 100m));
        var answers = await Task.WhenAll(
            orders.Select(o => machine.PostAsync($"/api/v1/orders/{Number(o)}/confirm", null, Cancel))
        );
        await LimitAsync(limit);
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.OK);
        foreach (var no in answers.Where(a => a.StatusCode != HttpStatusCode.OK))
            Assert.Equal("stopped", await no.CodeAsync());
        Assert.Equal(
            TermsTrack.Confirmed,
            await House.DbAsync(db =>
                db.Orders.Where(o => o.Sheet.PoNumber!.StartsWith("LIMIT-") && o.Terms == TermsTrack.Confirmed)
                    .Select(o => o.Terms)
                    .SingleAsync(Cancel)
            )
        );
    }

    [Fact]
    public async Task Opening_a_confirmed_order_to_change_it_frees_no_credit_for_another()
    {
        var (machine, quill) = (House.Machine(), await House.AsAsync(Quill));
        var first = Number(await (await TakeAsync(machine, Body("HOLE-1", quantity: 20m))).JsonAsync());
        (await machine.PostAsync($"/api/v1/orders/{first}/confirm", null, Cancel)).EnsureSuccessStatusCode();
        async Task<decimal> ExposureAsync(string order) =>
            (await (await quill.GetAsync($"/api/orders/{order}/credit", Cancel)).JsonAsync())
                .GetProperty("exposure")
                .GetDecimal();
        var second = Number(await (await TakeAsync(machine, Body("HOLE-2", quantity: 3m))).JsonAsync());
        var before = await ExposureAsync(second);
        var open = await (await quill.PostAsync($"/api/orders/{first}/change", null, Cancel)).JsonAsync();
        // Emptied, and not confirmed: what the buyer has from us stands, whatever is typed meanwhile.
        await SetAsync(quill, open.Sheet(), "quantity", "1", 1);
        Assert.Equal(before, await ExposureAsync(second));
        // The order itself is counted once: beside what the others come to.
        var own = await (await machine.GetAsync($"/api/v1/orders/{first}", Cancel)).JsonAsync();
        var mine = await (await quill.GetAsync($"/api/orders/{first}/credit", Cancel)).JsonAsync();
        Assert.Equal(own.GetProperty("totalWithTax").GetDecimal(), mine.GetProperty("thisOrder").GetDecimal());
        Assert.True(mine.GetProperty("exposure").GetDecimal() < before);
    }

    [Fact]
    public async Task A_key_that_may_not_see_authority_is_told_that_it_stops_and_no_figure()
    {
        const string Secret = "orders-only";
        await House.DbAsync(db =>
        {
            db.ApiKeys.Add(
                new Data.Rows.ApiKey
                {
                    Name = "orders only",
                    Hash = Acts.Acting.Tokens.Sha256(Secret),
                    Scopes = "orders",
                }
            );
            return db.SaveChangesAsync(Cancel);
        });
        var machine = House.CreateClient();
        machine.DefaultRequestHeaders.Authorization = new("Bearer", Secret);
        var order = await (await TakeAsync(machine, Body("QUIET-1"))).JsonAsync();
        // It was given no authority, so that what it is worth needs somebody.
        Assert.Contains("approval", Stopped(order));
        var refused = await machine.PostAsync($"/api/v1/orders/{Number(order)}/confirm", null, Cancel);
        var problem = await refused.Content.ReadAsStringAsync(Cancel);
        Assert.Contains("Somebody of the house has to look at it first.", problem, StringComparison.Ordinal);
        Assert.DoesNotContain("may be sold alone", problem + order.GetRawText(), StringComparison.Ordinal);
    }

    /// <returns>What it was.</returns>
    private Task<long?> LimitAsync(long? minor) =>
        House.DbAsync(async db =>
        {
            var buyer = await db.Buyers.FirstAsync(b => b.Id == Tressel, Cancel);
            var before = buyer.CreditLimitMinor;
            buyer.CreditLimitMinor = minor;
            await db.SaveChangesAsync(Cancel);
            return before;
        });
}
