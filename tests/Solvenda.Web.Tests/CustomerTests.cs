using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Prospects who become customers, goods that are kept back, other ways to deliver a line.</summary>
public sealed class CustomerTests(House house) : MoneyCalls(house)
{
    private async Task<long> ProspectAsync(string name, string country = "NL") =>
        await House.DbAsync(async db =>
        {
            var row = new BuyerRow
            {
                Code = "P-" + name.Length + name[0],
                Name = name,
                Country = country,
                Currency = "EUR",
                IsProspect = true,
                ContactMail = "office@prospect.example",
                Address = "Pier 4, 1011 AB Rotterdam",
                AccountManagerId = Quill,
            };
            db.Buyers.Add(row);
            await db.SaveChangesAsync(Cancel);
            return row.Id;
        });

    private static object Form(string tax = "NL123456789B01", int days = 14, decimal limit = 0m, string notThem = "") =>
        new
        {
            taxNumber = tax,
            paymentDays = days,
            incoterm = "DAP",
            incotermPlace = "Rotterdam",
            mail = "office@prospect.example",
            documentsBy = "mail",
            address = "Pier 4, 1011 AB Rotterdam",
            limit,
            why = "their first order",
            notThem,
        };

    private static Task<HttpResponseMessage> BecomeAsync(HttpClient who, long id, object form) =>
        who.PostAsJsonAsync($"/api/buyers/{id}/customer", form, Cancel);

    [Fact]
    public async Task A_prospect_becomes_a_customer_by_one_form_and_credit_control_is_asked_for_the_limit()
    {
        var quill = await House.AsAsync(Quill);
        var id = await ProspectAsync("Teal Quay Boats");
        var view = await (await quill.GetAsync($"/api/buyers/{id}/prospect", Cancel)).JsonAsync();
        Assert.Equal(JsonValueKind.Null, view.GetProperty("restricted").ValueKind);
        Assert.Equal("tax_number", await (await BecomeAsync(quill, id, Form("NL12"))).CodeAsync());
        Assert.Equal("terms_beyond", await (await BecomeAsync(quill, id, Form(days: 300))).CodeAsync());
        Assert.Equal("number", await (await BecomeAsync(quill, id, Form(limit: -1m))).CodeAsync());
        var castellane = await House.AsAsync(Castellane);
        Assert.Equal(HttpStatusCode.Forbidden, (await BecomeAsync(castellane, id, Form())).StatusCode);
        var done = await (await BecomeAsync(quill, id, Form(limit: 8_000m))).JsonAsync();
        Assert.True(done.GetProperty("ask").ValueKind == JsonValueKind.Number, done.GetRawText());
        var buyer = await House.DbAsync(db => db.Buyers.AsNoTracking().FirstAsync(b => b.Id == id, Cancel));
        Assert.Equal(
            (false, "NL123456789B01", 14, null),
            (buyer.IsProspect, buyer.TaxNumber, buyer.PaymentDays, buyer.CreditLimitMinor)
        );
        Assert.Equal("customer_already", await (await BecomeAsync(quill, id, Form())).CodeAsync());
    }

    [Fact]
    public async Task Whoever_is_restricted_stays_a_prospect_and_of_one_who_is_only_alike_it_is_said_why()
    {
        var quill = await House.AsAsync(Quill);
        var same = await ProspectAsync("Kelder Maritime Trading BV");
        Assert.Equal("restricted", await (await BecomeAsync(quill, same, Form())).CodeAsync());
        var country = await ProspectAsync("Quixote Lines", "QX");
        Assert.Equal("restricted", await (await BecomeAsync(quill, country, Form(""))).CodeAsync());
        var alike = await ProspectAsync("Ostrava Deepsea");
        Assert.Equal("reason_missing", await (await BecomeAsync(quill, alike, Form())).CodeAsync());
        Assert.Equal(
            HttpStatusCode.OK,
            (await BecomeAsync(quill, alike, Form(notThem: "another board, seen in the register"))).StatusCode
        );
        var said = await House.DbAsync(db =>
            db.Events.Where(e => e.Code == "record.customer" && e.Subject == $"buyers:{alike}")
                .Select(e => e.Why)
                .FirstAsync(Cancel)
        );
        Assert.Equal("another board, seen in the register", said);
    }

