using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Acts.Quotes;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Overviews.Kinds;

/// <summary>The newest revision of a quote as a list shows it.</summary>
internal sealed class QuoteEntry : IListRow, IOwnRow
{
    public long Id { get; init; }
    public bool Active { get; init; }
    public string Number { get; init; } = "";
    public string Buyer { get; init; } = "";
    public string Matter { get; init; } = "";
    public string Seller { get; init; } = "";
    public QuoteState State { get; init; }
    public DateOnly? ValidUntil { get; init; }
    public int Revision { get; init; }
    public int Opened { get; init; }
    public string Currency { get; init; } = "";
    public long TotalMinor { get; init; }
    public long MarginMinor { get; init; }
    public string WaitsFor { get; init; } = "";
    public DateTime Begun { get; init; }
    public string Own { get; set; } = OwnValues.None;
}

internal static class Quotes
{
    private static readonly Dictionary<string, string> States = new()
    {
        [nameof(QuoteState.Drafting)] = "drafting",
        [nameof(QuoteState.InApproval)] = "asked",
        [nameof(QuoteState.Cleared)] = "granted",
        [nameof(QuoteState.WithCustomer)] = "with the buyer",
        [nameof(QuoteState.Accepted)] = "accepted",
        [nameof(QuoteState.Declined)] = "declined",
        [nameof(QuoteState.Lapsed)] = "lapsed",
        [nameof(QuoteState.Replaced)] = "replaced",
        [nameof(QuoteState.Withdrawn)] = "withdrawn",
    };

    public static readonly DocumentList<QuoteEntry> Kind = new()
    {
        Name = "quotes",
        OwnOn = OwnOn.Quotes,
        Title = "Quotes",
        One = "quote",
        Number = q => q.Number,
        Rows = db =>
            from q in db.Quotes
            join p in db.People on q.SellerId equals p.Id
            where q.State != QuoteState.Replaced
            select new QuoteEntry
            {
                Id = q.Id,
                Active =
                    q.State == QuoteState.Drafting
                    || q.State == QuoteState.InApproval
                    || q.State == QuoteState.Cleared
                    || q.State == QuoteState.WithCustomer
                    || q.State == QuoteState.Accepted,
                Number = q.Number,
                Buyer = q.Dossier.Buyer.Name,
                Matter = q.Dossier.Matter,
                Seller = p.Name,
                State = q.State,
                ValidUntil = q.ValidUntil,
                Revision = q.Revision,
                Opened = q.Opened,
                Currency = q.Sheet.Currency,
                TotalMinor = q.Sheet.TotalWithTaxMinor,
                MarginMinor = q.Sheet.MarginMinor,
                WaitsFor =
                    q.State == QuoteState.WithCustomer
                        ? "the buyer"
                        : (
                            from a in db.Asks
                            from h in a.Holders
                            join w in db.People on h.PersonId equals w.Id
                            where a.SheetId == q.SheetId && a.Outcome == AskOutcome.Waiting
                            select w.Name
                        ).FirstOrDefault() ?? "",
                Begun = q.CreatedAt,
                Own = q.Sheet.Own,
            },
        Fields =
        [
            Columns.Text<QuoteEntry>(q => q.Number, "quote", type: FieldType.Code),
            Columns.Text<QuoteEntry>(q => q.Buyer, "buyer"),
            Columns.Text<QuoteEntry>(q => q.Matter, "matter"),
            Columns.Text<QuoteEntry>(q => q.Seller, "seller"),
            Columns.State<QuoteEntry, QuoteState>(q => q.State, "where it stands", States),
            Columns.Day<QuoteEntry>(q => q.ValidUntil, "holds until"),
            Columns.Text<QuoteEntry>(q => q.WaitsFor, "waits for"),
            Columns.Whole<QuoteEntry>(q => q.Revision, "revision"),
            Columns.Whole<QuoteEntry>(q => q.Opened, "opened", inList: false),
            Columns.Moment<QuoteEntry>(q => q.Begun, "begun", inList: false),
            Columns.Money<QuoteEntry>(q => q.TotalMinor, q => q.Currency, "with tax"),
            Columns.Money<QuoteEntry>(q => q.MarginMinor, q => q.Currency, "margin").OfMoney(Roles.None, Sight.Cost),
            Columns.Text<QuoteEntry>(q => q.Currency, "in"),
            Columns.Among<QuoteEntry>("item", "item", q => q.Number, Holding.QuotesOf),
            Columns.Among<QuoteEntry>("pile", "pile", q => q.Number, Holding.OnPile("quotes")),
        ],
        Deeds =
        [
            new Deed(
                "withdraw",
                "Withdraw them",
                Rights.Write,
                DeedTakes.Reason,
                (one, cancel) => one.RunAsync(new WithdrawQuote(one.Number, one.Given), cancel)
            ),
        ],
    };
}
