using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>What a message is about.</summary>
public enum MessageKind
{
    /// <summary>Nothing told what it is.</summary>
    Unclear,

    /// <summary>They ask for a price.</summary>
    RequestForQuotation,

    /// <summary>They order.</summary>
    Order,

    /// <summary>Changes an order that we have.</summary>
    Change,

    /// <summary>They take an order back.</summary>
    Cancellation,

    /// <summary>They ask something.</summary>
    Question,

    /// <summary>Says yes or no to a quote of ours.</summary>
    AnswerToQuote,

    /// <summary>Goods that are to go back.</summary>
    Return,

    /// <summary>They wait for something that was ordered.</summary>
    Reminder,

    /// <summary>Something was not as it should be.</summary>
    Complaint,

    /// <summary>
    /// Out of office, newsletter, a bounce, a receipt, somebody's invoice: nothing that the desk answers.
    /// </summary>
    NotForUs,
}

/// <summary>Words of a message that nothing explains, and that could be a quantity or a thing.</summary>
/// <param name="Words">As they stand there.</param>
/// <param name="Where">What is lit in the original.</param>
/// <param name="Why">What it contradicts, in a sentence; empty where nothing explains it.</param>
public sealed record LeftOver(string Words, Evidence Where, string Why = "");

/// <summary>Something of the original that no value was taken from, and that stops nothing.</summary>
/// <param name="Why">Why it was not used, in words.</param>
public sealed record Unused(string Words, string Why, Evidence Where);

/// <summary>Something that is asked of us beside the goods: it goes along until somebody has seen to it.</summary>
public sealed record Remark(RemarkKind Kind, string Words, Evidence Where);

/// <summary>Where a value stands in the original: a part, and characters of that part's text.</summary>
public readonly record struct Evidence(int Part, int Start, int Length)
{
    /// <summary>Whether both have a character in common.</summary>
    public bool Meets(Evidence other) =>
        Part == other.Part && Start < other.Start + other.Length && other.Start < Start + Length;
}

/// <summary>A value that was read: how sure (0 to 1), how it was found, and where it stands.</summary>
public sealed record Field<T>(T? Value, decimal Sure, string How, ImmutableArray<Evidence> Evidence)
{
    /// <summary>Not found.</summary>
    public static readonly Field<T> Missing = new(default, 0m, "not found", []);
}

/// <summary>A proposal for a line that was not sure: what one key would settle it as.</summary>
public sealed record Proposal(
    ItemId Item,
    string Code,
    string Words,
    decimal Quantity,
    Unit Unit,
    decimal Score,
    string Why
);

/// <summary>A buyer that it may be from, and why.</summary>
public sealed record BuyerCandidate(BuyerId Buyer, string Name, string How, decimal Sure);

/// <summary>One line that was read.</summary>
/// <param name="Words">The buyer's own words for the thing.</param>
/// <param name="Code">The buyer's or our code as written; null where there was none.</param>
/// <param name="Price">Price per <paramref name="PriceBase"/> of <paramref name="Unit"/>, as stated.</param>
public sealed record ReadLine(
    Field<ItemId> Item,
    string Words,
    string? Code,
    Field<decimal?> Quantity,
    Field<Unit> Unit,
    decimal? Price,
    decimal PriceBase,
    string Note,
    ImmutableArray<Proposal> Proposals,
    ImmutableArray<Evidence> Evidence
)
{
    /// <summary>The day this line is wanted, where it says one of its own.</summary>
    public Field<DateOnly?> Wanted { get; init; } = Field<DateOnly?>.Missing;

    /// <summary>Amount of the line as stated.</summary>
    public decimal? Amount { get; init; }

    /// <summary>Whether their price holds the tax.</summary>
    public bool WithTax { get; init; }

    /// <summary>In a change: the line is taken back.</summary>
    public bool TakenBack { get; init; }

    /// <summary>Below this, a person decides.</summary>
    public const decimal SureEnough = 0.7m;

    /// <summary>How sure the line is: its least sure part, 0 to 1.</summary>
    public decimal Sure => Math.Min(Item.Sure, Math.Min(Quantity.Sure, Unit.Sure));

    /// <summary>Whether a person decides.</summary>
    public bool NeedsYou => Sure < SureEnough;
}

