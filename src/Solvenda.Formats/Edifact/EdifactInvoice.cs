using System.Globalization;
using System.Text;
using Solvenda.Core.Billing;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.Edifact;

/// <summary>Writes invoices and credit notes as INVOIC (UN/EDIFACT directory D.96A), to who ordered by an
/// ORDERS.</summary>
internal sealed class EdifactInvoice : IInvoiceWriter
{
    public Syntax Answers => Syntax.Edifact;

    public WrittenMessage? Write(IssuedInvoice invoice, string original, int control, DateTime at)
    {
        if (OrderResponse.Asked(invoice.PoNumber, original) is not var (theirs, message))
            return null;
        var body = Head(invoice, message);
        var count = 0;
        foreach (var line in invoice.Lines)
            body.AddRange(LineOf(invoice, line, ++count));
        body.AddRange(Totals(invoice, count));
        body.Add($"UNT+{body.Count + 1}+1");
        var reference = control.ToString(CultureInfo.InvariantCulture);
        var text = new StringBuilder()
            .Append(
                CultureInfo.InvariantCulture,
                $"UNB+UNOC:3+{EdifactText.Party(theirs.Receiver, theirs.ReceiverQualifier)}"
            )
            .Append(CultureInfo.InvariantCulture, $"+{EdifactText.Party(theirs.Sender, theirs.SenderQualifier)}")
            .Append(CultureInfo.InvariantCulture, $"+{at:yyMMdd:HHmm}+{reference}'\n");
        foreach (var segment in body)
            text.Append(segment).Append("'\n");
        text.Append(CultureInfo.InvariantCulture, $"UNZ+1+{reference}'\n");
        return new WrittenMessage(
            $"INVOIC-{invoice.Number}.edi",
            theirs.Sender,
            Encoding.Latin1.GetBytes(text.ToString())
        )
        {
            Control = reference,
        };
    }

    // All that stands before its lines.
    private static List<string> Head(IssuedInvoice invoice, EdiMessage message)
    {
        var credit = invoice.Kind == BillKind.Credit;
        var body = new List<string>
        {
            "UNH+1+INVOIC:D:96A:UN",
            // 1001: 380 commercial invoice, 381 credit note; 1225: 9 original.
            $"BGM+{(credit ? "381" : "380")}+{EdifactText.Clean(invoice.Number)}+9",
            $"DTM+137:{Day(invoice.Day)}:102",
        };
        if (invoice.Delivered is { } delivered)
            body.Add($"DTM+35:{Day(delivered)}:102");
        body.Add($"RFF+ON:{EdifactText.Clean(invoice.PoNumber)}");
        body.Add($"RFF+VN:{EdifactText.Clean(invoice.Order)}");
        if (credit)
            body.Add($"RFF+IV:{EdifactText.Clean(invoice.Credits)}");
        // Parties go back as they came, with their numbers for tax.
        foreach (var party in message.Segments.Where(s => s.Is("NAD") && s[1] is "BY" or "SU" or "DP"))
        {
            body.Add(EdifactText.Again(party));
            var number =
                party[1] == "SU" ? invoice.Seller.TaxNumber
                : party[1] == "BY" ? invoice.Buyer.TaxNumber
                : "";
            if (number.Length > 0)
                body.Add($"RFF+VA:{EdifactText.Clean(number)}");
        }
        body.Add($"CUX+2:{invoice.Currency}:4");
        if (!credit)
            body.AddRange(["PAT+3", $"DTM+13:{Day(invoice.Due)}:102"]);
        foreach (var allowance in invoice.Allowances)
            body.AddRange(Extra(allowance, "A", "204"));
        foreach (var charge in invoice.Charges)
            body.AddRange(Extra(charge, "C", "23"));
        return body;
    }

    private static IEnumerable<string> LineOf(IssuedInvoice invoice, InvoiceLine line, int number)
    {
        yield return $"LIN+{number}++{EdifactText.Clean(line.Code)}:SA";
        if (line.TheirCode.Length > 0)
            yield return $"PIA+1+{EdifactText.Clean(line.TheirCode)}:IN";
        yield return $"IMD+F++:::{EdifactText.Clean(line.Words.Length > 35 ? line.Words[..35] : line.Words)}";
        // 6063: 47 invoiced; 5025: 203 what the line comes to.
        yield return $"QTY+47:{Number(line.Quantity)}:{line.Unit}";
        yield return $"MOA+203:{Number(line.Net)}";
        yield return $"PRI+AAA:{Number(line.Price)}:::{Number(line.PriceBase)}:{line.Unit}";
        yield return Tax(line.TaxCategory, line.TaxPercent);
        if (invoice.DifferenceOf(line) is not 0m and var difference)
        {
            yield return $"ALC+{(difference > 0m ? "C" : "A")}";
            yield return $"MOA+{(difference > 0m ? "23" : "204")}:{Number(Math.Abs(difference))}";
        }
    }

    private static IEnumerable<string> Extra(InvoiceExtra extra, string indicator, string amount) =>
        [
            $"ALC+{indicator}++++:::{EdifactText.Clean(extra.Words.Length > 35 ? extra.Words[..35] : extra.Words)}",
            $"MOA+{amount}:{Number(extra.Amount)}",
            Tax(extra.TaxCategory, extra.TaxPercent),
        ];

    // 5025: 79 all lines, 77 the invoice, 125 without tax, 176 tax, 113 prepaid, 9 to be paid, 124 tax of one rate.
    private static IEnumerable<string> Totals(IssuedInvoice invoice, int lines)
    {
        yield return "UNS+S";
        yield return $"CNT+2:{lines}";
        yield return $"MOA+79:{Number(invoice.Nets)}";
        yield return $"MOA+77:{Number(invoice.TotalWithTax)}";
        yield return $"MOA+125:{Number(invoice.TotalWithoutTax)}";
        yield return $"MOA+176:{Number(invoice.TotalTax)}";
        if (invoice.Prepaid != 0m)
            yield return $"MOA+113:{Number(invoice.Prepaid)}";
        yield return $"MOA+9:{Number(invoice.ToPay)}";
        foreach (var tax in invoice.Taxes)
        {
            yield return Tax(tax.Category, tax.Percent);
            yield return $"MOA+125:{Number(tax.Basis)}";
            yield return $"MOA+124:{Number(tax.Tax)}";
        }
    }

    private static string Tax(string category, decimal percent) => $"TAX+7+VAT+++:::{Number(percent)}+{category}";

    private static string Number(decimal number) => number.ToString("0.####", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day) => day.ToString("yyyyMMdd", CultureInfo.InvariantCulture);
}
