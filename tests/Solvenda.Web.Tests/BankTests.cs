using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Money that came: taken in once, applied where it is sure, and left where it is not.</summary>
public sealed class BankTests(House house) : MoneyCalls(house)
{
    private const long Petra = 9;
    private static int _count;

    private sealed record Came(
        string Reference,
        decimal Amount,
        string Words,
        string Payer = "somebody",
        string Account = "IE55NOBODY",
        string Currency = "EUR",
        bool Reversal = false
    );

    private static ByteArrayContent File(params Came[] came) =>
        new(
            Encoding.UTF8.GetBytes(
                $"""
                <Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt><Stmt><Id>st-1</Id>
                <Acct><Id><IBAN>IE00HARB99990001000203</IBAN></Id></Acct>
                {string.Concat(came.Select(Entry))}</Stmt></BkToCstmrStmt></Document>
                """
            )
        );

    private static string Entry(Came c) =>
        $"""
            <Ntry><Amt Ccy="{c.Currency}">{c.Amount.ToString("F2", CultureInfo.InvariantCulture)}</Amt>
            <CdtDbtInd>{(c.Reversal ? "DBIT" : "CRDT")}</CdtDbtInd>{(c.Reversal ? "<RvslInd>true</RvslInd>" : "")}
            <BookgDt><Dt>2026-03-02</Dt></BookgDt><AcctSvcrRef>{c.Reference}</AcctSvcrRef><NtryDtls><TxDtls>
            <RltdPties><Dbtr><Nm>{c.Payer}</Nm></Dbtr><DbtrAcct><Id><IBAN>{c.Account}</IBAN></Id></DbtrAcct></RltdPties>
            <RmtInf><Ustrd>{c.Words}</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>
            """;

