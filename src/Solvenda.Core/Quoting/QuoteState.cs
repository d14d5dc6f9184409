using System.Collections.Immutable;

namespace Solvenda.Core.Quoting;

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
public enum QuoteAct
{
    Ask,
    Grant,
    SendBack,

    /// <summary>A change for the worse after a grant, or for the better while asking, puts it back to drafting.</summary>
    Rework,
    Send,
    Accept,
    Decline,
    Lapse,
    Revise,
    Withdraw,
}

/// <summary>One legal move.</summary>
public sealed record QuoteMove(QuoteState From, QuoteAct Act, QuoteState To);

/// <summary>The states of a quote's revision and their legal moves: the only truth about them.</summary>
public static class QuoteMoves
{
    public static readonly ImmutableArray<QuoteMove> All =
    [
        new(QuoteState.Drafting, QuoteAct.Ask, QuoteState.InApproval),
        new(QuoteState.Drafting, QuoteAct.Send, QuoteState.WithCustomer),
        new(QuoteState.Drafting, QuoteAct.Withdraw, QuoteState.Withdrawn),
        new(QuoteState.InApproval, QuoteAct.Grant, QuoteState.Cleared),
        new(QuoteState.InApproval, QuoteAct.SendBack, QuoteState.Drafting),
        new(QuoteState.InApproval, QuoteAct.Rework, QuoteState.Drafting),
        new(QuoteState.InApproval, QuoteAct.Withdraw, QuoteState.Withdrawn),
        new(QuoteState.Cleared, QuoteAct.Rework, QuoteState.Drafting),
        new(QuoteState.Cleared, QuoteAct.Send, QuoteState.WithCustomer),
        new(QuoteState.Cleared, QuoteAct.Withdraw, QuoteState.Withdrawn),
        new(QuoteState.WithCustomer, QuoteAct.Accept, QuoteState.Accepted),
        new(QuoteState.WithCustomer, QuoteAct.Decline, QuoteState.Declined),
        new(QuoteState.WithCustomer, QuoteAct.Lapse, QuoteState.Lapsed),
        new(QuoteState.WithCustomer, QuoteAct.Revise, QuoteState.Replaced),
        new(QuoteState.WithCustomer, QuoteAct.Withdraw, QuoteState.Withdrawn),
        new(QuoteState.Declined, QuoteAct.Revise, QuoteState.Replaced),
        new(QuoteState.Lapsed, QuoteAct.Revise, QuoteState.Replaced),
    ];

    /// <summary>The state after the act; null where the act is not allowed from there.</summary>
    public static QuoteState? After(QuoteState from, QuoteAct act) =>
        All.FirstOrDefault(m => m.From == from && m.Act == act)?.To;

    /// <summary>True while the sheet may be changed.</summary>
    public static bool IsOpen(QuoteState state) =>
        state is QuoteState.Drafting or QuoteState.InApproval or QuoteState.Cleared;

    /// <summary>The letter of a revision: 1 is A, 27 is AA.</summary>
    public static string Letter(int revision)
    {
        var letters = "";
        for (var n = revision; n > 0; n = (n - 1) / 26)
            letters = (char)('A' + ((n - 1) % 26)) + letters;
        return letters;
    }
}
