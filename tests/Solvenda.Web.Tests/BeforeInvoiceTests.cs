using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What is seen of an invoice before it is issued: its entries, which may be moved, and who earns of
/// it.</summary>
public sealed class BeforeInvoiceTests(House house) : BilledCalls(house)
{
    private static Task<HttpResponseMessage> IssueAsync(HttpClient who, string order, params object[] moves) =>
        who.PostAsJsonAsync("/api/invoices", new { order, moves }, Cancel);

    private static object Move(string from, string to, string reason = "a special job") =>
        new
        {
            from,
            to,
            reason,
        };

    private static async Task<JsonElement> BeforeAsync(HttpClient who, string order) =>
        await (await who.GetAsync($"/api/orders/{order}/next-invoice", Cancel)).JsonAsync();

    private async Task<string> SpecialAsync()
    {
        await House.DbAsync(async db =>
        {
            if (!await db.Accounts.AnyAsync(a => a.Code == "4990", Cancel))
                db.Accounts.Add(new AccountRow { Code = "4990", Words = "special jobs" });
            return await db.SaveChangesAsync(Cancel);
        });
        return "4990";
    }

    private Task<string> RevenueAsync() =>
        House.DbAsync(db =>
            db.Accounts.Where(a => a.Use == Core.Ledger.AccountUse.Revenue && a.TaxCategory == "S")
                .Concat(db.Accounts.Where(a => a.Use == Core.Ledger.AccountUse.Revenue && a.TaxCategory == ""))
                .Select(a => a.Code)
                .FirstAsync(Cancel)
        );

