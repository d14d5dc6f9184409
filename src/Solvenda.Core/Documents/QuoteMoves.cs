namespace Solvenda.Core.Documents;

/// <summary>Where a revision of a quote stands.</summary>
public enum QuoteState
{
    /// <summary>Being written; may be changed by anyone who may write quotes.</summary>
    Drafting,

    /// <summary>An ask waits; may be changed, not sent.</summary>
    InApproval,

    /// <summary>Every ask was granted; may be sent.</summary>
    Cleared,

    /// <summary>Left the house; the sheet is fixed and only answers move it.</summary>
    WithCustomer,

    /// <summary>The buyer said yes; becomes an order. Ends here.</summary>
    Accepted,

    /// <summary>The buyer said no, with a reason. Ends here.</summary>
    Declined,

    /// <summary>Its validity is over. Ends here.</summary>
    Lapsed,

    /// <summary>A newer revision took its place. Ends here.</summary>
    Replaced,

    /// <summary>Taken back by the house. Ends here.</summary>
    Withdrawn,
}

/// <summary>What can be done to a revision.</summary>
public enum QuoteDoing
{
    /// <summary>Approval is asked for.</summary>
    Ask,

    /// <summary>The last ask that was open is granted.</summary>
    Grant,

    /// <summary>An ask comes back with a note.</summary>
    SendBack,

    /// <summary>
    /// A change for the worse after a grant, or for the better while asking, puts it back to drafting.
    /// </summary>
    Rework,

    /// <summary>It leaves the house.</summary>
    Send,

    /// <summary>The buyer says yes.</summary>
    Accept,

    /// <summary>The buyer says no.</summary>
    Decline,

    /// <summary>Its validity runs out.</summary>
    Lapse,

    /// <summary>A newer revision takes its place.</summary>
    Revise,

    /// <summary>The house takes it back.</summary>
    Withdraw,
}

/// <summary>The legal moves of a quote's revision.</summary>
public static class QuoteMoves
{
    /// <summary>The table.</summary>
    public static readonly MoveTable<QuoteState, QuoteDoing> Table = new(
        new(QuoteState.Drafting, QuoteDoing.Ask, QuoteState.InApproval),
        new(QuoteState.Drafting, QuoteDoing.Send, QuoteState.WithCustomer),
        new(QuoteState.Drafting, QuoteDoing.Withdraw, QuoteState.Withdrawn),
        new(QuoteState.InApproval, QuoteDoing.Grant, QuoteState.Cleared),
        new(QuoteState.InApproval, QuoteDoing.SendBack, QuoteState.Drafting),
        new(QuoteState.InApproval, QuoteDoing.Rework, QuoteState.Drafting),
        new(QuoteState.InApproval, QuoteDoing.Withdraw, QuoteState.Withdrawn),
        new(QuoteState.Cleared, QuoteDoing.Ask, QuoteState.InApproval),
        new(QuoteState.Cleared, QuoteDoing.Rework, QuoteState.Drafting),
        new(QuoteState.Cleared, QuoteDoing.Send, QuoteState.WithCustomer),
        new(QuoteState.Cleared, QuoteDoing.Withdraw, QuoteState.Withdrawn),
        new(QuoteState.WithCustomer, QuoteDoing.Accept, QuoteState.Accepted),
        new(QuoteState.WithCustomer, QuoteDoing.Decline, QuoteState.Declined),
        new(QuoteState.WithCustomer, QuoteDoing.Lapse, QuoteState.Lapsed),
        new(QuoteState.WithCustomer, QuoteDoing.Revise, QuoteState.Replaced),
        new(QuoteState.WithCustomer, QuoteDoing.Withdraw, QuoteState.Withdrawn),
        new(QuoteState.Declined, QuoteDoing.Revise, QuoteState.Replaced),
        new(QuoteState.Lapsed, QuoteDoing.Revise, QuoteState.Replaced)
    );

    /// <summary>True while the sheet may be changed.</summary>
    public static bool IsOpen(QuoteState state) =>
        state is QuoteState.Drafting or QuoteState.InApproval or QuoteState.Cleared;
}
