using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using System.Xml.Linq;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Invoices and credit notes: what went is billed once, numbered, sent, owed and booked.</summary>
public sealed class InvoiceTests(House house) : BilledCalls(house)
{
    [Fact]
    public async Task An_order_is_billed_part_by_part_and_comes_to_its_total()
    {
        var petra = await House.AsAsync(Petra);
        var (order, total) = await OrderedAsync($"121 x {Rope}", $"13 x {Shackle}");
        Assert.Equal("nothing_to_invoice", await (await InvoiceAsync(petra, order)).CodeAsync());
        await ShipAsync(order, new { key = await KeyAsync(petra, order, 0), quantity = 40 });
        Assert.Equal(MoneyTrack.ToInvoice, await MoneyAsync(order));
        var first = await InvoicedAsync(petra, order);
        Assert.Equal(MoneyTrack.PartInvoiced, await MoneyAsync(order));
        Assert.Equal("nothing_to_invoice", await (await InvoiceAsync(petra, order)).CodeAsync());
        await ShipAsync(order);
        var second = await InvoicedAsync(petra, order);

        var rows = await RowsAsync(order);
        Assert.Equal([first, second], rows.Select(r => r.Number));
        Assert.Equal(int.Parse(first[4..], null) + 1, int.Parse(second[4..], null));
        var sheet = await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == order).Select(o => o.Sheet.TotalWithoutTaxMinor).FirstAsync(Cancel)
        );
        Assert.Equal(sheet, rows.Sum(r => r.TotalWithoutTaxMinor));
        Assert.InRange(rows.Sum(r => r.TotalWithTaxMinor) - (long)(total * 100), -2, 2);
        Assert.Equal(MoneyTrack.Invoiced, await MoneyAsync(order));
        Assert.Equal(rows[0].TotalWithTaxMinor, await OpenAsync(first));
        Assert.Equal(rows[0].Day.AddDays(30), rows[0].Due);
        // From now on none of the numbers can be left out.
        const string Pattern = "F{yy}-{00000}";
        var cass = await House.AsAsync(10);
        var numbers = await cass.PutAsJsonAsync(
            "/api/setup/numbers/F",
            new
            {
                pattern = Pattern,
                next = 90_000,
                seen = Pattern,
            },
            Cancel
        );
        Assert.Equal("series_gap", await numbers.CodeAsync());
        var letters = await LettersAsync(first.ToLowerInvariant());
        Assert.Contains(first.ToLowerInvariant(), letters);
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task Two_at_once_make_one_invoice()
    {
        var petra = await House.AsAsync(Petra);
        var (order, _) = await OrderedAsync($"20 x {Rope}");
        await ShipAsync(order);
        var both = await Task.WhenAll(InvoiceAsync(petra, order), InvoiceAsync(await House.AsAsync(Havergal), order));
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(b => b.StatusCode).Order());
        Assert.Single(await RowsAsync(order));
        var quill = await House.AsAsync(Quill);
        Assert.Equal(HttpStatusCode.Forbidden, (await InvoiceAsync(quill, order)).StatusCode);
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task A_machine_ships_and_bills_at_once_and_reads_it_in_every_form()
    {
        var (order, _) = await OrderedAsync($"33 x {Rope}", $"7 x {Shackle}");
        using var machine = House.Machine();
        machine.DefaultRequestHeaders.Add("Idempotency-Key", "bill-" + order);
        var path = $"/api/v1/orders/{order}/invoices";
        var made = await machine.PostAsJsonAsync(path, new { withGoods = true }, Cancel);
        Assert.Equal(HttpStatusCode.Created, made.StatusCode);
        var state = await made.JsonAsync();
        var number = state.GetProperty("number").GetString()!;
        var again = await machine.PostAsJsonAsync(path, new { withGoods = true }, Cancel);
        Assert.Equal(number, (await again.JsonAsync()).GetProperty("number").GetString());

        var json = await (await machine.GetAsync($"/api/v1/invoices/{number}", Cancel)).JsonAsync();
        Assert.Equal(
            state.GetProperty("totalWithTax").GetDecimal(),
            json.GetProperty("totalWithoutTax").GetDecimal() + json.GetProperty("totalTax").GetDecimal()
        );
        Assert.Equal(2, json.GetProperty("lines").GetArrayLength());
        var xml = XDocument.Parse(await AsAsync(machine, number, "application/xml"));
        Assert.Equal("Invoice", xml.Root!.Name.LocalName);
        Assert.Contains(
            json.GetProperty("totalWithTax")
                .GetDecimal()
                .ToString("F2", System.Globalization.CultureInfo.InvariantCulture),
            xml.Descendants().Where(e => e.Name.LocalName == "PayableAmount").Select(e => e.Value)
        );
        Assert.StartsWith("%PDF", await AsAsync(machine, number, "application/pdf"), StringComparison.Ordinal);

        var ledger = await (await machine.GetAsync("/api/v1/ledger", Cancel)).JsonAsync();
        var sides = ledger.GetProperty("entries").EnumerateArray().Where(e => Is(e, number)).ToList();
        Assert.Equal(
            sides.Sum(s => s.GetProperty("debit").GetDecimal()),
            sides.Sum(s => s.GetProperty("credit").GetDecimal())
        );
        Assert.Equal(
            "1400",
            sides.Single(s => s.GetProperty("debit").GetDecimal() > 0m).GetProperty("account").GetString()
        );
    }

    private static bool Is(JsonElement entry, string number) => entry.GetProperty("document").GetString() == number;

    private static async Task<string> AsAsync(HttpClient machine, string number, string type)
    {
        using var ask = new HttpRequestMessage(HttpMethod.Get, $"/api/v1/invoices/{number}");
        ask.Headers.Accept.Add(new MediaTypeWithQualityHeaderValue(type));
        var got = await machine.SendAsync(ask, Cancel);
        Assert.Equal(type, got.Content.Headers.ContentType!.MediaType);
        return await got.Content.ReadAsStringAsync(Cancel);
    }

    [Fact]
    public async Task A_credit_note_takes_of_what_is_open_and_both_come_to_nothing()
    {
        var petra = await House.AsAsync(Petra);
        var (order, _) = await OrderedAsync($"30 x {Rope}", $"9 x {Shackle}");
        await ShipAsync(order);
        var invoice = await InvoicedAsync(petra, order);
        var total = await OpenAsync(invoice);
        var rope = await KeyAsync(petra, order, 0);
        Task<HttpResponseMessage> Credit(object body) =>
            petra.PostAsJsonAsync($"/api/invoices/{invoice}/credit", body, Cancel);
        Assert.Equal("reason_missing", await (await Credit(new { reason = " " })).CodeAsync());
        var some = new[] { new { key = rope, quantity = 31 } };
        Assert.Equal("too_much", await (await Credit(new { reason = "wet", lines = some })).CodeAsync());
        some = [new { key = rope, quantity = 11 }];
        Assert.True((await Credit(new { reason = "wet", lines = some })).IsSuccessStatusCode);
        var note = (await RowsAsync(order))[1];
        Assert.Equal((BillKind.Credit, total - note.TotalWithTaxMinor), (note.Kind, await OpenAsync(invoice)));
        Assert.True((await Credit(new { reason = "all of it", charges = true })).IsSuccessStatusCode);
        Assert.Equal("nothing_to_credit", await (await Credit(new { reason = "more" })).CodeAsync());
        var rows = await RowsAsync(order);
        Assert.Equal(rows[0].TotalWithTaxMinor, rows.Skip(1).Sum(r => r.TotalWithTaxMinor));
        Assert.Equal(0, await OpenAsync(invoice));
        Assert.Equal(MoneyTrack.Paid, await MoneyAsync(order));
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task A_deposit_is_taken_off_once_and_what_a_buyer_owes_stays_the_same()
    {
        var petra = await House.AsAsync(Petra);
        var (order, total) = await OrderedAsync($"55 x {Rope}");
        var noted = await petra.PostAsJsonAsync(
            $"/api/orders/{order}/deposits",
            new
            {
                amount = 20.5m,
                receivedOn = House.Services.GetRequiredService<HouseClock>().Today,
                reference = "wire 1",
            },
            Cancel
        );
        Assert.True(noted.IsSuccessStatusCode, await noted.Content.ReadAsStringAsync(Cancel));
        var before = await ExposureAsync(petra, order);
        await ShipAsync(order);
        Assert.Equal(before, await ExposureAsync(petra, order));
        var invoice = await InvoicedAsync(petra, order);
        // Tax that is rounded twice may come to a cent more or less.
        Assert.InRange(await ExposureAsync(petra, order) - before, -0.01m, 0.01m);
        Assert.InRange(await OpenAsync(invoice) - (long)((total - 20.5m) * 100), -1, 1);
        Assert.Equal([20_50, 0], (await RowsAsync(order)).Select(r => r.PrepaidMinor));
        Assert.Empty(await MoneyFaultsAsync());
    }

    private static async Task<decimal> ExposureAsync(HttpClient who, string order) =>
        (await (await who.GetAsync($"/api/orders/{order}/credit", Cancel)).JsonAsync())
            .GetProperty("exposure")
            .GetDecimal();

    [Fact]
    public async Task Services_alone_are_invoiced_by_whoever_says_that_they_are_done()
    {
        var petra = await House.AsAsync(Petra);
        var (order, total) = await OrderedAsync("3 x SVC-EYE");
        var due = await (await petra.GetAsync("/api/invoices/due", Cancel)).JsonAsync();
        var row = due.GetProperty("orders").EnumerateArray().Single(r => r.GetProperty("order").GetString() == order);
        Assert.Equal("services", row.GetProperty("shipments").GetString());
        // Nobody said yet that they are done.
        Assert.False(row.GetProperty("isReady").GetBoolean());
        // Two at once: one wins.
        var both = await Task.WhenAll(InvoiceAsync(petra, order), InvoiceAsync(petra, order));
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(b => b.StatusCode).Order());
        var invoice = Assert.Single(await RowsAsync(order));
        Assert.Equal(total, invoice.TotalWithTaxMinor / 100m);
        Assert.Equal(MoneyTrack.Invoiced, await MoneyAsync(order));
        // Nothing was delivered, so nobody got a note of it.
        Assert.Empty(await LettersAsync($"{order}-1".ToLowerInvariant()));
        // What needs picking does not go so.
        var (goods, _) = await OrderedAsync($"3 x {Shackle}", "1 x SVC-EYE");
        Assert.Equal("nothing_to_invoice", await (await InvoiceAsync(petra, goods)).CodeAsync());
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task What_carriers_took_stands_beside_what_was_charged_for_who_may_see_costs()
    {
        var petra = await House.AsAsync(Petra);
        var (order, _) = await OrderedAsync($"6 x {Shackle}");
        await ShipAsync(order);
        await InvoicedAsync(petra, order);
        await House.DbAsync(db =>
            db.Shipments.Where(s => s.Order.Number == order)
                .ExecuteUpdateAsync(s => s.SetProperty(x => x.CostMinor, 12_34L), Cancel)
        );
        var charged = InvoiceCharges((await RowsAsync(order))[0]);
        async Task<JsonElement> SeenByAsync(long who) =>
            (
                await (await (await House.AsAsync(who)).GetAsync($"/api/orders/{order}/money", Cancel)).JsonAsync()
            ).GetProperty("carriage");
        var carriage = await SeenByAsync(1);
        Assert.Equal(
            (12.34m, charged),
            (carriage.GetProperty("took").GetDecimal(), carriage.GetProperty("charged").GetDecimal())
        );
        Assert.Equal(JsonValueKind.Null, (await SeenByAsync(Castellane)).ValueKind);
    }

    private static decimal InvoiceCharges(InvoiceRow row) =>
        JsonSerializer.Deserialize<IssuedInvoice>(row.Document)!.Charges.Sum(c => c.Amount);
}
