using System.Collections.Immutable;

namespace Solvenda.Core.Reading;

/// <summary>A value out of a structured message, with the place it stands in.</summary>
public sealed record Stated<T>(T Value, Evidence Where);

/// <summary>
/// Something to know the buyer by: a partner id, a GLN, a tax number, a mail address, a name, the account of a channel.
/// </summary>
/// <param name="Kind">partner, gln, tax, mail, domain, channel, name, address.</param>
public sealed record Clue(string Kind, string Value, ImmutableArray<Evidence> Where);

/// <summary>
/// One line of a structured message, as stated: codes of others, units in the code list of the syntax already turned to
/// Rec 20 where known.
/// </summary>
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
    ImmutableArray<Evidence> Evidence
)
{
    /// <summary>The day this line is wanted, where the line says one of its own.</summary>
    public Stated<DateOnly>? Wanted { get; init; }

    /// <summary>Amount of the line as stated, after its allowances.</summary>
    public Stated<decimal>? Amount { get; init; }

    /// <summary>Allowances (negative) and charges of the line in money, within <see cref="Amount"/>.</summary>
    public decimal Allowances { get; init; }

    /// <summary>Whether their price holds the tax: a shop's price to people.</summary>
    public bool WithTax { get; init; }

    /// <summary>Whether it is sold by a listing of ours, which is in the item's own unit.</summary>
    public bool IsListed { get; init; }

    /// <summary>What else is said of it: where a part of it goes, what a change does to it.</summary>
    public string Note { get; init; } = "";

    /// <summary>What the quantity could be too, where its decimal sign is not clear; null where it is.</summary>
    public decimal? Open { get; init; }

    /// <summary>In a change: this line is taken back.</summary>
    public bool TakenBack { get; init; }
}

/// <summary>
/// A purchase order, change or request for quotation as any structured format states it; what formats hand over to
/// reading. Every value may be missing; none is made up.
/// </summary>
public sealed record OrderDocument(MessageKind Kind, ImmutableArray<StatedLine> Lines)
{
    /// <summary>What may tell the buyer.</summary>
    public ImmutableArray<Clue> Clues { get; init; } = [];

    /// <summary>Who wrote.</summary>
    public Stated<string>? Contact { get; init; }

    /// <summary>Their number for it.</summary>
    public Stated<string>? PoNumber { get; init; }

    /// <summary>A quote of ours that it refers to.</summary>
    public Stated<string>? QuoteNumber { get; init; }

    /// <summary>The day of the document.</summary>
    public DateOnly? Written { get; init; }

    /// <summary>When the goods are wanted.</summary>
    public Stated<DateOnly>? Wanted { get; init; }

    /// <summary>The first day on which they take them; null where any day up to the wanted one will do.</summary>
    public DateOnly? WantedFrom { get; init; }

    /// <summary>Where the goods go.</summary>
    public Stated<string>? DeliverTo { get; init; }

    /// <summary>ISO 3166-1 alpha-2.</summary>
    public string? DeliverToCountry { get; init; }

    /// <summary>The Incoterm, in capitals.</summary>
    public Stated<string>? Incoterm { get; init; }

    /// <summary>Its named place.</summary>
    public Stated<string>? IncotermPlace { get; init; }

    /// <summary>ISO 4217.</summary>
    public Stated<string>? Currency { get; init; }

    /// <summary>Days net.</summary>
    public Stated<int>? PaymentDays { get; init; }

    /// <summary>Total of the lines as stated.</summary>
    public Stated<decimal>? Goods { get; init; }

    /// <summary>
    /// What was paid for all of it, with tax, in the document's currency; null where it does not say.
    /// </summary>
    public decimal? Paid { get; init; }

    /// <summary>Ids of what it is about, as its sender names them; empty for none.</summary>
    public ImmutableArray<string> About { get; init; } = [];

    /// <summary>What the channel keeps of that; null where it does not say.</summary>
    public decimal? Fee { get; init; }

    /// <summary>What else they say.</summary>
    public Stated<string>? Note { get; init; }

    /// <summary>Charges and allowances, an allowance negative, in the document's currency.</summary>
    public ImmutableArray<(string Kind, decimal Amount)> Charges { get; init; } = [];

    /// <summary>What was not used though it matters, and stated totals that the lines do not make.</summary>
    public ImmutableArray<LeftOver> LeftOvers { get; init; } = [];

    /// <summary>What was not used, and why.</summary>
    public ImmutableArray<Unused> Unused { get; init; } = [];

    /// <summary>What was odd about it, in words.</summary>
    public ImmutableArray<string> Warnings { get; init; } = [];
}
