using Solvenda.Acts.Lists;
using Solvenda.Core.Approvals;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Overviews.Kinds;

/// <summary>An ask as a list shows it.</summary>
internal sealed class AskEntry : IListRow
{
    public long Id { get; init; }
    public bool Active { get; init; }
    public string Number { get; init; } = "";
    public string Document { get; init; } = "";
    public string Buyer { get; init; } = "";
    public string Asker { get; init; } = "";
    public string Hand { get; init; } = "";
    public AskOutcome Outcome { get; init; }
    public string With { get; init; } = "";
    public string By { get; init; } = "";
    public string Why { get; init; } = "";
    public string Note { get; init; } = "";
    public DateTime Asked { get; init; }
    public DateOnly? Decided { get; init; }
}

internal static class Asks
{
    private static readonly Dictionary<string, string> States = new()
    {
        [nameof(AskOutcome.Waiting)] = "waits",
        [nameof(AskOutcome.Granted)] = "granted",
        [nameof(AskOutcome.SentBack)] = "sent back",
        [nameof(AskOutcome.Withdrawn)] = "withdrawn",
    };

    public static readonly DocumentList<AskEntry> Kind = new()
    {
        Name = "asks",
        Title = "Asks",
        One = "ask",
        // What others sell, at what, is not everybody's to read.
        SeenBy = Roles.Lead | Roles.Credit | Roles.Admin,
        Number = a => a.Number,
        Rows = db =>
            from a in db.Asks
            select new AskEntry
            {
                Id = a.Id,
                Active = a.Outcome == AskOutcome.Waiting,
                Number = "" + a.Id,
                Document = a.SheetId == null ? "" : a.Subject,
                Buyer =
                    db.Quotes.Where(q => q.SheetId == a.SheetId).Select(q => q.Dossier.Buyer.Name).FirstOrDefault()
                    ?? db.Orders.Where(o => o.SheetId == a.SheetId).Select(o => o.Dossier.Buyer.Name).FirstOrDefault()
                    ?? a.About,
                Asker = a.AskedByName,
                Hand = a.HandName,
                Outcome = a.Outcome,
                With =
                    a.Outcome != AskOutcome.Waiting
                        ? ""
                        : (
                            from h in a.Holders
                            join w in db.People on h.PersonId equals w.Id
                            select w.Name
                        ).FirstOrDefault() ?? "",
                By = db.People.Where(p => p.Id == a.DecidedById).Select(p => p.Name).FirstOrDefault() ?? "",
                Why = a.Why,
                Note = a.Note,
                Asked = a.AskedAt,
                Decided = a.DecidedAt == null ? null : DateOnly.FromDateTime(a.DecidedAt.Value),
            },
        Fields =
        [
            Columns.Text<AskEntry>(a => a.Number, "ask", type: FieldType.Code),
            Columns.Text<AskEntry>(a => a.Document, "about", type: FieldType.Code),
            Columns.Text<AskEntry>(a => a.Buyer, "buyer"),
            Columns.Text<AskEntry>(a => a.Asker, "asked by"),
            Columns.Text<AskEntry>(a => a.Hand, "typed by", inList: false),
            Columns.State<AskEntry, AskOutcome>(a => a.Outcome, "what became of it", States),
            Columns.Text<AskEntry>(a => a.With, "with"),
            Columns.Text<AskEntry>(a => a.By, "decided by"),
            Columns.Text<AskEntry>(a => a.Why, "why"),
            Columns.Text<AskEntry>(a => a.Note, "answer"),
            Columns.Moment<AskEntry>(a => a.Asked, "asked"),
            Columns.Day<AskEntry>(a => a.Decided, "decided"),
        ],
    };
}
