using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Ordering;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Dossiers;

namespace Solvenda.Web.Sheets;

/// <summary>The one next move of a document: what its filled button does, or why it cannot be done yet.</summary>
/// <param name="Act">ask, send, order, confirm, revise; empty where there is nothing to do.</param>
public sealed record NextMove(string Act, string Words, string Key, bool Possible, string Why);

/// <summary>One round of approval.</summary>
public sealed record AskRound(
    long Id,
    string Seller,
    string Approver,
    AskOutcome Outcome,
    string Why,
    string Note,
    DateTime AskedAt,
    DateTime? DecidedAt
);

public sealed record BuyerBrief(long Id, string Name, string Country, string? Contact, string? Mail);

/// <summary>How far an order is, on each of its three tracks.</summary>
public sealed record TracksView(TermsTrack Terms, GoodsTrack Goods, MoneyTrack Money, string HeldWhy);

/// <summary>A quote or an order, with its sheet: the same shape for both.</summary>
public sealed record DocumentView(
    DocumentKind Kind,
    string Number,
    string Revision,
    string Dossier,
    string Matter,
    BuyerBrief Buyer,
    string Seller,
    QuoteState? State,
    TracksView? Tracks,
    string StateWords,
    NextMove Next,
    SheetView Sheet,
    IReadOnlyList<StripMark> Strip,
    IReadOnlyList<RelatedView> Related,
    IReadOnlyList<AskRound> Asks,
    string? DeclineReason,
    bool MayWithdraw
);

/// <summary>Puts a document view together.</summary>
public sealed class DocumentViews(Judge judge, Strip strip)
{
    public async Task<DocumentView> OfAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        var judged = await judge.JudgeAsync(db, open, cancel);
        var people = open.People;
        string Name(long id) => people.TryGetValue(new PersonId(id), out var p) ? p.Name : "";
        var orderOfQuote = open.Quote is { } quote
            ? await db.Orders.Where(o => o.QuoteId == quote.Id).Select(o => o.Number).FirstOrDefaultAsync(cancel)
            : null;
        return new DocumentView(
            open.Order is null ? DocumentKind.Quote : DocumentKind.Order,
            open.Subject,
            open.Quote is { } q ? QuoteMoves.Letter(q.Revision) : "",
            open.Dossier.Number,
            open.Dossier.Matter,
            new BuyerBrief(
                open.Buyer.Id,
                open.Buyer.Name,
                open.Buyer.Country,
                open.Buyer.ContactName,
                open.Buyer.ContactMail
            ),
            open.Seller.Name,
            open.Quote?.State,
            open.Order is { } o
                ? new TracksView(
                    judged.Stopped && o.Terms == TermsTrack.Open ? TermsTrack.Held : o.Terms,
                    o.Goods,
                    o.Money,
                    o.HeldWhy
                )
                : null,
            StateWords(open, judged),
            Next(open, judged, orderOfQuote),
            SheetView.Of(judged),
            await strip.MarksAsync(db, open.Dossier.Id, cancel),
            [.. (await Strip.RelatedAsync(db, open.Dossier.Id, cancel)).Where(r => r.Number != open.Subject)],
            [
                .. open.Asks.Select(a => new AskRound(
                    a.Id,
                    Name(a.SellerId),
                    Name(a.DecidedById ?? a.ApproverId),
                    a.Outcome,
                    a.Why,
                    a.Note,
                    a.AskedAt,
                    a.DecidedAt
                )),
            ],
            open.Quote?.DeclineReason,
            open.Quote is { } any && QuoteMoves.After(any.State, QuoteAct.Withdraw) is not null
        );
    }

    private static string StateWords(OpenSheet open, Judged judged) =>
        open.Quote is { } q
            ? q.State switch
            {
                QuoteState.Drafting => "drafting",
                QuoteState.InApproval => $"with {judged.Need.Approver?.Name ?? "the approver"}",
                QuoteState.Cleared => "granted, may be sent",
                QuoteState.WithCustomer => q.Opened == 0 ? "with the buyer, not opened yet"
                : q.Opened == 1 ? "with the buyer, opened once"
                : $"with the buyer, opened {q.Opened} times",
                QuoteState.Accepted => $"accepted by {q.AnsweredBy}",
                QuoteState.Declined => $"declined: “{q.DeclineReason}”",
                QuoteState.Lapsed => "lapsed",
                QuoteState.Replaced => "replaced by a newer revision",
                _ => "withdrawn",
            }
            : open.Order!.Terms switch
            {
                TermsTrack.Confirmed => "confirmed to the buyer",
                TermsTrack.Cancelled => "cancelled",
                TermsTrack.Held => $"held: {open.Order.HeldWhy}",
                _ => judged.Stopped ? "held by its checks" : "open",
            };

    private static NextMove Next(OpenSheet open, Judged judged, string? orderOfQuote)
    {
        var stops = judged.Findings.Where(f => f.Outcome == Outcome.Stop).ToList();
        var others = stops.Where(f => f.Check != "approval").ToList();
        var approver = judged.Need.Approver?.Name ?? "somebody with more authority";
        var why = others.Count switch
        {
            0 => "",
            1 => others[0].Words,
            _ => $"{others.Count} things stop it",
        };
        if (judged.Approval == ApprovalState.Needed && open.IsEditable)
            return new NextMove(
                "ask",
                $"Ask {approver}",
                "A",
                others.Count == 0 && judged.Need.Approver is not null,
                judged.Need.Approver is null ? "Nobody on the reporting line may decide this." : why
            );
        if (judged.Approval == ApprovalState.Waiting && open.IsEditable)
            return new NextMove("", "With " + approver, "", false, $"{approver} has the ask.");
        if (open.Order is { } order)
        {
            return order.Terms is TermsTrack.Open or TermsTrack.Held
                ? new NextMove("confirm", "Confirm it", "C", stops.Count == 0, why)
                : new NextMove("", "", "", false, "");
        }
        var sold = judged.Priced.Sold.Any();
        return open.Quote!.State switch
        {
            QuoteState.Drafting or QuoteState.Cleared => new NextMove(
                "send",
                "Send it…",
                "S",
                stops.Count == 0 && sold,
                sold ? why : "There is nothing on it yet."
            ),
            QuoteState.WithCustomer or QuoteState.Declined or QuoteState.Lapsed => new NextMove(
                "revise",
                "New revision",
                "R",
                true,
                ""
            ),
            QuoteState.Accepted when orderOfQuote is null => new NextMove("order", "Make the order", "O", true, ""),
            QuoteState.Accepted => new NextMove("open-order", $"Open {orderOfQuote}", "O", true, ""),
            _ => new NextMove("", "", "", false, ""),
        };
    }
}
