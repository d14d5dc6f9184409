using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Invoicing;

/// <summary>Credits an invoice, or a part of it; both together come to nothing for what is credited.</summary>
/// <param name="Lines">Of the order's lines what goes back; empty: all that is left on the invoice.</param>
/// <param name="Charges">Whether its charges go back too.</param>
/// <param name="Reason">Said on the note.</param>
/// <param name="Order">Of an invoice for several, the one that it is for; of others it may be left out.</param>
public sealed record CreditInvoice(
    string Invoice,
    ImmutableArray<AskedGoods> Lines,
    bool Charges,
    string Reason,
    string Order = ""
) : IAct<string>;

[Leaves(typeof(InvoiceCredited))]
public sealed class CreditInvoiceAct(Crediting crediting) : Act<CreditInvoice, string>
{
    public override Right Needs => Rights.Bill;

    /// <returns>Number of the credit note.</returns>
    public override Task<string> RunAsync(Work work, CreditInvoice input, CancellationToken cancel) =>
        crediting.CreditAsync(work, input, cancel);
}