    [Fact]
    public async Task It_is_seen_as_it_will_be_and_nothing_of_it_is_kept()
    {
        var (order, total) = await OrderedAsync($"7 x {Shackle}");
        await ShipAsync(order);
        var petra = await House.AsAsync(Petra);
        var before = await House.DbAsync(async db =>
            (
                await db.Invoices.CountAsync(Cancel),
                await db.Entries.CountAsync(Cancel),
                await db.Outbox.CountAsync(Cancel)
            )
        );
        var seen = await BeforeAsync(petra, order);
        Assert.Equal(total, seen.GetProperty("totalWithTax").GetDecimal());
        Assert.Equal(
            before,
            await House.DbAsync(async db =>
                (
                    await db.Invoices.CountAsync(Cancel),
                    await db.Entries.CountAsync(Cancel),
                    await db.Outbox.CountAsync(Cancel)
                )
            )
        );
        Assert.Equal(MoneyTrack.ToInvoice, await MoneyAsync(order));
        // It gets the number that was seen, and no gap was left.
        var number = await InvoicedAsync(petra, order);
        Assert.Equal(seen.GetProperty("issued").GetProperty("number").GetString(), number);
        var view = await (await petra.GetAsync($"/api/invoices/{number}", Cancel)).JsonAsync();
        Assert.Equal(
            seen.GetProperty("entries").EnumerateArray().Select(e => e.GetProperty("account").GetString()),
            view.GetProperty("entries").EnumerateArray().Select(e => e.GetProperty("account").GetString())
        );
        Assert.Equal(
            "nothing_to_invoice",
            await (await petra.GetAsync($"/api/orders/{order}/next-invoice", Cancel)).CodeAsync()
        );
        var quill = await House.AsAsync(Quill);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await quill.GetAsync($"/api/orders/{order}/next-invoice", Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task What_was_sold_is_moved_with_a_reason_and_its_credit_note_goes_back_from_there()
    {
        var (special, revenue) = (await SpecialAsync(), await RevenueAsync());
        var (order, _) = await OrderedAsync($"7 x {Shackle}");
        await ShipAsync(order);
        var (petra, nell) = (await House.AsAsync(Petra), await House.AsAsync(Havergal));
        var receivable = await House.DbAsync(db =>
            db.Accounts.Where(a => a.Use == Core.Ledger.AccountUse.Receivable).Select(a => a.Code).FirstAsync(Cancel)
        );
        foreach (
            var (who, move, code) in new[]
            {
                (nell, Move(revenue, special), "not_allowed"),
                (petra, Move(receivable, special), "entry_fixed"),
                (petra, Move(revenue, receivable), "entry_fixed"),
                (petra, Move(revenue, revenue), "entry_fixed"),
                (petra, Move(revenue, special, " "), "reason_missing"),
            }
        )
            Assert.Equal(code, await (await IssueAsync(who, order, move)).CodeAsync());
        Assert.Empty(await RowsAsync(order));
        var issued = await (await IssueAsync(petra, order, Move(revenue, special))).JsonAsync();
        var number = issued.GetProperty("number").GetString()!;
        async Task<(long Special, long Usual)> SumsAsync(string document) =>
            await House.DbAsync(async db =>
                (
                    await db
                        .Entries.Where(e => e.Document == document && e.Account == special)
                        .SumAsync(e => e.CreditMinor - e.DebitMinor, Cancel),
                    await db
                        .Entries.Where(e => e.Document == document && e.Account == revenue)
                        .SumAsync(e => e.CreditMinor - e.DebitMinor, Cancel)
                )
            );
        var (there, usual) = await SumsAsync(number);
        Assert.True(there > 0);
        Assert.Equal(0, usual);
        var said = await (await petra.GetAsync($"/api/invoices/{number}", Cancel)).JsonAsync();
        Assert.Contains(
            said.GetProperty("entries").EnumerateArray(),
            e => e.GetProperty("account").GetString() == special && e.GetProperty("movedFrom").GetString() == revenue
        );
        await petra.PostAsJsonAsync(
            $"/api/invoices/{number}/credit",
            new { reason = "all back", charges = true },
            Cancel
        );
        var note = (await RowsAsync(order))[^1].Number;
        Assert.Equal((-there, 0), await SumsAsync(note));
    }

    [Fact]
    public async Task Who_sold_it_earns_by_plan_sees_it_before_and_gives_it_back()
    {
        var seller = await House.DbAsync(db =>
            db.People.Where(p => p.Id == Quill).Select(p => p.Name).FirstAsync(Cancel)
        );
        await House.DbAsync(db =>
        {
            db.CommissionPlans.Add(
                new CommissionPlanRow
                {
                    Code = "A first",
                    SellerId = Quill,
                    On = CommissionOn.Paid,
                    Percent = 10m,
                    Shares = "seller 75; Leandro Paz 25",
                }
            );
            return db.SaveChangesAsync(Cancel);
        });
        var (order, _) = await OrderedAsync($"40 x {Shackle}");
        await ShipAsync(order);
        var petra = await House.AsAsync(Petra);
        var seen = (await BeforeAsync(petra, order)).GetProperty("commissions");
        Assert.Equal([seller, "Leandro Paz"], seen.EnumerateArray().Select(c => c.GetProperty("name").GetString()));
        var number = await InvoicedAsync(petra, order);
        var rows = await House.DbAsync(db =>
            db.Commissions.AsNoTracking().Where(c => c.Invoice.Number == number).OrderBy(c => c.Id).ToListAsync(Cancel)
        );
        Assert.Equal(Math.Round(rows[0].BasisMinor * 0.1m), rows.Sum(r => r.Minor));
        // Of what is paid nothing is earned before it is.
        var lines = await LinesAsync(petra, number);
        Assert.All(lines, l => Assert.Equal(0m, l.GetProperty("earned").GetDecimal()));
        await House.DbAsync(db =>
            db.OpenItems.Where(o => o.Number == number)
                .ExecuteUpdateAsync(o => o.SetProperty(x => x.OpenMinor, 0), Cancel)
        );
        Assert.All(
            await LinesAsync(petra, number),
            l => Assert.Equal(l.GetProperty("amount").GetDecimal(), l.GetProperty("earned").GetDecimal())
        );
        // A lead sees all, a seller their own, the warehouse nothing.
        Assert.Equal(2, (await LinesAsync(await House.AsAsync(Paz), number)).Count);
        Assert.Single(await LinesAsync(await House.AsAsync(Quill), number));
        Assert.Empty(await LinesAsync(await House.AsAsync(Mohr), number));
        var juno = await House.AsAsync(Castellane);
        Assert.Equal(HttpStatusCode.Forbidden, (await juno.GetAsync("/api/commissions", Cancel)).StatusCode);
        // By how much of a margin it is only who may see what things cost sees.
        await OnAsync(CommissionOn.Margin);
        Assert.All(
            await LinesAsync(petra, number),
            l => Assert.Equal(JsonValueKind.Null, l.GetProperty("basis").ValueKind)
        );
        Assert.All(
            await LinesAsync(await House.AsAsync(Paz), number),
            l => Assert.Equal(10m, l.GetProperty("percent").GetDecimal())
        );
        await OnAsync(CommissionOn.Paid);
        // What goes back takes back what it earned.
        await petra.PostAsJsonAsync($"/api/invoices/{number}/credit", new { reason = "all back" }, Cancel);
        var all = await House.DbAsync(db =>
            db.Commissions.Where(c => c.Order.Number == order).SumAsync(c => c.Minor, Cancel)
        );
        Assert.Equal(0, all);
        await House.DbAsync(db => db.CommissionPlans.Where(p => p.Code == "A first").ExecuteDeleteAsync(Cancel));
    }

    private Task<int> OnAsync(CommissionOn on) =>
        House.DbAsync(db => db.Commissions.ExecuteUpdateAsync(c => c.SetProperty(x => x.On, on), Cancel));

    private static async Task<List<JsonElement>> LinesAsync(HttpClient who, string document) =>
        [
            .. (await (await who.GetAsync("/api/commissions", Cancel)).JsonAsync())
                .GetProperty("lines")
                .EnumerateArray()
                .Where(l => l.GetProperty("document").GetString() == document),
        ];

    [Fact]
    public async Task Papers_say_what_the_house_says_there_and_a_buyer_gets_their_own()
    {
        var cass = await House.AsAsync(10);
        async Task<HttpResponseMessage> TextAsync(object values) =>
            await cass.PostAsJsonAsync("/api/records/paper-texts", new { values }, Cancel);
        var own = await TextAsync(
            new
            {
                name = "Tressel",
                code = "Tressel",
                paper = "invoice",
                language = "en",
                buyer = "Tressel & Vane Rigging",
                above = "As agreed at the quay.",
                below = "Thank you, Fionn.",
            }
        );
        Assert.True(own.IsSuccessStatusCode, await own.Content.ReadAsStringAsync(Cancel));
        Assert.False(
            (
                await TextAsync(
                    new
                    {
                        code = "odd",
                        paper = "invoice",
                        language = "tlh",
                    }
                )
            ).IsSuccessStatusCode
        );
        var (order, _) = await OrderedAsync($"7 x {Shackle}");
        await ShipAsync(order);
        var number = await InvoicedAsync(await House.AsAsync(Petra), order);
        var words = string.Join(
            ' ',
            PdfText
                .Read(await cass.GetByteArrayAsync($"/api/invoices/{number}/pdf", Cancel))
                .Pages.SelectMany(p => p.Words.Select(w => w.Text))
        );
        Assert.Contains("As agreed at the quay.", words, StringComparison.Ordinal);
        Assert.Contains("Thank you, Fionn.", words, StringComparison.Ordinal);
        // Theirs goes before the one for all.
        Assert.DoesNotContain("stay ours until they are paid", words, StringComparison.Ordinal);
        var picture = await cass.GetAsync(
            "/api/setup/papers/picture?paper=delivery%20note&language=de&above=Hallo",
            Cancel
        );
        Assert.Equal("image/png", picture.Content.Headers.ContentType!.MediaType);
        var nell = await House.AsAsync(Havergal);
        // What is no kind of paper is shown on a quote, also where it is a number.
        foreach (var none in new[] { "-1", "100", "napkin" })
            Assert.Equal(
                HttpStatusCode.OK,
                (await cass.GetAsync($"/api/setup/papers/picture?paper={none}", Cancel)).StatusCode
            );
        Assert.Equal(HttpStatusCode.Forbidden, (await nell.GetAsync("/api/setup/papers/picture", Cancel)).StatusCode);
        await House.DbAsync(db => db.PaperTexts.Where(t => t.Code == "Tressel").ExecuteDeleteAsync(Cancel));
    }
}
