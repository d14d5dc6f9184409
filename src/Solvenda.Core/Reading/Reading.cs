using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>What a message is about.</summary>
public enum MessageKind
{
    Unclear,
    RequestForQuotation,
    Order,
    Question,
    NotForUs,
}

/// <summary>Where a value stands in the original: a part, and characters of that part's text.</summary>
public sealed record Evidence(int Part, int Start, int Length);

/// <summary>A value that was read: how sure (0 to 1), how it was found, and where it stands.</summary>
public sealed record Field<T>(T? Value, decimal Sure, string How, ImmutableArray<Evidence> Evidence)
{
    public static readonly Field<T> Missing = new(default, 0m, "not found", []);
}

/// <summary>A proposal for a line that was not sure: what one key would settle it as.</summary>
public sealed record Proposal(ItemId Item, string Code, string Words, decimal Quantity, Unit Unit, decimal Score, string Why);

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
    ImmutableArray<Evidence> Evidence)
{
    /// <summary>Below this, a person decides.</summary>
    public const decimal SureEnough = 0.7m;

    public decimal Sure => Math.Min(Item.Sure, Math.Min(Quantity.Sure, Unit.Sure));

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
    ImmutableArray<string> Warnings)
{
    /// <summary>Whether a person has to look before it can be turned: the buyer or a line is not sure.</summary>
    public bool NeedsYou => Buyer.Sure < ReadLine.SureEnough || Lines.IsEmpty || Lines.Any(l => l.NeedsYou);
}
