using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Ledger;
using Solvenda.Core.Receiving;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What buyers owe: money by hand, disputes, letters, what is written off, paid back and closed.</summary>
public sealed class OwedTests(House house) : BilledCalls(house)
{
    private const string Account = "/api/owed/1";

    private async Task<(string Order, string Invoice, decimal Total)> BilledAsync(
        HttpClient petra,
        string? terms = null
    )
    {
        var nell = await House.AsAsync(Havergal);
        // What another test left late stops no order here.
        var soon = Today.AddDays(5);
        await House.DbAsync(db =>
            db.OpenItems.Where(o => o.BuyerId == Tressel && o.Due < soon)
                .ExecuteUpdateAsync(o => o.SetProperty(x => x.Due, soon), Cancel)
        );
        var (order, sheet) = await OrderAsync(nell, $"11 x {Rope}");
        sheet = await SetAsync(nell, sheet, "poNumber", "PO-" + order);
        if (terms is not null)
            sheet = await SetAsync(nell, sheet, "paymentDays", terms);
        var done = await nell.ActAsync($"/api/orders/{order}/confirm", sheet);
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        await ShipAsync(order);
        var invoice = await InvoicedAsync(petra, order);
        var minor = await House.DbAsync(db =>
            db.Invoices.Where(i => i.Number == invoice).Select(i => i.TotalWithTaxMinor).FirstAsync(Cancel)
        );
        return (order, invoice, minor / 100m);
    }

    private object Money(decimal amount, string how = "cash", params object[] takes) =>
        new
        {
            amount,
            currency = "EUR",
            day = Today,
            how,
            words = "no. 7",
            takes,
        };

    private Task<long> OnAsync(AccountUse use) =>
        House.DbAsync(db =>
            db.Entries.Where(e => db.Accounts.Any(a => a.Code == e.Account && a.Use == use))
                .SumAsync(e => e.DebitMinor - e.CreditMinor, Cancel)
        );

    [Fact]
    public async Task Money_over_the_counter_is_noted_taken_and_in_the_till()
    {
        var petra = await House.AsAsync(Petra);
        var (order, invoice, total) = await BilledAsync(petra);
        var till = await OnAsync(AccountUse.Till);
        var now = await PostAsync(
            petra,
            $"{Account}/receipts",
            Money(total + 10m, "cash", new { number = invoice, amount = total })
        );
        Assert.DoesNotContain(
            now.GetProperty("items").EnumerateArray(),
            i => i.GetProperty("number").GetString() == invoice
        );
        Assert.Contains(now.GetProperty("money").EnumerateArray(), m => m.GetProperty("left").GetDecimal() == 10m);
        Assert.Equal((long)((total + 10m) * 100), await OnAsync(AccountUse.Till) - till);
        Assert.Equal(MoneyTrack.Paid, await MoneyAsync(order));
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Theory]
    [InlineData("{\"amount\":0,\"currency\":\"EUR\",\"day\":\"today\",\"how\":\"cash\"}", "number")]
    [InlineData("{\"amount\":-5,\"currency\":\"EUR\",\"day\":\"today\",\"how\":\"cash\"}", "number")]
    [InlineData("{\"amount\":1.005,\"currency\":\"EUR\",\"day\":\"today\",\"how\":\"cash\"}", "number")]
    [InlineData("{\"amount\":5,\"currency\":\"XXQ\",\"day\":\"today\",\"how\":\"cash\"}", "currency")]
    [InlineData("{\"amount\":5,\"currency\":\"EUR\",\"day\":\"2020-01-01\",\"how\":\"cash\"}", "date")]
    [InlineData("{\"amount\":5,\"currency\":\"EUR\",\"day\":\"today\",\"how\":\"shells\"}", "money_how")]
    public async Task What_cannot_be_money_is_refused(string body, string code)
    {
        var petra = await House.AsAsync(Petra);
        using var content = new StringContent(
            body.Replace("today", Today.ToString("yyyy-MM-dd", null), StringComparison.Ordinal),
            null,
            "application/json"
        );
        Assert.Equal(code, await (await petra.PostAsync($"{Account}/receipts", content, Cancel)).CodeAsync());
    }

