using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Dossiers;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Documents;

/// <summary>One round of approval.</summary>
/// <param name="Hand">Whose figures it was about.</param>
/// <param name="AskedBy">Who asked.</param>
public sealed record AskRound(
    long Id,
    string Hand,
    string AskedBy,
    string Approver,
    AskOutcome Outcome,
    string Why,
    string Note,
    DateTime AskedAt,
    DateTime? DecidedAt,
    string UpTo,
    string? Question
);

public sealed record BuyerBrief(long Id, string Code, string Name, string Country, string? Contact, string? Mail);

/// <summary>A quote or an order, with its sheet: the same shape for both.</summary>
/// <param name="LastEvent">The last event about it that was no change of its sheet; 0 for none.</param>
public sealed record DocumentView(
    DocumentKind Kind,
    string Number,
    string Revision,
    string Dossier,
    string Matter,
    BuyerBrief Buyer,
    string Seller,
    QuoteState? State,
    Tracks? Tracks,
    string StateWords,
    NextMove Next,
    SheetView Sheet,
    IReadOnlyList<StripMark> Strip,
    IReadOnlyList<RelatedView> Related,
    IReadOnlyList<AskRound> Asks,
    string? DeclineReason,
    bool MayWithdraw,
    IReadOnlyList<BesideChoice> Beside,
    IReadOnlyList<ToChooseView> ToChoose,
    IReadOnlyList<string> Columns,
    IReadOnlyList<string> MoreColumns,
    long LastEvent,
    IReadOnlyList<OrderMove> Moves,
    CallOffView? CallOff,
    IReadOnlyList<TurnWithView> TurnWith
);

/// <summary>What else can be done to an order as it stands, beside its one next move.</summary>
/// <param name="Code">hold, change, callOff, closeShort, openLines, leaveAsConfirmed, cancel, openAgain.</param>
/// <param name="Says">What will happen.</param>
/// <param name="WithReason">Whether it takes a reason, which is kept.</param>
public sealed record OrderMove(string Code, string Words, string Says, bool WithReason);

/// <summary>A quote that the buyer takes one of, this one among them.</summary>
public sealed record ToChooseView(string Number, QuoteState State, decimal Total, bool Here);

/// <summary>Puts a document view together, as somebody sees it.</summary>
public sealed class DocumentViews(SheetLoader loader, Judge judge, Strip strip)
{
    public async Task<DocumentView> OfAsync(SolvendaDb db, DocumentRef document, Actor who, CancellationToken cancel) =>
        await OfAsync(db, await loader.DocumentAsync(db, document, cancel), who, cancel);

    public async Task<DocumentView> OfAsync(SolvendaDb db, OpenSheet open, Actor who, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(who);
        var judged = await judge.JudgeAsync(db, open, who.Hand, cancel);
        var order = open.Quote is { } quote
            ? await db.Orders.Where(o => o.Id == quote.OrderId).Select(o => o.Number).FirstOrDefaultAsync(cancel)
            : null;
        return new DocumentView(
            open.Kind,
            open.Subject,
            open.Quote is { } q ? Revision.Letter(q.Revision) : "",
            open.Dossier.Number,
            open.Dossier.Matter,
            new BuyerBrief(
                open.Buyer.Id,
                open.Buyer.Code,
                open.Buyer.Name,
                open.Buyer.Country,
                open.Buyer.ContactName,
                open.Buyer.ContactMail
            ),
            open.Owner.Name,
            open.Quote?.State,
            Standings.TracksOf(judged),
            Standings.Words(judged),
            NextMoves.Of(Judge.StandingOf(judged, order)),
            SheetView.Of(judged, who),
            await strip.MarksAsync(db, open.Dossier.Id, cancel),
            [.. (await Strip.RelatedAsync(db, open.Dossier.Id, cancel)).Where(r => r.Number != open.Subject)],
            who.SeesAuthority || who.Roles.HasFlag(Roles.Credit) ? Rounds(open) : [],
            open.Quote?.DeclineReason,
            Rights.Write.Allows(who)
                && open.Quote is { } any
                && QuoteMoves.Table.After(any.State, QuoteDoing.Withdraw) is not null,
            await BesideEndpoint.ChoicesAsync(db, open, cancel),
            await ToChooseAsync(db, open, cancel),
            await ColumnsAsync(db, who, cancel),
            [.. ChooseColumnsAct.All.Where(c => who.SeesCost || c is not ("cost" or "margin"))],
            await NewestEndpoint.LastEventAsync(db, open.Subject, cancel),
            open.Order is { } moving && Rights.Write.Allows(who) ? [.. Moves(moving, open)] : [],
            await CallOffView.OfAsync(db, open, cancel),
            await TurnWithView.OfAsync(db, open, cancel)
        );
    }