/// <summary>What was read out of a request: one shape for every form it can come in.</summary>
/// <param name="Charges">Charges stated on the document (freight), in its currency.</param>
/// <param name="Warnings">What contradicts or was left aside, in words.</param>
public sealed record Reading(
    MessageKind Kind,
    Field<BuyerId> Buyer,
    Field<string> Contact,
    Field<string> PoNumber,
    Field<DateOnly?> Wanted,
    Field<string> DeliverTo,
    Field<string> Incoterm,
    Field<string> IncotermPlace,
    Field<Currency?> Currency,
    Field<int?> PaymentDays,
    ImmutableArray<ReadLine> Lines,
    ImmutableArray<(string Kind, decimal Amount)> Charges,
    ImmutableArray<string> Warnings
)
{
    /// <summary>How sure it is that the message is of its kind.</summary>
    public decimal KindSure { get; init; } = 0.9m;

    /// <summary>What nothing explains.</summary>
    public ImmutableArray<LeftOver> LeftOvers { get; init; } = [];

    /// <summary>What was not used, and why.</summary>
    public ImmutableArray<Unused> Unused { get; init; } = [];

    /// <summary>A quote of ours that it refers to.</summary>
    public Field<string> QuoteNumber { get; init; } = Field<string>.Missing;

    /// <summary>What a request for prices calls itself by; no order's number.</summary>
    public Field<string> Reference { get; init; } = Field<string>.Missing;

    /// <summary>ISO 3166-1 alpha-2 of where it goes; null where it does not say.</summary>
    public string? DeliverToCountry { get; init; }

    /// <summary>The first day on which they take the goods; null where they do not say.</summary>
    public DateOnly? WantedFrom { get; init; }

    /// <summary>What else is asked of us beside the goods.</summary>
    public ImmutableArray<Remark> Remarks { get; init; } = [];

    /// <summary>Total of the lines as stated.</summary>
    public Field<decimal?> Goods { get; init; } = Field<decimal?>.Missing;

    /// <summary>What was paid for all of it, with tax; null where it does not say.</summary>
    public decimal? Paid { get; init; }

    /// <summary>What the channel keeps of that; null where it does not say.</summary>
    public decimal? Fee { get; init; }

    /// <summary>What else they say, for people.</summary>
    public string Note { get; init; } = "";

    /// <summary>Where more than one buyer fits: all of them, with what speaks for each.</summary>
    public ImmutableArray<BuyerCandidate> BuyerCandidates { get; init; } = [];

    /// <summary>ISO 639-1 of the words that it was read by; empty for structured forms.</summary>
    public string Language { get; init; } = "";

    /// <summary>
    /// Whether a person has to look before it can be turned: the buyer, the kind, the order's number or a line is not
    /// sure, or something is left over.
    /// </summary>
    public bool NeedsYou =>
        Buyer.Sure < ReadLine.SureEnough
        || KindSure < ReadLine.SureEnough
        || PoNumber.Sure is > 0 and < ReadLine.SureEnough
        || !LeftOvers.IsEmpty
        || Lines.IsEmpty
        || Lines.Any(l => l.NeedsYou)
        || (Wanted.Value is not null && Wanted.Sure < UnsureDate);

    /// <summary>Under this a date could as well be another.</summary>
    public const decimal UnsureDate = 0.55m;

    /// <summary>The same with the number that it calls itself by as what its kind makes of it.</summary>
    public Reading WithItsNumber() =>
        Kind == MessageKind.RequestForQuotation && KindSure >= ReadLine.SureEnough
            ? this with
            {
                Reference = PoNumber.Sure > 0 ? PoNumber : Reference,
                PoNumber = Field<string>.Missing,
            }
            : this with
            {
                Reference = Kind == MessageKind.RequestForQuotation ? Reference : Field<string>.Missing,
            };
}