    [Fact]
    public async Task A_list_with_a_null_in_it_is_refused_at_every_door()
    {
        var petra = await House.AsAsync(Petra);
        using var content = new StringContent("{\"reason\":\"x\",\"lines\":[null]}", null, "application/json");
        var answer = await petra.PostAsync("/api/invoices/F26-00001/credit", content, Cancel);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    [Fact]
    public async Task An_invoice_in_parts_is_due_and_paid_in_parts()
    {
        var petra = await House.AsAsync(Petra);
        var (order, invoice, total) = await BilledAsync(petra, "40 % in 0, 60 % in 30");
        var items = await House.DbAsync(db =>
            db.OpenItems.AsNoTracking()
                .Where(o => o.Number.StartsWith(invoice + "/"))
                .OrderBy(o => o.Due)
                .ToListAsync(Cancel)
        );
        Assert.Equal([$"{invoice}/1", $"{invoice}/2"], items.Select(i => i.Number));
        Assert.Equal((Today, Today.AddDays(30)), (items[0].Due, items[1].Due));
        Assert.Equal((long)(total * 100), items.Sum(i => i.OpenMinor));
        var first = items[0].OpenMinor / 100m;
        await PostAsync(
            petra,
            $"{Account}/receipts",
            Money(first, "card", new { number = $"{invoice}/1", amount = first })
        );
        Assert.Equal(MoneyTrack.PartPaid, await MoneyAsync(order));
        // What is said against it is said against what is open of it.
        await PostAsync(petra, "/api/owed/dispute", new { number = invoice, reason = "the rest came late" });
        var page = await (await petra.GetAsync($"/api/invoices/{invoice}", Cancel)).JsonAsync();
        Assert.Equal("the rest came late", page.GetProperty("disputed").GetString());
        // A credit note takes of what is due first.
        await PostAsync(petra, $"/api/invoices/{invoice}/credit", new { reason = "all of it back" });
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task Who_pays_early_pays_less_and_the_tax_follows()
    {
        var petra = await House.AsAsync(Petra);
        var (order, invoice, total) = await BilledAsync(petra, "30, less 2 % in 10");
        var tax = await OnAsync(AccountUse.TaxOwed);
        var off = Math.Round(total * 0.02m, 2, MidpointRounding.AwayFromZero);
        await PostAsync(
            petra,
            $"{Account}/receipts",
            Money(total - off, "transfer", new { number = invoice, amount = total - off })
        );
        Assert.Equal(MoneyTrack.Paid, await MoneyAsync(order));
        Assert.Equal(0, await OpenAsync(invoice));
        var share = off - Math.Round(off / 1.23m, 2, MidpointRounding.AwayFromZero);
        Assert.InRange((await OnAsync(AccountUse.TaxOwed) - tax) / 100m, share - 0.01m, share + 0.01m);
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task A_small_rest_is_written_off_and_a_large_one_is_not()
    {
        var petra = await House.AsAsync(Petra);
        var (order, invoice, total) = await BilledAsync(petra);
        var body = new { number = invoice, reason = "their bank kept it" };
        Assert.Equal("too_much", await (await petra.PostAsJsonAsync("/api/owed/write-off", body, Cancel)).CodeAsync());
        await PostAsync(
            petra,
            $"{Account}/receipts",
            Money(total - 4.2m, "cheque", new { number = invoice, amount = total - 4.2m })
        );
        var nell = await House.AsAsync(Havergal);
        var hers = await nell.PostAsJsonAsync("/api/owed/write-off", body, Cancel);
        Assert.Equal(HttpStatusCode.Forbidden, hers.StatusCode);
        await PostAsync(petra, "/api/owed/write-off", body);
        Assert.Equal(MoneyTrack.Paid, await MoneyAsync(order));
        Assert.Equal("not_open", await (await petra.PostAsJsonAsync("/api/owed/write-off", body, Cancel)).CodeAsync());
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task What_a_note_left_over_is_taken_for_another_or_paid_back()
    {
        var petra = await House.AsAsync(Petra);
        var (_, paid, total) = await BilledAsync(petra);
        await PostAsync(petra, $"{Account}/receipts", Money(total, "cash", new { number = paid, amount = total }));
        var note = (await PostAsync(petra, $"/api/invoices/{paid}/credit", new { reason = "faulty", charges = true }))
            .GetProperty("number")
            .GetString()!;
        var (order, other, _) = await BilledAsync(petra);
        var much = new
        {
            document = note,
            amount = total + 1m,
            reason = "x",
        };
        Assert.Equal("number", await (await petra.PostAsJsonAsync($"{Account}/pay-back", much, Cancel)).CodeAsync());
        await PostAsync(
            petra,
            $"{Account}/pay-back",
            new
            {
                document = note,
                amount = 1m,
                reason = "they asked for it",
            }
        );
        await PostAsync(petra, $"{Account}/set-off", new { note, invoice = other });
        Assert.Equal((0, 100), (await OpenAsync(note), await OpenAsync(other)));
        Assert.Equal(MoneyTrack.PartPaid, await MoneyAsync(order));
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task Late_ones_are_reminded_once_a_week_and_not_of_what_is_disputed()
    {
        var petra = await House.AsAsync(Petra);
        var (_, late, _) = await BilledAsync(petra);
        var (_, disputed, _) = await BilledAsync(petra);
        var today = Today;
        await House.DbAsync(db =>
            db.OpenItems.Where(o => o.BuyerId == Tressel && o.Number != late && o.Number != disputed)
                .ExecuteUpdateAsync(o => o.SetProperty(x => x.Due, today.AddDays(5)), Cancel)
        );
        await House.DbAsync(db =>
            db.OpenItems.Where(o => o.Number == late || o.Number == disputed)
                .ExecuteUpdateAsync(o => o.SetProperty(x => x.Due, today.AddDays(-9)), Cancel)
        );
        await PostAsync(
            await House.AsAsync(Havergal),
            "/api/owed/dispute",
            new { number = disputed, reason = "short by a drum" }
        );
        Assert.Equal(1, (await PageAsync(petra)).GetProperty("next").GetInt32());
        var both = await Task.WhenAll(
            petra.PostAsync($"{Account}/remind", null, Cancel),
            petra.PostAsync($"{Account}/remind", null, Cancel)
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(a => a.StatusCode).Order());
        var steps = await House.DbAsync(db =>
            db.OpenItems.Where(o => o.Number == late || o.Number == disputed)
                .ToDictionaryAsync(o => o.Number, o => o.ReminderStep, Cancel)
        );
        Assert.Equal((1, 0), (steps[late], steps[disputed]));
        var letter = await House.DbAsync(db =>
            db.Outbox.Where(o => o.Key.StartsWith("reminder-")).Select(o => o.Payload).SingleAsync(Cancel)
        );
        Assert.Contains("Reminder", System.Text.Encoding.UTF8.GetString(letter), StringComparison.Ordinal);
        await PostAsync(petra, "/api/owed/settle", new { number = disputed, reason = "the drum was found" });
        var again = await petra.PostAsJsonAsync("/api/owed/settle", new { number = disputed, reason = "x" }, Cancel);
        Assert.Equal("not_disputed", await again.CodeAsync());
        Assert.True((await PostAsync(petra, $"{Account}/statement")).GetProperty("items").GetArrayLength() > 1);
    }

    private static async Task<JsonElement> PageAsync(HttpClient who) =>
        await (await who.GetAsync(Account, Cancel)).JsonAsync();

    [Fact]
    public async Task Accounts_agree_with_the_documents_and_a_closed_time_stays_closed()
    {
        var petra = await House.AsAsync(Petra);
        await BilledAsync(petra);
        var balance = await (await petra.GetAsync("/api/ledger/balance", Cancel)).JsonAsync();
        Assert.Equal(balance.GetProperty("debit").GetDecimal(), balance.GetProperty("credit").GetDecimal());
        Assert.Equal(balance.GetProperty("owed").GetDecimal(), balance.GetProperty("receivable").GetDecimal());
        var owed = await (await petra.GetAsync("/api/owed", Cancel)).JsonAsync();
        Assert.Equal(
            balance.GetProperty("owed").GetDecimal(),
            owed.GetProperty("sums").EnumerateArray().Sum(s => s.GetDecimal())
        );
        var journal = await petra.GetAsync("/api/ledger/journal", Cancel);
        Assert.Equal("application/pdf", journal.Content.Headers.ContentType!.MediaType);
        var until = Today.AddDays(-1);
        var nell = await House.AsAsync(Havergal);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await nell.PostAsJsonAsync("/api/ledger/close", new { until }, Cancel)).StatusCode
        );
        var today = await petra.PostAsJsonAsync("/api/ledger/close", new { until = Today }, Cancel);
        Assert.Equal("date", await today.CodeAsync());
        await PostAsync(petra, "/api/ledger/close", new { until });
        var back = await petra.PostAsJsonAsync("/api/ledger/close", new { until = until.AddDays(-9) }, Cancel);
        Assert.Equal("books_closed", await back.CodeAsync());
        // What belongs into the closed time is booked on the first day after it.
        await PostAsync(
            petra,
            $"{Account}/receipts",
            new
            {
                amount = 3m,
                currency = "EUR",
                day = until.AddDays(-5),
                how = "cheque",
            }
        );
        var booked = await House.DbAsync(db => db.Entries.OrderByDescending(e => e.Id).FirstAsync(Cancel));
        Assert.Equal(until.AddDays(1), booked.Day);
    }
}
