namespace Solvenda.Core.Approvals;

/// <summary>What became of an ask.</summary>
public enum AskOutcome
{
    /// <summary>Waits for the approver; the sheet may be changed but not sent.</summary>
    Waiting,

    /// <summary>Covers the figures asked about and anything no worse.</summary>
    Granted,

    /// <summary>Came back with a note; to be changed and asked again.</summary>
    SentBack,

    /// <summary>Taken back by the seller, or overtaken by a change.</summary>
    Withdrawn,
}

/// <summary>How an approval stands for a sheet as it is now.</summary>
public enum ApprovalState
{
    NotNeeded,
    Needed,
    Waiting,
    Granted,
}

/// <summary>Judges a sheet's figures against the asks made for it.</summary>
public static class Approval
{
    /// <summary>A later change for the worse needs a new ask; a better one does not.</summary>
    public static ApprovalState State(
        ApprovalNeed need,
        SheetFigures now,
        IEnumerable<(AskOutcome Outcome, SheetFigures Figures)> asks
    )
    {
        if (!need.Needed)
            return ApprovalState.NotNeeded;
        var covering = asks.Where(a => need.Fired.All(f => Covers(f, now, a.Figures))).Select(a => a.Outcome).ToList();
        if (covering.Contains(AskOutcome.Granted))
            return ApprovalState.Granted;
        return covering.Contains(AskOutcome.Waiting) ? ApprovalState.Waiting : ApprovalState.Needed;
    }

    // Only what fires now has to be covered: a sheet that grew within the seller's own authority asks nobody again.
    private static bool Covers(Fired fired, SheetFigures now, SheetFigures asked) =>
        fired.Policy == Policies.Value ? now.ValueHome <= asked.ValueHome : now.PricesNoWorseThan(asked);
}
