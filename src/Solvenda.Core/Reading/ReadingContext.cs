using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>A way to know a buyer again: an address, a partner id, a tax number, with what kind it is.</summary>
public sealed record BuyerSign(BuyerId Buyer, string Kind, string Value);

/// <summary>A remembered translation: this buyer's words or code for our item, with a usual quantity where one was learned.</summary>
/// <param name="Words">Normalised by <see cref="ItemFinder.Normal"/>.</param>
public sealed record Alias(BuyerId Buyer, string Words, ItemId Item, decimal? Quantity, Unit? Unit);

/// <summary>What a buyer took before.</summary>
public sealed record Bought(BuyerId Buyer, ItemId Item, string Document, DateOnly Day, decimal Quantity, Unit Unit);

/// <summary>Everything a reading is made against.</summary>
public sealed record ReadingContext(
    ItemFinder Items,
    IReadOnlyDictionary<BuyerId, string> BuyerNames,
    ImmutableArray<BuyerSign> Signs,
    ImmutableArray<Alias> Aliases,
    Func<BuyerId, IReadOnlyList<Bought>> History);