    private async Task<JsonElement> TakenAsync(params Came[] came)
    {
        using var machine = House.Machine();
        var answer = await machine.PostAsync("/api/v1/bank", File(came), Cancel);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync(Cancel));
        return await answer.JsonAsync();
    }

    // An invoice of before, of a buyer of their own, so that nothing else fits.
    private async Task<OpenItemRow> OwedAsync(decimal amount, string currency = "EUR", long buyer = Tressel)
    {
        var no = Interlocked.Increment(ref _count);
        var row = new OpenItemRow
        {
            BuyerId = buyer,
            Number = $"F19-{no:00000}",
            Currency = currency,
            Due = new DateOnly(2026, 2, 1).AddDays(no),
            OpenMinor = (long)(amount * 100),
        };
        await House.DbAsync(async db =>
        {
            db.OpenItems.Add(row);
            return await db.SaveChangesAsync(Cancel);
        });
        return row;
    }

    private Task<OpenItemRow> NowAsync(OpenItemRow row) =>
        House.DbAsync(db => db.OpenItems.AsNoTracking().FirstAsync(o => o.Id == row.Id, Cancel));

    private Task<ReceiptRow> ReceiptAsync(string reference) =>
        House.DbAsync(db => db.Receipts.AsNoTracking().FirstAsync(r => r.Reference == reference, Cancel));

    private static string Why(JsonElement taken, string entry) =>
        taken
            .GetProperty("open")
            .EnumerateArray()
            .Single(o => o.GetProperty("entry").GetString() == entry)
            .GetProperty("why")
            .GetString()!;

    [Fact]
    public async Task What_names_its_invoice_is_applied_and_the_same_file_takes_nothing_twice()
    {
        var (one, two) = (await OwedAsync(120.5m), await OwedAsync(80m));
        Came[] file =
        [
            new("A1", 120.5m, one.Number),
            new("A2", 30m, $"part of {two.Number}"),
            new("A3", 9_999.01m, "thanks"),
        ];
        var taken = await TakenAsync(file);
        Assert.Equal(
            [("A1", one.Number, 120.5m), ("A2", two.Number, 30m)],
            taken
                .GetProperty("applied")
                .EnumerateArray()
                .Select(a =>
                    (
                        a.GetProperty("entry").GetString()!,
                        a.GetProperty("invoice").GetString()!,
                        a.GetProperty("amount").GetDecimal()
                    )
                )
        );
        Assert.Equal("nobody knows whose it is", Why(taken, "A3"));
        Assert.Equal((0, 50_00), ((await NowAsync(one)).OpenMinor, (await NowAsync(two)).OpenMinor));
        Assert.NotNull((await NowAsync(one)).PaidOn);
        var again = await Task.WhenAll(TakenAsync(file), TakenAsync(file));
        Assert.All(
            again,
            a => Assert.Equal((0, 3), (a.GetProperty("applied").GetArrayLength(), a.GetProperty("known").GetInt32()))
        );
        Assert.Equal(50_00, (await NowAsync(two)).OpenMinor);
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task What_needs_somebody_is_said_and_the_next_time_their_account_is_known()
    {
        var (one, two) = (await OwedAsync(61m), await OwedAsync(62m));
        await TakenAsync(new Came("B1", 100m, "boats", Account: "IE77 TREV 1"));
        var petra = await House.AsAsync(Petra);
        var row = await ReceiptAsync("B1");
        var code = await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == Tressel).Select(b => b.Code).FirstAsync(Cancel)
        );
        var seen = await (await petra.GetAsync($"/api/bank/{row.Id}?buyer={code}", Cancel)).JsonAsync();
        Assert.Equal("picked", seen.GetProperty("knownBy").GetString());
        Task<HttpResponseMessage> Apply(HttpClient who, object[] takes, long version) =>
            who.PostAsJsonAsync(
                $"/api/bank/{row.Id}/apply",
                new
                {
                    buyer = Tressel,
                    takes,
                    seen = version,
                },
                Cancel
            );
        object[] much = [new { number = one.Number, amount = 61.01m }];
        Assert.Equal("number", await (await Apply(petra, much, 1)).CodeAsync());
        object[] both = [new { number = one.Number, amount = 61m }, new { number = two.Number, amount = 30m }];
        Assert.Equal(HttpStatusCode.Forbidden, (await Apply(await House.AsAsync(Quill), both, 1)).StatusCode);
        var two2 = await Task.WhenAll(Apply(petra, both, 1), Apply(await House.AsAsync(Stroud), both, 1));
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], two2.Select(t => t.StatusCode).Order());
        var now = await ReceiptAsync("B1");
        Assert.Equal((ReceiptState.Done, 9_00), (now.State, now.LeftMinor));
        Assert.Equal((0, 32_00), ((await NowAsync(one)).OpenMinor, (await NowAsync(two)).OpenMinor));

        var third = await OwedAsync(777.77m);
        await TakenAsync(new Came("B2", 777.77m, "no words", Account: "IE77TREV1"));
        Assert.Equal(0, (await NowAsync(third)).OpenMinor);
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task What_the_bank_takes_back_is_open_again()
    {
        var one = await OwedAsync(55m);
        await TakenAsync(new Came("C1", 60m, one.Number));
        Assert.Equal(5_00, (await ReceiptAsync("C1")).LeftMinor);
        await TakenAsync(new Came("C2", 60m, one.Number, Reversal: true));
        Assert.Equal((55_00, null), ((await NowAsync(one)).OpenMinor, (await NowAsync(one)).PaidOn));
        Assert.Equal(ReceiptState.Returned, (await ReceiptAsync("C1")).State);
        await TakenAsync(new Came("C2", 60m, one.Number, Reversal: true));
        Assert.Equal(55_00, (await NowAsync(one)).OpenMinor);
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task Money_of_another_currency_is_booked_with_its_difference()
    {
        var one = await OwedAsync(200m, "GBP");
        var wrong = await TakenAsync(new Came("D1", 200m, one.Number));
        Assert.Contains("it is in EUR", Why(wrong, "D1"), StringComparison.Ordinal);
        await TakenAsync(new Came("D2", 200m, one.Number, Currency: "GBP"));
        Assert.Equal(0, (await NowAsync(one)).OpenMinor);
        Assert.Empty(await MoneyFaultsAsync());
    }

    [Fact]
    public async Task What_lies_in_the_banks_folder_is_taken_once_and_what_cannot_be_read_is_set_apart()
    {
        var one = await OwedAsync(71m);
        var petra = await House.AsAsync(Petra);
        var folder = Path.Combine(House.DataFolder, "outside", "bank");
        foreach (var there in Directory.GetFiles(Path.Combine(folder, "in")))
            System.IO.File.Delete(there);
        Task<HttpResponseMessage> Take() => petra.PostAsync("/api/bank/waiting", null, Cancel);
        Assert.Equal(HttpStatusCode.NotFound, (await Take()).StatusCode);
        await System.IO.File.WriteAllTextAsync(Path.Combine(folder, "in", "a.xml"), "hello", Cancel);
        await System.IO.File.WriteAllBytesAsync(
            Path.Combine(folder, "in", "b.xml"),
            await File(new Came("E1", 71m, one.Number)).ReadAsByteArrayAsync(Cancel),
            Cancel
        );
        Assert.Equal("not_read", await (await Take()).CodeAsync());
        Assert.True(System.IO.File.Exists(Path.Combine(folder, "failed", "a.xml")));
        Assert.True((await Take()).IsSuccessStatusCode);
        Assert.True(System.IO.File.Exists(Path.Combine(folder, "done", "b.xml")));
        Assert.Equal(0, (await NowAsync(one)).OpenMinor);
    }

    [Fact]
    public async Task What_is_no_statement_books_nothing()
    {
        using var machine = House.Machine();
        using var words = new StringContent("hello");
        Assert.Equal("not_read", await (await machine.PostAsync("/api/v1/bank", words, Cancel)).CodeAsync());
        var quill = await House.AsAsync(Quill);
        Assert.Equal(HttpStatusCode.Forbidden, (await quill.GetAsync("/api/bank", Cancel)).StatusCode);
    }
}