    [Fact]
    public async Task What_is_missing_of_a_prospect_stops_their_order()
    {
        var quill = await House.AsAsync(Quill);
        var id = await ProspectAsync("Grebe Yard");
        var made = await PostAsync(quill, $"/api/buyers/{id}/orders");
        var order = await SeenAsync(quill, $"/api/orders/{made.GetProperty("number").GetString()}");
        Assert.Equal(
            ["customer/", "customer/taxNumber", "customer/paymentDays"],
            Stops(order).Where(s => s.StartsWith("customer", StringComparison.Ordinal))
        );
    }

    [Fact]
    public async Task Goods_that_are_kept_back_for_a_quote_are_nobody_elses_until_the_day()
    {
        var (quill, mohr) = (await House.AsAsync(Quill), await House.AsAsync(Mohr));
        await CountedAsync("BB2-14-BK", 100m, 0m);
        var today = DateOnly.FromDateTime(House.Time.GetUtcNow().UtcDateTime);
        var (quote, sheet) = await QuoteAsync(quill, "BB2-14-BK x 80 m");
        string Day(int days) =>
            today.AddDays(days).ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
        async Task<decimal> FreeAsync(JsonElement of) =>
            (await SetAsync(mohr, of, "quantity", "60", of.GetProperty("lines")[0].GetProperty("key").GetInt64()))
                .GetProperty("lines")[0]
                .GetProperty("freeNow")
                .GetDecimal();
        var (_, other) = await OrderAsync(mohr, "BB2-14-BK x 50 m");
        var before = other.GetProperty("lines")[0].GetProperty("freeNow").GetDecimal();
        sheet = await SetAsync(quill, sheet, "keptBack", Day(10));
        Assert.Equal(before - 80m, await FreeAsync(other));
        // The quote itself has them; and beside an item it stands whose they are.
        Assert.Equal(before, sheet.GetProperty("lines")[0].GetProperty("freeNow").GetDecimal());
        var item = await House.DbAsync(db =>
            db.Items.Where(i => i.Code == "BB2-14-BK").Select(i => i.Id).FirstAsync(Cancel)
        );
        var answers = await (await mohr.GetAsync($"/api/items/{item}/answers", Cancel)).Content.ReadAsStringAsync(
            Cancel
        );
        Assert.Matches($"kept back for Tressel.+, {quote}", answers);
        await House.DbAsync(async db =>
        {
            await db.Reservations.ExecuteUpdateAsync(r => r.SetProperty(x => x.Until, today.AddDays(-1)), Cancel);
            return 0;
        });
        var (_, later) = await OrderAsync(mohr, "BB2-14-BK x 50 m");
        Assert.Equal(before, later.GetProperty("lines")[0].GetProperty("freeNow").GetDecimal());
        // Taken away, nothing is left of it.
        await SetAsync(quill, sheet, "keptBack", "");
        Assert.Equal(0, await House.DbAsync(db => db.Reservations.CountAsync(Cancel)));
    }

    [Fact]
    public async Task Another_warehouse_is_offered_with_what_it_changes_and_nobody_chooses_it_silently()
    {
        var quill = await House.AsAsync(Quill);
        await CountedAsync("BB2-14-BK", 5m, 500m);
        var (number, sheet) = await OrderAsync(quill, "BB2-14-BK x 60 m");
        var line = sheet.GetProperty("lines")[0];
        var (id, key) = (sheet.GetProperty("id").GetInt64(), line.GetProperty("key").GetInt64());
        var ways = await (await quill.GetAsync($"/api/sheets/{id}/lines/{key}/ways", Cancel)).JsonAsync();
        var way = ways.EnumerateArray().First(w => w.GetProperty("field").GetString() == "shipFrom");
        Assert.True(way.GetProperty("daysSooner").GetInt32() > 0);
        // It was only looked at.
        Assert.Equal(
            sheet.GetProperty("version").GetInt64(),
            (await SeenAsync(quill, $"/api/orders/{number}")).GetProperty("version").GetInt64()
        );
        var taken = await SetAsync(quill, sheet, "shipFrom", way.GetProperty("value").GetString()!, key);
        Assert.Equal(
            way.GetProperty("arrives").GetString(),
            taken.GetProperty("lines")[0].GetProperty("promise").GetString()
        );
    }
}
