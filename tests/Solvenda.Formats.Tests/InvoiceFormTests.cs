using System.Collections.Immutable;
using System.Text;
using Solvenda.Core.Billing;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Edifact;
using Solvenda.Formats.X12;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Invoices go back in the form that their order came in.</summary>
public sealed class InvoiceFormTests
{
    private const string X12 =
        "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000901*0*P*>~GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*901*X*004010~ST*850*0001~BEG*00*SA*NG-1**20260305~PO1*1*40*EA***VP*SHK-BOW-10~CTT*1~SE*5*0001~GE*1*901~IEA*1*000000901~";

    private const string Orders =
        "UNB+UNOC:3+5412345000013:14+BRINEMOOR:ZZ+260305:0914+77'UNH+1+ORDERS:D:96A:UN'BGM+220+NG-1+9'DTM+137:20260305:102'NAD+BY+5412345000013::9'NAD+SU+BRINEMOOR::92'LIN+1++SHK-BOW-10:SA'QTY+21:40'UNS+S'UNT+9+1'UNZ+1+77'";

    private const string Ubl = """
        <Order xmlns="urn:oasis:names:specification:ubl:schema:xsd:Order-2" xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2"><cbc:ID>NG-1</cbc:ID><cac:BuyerCustomerParty><cac:Party><cbc:EndpointID schemeID="EM">aeolis</cbc:EndpointID></cac:Party></cac:BuyerCustomerParty></Order>
        """;

    private static IssuedInvoice Issued(BillKind kind) =>
        new(
            kind,
            "F26-00009",
            new DateOnly(2026, 11, 28),
            new DateOnly(2027, 1, 27),
            "USD",
            new InvoiceParty("Brinemoor", ["The Quay"], "IE", "IE9999999WA", "orders@brinemoor.example"),
            new InvoiceParty("Northgannet", ["Pier Road"], "US", "", "a@northgannet.example"),
            "Pier Road",
            "US",
            new DateOnly(2026, 11, 27),
            "S26-00003",
            "NG-1",
            "",
            kind == BillKind.Credit ? "F26-00008" : "",
            null,
            "",
            "en",
            "60 days net",
            ["S26-00003/1"],
            [
                new(
                    1,
                    "1",
                    "SHK-BOW-10",
                    "NG-77",
                    "Bow shackle 10 mm, galvanised, with pin and chain*",
                    40m,
                    "C62",
                    960m,
                    100m,
                    384.50m,
                    "G",
                    0m
                ),
                new(2, "2", "SVC-EYE", "", "Eye splice", 2m, "C62", 6.1m, 1m, 12.20m, "G", 0m),
            ],
            [new("less", 4m, "G", 0m)],
            [new("freight", 30m, "G", 0m)],
            [new("G", 0m, 422.70m, 0m)],
            22.70m,
            "",
            0.92m
        );

    private static WrittenMessage Written(Syntax syntax, string original, BillKind kind = BillKind.Invoice) =>
        Writers.Invoice(syntax.ToString())!.Write(Issued(kind), original, 41, new DateTime(2026, 11, 28, 9, 5, 0))!;

    private static ImmutableArray<string> Segments(WrittenMessage message, char end) =>
        [.. Encoding.Latin1.GetString(message.Bytes).Split(end).Select(s => s.Trim())];

    [Fact]
    public void An_810_opens_as_it_should_and_says_the_same()
    {
        var written = Written(Syntax.X12, X12);
        Assert.Equal(("810-F26-00009.x12", "NORTHGANNET", "41"), (written.Name, written.To, written.Control));
        var (opened, fault) = X12Interchange.Open(Encoding.Latin1.GetString(written.Bytes));
        Assert.True(opened is not null, $"{fault}");
        Assert.Equal("810", Assert.Single(opened.Messages).Type);
        var segments = Segments(written, '~');
        Assert.Contains("BIG*20261128*F26-00009**NG-1***DI", segments);
        Assert.Contains("ITD*01*3****20270127", segments);
        Assert.Contains("IT1*1*40*C62*9.6*PE*BP*NG-77*VP*SHK-BOW-10", segments);
        // The cents by which a line is more than its quantity at its price.
        Assert.Contains("SAC*C*ZZZZ***50**********line", segments);
        Assert.Contains("SAC*A*ZZZZ***400**********less", segments);
        Assert.Contains("SAC*C*ZZZZ***3000**********freight", segments);
        Assert.Contains("TDS*42270", segments);
        Assert.Contains("CTT*2", segments);
    }

    [Fact]
    public void A_credit_note_names_its_invoice_and_no_day_to_pay()
    {
        var segments = Segments(Written(Syntax.X12, X12, BillKind.Credit), '~');
        Assert.Contains("BIG*20261128*F26-00009**NG-1***CN", segments);
        Assert.Contains("REF*IV*F26-00008", segments);
        Assert.DoesNotContain(segments, s => s.StartsWith("ITD", StringComparison.Ordinal));
        segments = Segments(Written(Syntax.Edifact, Orders, BillKind.Credit), '\'');
        Assert.Contains("BGM+381+F26-00009+9", segments);
        Assert.Contains("RFF+IV:F26-00008", segments);
    }

    [Fact]
    public void An_INVOIC_opens_as_it_should_and_says_the_same()
    {
        var written = Written(Syntax.Edifact, Orders);
        Assert.Equal(("INVOIC-F26-00009.edi", "5412345000013"), (written.Name, written.To));
        var (opened, fault) = EdifactInterchange.Open(Encoding.Latin1.GetString(written.Bytes));
        Assert.True(opened is not null, $"{fault}");
        Assert.Equal("INVOIC", Assert.Single(opened.Messages).Type);
        var segments = Segments(written, '\'');
        Assert.Contains("DTM+13:20270127:102", segments);
        Assert.Contains("NAD+BY+5412345000013::9", segments);
        Assert.Contains("RFF+VA:IE9999999WA", segments);
        Assert.Contains("PRI+AAA:960:::100:C62", segments);
        Assert.Contains("MOA+77:422.7", segments);
        Assert.Contains("MOA+113:22.7", segments);
        Assert.Contains("MOA+9:400", segments);
        Assert.Contains("CNT+2:2", segments);
    }

    [Fact]
    public void UBL_goes_to_whom_the_order_names_and_what_cannot_be_opened_goes_no_such_way()
    {
        var written = Written(Syntax.Xml, Ubl);
        Assert.Equal(("Invoice-F26-00009.xml", "aeolis"), (written.Name, written.To));
        foreach (var syntax in new[] { Syntax.X12, Syntax.Edifact, Syntax.Xml })
            Assert.Null(
                Writers.Invoice(syntax.ToString())!.Write(Issued(BillKind.Invoice), "gone", 1, DateTime.UnixEpoch)
            );
        Assert.Null(Writers.Invoice(""));
    }
}
