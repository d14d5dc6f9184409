using System.Text;
using Solvenda.Formats.Bank;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Statements of banks as they come.</summary>
public sealed class Camt053Tests
{
    private static byte[] File(string entries, string version = "08") =>
        Encoding.UTF8.GetBytes(
            $"""
            <?xml version="1.0" encoding="UTF-8"?>
            <Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.{version}"><BkToCstmrStmt>
            <GrpHdr><MsgId>m1</MsgId><CreDtTm>2026-11-27T20:00:00</CreDtTm></GrpHdr>
            <Stmt><Id>2026-331</Id><Acct><Id><IBAN>IE00HARB99990001000203</IBAN></Id><Ccy>EUR</Ccy></Acct>
            <Bal><Tp><CdOrPrtry><Cd>OPBD</Cd></CdOrPrtry></Tp><Amt Ccy="EUR">1.00</Amt><CdtDbtInd>CRDT</CdtDbtInd></Bal>
            {entries}</Stmt></BkToCstmrStmt></Document>
            """
        );

    private static string Entry(string inner, string sign = "CRDT", string amount = "120.50", string head = "") =>
        $"""
            <Ntry><Amt Ccy="EUR">{amount}</Amt><CdtDbtInd>{sign}</CdtDbtInd>{head}<BookgDt><Dt>2026-11-26</Dt></BookgDt>
            <AcctSvcrRef>B1</AcctSvcrRef><NtryDtls>{inner}</NtryDtls></Ntry>
            """;

    private static string Details(string words, string more = "") =>
        $"""
            <TxDtls><Refs>{more}<EndToEndId>E7</EndToEndId></Refs><RltdPties><Dbtr><Pty><Nm>Tressel</Nm></Pty></Dbtr>
            <DbtrAcct><Id><IBAN>IE12ABCD</IBAN></Id></DbtrAcct></RltdPties><RmtInf><Ustrd>{words}</Ustrd></RmtInf></TxDtls>
            """;

    [Fact]
    public void A_movement_says_who_paid_how_much_and_why()
    {
        var one = Assert.Single(Camt053.Read(File(Entry(Details("F26-00231")))));
        Assert.Equal(
            new BankMovement(
                "IE00HARB99990001000203",
                "2026-331",
                "B1",
                new DateOnly(2026, 11, 26),
                120.50m,
                "EUR",
                false,
                "Tressel",
                "IE12ABCD",
                "E7",
                "F26-00231 E7"
            ),
            one
        );
    }

    [Fact]
    public void A_batch_is_as_many_movements_each_with_a_reference()
    {
        var parts =
            Details("one", "<AcctSvcrRef>B1a</AcctSvcrRef>")
                .Replace("</Refs>", "</Refs><Amt Ccy=\"EUR\">20.50</Amt>", StringComparison.Ordinal)
            + Details("two")
                .Replace(
                    "</Refs>",
                    "</Refs><AmtDtls><TxAmt><Amt Ccy=\"EUR\">100.00</Amt></TxAmt></AmtDtls>",
                    StringComparison.Ordinal
                );
        var read = Camt053.Read(File(Entry(parts), "02"));
        Assert.Equal([("B1a", 20.50m), ("B1/2", 100m)], read.Select(m => (m.Reference, m.Amount)));
    }

    [Fact]
    public void What_is_paid_out_reversed_or_only_announced_is_told_apart()
    {
        var read = Camt053.Read(
            File(
                Entry(Details("rent"), "DBIT")
                    + Entry(Details("back"), "DBIT", head: "<RvslInd>true</RvslInd>")
                    + Entry(Details("soon"), head: "<Sts><Cd>PDNG</Cd></Sts>")
            )
        );
        Assert.Equal([(-120.50m, false), (-120.50m, true)], read.Select(m => (m.Amount, m.IsReversal)));
    }

    [Theory]
    [InlineData("no xml", "no XML")]
    [InlineData("<a/>", "no statement")]
    [InlineData("<!DOCTYPE a [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><a>&x;</a>", "no XML")]
    public void What_is_no_statement_is_said(string text, string said) =>
        Assert.Contains(
            said,
            Assert.Throws<FormatException>(() => Camt053.Read(Encoding.UTF8.GetBytes(text))).Message,
            StringComparison.Ordinal
        );

    [Theory]
    [InlineData("-5.00")]
    [InlineData("1,00")]
    [InlineData("1e9")]
    public void An_amount_that_cannot_be_read_takes_nothing_in(string amount) =>
        Assert.Throws<FormatException>(() => Camt053.Read(File(Entry(Details("x"), amount: amount))));
}
