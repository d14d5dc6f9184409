using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// Random histories of orders in several currencies and taxes: paid ahead, shipped, invoiced, changed, given back,
/// credited and paid in parts, more gone than was ordered, and what is left closed short. Whatever happens, documents,
/// what is owed and the ledger agree to the cent.
/// </summary>
public sealed class MoneyHistoryTests(House house) : MoneyCalls(house)
{
    private static readonly string[] _items = ["PS3-12-WH", "SHK-BOW-12", "THM-SS-12"];
    private const long Petra = 9;
    private const int Steps = 18;

    private async Task<string> OrderedAsync(HttpClient nell, string buyer, Random random)
    {
        var id = await House.DbAsync(db => db.Buyers.Where(b => b.Name == buyer).Select(b => b.Id).FirstAsync(Cancel));
        await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == id)
                .ExecuteUpdateAsync(
                    b => b.SetProperty(x => x.CreditLimitMinor, 900_000_000L).SetProperty(x => x.OverDelivery, 5m),
                    Cancel
                )
        );
        var made = await nell.PostAsync($"/api/buyers/{id}/orders", null, Cancel);
        var number = (await made.JsonAsync()).GetProperty("number").GetString()!;
        var sheet = await SeenAsync(nell, $"/api/orders/{number}");
        foreach (var item in _items)
            sheet = await nell.EditAsync(sheet, new { kind = "add", value = $"{random.Next(7, 60)} x {item}" });
        sheet = await SetAsync(nell, sheet, "poNumber", "PO-" + number);
        sheet = await SetAsync(nell, sheet, "shippingRule", "as it comes");
        sheet = await SetAsync(nell, sheet, "sheetDiscount", "3 %");
        var done = await nell.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        return number;
    }

    private static async Task ShipSomeAsync(HttpClient juno, string order, Random random)
    {
        var goods = await (await juno.GetAsync($"/api/goods/{order}", Cancel)).JsonAsync();
        var lines = goods
            .GetProperty("lines")
            .EnumerateArray()
            .Select(l =>
                (
                    Key: l.GetProperty("key").GetInt64(),
                    Here: l.GetProperty("here").GetDecimal(),
                    Ordered: l.GetProperty("ordered").GetDecimal(),
                    Gone: l.GetProperty("gone").GetDecimal()
                )
            )
            .Where(l => l.Here >= 1m)
            .Select(l => (l.Key, Quantity: Math.Floor(l.Here * random.Next(0, 5) / 4m), l.Ordered, l.Gone))
            // The last of a line may be more than was ordered.
            .Select(l => new
            {
                key = l.Key,
                quantity = l.Quantity + l.Gone == l.Ordered ? l.Quantity + Math.Floor(l.Ordered / 20m) : l.Quantity,
            })
            .Where(l => l.quantity > 0m)
            .ToList();
        if (lines.Count > 0)
            (await juno.PostAsJsonAsync("/api/goods/ship", new { order, lines }, Cancel)).EnsureSuccessStatusCode();
    }

    private async Task CreditSomeAsync(HttpClient petra, string order, Random random)
    {
        var invoices = await House.DbAsync(db =>
            db.Invoices.Where(i => i.Order.Number == order && i.Kind == BillKind.Invoice)
                .Select(i => i.Number)
                .ToListAsync(Cancel)
        );
        if (invoices.Count == 0)
            return;
        var number = invoices[random.Next(invoices.Count)];
        var left = await (await petra.GetAsync($"/api/invoices/{number}/creditable", Cancel)).JsonAsync();
        var lines = left.EnumerateArray()
            .Select(l => new
            {
                key = l.GetProperty("key").GetInt64(),
                quantity = Math.Floor(l.GetProperty("left").GetDecimal() * random.Next(0, 3) / 2m),
            })
            .Where(l => l.quantity > 0m)
            .ToList();
        if (lines.Count > 0)
            (
                await petra.PostAsJsonAsync(
                    $"/api/invoices/{number}/credit",
                    new
                    {
                        reason = "came wet",
                        lines,
                        charges = random.Next(2) == 0,
                    },
                    Cancel
                )
            ).EnsureSuccessStatusCode();
    }

    // Some of what went comes back: to the shelf, and credited where it was invoiced.
    private static async Task ReturnSomeAsync(
        HttpClient nell,
        HttpClient juno,
        HttpClient petra,
        string order,
        Random random
    )
    {
        var path = $"/api/orders/{order}/returns";
        var of = await (await nell.GetAsync(path, Cancel)).JsonAsync();
        var lines = of.GetProperty("lines")
            .EnumerateArray()
            .Select(l => new
            {
                key = l.GetProperty("key").GetInt64(),
                quantity = Math.Floor(l.GetProperty("left").GetDecimal() / random.Next(2, 6)),
            })
            .Where(l => l.quantity > 0m)
            .ToList();
        if (lines.Count == 0)
            return;
        var asked = await PostAsync(
            nell,
            path,
            new
            {
                lines,
                @for = "credit",
                reason = "came wet",
            }
        );
        var no = asked.GetProperty("returns").EnumerateArray().Last().GetProperty("no").GetInt32();
        await PostAsync(nell, $"{path}/{no}/decide", new { allow = true });
        await PostAsync(juno, $"{path}/{no}/take", new { });
        // What is on no invoice yet cannot be credited; it is settled when it is.
        var settled = await petra.PostAsJsonAsync($"{path}/{no}/settle", new { }, Cancel);
        Assert.True(
            settled.IsSuccessStatusCode || await settled.CodeAsync() == "not_invoiced",
            await settled.Content.ReadAsStringAsync(Cancel)
        );
    }

    // Some of it ahead: at home that is taxed by a deposit invoice.
    private async Task DepositSomeAsync(HttpClient petra, string order, Random random)
    {
        var total = await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == order).Select(o => o.Sheet.TotalWithTaxMinor).FirstAsync(Cancel)
        );
        var noted = await petra.PostAsJsonAsync(
            $"/api/orders/{order}/deposits",
            new
            {
                amount = Math.Max(1, total / random.Next(3, 9)) / 100m,
                receivedOn = House.Services.GetRequiredService<Acts.Acting.HouseClock>().Today,
                reference = $"D{random.Next()}",
            },
            Cancel
        );
        Assert.True(
            noted.IsSuccessStatusCode || await noted.CodeAsync() is "number" or "order_invoiced",
            await noted.Content.ReadAsStringAsync(Cancel)
        );
    }

    // What is left of one line is not delivered any more.
    private static async Task CloseSomeAsync(HttpClient nell, string order, Random random)
    {
        var seen = await SeenAsync(nell, $"/api/orders/{order}");
        var lines = seen.GetProperty("lines")
            .EnumerateArray()
            .Where(l => l.GetProperty("counts").GetBoolean())
            .ToList();
        var key = lines[random.Next(lines.Count)].GetProperty("key").GetInt64();
        var closed = await nell.ActAsync(
            $"/api/orders/{order}/close-lines",
            seen,
            new { lines = new[] { key }, reason = "no need" }
        );
        Assert.True(
            closed.IsSuccessStatusCode || await closed.CodeAsync() is "line_gone" or "lines_all",
            await closed.Content.ReadAsStringAsync(Cancel)
        );
    }

    // More or less of a line, another price for what is left of it, another line: and it is confirmed anew.
    private static async Task ChangeSomeAsync(HttpClient nell, string order, Random random)
    {
        var opened = await nell.PostAsync($"/api/orders/{order}/change", null, Cancel);
        if (!opened.IsSuccessStatusCode)
        {
            Assert.Equal("order_begun", await opened.CodeAsync());
            return;
        }
        var sheet = (await opened.JsonAsync()).Sheet();
        var lines = sheet.GetProperty("lines").EnumerateArray().ToList();
        var line = lines[random.Next(lines.Count)];
        var begun = line.GetProperty("begun").GetDecimal();
        var (field, value) = random.Next(3) switch
        {
            0 => ("quantity", Math.Max(1m, begun) + random.Next(0, 40)),
            1 => ("discount", random.Next(1, 4)),
            _ => ("net", Math.Round(line.GetProperty("netPrice").GetDecimal() * 1.0137m, 4)),
        };
        var edit = new
        {
            kind = "set",
            line = line.GetProperty("key").GetInt64(),
            field,
            value = value.ToString(CultureInfo.InvariantCulture),
        };
        var edited = await nell.ActAsync(
            $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits",
            sheet,
            new[] { edit }
        );
        Assert.True(
            edited.IsSuccessStatusCode || await edited.CodeAsync() == "order_begun",
            await edited.Content.ReadAsStringAsync(Cancel)
        );
        sheet = await nell.EditAsync(
            await SeenAsync(nell, $"/api/orders/{order}"),
            new { kind = "add", value = $"{random.Next(1, 9)} x {_items[0]}" }
        );
        var done = await nell.ActAsync($"/api/orders/{order}/confirm", sheet);
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
    }

    private async Task PaySomeAsync(HttpClient machine, string order, Random random)
    {
        var owed = await House.DbAsync(db =>
            db.OpenItems.Where(o =>
                    o.OpenMinor > 0 && db.Invoices.Any(i => i.Id == o.InvoiceId && i.Order.Number == order)
                )
                .ToListAsync(Cancel)
        );
        if (owed.Count == 0)
            return;
        var one = owed[random.Next(owed.Count)];
        // In part, as it is, or more than is owed.
        var minor = random.Next(3) switch
        {
            0 => Math.Max(1, one.OpenMinor / 3),
            1 => one.OpenMinor,
            _ => one.OpenMinor + 1_01,
        };
        var amount = (minor / 100m).ToString("F2", CultureInfo.InvariantCulture);
        var file =
            $"<Document><BkToCstmrStmt><Stmt><Id>h</Id><Acct><Id><IBAN>IE00</IBAN></Id></Acct><Ntry><Amt Ccy=\"{one.Currency}\">{amount}</Amt><CdtDbtInd>CRDT</CdtDbtInd><BookgDt><Dt>2026-03-02</Dt></BookgDt><AcctSvcrRef>H{random.Next()}</AcctSvcrRef><NtryDtls><TxDtls><RmtInf><Ustrd>{one.Number}</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry></Stmt></BkToCstmrStmt></Document>";
        (
            await machine.PostAsync("/api/v1/bank", new ByteArrayContent(Encoding.UTF8.GetBytes(file)), Cancel)
        ).EnsureSuccessStatusCode();
    }

    [Theory]
    [InlineData("Tressel & Vane Rigging", 1)]
    [InlineData("Kestrel Yard Boatbuilders", 2)]
    [InlineData("Nordvass Båtvarv", 3)]
    [InlineData("Tressel & Vane Rigging", 4)]
    [InlineData("Tressel & Vane Rigging", 5)]
    public async Task Documents_what_is_owed_and_the_ledger_agree_whatever_happens(string buyer, int seed)
    {
        var random = new Random(seed);
        foreach (var item in _items)
            await CountedAsync(item, 20_000, 0);
        var (nell, juno, petra) = (
            await House.AsAsync(Havergal),
            await House.AsAsync(Castellane),
            await House.AsAsync(Petra)
        );
        using var machine = House.Machine();
        var order = await OrderedAsync(nell, buyer, random);
        for (var step = 0; step < Steps; step++)
        {
            if (step is 5 or 11)
                await ChangeSomeAsync(nell, order, random);
            if (step == Steps / 2)
                await CloseSomeAsync(nell, order, random);
            switch (random.Next(6))
            {
                case 0:
                    await ShipSomeAsync(juno, order, random);
                    break;
                case 1:
                    var made = await petra.PostAsJsonAsync("/api/invoices", new { order }, Cancel);
                    Assert.True(made.StatusCode is HttpStatusCode.OK or HttpStatusCode.Conflict);
                    break;
                case 2:
                    await CreditSomeAsync(petra, order, random);
                    break;
                case 3:
                    await ReturnSomeAsync(nell, juno, petra, order, random);
                    break;
                case 4:
                    await DepositSomeAsync(petra, order, random);
                    break;
                default:
                    await PaySomeAsync(machine, order, random);
                    break;
            }
        }
        await juno.PostAsJsonAsync("/api/goods/ship", new { order, lines = Array.Empty<object>() }, Cancel);
        await petra.PostAsJsonAsync("/api/invoices", new { order }, Cancel);
        await AgreeAsync(order);
        Assert.Empty(await MoneyFaultsAsync());
    }

    // All of it is invoiced: the parts come to the order, and each document to its open part and what was taken of it.
    private async Task AgreeAsync(string order)
    {
        var found = await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == order)
                .Select(o => new
                {
                    o.Id,
                    o.Goods,
                    o.Sheet.TotalWithoutTaxMinor,
                })
                .FirstAsync(Cancel)
        );
        Assert.Equal(GoodsTrack.Shipped, found.Goods);
        var rows = await House.DbAsync(db =>
            db.Invoices.AsNoTracking().Where(i => i.OrderId == found.Id).ToListAsync(Cancel)
        );
        var bills = await House.DbAsync(db =>
            db.InvoiceParts.Where(p => p.OrderId == found.Id && p.Invoice.Kind == BillKind.Invoice)
                .Select(p => new { p.Bill, p.Invoice.Currency })
                .ToListAsync(Cancel)
        );
        var deducted = bills
            .SelectMany(b =>
                Data.KeptBill.Read(BillKind.Invoice, b.Bill, Core.Money.Currency.Of(b.Currency)).Deductions
            )
            .Sum(d => d.Basis.Minor);
        // A line that was closed after all of it that went was billed may keep a cent of what it was.
        Assert.InRange(
            rows.Where(i => i.Kind == BillKind.Invoice).Sum(i => i.TotalWithoutTaxMinor)
                + deducted
                - found.TotalWithoutTaxMinor,
            -2,
            2
        );
        foreach (var row in rows)
        {
            var (open, taken) = await House.DbAsync(async db =>
                (
                    await db.OpenItems.Where(o => o.InvoiceId == row.Id).SumAsync(o => o.OpenMinor, Cancel),
                    await db
                        .Paid.Where(p => db.OpenItems.Any(o => o.Id == p.OpenItemId && o.InvoiceId == row.Id))
                        .SumAsync(p => p.Minor, Cancel)
                )
            );
            if (row.Kind == BillKind.Invoice)
                Assert.Equal(row.TotalWithTaxMinor - row.PrepaidMinor, open + taken);
            var said = JsonSerializer.Deserialize<IssuedInvoice>(row.Document)!;
            Assert.Equal(row.TotalWithTaxMinor, (long)(said.TotalWithTax * 100m));
            Assert.Equal(
                said.TotalWithoutTax,
                said.Nets - said.Allowances.Sum(a => a.Amount) + said.Charges.Sum(c => c.Amount)
            );
        }
    }
}
