using System.Collections.Immutable;

namespace Solvenda.Core.Documents;

/// <summary>How an approval stands for a sheet as it is now.</summary>
public enum ApprovalState
{
    /// <summary>Everything on it is within the authority of the hands that typed it.</summary>
    NotNeeded,

    /// <summary>Somebody has to be asked.</summary>
    Needed,

    /// <summary>Everybody who has to be asked is asked, and not all have answered.</summary>
    Waiting,

    /// <summary>Granted, and nothing is worse than what was granted.</summary>
    Granted,
}

/// <summary>The one next move of a document: what its filled button does, or why it cannot be done yet.</summary>
/// <param name="Code">ask, send, turn, confirm, goOn, revise, open; empty where there is nothing to do.</param>
/// <param name="Key">The letter that does it.</param>
/// <param name="Why">Why it cannot be done; empty where it can.</param>
/// <param name="Opens">For "open": the document to go to.</param>
public sealed record NextMove(
    string Code,
    string Words,
    string Key,
    bool Possible,
    string Why = "",
    DocumentRef? Opens = null
)
{
    /// <summary>Nothing to do.</summary>
    public static readonly NextMove None = new("", "", "", false);
}

/// <summary>What the next move hangs on.</summary>
/// <param name="Stops">Words of what stops it, but for what the approval itself says.</param>
/// <param name="Approvers">Names of those who have to be asked, or have the ask; empty where nobody may decide.</param>
/// <param name="HasLines">Whether anything is sold on it.</param>
/// <param name="Order">For an accepted quote: the order that it became.</param>
public sealed record Standing(
    DocumentKind Kind,
    QuoteState? Quote,
    TermsTrack? Terms,
    ApprovalState Approval,
    ImmutableArray<string> Approvers,
    ImmutableArray<string> Stops,
    bool HasLines,
    string? Order
)
{
    /// <summary>Why it is held by hand; empty where it is not.</summary>
    public string HeldWhy { get; init; } = "";

    /// <summary>Whether it was confirmed before, and is being changed.</summary>
    public bool IsChanged { get; init; }

    /// <summary>Whether the sheet may still be changed.</summary>
    public bool IsOpen => Quote is { } q ? QuoteMoves.IsOpen(q) : Terms is { } t && Tracks.IsOpen(t);

    /// <summary>What stops it, in a few words; empty where nothing does.</summary>
    public string Why =>
        Stops.Length switch
        {
            0 => "",
            1 => Stops[0],
            _ => $"{Stops.Length} things stop it",
        };
}

/// <summary>Finds the next move: the first row that applies. The only place that says what comes next.</summary>
public static class NextMoves
{
    /// <summary>One row: when it applies, and what it is.</summary>
    public sealed record Row(string Code, Func<Standing, bool> When, Func<Standing, NextMove> Move);

    /// <summary>The rows, in their order.</summary>
    public static readonly ImmutableArray<Row> Table =
    [
        new(
            "goOn",
            s => s.HeldWhy.Length > 0 && s.Terms is not TermsTrack.Cancelled,
            _ => new NextMove("goOn", "Go on with it", "C", true)
        ),
        new("ask", s => s.IsOpen && s.Approval == ApprovalState.Needed, Ask),
        new("", s => s.IsOpen && s.Approval == ApprovalState.Waiting, Waiting),
        new(
            "confirm",
            s => s is { Kind: DocumentKind.Order, IsOpen: true },
            s => new NextMove("confirm", s.IsChanged ? "Confirm the change" : "Confirm it", "C", s.Stops.IsEmpty, s.Why)
        ),
        new("send", s => s is { Kind: DocumentKind.Quote, IsOpen: true }, Send),
        new(
            "revise",
            s => s.Quote is QuoteState.WithCustomer or QuoteState.Declined or QuoteState.Lapsed,
            _ => new NextMove("revise", "New revision", "R", true)
        ),
        new(
            "open",
            s => s is { Quote: QuoteState.Accepted, Order: not null },
            s => new NextMove("open", $"Open {s.Order}", "O", true, "", new DocumentRef("order", s.Order!))
        ),
        new("turn", s => s.Quote == QuoteState.Accepted, _ => new NextMove("turn", "Make the order", "O", true)),
    ];

    /// <summary>The next move; <see cref="NextMove.None"/> where no row applies.</summary>
    public static NextMove Of(Standing standing) =>
        Table.FirstOrDefault(r => r.When(standing))?.Move(standing) ?? NextMove.None;

    private static NextMove Ask(Standing s) =>
        s.Approvers.IsEmpty
            ? new NextMove("ask", "Ask …", "A", false, "Nobody on the reporting line may decide this.")
            : new NextMove("ask", $"Ask {string.Join(" and ", s.Approvers)}", "A", s.Stops.IsEmpty, s.Why);

    private static NextMove Waiting(Standing s)
    {
        var who = string.Join(" and ", s.Approvers);
        return new NextMove(
            "",
            "With " + who,
            "",
            false,
            $"{who} {(s.Approvers.Length > 1 ? "have" : "has")} the ask."
        );
    }

    private static NextMove Send(Standing s) =>
        s.HasLines
            ? new NextMove("send", "Send it…", "S", s.Stops.IsEmpty, s.Why)
            : new NextMove("send", "Send it…", "S", false, "There is nothing on it yet.");
}
