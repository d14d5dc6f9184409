using System.Collections.Immutable;
using Solvenda.Acts.Wordings;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Papers;

/// <summary>Prints invoices and credit notes from what was issued, in the language that they were issued in.</summary>
public static class InvoicePrint
{
    /// <param name="seller">Whose paper it is on; who sells stands in the invoice.</param>
    public static PrintedDocument Of(IssuedInvoice invoice, Seller seller)
    {
        ArgumentNullException.ThrowIfNull(invoice);
        ArgumentNullException.ThrowIfNull(seller);
        var wording = Wording.Of(invoice.Language);
        var decimals = Currency.Of(invoice.Currency).Decimals;
        string Money(decimal value) => wording.Fixed(value, decimals);
        return new PrintedDocument(
            invoice.Seller.Name,
            invoice.Seller.Address,
            wording[
                invoice.Kind switch
                {
                    BillKind.Credit => "creditNote",
                    BillKind.Deposit => "depositInvoice",
                    _ => "invoice",
                }
            ],
            invoice.Number,
            [invoice.Buyer.Name, .. invoice.Buyer.Address],
            [.. Facts(invoice, wording).Where(f => f.Value.Length > 0)],
            invoice.Matter,
            invoice.Currency,
            [.. Lines(invoice, wording, Money)],
            [.. Totals(invoice, wording, Money)],
            [
                .. invoice.Taxes.Select(t => new PrintedTax(
                    SheetPrint.TaxWords(new Tax(t.Category, t.Percent), wording),
                    Money(t.Basis),
                    Money(t.Tax)
                )),
            ],
            [.. Closing(invoice, wording)],
            string.Join(
                " · ",
                new[] { invoice.Seller.Name, invoice.Seller.Address.FirstOrDefault() ?? "", invoice.Bank }.Where(t =>
                    t.Length > 0
                )
            ),
            new PrintedLabels(
                wording["what"],
                wording["quantity"],
                wording["price"],
                wording["less"],
                wording["tax"],
                wording["taxOn"],
                wording["page"]
            ),
            null
        ).On(seller);
    }

    private static IEnumerable<(string Label, string Value)> Facts(IssuedInvoice invoice, Wording wording)
    {
        yield return (wording["date"], wording.Day(invoice.Day));
        if (invoice.Kind == BillKind.Invoice)
            yield return (wording["due"], wording.Day(invoice.Due));
        yield return (wording["forInvoice"], invoice.Credits);
        // Of several orders each stands above its lines.
        yield return (wording["yourPo"], invoice.IsCollected ? "" : invoice.PoNumber);
        yield return (wording["ourOrder"], invoice.IsCollected ? "" : invoice.Order);
        yield return (wording["payment"], invoice.SaidTerms);
        foreach (var part in invoice.Dues)
            yield return (
                "",
                $"{wording.Fixed(part.Amount, Currency.Of(invoice.Currency).Decimals)} {wording.Day(part.Due)}"
            );
        yield return (wording["deliverTo"], invoice.DeliverTo);
        if (invoice.Delivered is { } day)
            yield return (wording["delivered"], wording.Day(day));
        yield return (wording["yourTaxNumber"], invoice.Buyer.TaxNumber);
    }

    private static IEnumerable<PrintedLine> Lines(IssuedInvoice invoice, Wording wording, Func<decimal, string> money)
    {
        var of = "";
        foreach (var line in invoice.Lines)
        {
            if (line.Order != of)
            {
                of = line.Order;
                var their = line.PoNumber.Length == 0 ? "" : $" · {wording["yourPo"]} {line.PoNumber}";
                yield return new PrintedLine(true, "", "", $"{of}{their}", "", "", "", "", "", false, "");
            }
            yield return Line(invoice, line, wording, money);
        }
    }

    private static PrintedLine Line(
        IssuedInvoice invoice,
        InvoiceLine line,
        Wording wording,
        Func<decimal, string> money
    )
    {
        var difference = invoice.DifferenceOf(line);
        return new PrintedLine(
            false,
            line.Number,
            line.Code,
            line.Words,
            line.TheirCode,
            $"{wording.Number(line.Quantity)} {wording.UnitWord(Unit.Of(line.Unit))}".Trim(),
            wording.Fixed(line.Price, 4)
                + (line.PriceBase == 1m ? "" : " " + wording.With("per", wording.Number(line.PriceBase))),
            difference == 0m ? "" : money(difference),
            money(line.Net),
            false,
            ""
        );
    }

    private static IEnumerable<(string, string, bool)> Totals(
        IssuedInvoice invoice,
        Wording wording,
        Func<decimal, string> money
    )
    {
        yield return (wording["goods"], money(invoice.Nets), false);
        foreach (var allowance in invoice.Allowances)
            yield return (allowance.Words, money(-allowance.Amount), false);
        foreach (var charge in invoice.Charges)
            yield return (charge.Words, money(charge.Amount), false);
        yield return (wording["withoutTax"], money(invoice.TotalWithoutTax), false);
        yield return (wording["tax"], money(invoice.TotalTax), false);
        yield return (wording.With("inAll", invoice.Currency), money(invoice.TotalWithTax), invoice.Prepaid == 0m);
        if (invoice.Prepaid == 0m)
            yield break;
        yield return (wording["paidBefore"], money(-invoice.Prepaid), false);
        yield return (wording.With("toPay", invoice.Currency), money(invoice.ToPay), true);
    }

    private static IEnumerable<string> Closing(IssuedInvoice invoice, Wording wording)
    {
        if (invoice.Reason.Length > 0)
            yield return invoice.Reason;
        if (invoice.Kind == BillKind.Invoice && invoice.ToPay > 0m)
            yield return wording.With(
                "payBy",
                wording.Fixed(invoice.ToPay, Currency.Of(invoice.Currency).Decimals),
                invoice.Currency,
                wording.Day(invoice.Due),
                invoice.Bank,
                invoice.Number
            );
    }
}
