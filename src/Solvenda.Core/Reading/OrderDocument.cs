using System.Collections.Immutable;

namespace Solvenda.Core.Reading;

/// <summary>A value out of a structured message, with the place it stands in.</summary>
public sealed record Stated<T>(T Value, Evidence Where);

/// <summary>One line of a structured message, as stated: codes of others, units in the code list of the syntax already turned to Rec 20 where known.</summary>
/// <param name="Unit">Unit code as written.</param>
/// <param name="Price">Per <paramref name="PriceBase"/> of the unit.</param>
public sealed record StatedLine(
    string Number,
    Stated<decimal>? Quantity,
    string Unit,
    Stated<decimal>? Price,
    decimal PriceBase,
    Stated<string>? BuyersCode,
    Stated<string>? SellersCode,
    Stated<string>? Gtin,
    string Words,
    ImmutableArray<Evidence> Evidence);

/// <summary>A purchase order or request for quotation as any structured format states it; what formats hand over to reading.</summary>
public sealed record OrderDocument(
    MessageKind Kind,
    Stated<string>? PartnerId,
    Stated<string>? Contact,
    Stated<string>? ContactMail,
    Stated<string>? PoNumber,
    DateOnly? Written,
    Stated<DateOnly>? Wanted,
    Stated<string>? DeliverTo,
    Stated<string>? Incoterm,
    Stated<string>? IncotermPlace,
    Stated<string>? Currency,
    Stated<int>? PaymentDays,
    ImmutableArray<StatedLine> Lines,
    ImmutableArray<(string Kind, decimal Amount)> Charges,
    ImmutableArray<string> Warnings);
