using System.Globalization;
using System.Security;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Ledger;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>
/// The stand-in for the bank: yesterday's statement, of which most goes by itself and five movements need somebody.
/// </summary>
internal static class DemoBank
{
    private const string Ours = "IE00HARB99990001000203";
    private const int Clear = 33;
    private const string Vague = "Tressel & Vane Rigging";
    private const string Late = "Dunmarrow Rescue Trust";

    /// <summary>What the marketplace holds of ours, from before the books, until it pays it out.</summary>
    public static async Task AddHeldAsync(SolvendaDb db, DateOnly today, CancellationToken cancel)
    {
        var accounts = await db
            .Accounts.Where(a => a.Use == AccountUse.AtChannels || a.Use == AccountUse.Opening)
            .ToDictionaryAsync(a => a.Use, a => a.Code, cancel);
        EntryRow Side(AccountUse use, long debit, long credit) =>
            new()
            {
                Day = today.AddDays(-30),
                Document = "harbourmart",
                Account = accounts[use],
                Currency = "EUR",
                DebitMinor = debit,
                CreditMinor = credit,
                Words = "from before the books",
                At = DemoPapers.At(today.AddDays(-30)),
                ByName = "Solvenda",
            };
        db.Entries.AddRange(Side(AccountUse.AtChannels, Held, 0), Side(AccountUse.Opening, 0, Held));
    }

    private const long Held = 2_186_26;

    /// <summary>The statement, as camt.053.</summary>
    public static async Task<(string Name, byte[] Bytes)> StatementAsync(SolvendaDb db, DateOnly today)
    {
        var day = today.AddDays(-1);
        var owed = await (
            from o in db.OpenItems
            join b in db.Buyers on o.BuyerId equals b.Id
            where o.OpenMinor > 0 && (o.Currency == "EUR" || (o.Currency == "" && b.Currency == "EUR"))
            orderby o.Due, o.Id
            select new { Item = o, b.Name }
        ).ToListAsync();
        var paid = await db.OpenItems.Where(o => o.PaidOn != null).OrderByDescending(o => o.Id).FirstAsync();
        var entries = new StringBuilder();
        var count = 0;
        void Came(long minor, string payer, string words, string account) =>
            entries.Append(Entry(++count, day, minor, payer, words, account));
        var most = owed.GroupBy(o => o.Name)
            .Where(g => g.Key is not (Vague or Late))
            .OrderByDescending(g => g.Count())
            .ThenBy(g => g.Key, StringComparer.Ordinal)
            .First();
        // Those that the story leans on stay open, and those of who pays a round sum.
        var usual = owed.Where(o => o.Name is not (Vague or Late) && o.Name != most.Key).Take(Clear).ToList();
        // Some pay in two parts, so that there are as many movements.
        var twice = Clear - usual.Count;
        foreach (var (one, i) in usual.Select((o, i) => (o, i)))
        {
            var (words, account) = (Words(one.Item, i), Account(one.Item.BuyerId));
            var first = i < twice ? one.Item.OpenMinor / 2 : one.Item.OpenMinor;
            Came(first, one.Name, words, account);
            if (i < twice)
                Came(one.Item.OpenMinor - first, one.Name, words, account);
        }
        Came(9_000_00, most.Key.ToUpperInvariant(), "season, part", Account(most.First().Item.BuyerId));
        Came(3_233_02, "T AND V RIGGING LTD", "thanks", "IE33HARB77770000001111");
        Came(
            2_011_36,
            "Harbourmart",
            "payout, 14 orders over 2186.26, fees 174.90 kept back",
            "IE44MART00000000009999"
        );
        Came(463_40, "a yard", $"{paid.Number} twice", "IE55HARB00000000004444");
        Came(500_00, "", "DEPOSIT CHAIN", "IE66HARB00000000000192");
        return (
            $"statement-{day:yyyy-MM-dd}.xml",
            Encoding.UTF8.GetBytes(
                $"""
                <?xml version="1.0" encoding="UTF-8"?>
                <Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt>
                <GrpHdr><MsgId>HSB-{day:yyyyMMdd}</MsgId></GrpHdr>
                <Stmt><Id>{day:yyyy}-{day.DayOfYear:000}</Id><Acct><Id><IBAN>{Ours}</IBAN></Id></Acct>
                {entries}</Stmt></BkToCstmrStmt></Document>
                """
            )
        );
    }

    private static string Words(OpenItemRow item, int i) =>
        (i % 4) switch
        {
            0 => item.Number,
            1 => $"invoice {item.Number}, with thanks",
            2 => item.Number.Replace("-", " ", StringComparison.Ordinal),
            _ => $"payment of {item.Number.ToLowerInvariant()}",
        };

    private static string Account(long buyer) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"IE{buyer % 90 + 10:00}HARB{buyer * 104_729 % 100_000_000:00000000}"
        );

    private static string Entry(int count, DateOnly day, long minor, string payer, string words, string account) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"""
            <Ntry><Amt Ccy="EUR">{minor / 100m:F2}</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts>
            <BookgDt><Dt>{day:yyyy-MM-dd}</Dt></BookgDt><AcctSvcrRef>HSB{day:yyMMdd}{count:000}</AcctSvcrRef>
            <NtryDtls><TxDtls><RltdPties><Dbtr><Pty><Nm>{SecurityElement.Escape(payer)}</Nm></Pty></Dbtr><DbtrAcct><Id>
            <IBAN>{account}</IBAN></Id></DbtrAcct></RltdPties><RmtInf><Ustrd>{SecurityElement.Escape(
                words
            )}</Ustrd></RmtInf>
            </TxDtls></NtryDtls></Ntry>

            """
        );
}
