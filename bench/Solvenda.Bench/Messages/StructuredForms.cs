using System.Collections.Immutable;
using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;
using Solvenda.Core.Units;

namespace Solvenda.Bench.Messages;

/// <summary>Orders as machines write them.</summary>
internal static class StructuredForms
{
    private static readonly CultureInfo Plain = CultureInfo.InvariantCulture;

    /// <summary>Percents off, where something is.</summary>
    public const int Discount = 10;

    /// <summary>What one is to cost after the discount; null where no price is said.</summary>
    public static decimal? Net(Composer c, TrueLine line) =>
        c.Prices switch
        {
            Pricing.None => null,
            Pricing.WithDiscount => line.Gross * (100 - Discount) / 100m,
            _ => line.Gross,
        };

    public static byte[] X12(Composer c, int number, ImmutableArray<TrueLine> lines)
    {
        var text = new StringBuilder();
        text.Append(
            Plain,
            $"ISA*00*          *00*          *ZZ*{MadeShelf.Partner(c.Who.Id), -15}*ZZ*BRINEMOOR      *261123*0914*U*00401*{number:000000000}*0*P*>~GS*PO*{MadeShelf.Partner(c.Who.Id)}*BRINEMOOR*20261123*0914*{number}*X*004010~ST*850*0001~BEG*00*SA*{c.Po}**20261123~"
        );
        if (c.Date is { } date)
            text.Append(Plain, $"DTM*002*{date:yyyyMMdd}~");
        var segments = c.Date is null ? 4 : 5;
        foreach (var (line, i) in lines.Select((l, i) => (l, i)))
        {
            var hundred = c.Prices == Pricing.ForAHundred;
            var price = line.Price is null ? "" : (hundred ? line.Gross * 100m : line.Gross).ToString("0.####", Plain);
            text.Append(
                Plain,
                $"PO1*{i + 1}*{line.Quantity:0.####}*{X12Unit(line.Unit)}*{price}*{(hundred ? "HP" : "")}*VP*{line.Item!.Code}~"
            );
            segments++;
            if (c.Prices != Pricing.WithDiscount)
                continue;
            text.Append(Plain, $"SAC*A*C310*****{Discount}~");
            segments++;
        }
        text.Append(Plain, $"CTT*{lines.Length}~SE*{segments}*0001~GE*1*{number}~IEA*1*{number:000000000}~");
        return Encoding.Latin1.GetBytes(text.ToString());
    }

    private static string X12Unit(Unit unit) =>
        unit.Code switch
        {
            "MTR" => "MR",
            "C62" => "EA",
            "CL" => "CL",
            "BX" => "BX",
            _ => "SM",
        };

    public static byte[] Edifact(Composer c, int number, ImmutableArray<TrueLine> lines)
    {
        var body = new List<string> { "UNH+1+ORDERS:D:96A:UN:EAN008", $"BGM+220+{c.Po}+9", "DTM+137:20261123:102" };
        if (c.Date is { } date)
            body.Add(string.Create(Plain, $"DTM+2:{date:yyyyMMdd}:102"));
        foreach (var (line, i) in lines.Select((l, i) => (l, i)))
        {
            body.Add(string.Create(Plain, $"LIN+{i + 1}"));
            body.Add($"PIA+1+{line.Item!.Code}:SA");
            body.Add(
                string.Create(
                    Plain,
                    $"QTY+21:{line.Quantity:0.####}:{(line.Unit == Unit.Piece ? "PCE" : line.Unit.Code)}"
                )
            );
            if (line.Price is { } price)
                body.Add(
                    c.Prices == Pricing.ForAHundred
                        ? string.Create(Plain, $"PRI+AAA:{line.Gross * 100m:0.####}:CT::100:{line.Unit.Code}")
                        : string.Create(Plain, $"PRI+AAA:{price:0.####}")
                );
        }
        body.Add("UNS+S");
        body.Add(string.Create(Plain, $"UNT+{body.Count + 1}+1"));
        return Encoding.Latin1.GetBytes(
            string.Create(
                Plain,
                $"UNA:+.? 'UNB+UNOC:3+{MadeShelf.Partner(c.Who.Id)}:ZZ+BRINEMOOR:ZZ+261123:0730+{number}'{string.Join("'", body)}'UNZ+1+{number}'"
            )
        );
    }

    public static byte[] Ubl(Composer c, ImmutableArray<TrueLine> lines)
    {
        var text = new StringBuilder(
            """<?xml version="1.0" encoding="UTF-8"?><Order xmlns="urn:oasis:names:specification:ubl:schema:xsd:Order-2" xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2">"""
        );
        text.Append(
            Plain,
            $"<cbc:ID>{c.Po}</cbc:ID><cbc:IssueDate>2026-11-23</cbc:IssueDate><cac:BuyerCustomerParty><cac:Party><cac:PartyName><cbc:Name>{WebUtility.HtmlEncode(c.Who.Name)}</cbc:Name></cac:PartyName><cac:Contact><cbc:ElectronicMail>{c.Who.Mail}</cbc:ElectronicMail></cac:Contact></cac:Party></cac:BuyerCustomerParty>"
        );
        if (c.Date is { } date)
            text.Append(
                Plain,
                $"<cac:Delivery><cac:RequestedDeliveryPeriod><cbc:StartDate>{date:yyyy-MM-dd}</cbc:StartDate></cac:RequestedDeliveryPeriod></cac:Delivery>"
            );
        foreach (var (line, i) in lines.Select((l, i) => (l, i)))
            text.Append(
                Plain,
                $"""<cac:OrderLine><cac:LineItem><cbc:ID>{i + 1}</cbc:ID><cbc:Quantity unitCode="{line.Unit.Code}">{line.Quantity:0.####}</cbc:Quantity>{UblPrice(c, line)}<cac:Item><cbc:Name>{WebUtility.HtmlEncode(line.Item!.Words)}</cbc:Name><cac:SellersItemIdentification><cbc:ID>{line.Item.Code}</cbc:ID></cac:SellersItemIdentification></cac:Item></cac:LineItem></cac:OrderLine>"""
            );
        return Encoding.UTF8.GetBytes(text.Append("</Order>").ToString());
    }

    private static string UblPrice(Composer c, TrueLine line) =>
        line.Price is not { } price
            ? ""
            : string.Create(
                Plain,
                $"""<cac:Price><cbc:PriceAmount currencyID="EUR">{(c.Prices == Pricing.ForAHundred ? price * 100m : price):0.####}</cbc:PriceAmount><cbc:BaseQuantity unitCode="{line.Unit.Code}">{(c.Prices == Pricing.ForAHundred ? 100 : 1)}</cbc:BaseQuantity></cac:Price>"""
            );

    public static byte[] Json(Composer c, int number, ImmutableArray<TrueLine> lines) =>
        JsonSerializer.SerializeToUtf8Bytes(
            new
            {
                channel = "harbourmart",
                orders = new[]
                {
                    new
                    {
                        id = string.Create(Plain, $"HM-{number}"),
                        placedAt = "2026-11-23T19:22:41Z",
                        currency = "EUR",
                        buyer = new { name = c.Who.Contact, email = "somebody@mail.example" },
                        lines = lines
                            .Select(
                                (l, i) =>
                                    new
                                    {
                                        line = i + 1,
                                        sku = l.Item!.Code,
                                        quantity = l.Quantity,
                                        unitPrice = "10.00",
                                        taxIncluded = true,
                                    }
                            )
                            .ToArray(),
                        payment = new { state = "paid" },
                    },
                },
            }
        );
}