    private static IEnumerable<OrderMove> Moves(OrderRow order, OpenSheet open)
    {
        bool May(OrderDoing doing) => Tracks.TermsTable.After(order.Terms, doing) is not null;
        var begun = order.Goods != GoodsTrack.Waiting || order.Money != MoneyTrack.NotDue;
        if (May(OrderDoing.Change) && order.Goods != GoodsTrack.Shipped)
            yield return new OrderMove("change", "Change it", "", WithReason: false);
        if (open.CallOff is not null && order is { FrameId: null, Terms: TermsTrack.Confirmed, HeldWhy.Length: 0 })
            yield return new OrderMove("callOff", "Call off", "", WithReason: false);
        if (
            order.Terms == TermsTrack.Confirmed
            && (begun ? order.Goods == GoodsTrack.PartShipped : open.Sheet.Lines.Count > 1)
        )
            yield return new OrderMove("closeShort", "Close lines short", "", WithReason: false);
        if (
            order.Terms != TermsTrack.Cancelled
            && order.Goods != GoodsTrack.Shipped
            && open.ToDraft().Lines.Any(l => l.ClosedWhy.Length > 0)
        )
            yield return new OrderMove("openLines", "Open closed lines again", "", WithReason: false);
        if (May(OrderDoing.LeaveAsConfirmed) && order.ConfirmedAt is not null)
            yield return new OrderMove(
                "leaveAsConfirmed",
                "Leave it as it was confirmed",
                "What was changed since is dropped; what was confirmed to the buyer stands.",
                WithReason: false
            );
        if (order.HeldWhy.Length == 0 && order.Terms != TermsTrack.Cancelled && order.Goods != GoodsTrack.Shipped)
            yield return new OrderMove(
                "hold",
                "Hold it",
                "Nothing goes on with it until somebody goes on; the buyer is not told.",
                WithReason: true
            );
        if (May(OrderDoing.Cancel) && !begun)
            yield return new OrderMove(
                "cancel",
                "Cancel it",
                order.ConfirmedAt is null
                    ? "Nothing was confirmed to the buyer, so nobody is told. It can be opened again."
                    : "Its stock is free again, and the buyer is told by mail. It can be opened again.",
                WithReason: true
            );
        yield return new OrderMove("copy", "Copy it", "", WithReason: false);
        if (May(OrderDoing.OpenAgain))
            yield return new OrderMove("openAgain", "Open it again", "", WithReason: false);
    }

    internal static async Task<List<ToChooseView>> ToChooseAsync(
        SolvendaDb db,
        OpenSheet open,
        CancellationToken cancel
    )
    {
        if (open.Quote?.OneOf is not { } set)
            return [];
        var quotes = await db
            .Quotes.Where(q => q.OneOf == set && q.State != QuoteState.Replaced)
            .OrderBy(q => q.Number)
            .Select(q => new
            {
                q.Number,
                q.State,
                q.Sheet.TotalWithTaxMinor,
                q.Sheet.Currency,
            })
            .ToListAsync(cancel);
        return quotes.ConvertAll(q => new ToChooseView(
            q.Number,
            q.State,
            Amount.FromMinor(q.TotalWithTaxMinor, Currency.Of(q.Currency)).Value,
            q.Number == open.Subject
        ));
    }

    private static async Task<string[]> ColumnsAsync(SolvendaDb db, Actor who, CancellationToken cancel) =>
        (
            await db
                .Views.Where(v => v.Kind == ChooseColumnsAct.Kind && v.OwnerId == who.PersonId)
                .Select(v => v.Columns)
                .FirstOrDefaultAsync(cancel)
            ?? ""
        ).Split(',', StringSplitOptions.RemoveEmptyEntries);

    private static List<AskRound> Rounds(OpenSheet open)
    {
        string Name(long id) => open.People.TryGetValue(new PersonId(id), out var p) ? p.Name : "";
        return open.Asks.ConvertAll(a => new AskRound(
            a.Id,
            a.HandName,
            a.AskedByName,
            a.DecidedById is { } by ? Name(by) : string.Join(" or ", a.Holders.Select(h => Name(h.PersonId))),
            a.Outcome,
            a.Why,
            a.Note,
            a.AskedAt,
            a.DecidedAt,
            a.UpTo is { } most ? FigureList.Of(a.UpToFigure).Show(most) : "",
            a.Question
        ));
    }
}
