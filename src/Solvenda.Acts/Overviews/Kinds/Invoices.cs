using Solvenda.Acts.Lists;
using Solvenda.Core.Billing;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Overviews.Kinds;

/// <summary>An invoice or a credit note as a list shows it.</summary>
internal sealed class InvoiceEntry : IListRow
{
    public long Id { get; init; }
    public bool Active { get; init; }
    public string Number { get; init; } = "";
    public BillKind Kind { get; init; }
    public string Buyer { get; init; } = "";
    public string Order { get; init; } = "";
    public DateOnly? Day { get; init; }
    public DateOnly? Due { get; init; }
    public string Currency { get; init; } = "";
    public long TotalMinor { get; init; }
    public long OpenMinor { get; init; }
    public string Told { get; init; } = "";
    public string By { get; init; } = "";
}

internal static class Invoices
{
    private static readonly Dictionary<string, string> KindWords = new()
    {
        [nameof(BillKind.Invoice)] = "invoice",
        [nameof(BillKind.Credit)] = "credit note",
        [nameof(BillKind.Deposit)] = "deposit invoice",
    };

    public static readonly DocumentList<InvoiceEntry> Kind = new()
    {
        Name = "invoices",
        Title = "Invoices",
        One = "invoice",
        Number = i => i.Number,
        Rows = db =>
            from i in db.Invoices
            select new InvoiceEntry
            {
                Id = i.Id,
                Active = db.OpenItems.Any(o => o.InvoiceId == i.Id && o.OpenMinor != 0),
                Number = i.Number,
                Kind = i.Kind,
                Buyer = i.Order.Dossier.Buyer.Name,
                Order = i.Order.Number,
                Day = i.Day,
                Due = i.Due,
                Currency = i.Currency,
                TotalMinor = i.TotalWithTaxMinor,
                OpenMinor = db.OpenItems.Where(o => o.InvoiceId == i.Id).Sum(o => o.OpenMinor),
                Told = i.ToldTo,
                By = i.ByName,
            },
        Fields =
        [
            Columns.Text<InvoiceEntry>(i => i.Number, "invoice", type: FieldType.Code),
            Columns.State<InvoiceEntry, BillKind>(i => i.Kind, "kind", KindWords),
            Columns.Text<InvoiceEntry>(i => i.Buyer, "buyer"),
            Columns.Text<InvoiceEntry>(i => i.Order, "order", type: FieldType.Code),
            Columns.Day<InvoiceEntry>(i => i.Day, "of"),
            Columns.Day<InvoiceEntry>(i => i.Due, "due"),
            Columns.Money<InvoiceEntry>(i => i.TotalMinor, i => i.Currency, "with tax"),
            Columns.Money<InvoiceEntry>(i => i.OpenMinor, i => i.Currency, "open"),
            Columns.Text<InvoiceEntry>(i => i.Currency, "in"),
            Columns.Text<InvoiceEntry>(i => i.Told, "went to", inList: false),
            Columns.Text<InvoiceEntry>(i => i.By, "by", inList: false),
        ],
        Deeds = [],
    };
}
