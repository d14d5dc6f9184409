using Solvenda.Core.Money;

namespace Solvenda.Core.Buyers;

/// <summary>The key of a buyer.</summary>
public readonly record struct BuyerId(long Value);

/// <summary>What pricing, tax and checks need to know of a buyer.</summary>
/// <param name="Group">Buyer group for prices; null for none.</param>
/// <param name="PriceList">Price list of its own; null: the house list.</param>
/// <param name="PaymentDays">Days net; null: none agreed, a stop on an order.</param>
public sealed record Buyer(
    BuyerId Id,
    string Name,
    string Country,
    Currency Currency,
    string? Group,
    string? PriceList,
    string? TaxNumber,
    bool TaxExempt,
    bool IsProspect,
    bool PoNumberRequired,
    int? PaymentDays,
    string? Incoterm,
    string? IncotermPlace
);
