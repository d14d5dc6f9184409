namespace Solvenda.Core.Documents;

/// <summary>How far the terms of an order are.</summary>
public enum TermsTrack
{
    /// <summary>To be confirmed; may be changed.</summary>
    Open,

    /// <summary>Something stops it.</summary>
    Held,

    /// <summary>Confirmed to the buyer.</summary>
    Confirmed,

    /// <summary>Taken back.</summary>
    Cancelled,
}

/// <summary>How far its goods are.</summary>
public enum GoodsTrack
{
    /// <summary>Nothing is picked yet.</summary>
    Waiting,

    /// <summary>Being picked.</summary>
    Picking,

    /// <summary>Part of it has gone.</summary>
    PartShipped,

    /// <summary>All of it has gone.</summary>
    Shipped,
}

/// <summary>How far its money is.</summary>
public enum MoneyTrack
{
    /// <summary>Nothing to invoice yet.</summary>
    NotDue,

    /// <summary>May be invoiced.</summary>
    ToInvoice,

    /// <summary>Part of it is invoiced.</summary>
    PartInvoiced,

    /// <summary>All of it is invoiced.</summary>
    Invoiced,

    /// <summary>Part of it is paid.</summary>
    PartPaid,

    /// <summary>All of it is paid.</summary>
    Paid,
}

/// <summary>What can be done to the terms of an order.</summary>
public enum OrderDoing
{
    /// <summary>Confirmed to the buyer, or confirmed again after a change.</summary>
    Confirm,

    /// <summary>Opened again to be changed; what was confirmed stands until it is confirmed anew.</summary>
    Change,

    /// <summary>What was being changed is left as it was confirmed.</summary>
    LeaveAsConfirmed,

    /// <summary>Taken back.</summary>
    Cancel,

    /// <summary>Taken up again after it was cancelled.</summary>
    OpenAgain,
}

/// <summary>An order has no single state: its three tracks, each on its own.</summary>
public sealed record Tracks(TermsTrack Terms, GoodsTrack Goods, MoneyTrack Money)
{
    /// <summary>The legal moves of the terms.</summary>
    public static readonly MoveTable<TermsTrack, OrderDoing> TermsTable = new(
        new Move<TermsTrack, OrderDoing>(TermsTrack.Open, OrderDoing.Confirm, TermsTrack.Confirmed),
        new Move<TermsTrack, OrderDoing>(TermsTrack.Open, OrderDoing.LeaveAsConfirmed, TermsTrack.Confirmed),
        new Move<TermsTrack, OrderDoing>(TermsTrack.Open, OrderDoing.Cancel, TermsTrack.Cancelled),
        new Move<TermsTrack, OrderDoing>(TermsTrack.Confirmed, OrderDoing.Change, TermsTrack.Open),
        new Move<TermsTrack, OrderDoing>(TermsTrack.Confirmed, OrderDoing.Cancel, TermsTrack.Cancelled),
        new Move<TermsTrack, OrderDoing>(TermsTrack.Cancelled, OrderDoing.OpenAgain, TermsTrack.Open)
    );

    /// <summary>
    /// As they are shown: what is held by hand is held, and open terms that something stops are too.
    /// </summary>
    public static Tracks Of(TermsTrack terms, GoodsTrack goods, MoneyTrack money, int stops, bool heldByHand) =>
        new(
            (terms == TermsTrack.Open && stops > 0) || (heldByHand && terms != TermsTrack.Cancelled)
                ? TermsTrack.Held
                : terms,
            goods,
            money
        );

    /// <summary>True while the sheet may be changed.</summary>
    public static bool IsOpen(TermsTrack terms) => terms is TermsTrack.Open or TermsTrack.Held;
}
