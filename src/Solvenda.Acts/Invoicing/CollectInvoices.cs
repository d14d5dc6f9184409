using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Acts.Invoicing;

/// <summary>Puts all that went to a buyer up to a day, and is on no invoice yet, on one invoice for all of its
/// orders.</summary>
/// <param name="Currency">Of the orders.</param>
public sealed record CollectInvoices(long Buyer, string Currency, DateOnly Until) : IAct<ImmutableArray<string>>;

[Leaves(typeof(InvoiceIssued))]
public sealed class CollectInvoicesAct(SheetLoader loader, Invoicing invoicing)
    : Act<CollectInvoices, ImmutableArray<string>>
{
    public override Right Needs => Rights.Bill;

    /// <returns>Numbers of the invoices: one for what goes to the same place on the same terms.</returns>
    public override async Task<ImmutableArray<string>> RunAsync(
        Work work,
        CollectInvoices input,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var numbers = await work
            .Db.Orders.Where(o =>
                o.Dossier.BuyerId == input.Buyer
                && o.Sheet.Currency == input.Currency
                && o.Terms == TermsTrack.Confirmed
                && Unbilled.Shipments(work.Db).Any(s => s.OrderId == o.Id && s.Day <= input.Until)
            )
            .OrderBy(o => o.Id)
            .Select(o => o.Number)
            .ToListAsync(cancel);
        var opens = new List<OpenSheet>();
        foreach (var number in numbers)
            opens.Add(await loader.OrderAsync(work.Db, number, cancel));
        if (opens.Count == 0)
            throw RefusedException.Clash("nothing_to_invoice", "All that went to them is invoiced already.");
        var made = ImmutableArray.CreateBuilder<string>();
        foreach (var alike in opens.GroupBy(Alike))
            made.Add((await invoicing.IssueAsync(work, [.. alike], input.Until, [], cancel)).Number);
        return made.ToImmutable();
    }

    // An invoice knows one set of terms and one place that goods go to (EN 16931, BT-9 and BG-13).
    private static (string?, string?, string?, string?) Alike(OpenSheet open) =>
        (
            HeadTerms.PlanIn(open.Sheet.Head)?.ToString(),
            HeadTerms.BillTo.In(open.Sheet.Head),
            HeadTerms.DeliverTo.In(open.Sheet.Head),
            HeadTerms.DeliverToCountry.In(open.Sheet.Head)
        );
}
