using Solvenda.Core.Approvals;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Web.Credit;

namespace Solvenda.Web.Approvals;

/// <summary>A figure asked, as a ruler: where it stands, what the hand and who decides may.</summary>
/// <param name="Figure">Its code.</param>
/// <param name="Before">The figure with nothing given by hand; null where it does not apply.</param>
/// <param name="Said">The figure with its unit.</param>
/// <param name="UpTo">What a grant may go to, where it goes less far than asked; null where there is no less.</param>
public sealed record AskRuler(
    string Figure,
    string Words,
    decimal Value,
    string Said,
    decimal? HandsLimit,
    decimal? YourLimit,
    decimal? Before,
    decimal From,
    decimal To,
    bool MoreIsWorse,
    bool Asked,
    decimal? UpTo
);

/// <summary>A line of the sheet that is asked about.</summary>
/// <param name="Cause">Whether it is beyond the hand.</param>
/// <param name="Earns">What it earns after its share of the discount on all; null without cost.</param>
public sealed record AskLine(
    long Key,
    string Code,
    string Words,
    string Quantity,
    decimal? NetPrice,
    decimal DiscountPercent,
    decimal? Earns,
    decimal? MarginPercent,
    bool Cause
);

/// <summary>A sale of the item, as a dot.</summary>
/// <param name="Theirs">Whether it was to this buyer.</param>
public sealed record SaleDot(DateOnly Day, string Buyer, bool Theirs, string Quantity, decimal Price, string Document);

/// <summary>What is known of the item of a line that causes the ask.</summary>
/// <param name="Per">What prices are for: "a metre", "each".</param>
/// <param name="Sales">Two years in the currency of the sheet, oldest first.</param>
/// <param name="Stock">In words: 1,612 m, 3.4 months' worth; empty where it is not stocked.</param>
/// <param name="Paid">What we last paid, and since when; empty where nobody knows.</param>
public sealed record AskItem(
    long Key,
    string Code,
    string Words,
    string Per,
    decimal? Price,
    decimal? Base,
    decimal? Floor,
    IReadOnlyList<SaleDot> Sales,
    string Stock,
    string Paid
);

/// <summary>A fact about the buyer or the seller, beside its label.</summary>
public sealed record AskFact(string Label, string Words, bool Bad = false);

/// <summary>Something that would do with less asked, or none.</summary>
/// <param name="Figure">Code of the figure that a grant would go up to.</param>
public sealed record AskInstead(string Words, string Figure, decimal UpTo);

/// <summary>What was said about an ask, and what became of it, one after the other.</summary>
public sealed record AskSaid(DateTime At, string Who, string What, string? Words);

/// <summary>Somebody who is asked in turn.</summary>
public sealed record AskStep(string Names, bool Done, bool Now);

/// <summary>Somebody it can be given to.</summary>
public sealed record AskTo(long Id, string Name);

/// <summary>A file that goes with it.</summary>
public sealed record AskFile(long Id, string Name, bool OfLine);

/// <summary>Another ask that waits for the same person.</summary>
/// <param name="GivenAway">Home currency.</param>
public sealed record AskBeside(
    long Id,
    string Subject,
    string Buyer,
    string Asker,
    string Words,
    decimal GivenAway,
    bool MayBeGranted
);

/// <summary>What whoever looks may do with it.</summary>
/// <param name="Decide">Whether it is theirs to decide.</param>
/// <param name="HandsOn">Whether their yes hands it on to the next, and grants nothing yet.</param>
/// <param name="Answer">Whether they are who asked, or whose it is.</param>
public sealed record AskMay(bool Decide, bool HandsOn, bool Answer, bool Withdraw);

/// <summary>The lines that are not shown.</summary>
public sealed record AskMore(int Lines, decimal Earns);

/// <summary>Where it stands among those that wait for whoever looks.</summary>
/// <param name="Position">From 1; 0: it is not among them.</param>
public sealed record AskPlace(int Position, int Waiting, long? Next);

/// <summary>A field that is to be kept on file.</summary>
public sealed record AskChange(string Label, string Before, string After, bool Money);

/// <summary>Everything to decide on in one look.</summary>
/// <param name="Yours">What of it is theirs to decide, in words.</param>
/// <param name="Credit">What the buyer owes, where that is asked about; null where it is not.</param>
/// <param name="Path">Where what it is about is looked at.</param>
/// <param name="Change">What is to be kept on file; empty where it is about a sheet.</param>
/// <param name="SinceLast">What changed since it was last decided, first the note of then; empty where it is the first
/// round.</param>
public sealed record AskView(
    long Id,
    string Subject,
    string Number,
    string Path,
    string Sentence,
    string Yours,
    string Hand,
    string HandFirst,
    string AskedBy,
    string Owner,
    string Holders,
    AskOutcome Outcome,
    string UpTo,
    string Why,
    string Note,
    DateTime AskedAt,
    DateTime? DueAt,
    bool Urgent,
    string? Question,
    AskMay May,
    string Currency,
    IReadOnlyList<string> Fired,
    IReadOnlyList<AskRuler> Rulers,
    IReadOnlyList<AskLine> Lines,
    AskMore More,
    IReadOnlyList<AskItem> Items,
    decimal Costs,
    decimal Earns,
    decimal Total,
    string Buyer,
    long BuyerId,
    CreditView? Credit,
    IReadOnlyList<AskChange> Change,
    IReadOnlyList<AskFact> OfBuyer,
    IReadOnlyList<AskFact> OfHand,
    IReadOnlyList<AskInstead> Instead,
    IReadOnlyList<string> SinceLast,
    IReadOnlyList<AskStep> Steps,
    IReadOnlyList<AskSaid> Said,
    IReadOnlyList<AskFile> Files,
    IReadOnlyList<AskTo> To,
    IReadOnlyList<AskBeside> Beside,
    AskPlace Place
);
