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
)
{
    /// <summary>Where their goods go by default; null where it is not known.</summary>
    public string? DeliverTo { get; init; }

    /// <summary>ISO 3166-1 alpha-2 of <see cref="DeliverTo"/>.</summary>
    public string? DeliverToCountry { get; init; }

    /// <summary>Where the invoice goes; null: to the buyer's own address.</summary>
    public string? BillTo { get; init; }

    /// <summary>Their own address; empty where it is not known.</summary>
    public string Address { get; init; } = "";

    /// <summary>Whom we write to, and where; null where nobody is named.</summary>
    public string? ContactName { get; init; }

    /// <inheritdoc cref="ContactName" />
    public string? ContactMail { get; init; }

    /// <summary>The warehouse that serves them.</summary>
    public string? ShipFrom { get; init; }

    /// <summary>How lines go out; null where nobody said.</summary>
    public string? ShippingRule { get; init; }

    /// <summary>How documents go out: mail, edi, paper; null where nobody said.</summary>
    public string? DocumentsBy { get; init; }

    /// <summary>ISO 639-1.</summary>
    public string Language { get; init; } = "en";

    /// <summary>Printed on their documents.</summary>
    public string PrintedNote { get; init; } = "";

    /// <summary>For whoever packs for them; empty for nothing.</summary>
    public string WarehouseNote { get; init; } = "";

    /// <summary>Code of their territory; null: none.</summary>
    public string? Territory { get; init; }

    /// <summary>How they pay where it is not in days net, as <c>PaymentPlan</c> writes it; null: in days net.</summary>
    public string? PaymentPlan { get; init; }

    /// <summary>Whether they take goods only with their certificate.</summary>
    public bool WantsCertificates { get; init; }
}
