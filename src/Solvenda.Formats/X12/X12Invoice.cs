using System.Globalization;
using System.Text;
using Solvenda.Core.Billing;

namespace Solvenda.Formats.X12;

/// <summary>
/// Writes invoices and credit notes as the transaction set 810 (ASC X12, version 4010), to who ordered by an 850.
/// </summary>
internal sealed class X12Invoice : IInvoiceWriter
{
    public Syntax Answers => Syntax.X12;

    public WrittenMessage? Write(IssuedInvoice invoice, string original, int control, DateTime at)
    {
        if (OrderAnswer.Asked(invoice.PoNumber, original) is not var (theirs, _))
            return null;
        var credit = invoice.Kind == BillKind.Credit;
        var set = new List<string>
        {
            "ST*810*0001",
            // BIG07: DI debit invoice, CN credit invoice.
            $"BIG*{Day(invoice.Day)}*{X12Text.Clean(invoice.Number)}**{X12Text.Clean(invoice.PoNumber)}***{(credit ? "CN" : "DI")}",
        };
        if (credit)
            set.Add($"REF*IV*{X12Text.Clean(invoice.Credits)}");
        set.Add($"REF*VN*{X12Text.Clean(invoice.Order)}");
        set.Add($"CUR*SE*{invoice.Currency}");
        // ITD01 01 basic, ITD02 3 from the invoice's day, ITD06 due.
        if (!credit)
            set.Add($"ITD*01*3****{Day(invoice.Due)}");
        if (invoice.Delivered is { } delivered)
            set.Add($"DTM*011*{Day(delivered)}");
        foreach (var line in invoice.Lines)
            set.AddRange(LineOf(invoice, line));
        set.Add($"TDS*{Cents(invoice.TotalWithTax)}");
        set.AddRange(invoice.Taxes.Where(t => t.Tax != 0m).Select(t => $"TXI*VA*{Number(t.Tax)}*{Number(t.Percent)}"));
        set.AddRange(invoice.Allowances.Select(a => Extra("A", a.Words, a.Amount)));
        set.AddRange(invoice.Charges.Select(c => Extra("C", c.Words, c.Amount)));
        set.Add($"CTT*{invoice.Lines.Length}");
        set.Add($"SE*{set.Count + 1}*0001");
        var text = Enveloped(set, theirs.Receiver, theirs.Sender, control, at);
        return new WrittenMessage($"810-{invoice.Number}.x12", theirs.Sender, Encoding.ASCII.GetBytes(text))
        {
            Control = control.ToString(CultureInfo.InvariantCulture),
        };
    }

    private static IEnumerable<string> LineOf(IssuedInvoice invoice, InvoiceLine line)
    {
        var codes =
            (line.TheirCode.Length > 0 ? $"*BP*{X12Text.Clean(line.TheirCode)}" : "")
            + (line.Code.Length > 0 ? $"*VP*{X12Text.Clean(line.Code)}" : "");
        // IT105 PE: per each unit of measure, so the price is carried over to one.
        yield return $"IT1*{X12Text.Clean(line.Number)}*{Number(line.Quantity)}*{X12Text.Clean(line.Unit)}*{Number(line.Price / line.PriceBase)}*PE{codes}";
        yield return $"PID*F****{X12Text.Clean(line.Words)}";
        if (invoice.DifferenceOf(line) is not 0m and var difference)
            yield return Extra(difference > 0m ? "C" : "A", "line", Math.Abs(difference));
    }

    // SAC02 ZZZZ: as the words say; SAC05 with two implied decimals.
    private static string Extra(string indicator, string words, decimal amount) =>
        $"SAC*{indicator}*ZZZZ***{Cents(amount)}**********{X12Text.Clean(words)}";

    private static string Enveloped(List<string> set, string from, string to, int control, DateTime at)
    {
        var (sender, receiver) = (X12Text.Clean(from), X12Text.Clean(to));
        var (time, number) = (
            at.ToString("HHmm", CultureInfo.InvariantCulture),
            control.ToString("D9", CultureInfo.InvariantCulture)
        );
        var day = at.ToString("yyMMdd", CultureInfo.InvariantCulture);
        var text = new StringBuilder();
        void Add(string segment) => text.Append(segment).Append("~\n");
        Add($"ISA*00*          *00*          *ZZ*{sender, -15}*01*{receiver, -15}*{day}*{time}*U*00401*{number}*0*P*>");
        Add($"GS*IN*{sender}*{receiver}*{Day(DateOnly.FromDateTime(at))}*{time}*{control}*X*004010");
        set.ForEach(Add);
        Add($"GE*1*{control}");
        Add($"IEA*1*{number}");
        return text.ToString();
    }

    private static string Cents(decimal amount) =>
        decimal.Round(amount * 100m).ToString("0", CultureInfo.InvariantCulture);

    private static string Number(decimal value) => value.ToString("0.######", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day) => day.ToString("yyyyMMdd", CultureInfo.InvariantCulture);
}
