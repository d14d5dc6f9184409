using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;

namespace Solvenda.Web.Sheets;

/// <summary>What came of a change: the sheet, where its document stands now, and what comes next.</summary>
/// <param name="StateWords">Where it stands, in words.</param>
/// <param name="Tracks">Of an order; null for a quote.</param>
/// <param name="Shown">Names what is shown with this answer; said with the next change, its answer need only carry the
/// lines that are otherwise.</param>
/// <param name="Keys">The lines of the sheet in their order, where it carries only those that are otherwise than what
/// was shown; null where it carries all.</param>
public sealed record SheetAnswer(
    SheetView Sheet,
    NextMove Next,
    QuoteState? State,
    string StateWords,
    Tracks? Tracks,
    string Shown,
    IReadOnlyList<long>? Keys
)
{
    public static SheetAnswer Of(Judged judged, Actor who)
    {
        ArgumentNullException.ThrowIfNull(judged);
        return new SheetAnswer(
            SheetView.Of(judged, who),
            NextMoves.Of(Judge.StandingOf(judged, null)),
            judged.Open.Quote?.State,
            Standings.Words(judged),
            Standings.TracksOf(judged),
            "",
            null
        );
    }
}

/// <summary>Where a document stands, in words.</summary>
public static class Standings
{
    public static Tracks? TracksOf(Judged judged)
    {
        ArgumentNullException.ThrowIfNull(judged);
        return judged.Open.Order is { } o
            ? Tracks.Of(o.Terms, o.Goods, o.Money, judged.Stops.Length, o.HeldWhy.Length > 0)
            : null;
    }

    public static string Words(Judged judged)
    {
        ArgumentNullException.ThrowIfNull(judged);
        var open = judged.Open;
        if (open.Quote is not { } q)
            return TracksOf(judged)!.Terms switch
            {
                TermsTrack.Confirmed => "confirmed to the buyer",
                TermsTrack.Cancelled => "cancelled",
                TermsTrack.Held when open.Order!.HeldWhy.Length > 0 => $"held: {open.Order.HeldWhy}",
                TermsTrack.Held when open.Order!.ConfirmedAt is not null => "being changed, held by its checks",
                TermsTrack.Held => "held by its checks",
                _ when open.Order!.ConfirmedAt is not null => "being changed; what was confirmed stands until then",
                _ => "open",
            };
        return q.State switch
        {
            QuoteState.Drafting => "drafting",
            QuoteState.InApproval => $"with {Approvers(judged)}",
            QuoteState.Cleared => "granted, may be sent",
            QuoteState.WithCustomer => q.Opened switch
            {
                0 => "with the buyer, not opened yet",
                1 => "with the buyer, opened once",
                _ => $"with the buyer, opened {q.Opened} times",
            },
            QuoteState.Accepted => $"accepted by {q.AnsweredBy}",
            QuoteState.Declined => $"declined: “{q.DeclineReason}”",
            QuoteState.Lapsed => "lapsed",
            QuoteState.Replaced => "replaced by a newer revision",
            _ => "withdrawn",
        };
    }

    private static string Approvers(Judged judged) =>
        judged.Approval.Approvers is { IsEmpty: false } names ? string.Join(" and ", names) : "the approver";
}
