using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.People;

/// <summary>What belongs to somebody, and has to go to somebody else where they leave.</summary>
public static class LeftBehind
{
    /// <summary>Quotes that are not done with.</summary>
    public static IQueryable<QuoteRow> Quotes(SolvendaDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db.Quotes.Where(q =>
            q.State == QuoteState.Drafting
            || q.State == QuoteState.InApproval
            || q.State == QuoteState.Cleared
            || q.State == QuoteState.WithCustomer
            || q.State == QuoteState.Accepted
        );
    }

    /// <summary>Orders that are neither confirmed nor cancelled.</summary>
    public static IQueryable<OrderRow> Orders(SolvendaDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db.Orders.Where(o => o.Terms == TermsTrack.Open || o.Terms == TermsTrack.Held);
    }

    /// <summary>What is still to be done at a date.</summary>
    public static IQueryable<FollowUpRow> FollowUps(SolvendaDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db.FollowUps.Where(f => f.DoneAt == null);
    }
}
