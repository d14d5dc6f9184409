using System.Collections.Immutable;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Invoicing;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Returns;

/// <summary>
/// Gives the buyer what they get for what came back: credit notes for the invoices that it was on, or an order without
/// charge that replaces it.
/// </summary>
/// <param name="Seen">The version that was seen; null: whatever is there.</param>
public sealed record SettleReturn(string Number, long? Seen) : IAct<ImmutableArray<string>>;

[Leaves(typeof(ReturnSettled), typeof(InvoiceCredited), typeof(OrderBegun))]
public sealed class SettleReturnAct(SheetLoader loader, Settling settling, Crediting crediting)
    : Act<SettleReturn, ImmutableArray<string>>
{
    public override Right Needs => Rights.Bill;

    /// <returns>Numbers of what settled it.</returns>
    public override async Task<ImmutableArray<string>> RunAsync(Work work, SettleReturn input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row = await ReturnBook.FindAsync(work, input.Number, input.Seen, cancel);
        ReturnBook.Move(row, ReturnDoing.Settle);
        var by =
            row.For == ReturnFor.Credit
                ? await CreditAsync(work, row, cancel)
                : [await ReplaceAsync(work, row, cancel)];
        row.SettledBy = string.Join(' ', by);
        work.Leave(new ReturnSettled(row.Number, by), row.Order.Number, row.Order.DossierId);
        return by;
    }

    // The invoices in their order, each for what is left on it.
    private async Task<ImmutableArray<string>> CreditAsync(Work work, ReturnRow row, CancellationToken cancel)
    {
        var invoices = await work
            .Db.InvoiceParts.AsNoTracking()
            .Where(p => p.OrderId == row.OrderId)
            .Select(p => p.Invoice)
            .OrderBy(i => i.Id)
            .ToListAsync(cancel);
        var owed = row.Lines.Where(l => l.Quantity > 0m).ToDictionary(l => l.LineKey, l => l.Quantity);
        var notes = ImmutableArray.CreateBuilder<string>();
        foreach (var invoice in invoices.Where(i => i.Kind == BillKind.Invoice))
        {
            var left = Quantities(invoice, row.Order.Number);
            foreach (var note in invoices.Where(i => i.CreditsId == invoice.Id && i.OrderId == row.OrderId))
            foreach (var (key, quantity) in Quantities(note, row.Order.Number))
                left[key] -= quantity;
            ImmutableArray<AskedGoods> now =
            [
                .. from o in owed
                let part = Math.Min(o.Value, left.GetValueOrDefault(o.Key))
                where part > 0m
                select new AskedGoods(o.Key, part),
            ];
            if (now.IsEmpty)
                continue;
            foreach (var part in now)
                owed[part.Key] -= part.Quantity;
            notes.Add(
                await crediting.CreditAsync(
                    work,
                    new CreditInvoice(invoice.Number, now, false, $"{row.Number}: {row.Reason}", row.Order.Number),
                    cancel
                )
            );
        }
        return owed.Values.Any(q => q > 0m)
            ? throw RefusedException.Clash(
                "not_invoiced",
                $"Some of {row.Number} is on no invoice yet, or credited already: invoice first what went. Nothing was credited."
            )
            : notes.ToImmutable();
    }

    private static Dictionary<long, decimal> Quantities(InvoiceRow invoice, string order) =>
        JsonSerializer
            .Deserialize<IssuedInvoice>(invoice.Document)!
            .Lines.Where(l => l.Order.Length == 0 || l.Order == order)
            .DistinctBy(l => l.Key)
            .ToDictionary(l => l.Key, l => l.Quantity);

    private async Task<string> ReplaceAsync(Work work, ReturnRow row, CancellationToken cancel)
    {
        var open = await loader.OrderAsync(work.Db, row.Order.Number, cancel);
        var sheet = Drafting.AnewOf(work, open.Sheet);
        var draft = sheet.ToDraft();
        var quantities = row.Lines.ToDictionary(l => l.LineKey, l => l.Quantity);
        var head = draft
            .Head.With(HeadTerms.Wanted.Name, null, null)
            .With(HeadTerms.SheetDiscount.Name, null, null)
            .With(HeadTerms.Freight.Name, null, null)
            .With(HeadTerms.Kind.Name, OrderKind.Replacement.Words, work.Actor.Hand)
            .With(HeadTerms.FreeWhy.Name, $"{row.Number}: {row.Reason}", work.Actor.Hand);
        sheet.Take(
            draft with
            {
                Head = head,
                Lines =
                [
                    .. draft
                        .Lines.Where(l => quantities.GetValueOrDefault(l.Key) > 0m)
                        .Select(l => l with { Quantity = quantities[l.Key], ByHand = ByHand.None }),
                ],
            }
        );
        var order = await Drafting.OrderAsync(
            work,
            open.Dossier,
            sheet,
            "phone",
            null,
            null,
            cancel,
            new OrderBegun("phone", null, null) { CopyOf = open.Subject }
        );
        await work.Db.SaveChangesAsync(cancel);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, order.Number, cancel), cancel);
        return order.Number;
    }
}
