using System.Collections.Immutable;
using Solvenda.Acts.Papers;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Invoicing;

/// <summary>Puts an invoice together as it is issued: all that its papers and files say.</summary>
internal static class Issued
{
    /// <param name="orders">In one currency, on the same terms; one at least.</param>
    public static IssuedInvoice Of(InvoiceRow row, Bill bill, IReadOnlyList<BilledOrder> orders, Seller seller)
    {
        var open = orders[0].Open;
        var went = orders.SelectMany(o => o.Went).ToList();
        var head = open.Sheet.Head;
        var plan = HeadTerms.PlanIn(head);
        var parts = bill.Kind == BillKind.Invoice && plan is not null ? plan.Of(bill.Due, row.Day) : [];
        return new IssuedInvoice(
            bill.Kind,
            row.Number,
            row.Day,
            row.Due,
            row.Currency,
            new InvoiceParty(seller.Name, seller.Address, seller.Country, seller.TaxNumber, seller.Mail),
            BuyerOf(open),
            HeadTerms.DeliverTo.In(head) ?? open.Buyer.Address,
            HeadTerms.DeliverToCountry.In(head) ?? open.Buyer.Country,
            went.Select(s => s.Day).Max(),
            string.Join(", ", orders.Select(o => o.Open.Order!.Number)),
            string.Join(", ", orders.Select(o => o.Open.Sheet.PoNumber ?? "").Where(p => p.Length > 0)),
            orders.Count == 1 ? open.Dossier.Matter : "",
            "",
            null,
            "",
            open.Wording.Code,
            plan is null ? "" : PlanWords.Of(plan, open.Wording),
            [.. went.Select(s => s.Number)],
            [.. orders.SelectMany(o => LinesOf(o, orders.Count > 1))],
            [.. bill.Allowances.Select(a => Extra(open.Wording["less"], a.Amount, a.Tax))],
            [.. bill.Charges.Select(c => Extra(ChargeWords(orders, c), c.Amount, c.Tax))],
            [
                .. bill.Taxes.Select(t => new InvoiceTax(
                    t.Tax.Category,
                    t.Tax.Percent,
                    t.Basis.Value,
                    t.TaxAmount.Value
                )),
            ],
            bill.Prepaid.Value,
            seller.Bank,
            row.Rate
        )
        {
            Dues = parts.Length < 2 ? [] : [.. parts.Select(p => new InvoiceDue(p.Due, p.Amount.Value))],
        };
    }

    /// <summary>A line of it for each line of the bill that is on it.</summary>
    private static IEnumerable<InvoiceLine> LinesOf(BilledOrder of, bool named)
    {
        var numbers = LineNumbers.Of(of.Open.ToDraft().Lines);
        var billed = of.Whole is null
            ? []
            : of
                .Whole.Parts.Zip(of.Bill.Lines)
                .Where(p => p.Second.Quantity != 0m)
                .Select(p => Line(p.First, p.Second, numbers[p.First.Line.Line.Key]));
        return billed
            .Concat(DepositLines(of))
            .Select(l => named ? l with { Order = of.Open.Order!.Number, PoNumber = of.Open.Sheet.PoNumber ?? "" } : l);
    }

    // What a deposit was for, or what of deposits is taken off: a line by category.
    private static IEnumerable<InvoiceLine> DepositLines(BilledOrder of)
    {
        var wording = of.Open.Wording;
        return of.Whole is null
            ? of.Bill.Taxes.Select(t =>
                DepositLine(wording.With("depositFor", of.Open.Order!.Number), 1m, t.Basis, t.Tax)
            )
            : of.Bill.Deductions.Select(d => DepositLine(wording.With("lessDeposit", d.Number), -1m, d.Basis, d.Tax));
    }

    private static InvoiceLine DepositLine(string words, decimal quantity, Amount basis, Tax tax) =>
        new(
            0,
            "",
            "",
            "",
            words,
            quantity,
            Core.Units.Unit.Piece.Code,
            basis.Value,
            1m,
            quantity * basis.Value,
            tax.Category,
            tax.Percent
        );

    private static InvoiceLine Line(BillablePart part, BillLine billed, string number)
    {
        var line = part.Line;
        var asked = line.Line.Asked;
        var split = part.Net != line.Figures.Net;
        return new InvoiceLine(
            line.Line.Key,
            number,
            line.Item?.Code ?? "",
            asked.Code is { } code && code != line.Item?.Code ? code : "",
            line.Line.Words,
            billed.Quantity,
            line.Line.Unit.Code,
            split ? UnitPrice.Round4(part.Net.Value / line.Terms.Quantity) : line.Figures.NetPrice,
            split ? 1m : line.Terms.PriceBase,
            billed.Net.Value,
            // As it was billed: of a credit note that is the invoice's, whatever holds by now.
            billed.Tax.Category,
            billed.Tax.Percent
        );
    }

    private static InvoiceParty BuyerOf(Sheets.OpenSheet open) =>
        new(
            open.Buyer.Name,
            [
                .. (HeadTerms.BillTo.In(open.Sheet.Head) ?? open.Buyer.BillTo ?? open.Buyer.Address).Split(
                    ", ",
                    StringSplitOptions.RemoveEmptyEntries
                ),
            ],
            open.Buyer.Country,
            open.Buyer.TaxNumber ?? "",
            open.Buyer.ContactMail ?? ""
        );

    private static string ChargeWords(IReadOnlyList<BilledOrder> orders, BillableCharge charge) =>
        orders.SelectMany(o => o.Whole?.Charges ?? []).FirstOrDefault(c => c.Words == charge.Words) is { } known
            ? SheetPrint.ChargeWords(known, orders[0].Open.Wording)
            : charge.Words;

    private static InvoiceExtra Extra(string words, Amount amount, Tax tax) =>
        new(words, amount.Value, tax.Category, tax.Percent);
}
