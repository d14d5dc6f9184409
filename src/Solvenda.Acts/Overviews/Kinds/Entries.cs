using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Overviews.Kinds;

/// <summary>One side of an entry of the ledger as a list shows it.</summary>
internal sealed class LedgerEntry : IListRow
{
    public long Id { get; init; }
    public bool Active { get; init; }
    public DateOnly? Day { get; init; }
    public string Document { get; init; } = "";
    public string Account { get; init; } = "";
    public string Called { get; init; } = "";
    public string Words { get; init; } = "";
    public string Currency { get; init; } = "";
    public long DebitMinor { get; init; }
    public long CreditMinor { get; init; }
    public string By { get; init; } = "";
}

internal static class Entries
{
    public static readonly DocumentList<LedgerEntry> Kind = new()
    {
        Name = "entries",
        Title = "Ledger",
        One = "entry",
        Number = e => e.Document,
        SeenBy = Rights.SeeLedger.Roles,
        Rows = db =>
            from e in db.Entries
            select new LedgerEntry
            {
                Id = e.Id,
                Active = true,
                Day = e.Day,
                Document = e.Document,
                Account = e.Account,
                Called = db.Accounts.Where(a => a.Code == e.Account).Select(a => a.Words).FirstOrDefault() ?? "",
                Words = e.Words,
                Currency = e.Currency,
                DebitMinor = e.DebitMinor,
                CreditMinor = e.CreditMinor,
                By = e.ByName,
            },
        Fields =
        [
            Columns.Day<LedgerEntry>(e => e.Day, "day"),
            Columns.Text<LedgerEntry>(e => e.Document, "document", type: FieldType.Code),
            Columns.Text<LedgerEntry>(e => e.Account, "account", type: FieldType.Code),
            Columns.Text<LedgerEntry>(e => e.Called, "called"),
            Columns.Text<LedgerEntry>(e => e.Words, "for"),
            Columns.Money<LedgerEntry>(e => e.DebitMinor, e => e.Currency, "debit"),
            Columns.Money<LedgerEntry>(e => e.CreditMinor, e => e.Currency, "credit"),
            Columns.Text<LedgerEntry>(e => e.By, "by", inList: false),
        ],
        Deeds = [],
    };
}
