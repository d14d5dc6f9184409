using System.Collections.Immutable;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets;

/// <summary>What a line is.</summary>
public enum LineKind
{
    /// <summary>A title over the lines that follow.</summary>
    Heading,

    /// <summary>
    /// Something sold: goods or a service. Without an item yet where the buyer's words were not understood.
    /// </summary>
    Item,

    /// <summary>Words between the lines, for the buyer to read; it costs nothing.</summary>
    Comment,

    /// <summary>
    /// Something charged and not sold (a certificate, a special delivery): a price that was typed, no discount on the
    /// whole, no part of the margin.
    /// </summary>
    Charge,
}

/// <summary>What the buyer wrote for a line, kept as it was.</summary>
/// <param name="Price">Their price per <paramref name="PriceBase"/> of their unit, in the currency of their document;
/// null where they named none.</param>
public sealed record AskedFor(
    string Words,
    string? Code,
    decimal? Quantity,
    Unit? Unit,
    decimal? Price,
    decimal PriceBase
)
{
    /// <summary>Nobody asked for it in words of theirs.</summary>
    public static readonly AskedFor Nothing = new("", null, null, null, null, 1m);

    /// <summary>Whether their price is with tax: what was paid, or no price to hold against ours.</summary>
    public bool WithTax { get; init; }
}

/// <summary>One line of a sheet as typed; its figures are worked out and never typed.</summary>
/// <param name="Key">Stays with the line for its life; unique within a sheet.</param>
/// <param name="Charges">Line charges (cutting, splicing) in the sheet's currency.</param>
public sealed record SheetLine(
    long Key,
    LineKind Kind,
    ItemId? Item,
    string Words,
    decimal Quantity,
    Unit Unit,
    ByHand ByHand,
    ImmutableArray<decimal> Charges,
    bool Optional,
    string Note,
    AskedFor Asked
)
{
    /// <summary>
    /// Hands beside the one that typed the price: they raised the quantity, or lost it a break. The smaller authority
    /// counts.
    /// </summary>
    public ImmutableArray<Hand> AlsoBy { get; init; } = [];

    /// <summary>The day by which this line is wanted, where it is another than the whole's.</summary>
    public DateOnly? Wanted { get; init; }

    /// <summary>
    /// What it costs us as typed, in the sheet's currency per price base. Of what is in the catalogue it only shows a
    /// margin: policies and floor keep the catalogue's cost.
    /// </summary>
    public decimal? Cost { get; init; }

    /// <summary>Why it costs that, where the catalogue says otherwise; empty where nothing was said.</summary>
    public string CostWhy { get; init; } = "";

    /// <summary>Whose hand typed the cost.</summary>
    public Hand? CostBy { get; init; }

    /// <summary>
    /// The letter of the choice that it is one of: the buyer takes one of all lines with that letter, and until they do
    /// the first of them counts. Empty for none.
    /// </summary>
    public string OneOf { get; init; } = "";

    /// <summary>
    /// Whether the buyer took it, of what they could choose; null where nothing was to choose, or nobody chose yet.
    /// </summary>
    public bool? Taken { get; init; }

    /// <summary>A note for the house; never printed.</summary>
    public string Inner { get; init; } = "";

    /// <summary>Where it goes, where that is another place than the whole's.</summary>
    public BuyerPlace? DeliverTo { get; init; }

    /// <summary>The warehouse that it leaves from, where it is another than the whole's.</summary>
    public string? ShipFrom { get; init; }

    /// <summary>The buyer's own place or job that it is for.</summary>
    public string Job { get; init; } = "";

    /// <summary>Who ordered it, where it is somebody else than of the whole.</summary>
    public string OrderedBy { get; init; } = "";

    /// <summary>For whoever picks and packs it; never on the buyer's papers.</summary>
    public string ForWarehouse { get; init; } = "";

    /// <summary>
    /// Why it was closed short, after it was confirmed: nothing of it is delivered. Empty: it is open.
    /// </summary>
    public string ClosedWhy { get; init; } = "";

    /// <summary>The line that it was taken from, where its sheet was put together from others.</summary>
    public LineOrigin? From { get; init; }

    /// <summary>Whether it is sold or charged, and no heading or comment.</summary>
    public bool HasFigures => Kind is LineKind.Item or LineKind.Charge;

    /// <summary>
    /// Sold at a price that was typed for words which no item of ours is called by: not in the catalogue.
    /// </summary>
    public bool IsFree => Kind == LineKind.Item && Item is null && ByHand.Kind == ByHandKind.NetPrice;
}

/// <summary>Where a line was taken from.</summary>
/// <param name="Sheet">Key of the sheet.</param>
/// <param name="Key">Key of the line there.</param>
public sealed record LineOrigin(long Sheet, long Key);

/// <summary>A sheet as typed: the priced body of a quote or an order.</summary>
/// <param name="DeliverToCountry">ISO 3166-1 alpha-2; null where it is not known yet.</param>
public sealed record Sheet(
    Currency Currency,
    DateOnly PricingDate,
    string? DeliverToCountry,
    ImmutableArray<SheetLine> Lines,
    SheetDiscount Discount,
    ImmutableArray<SheetCharge> Charges,
    decimal Deposit
)
{
    /// <summary>The channel that it is sold by; null where there is none.</summary>
    public string? Channel { get; init; }

    /// <summary>What was paid on a channel; null where nothing was.</summary>
    public PaidOnChannel? Paid { get; init; }

    /// <summary>What kind of order it is; a quote is for goods that go when they can.</summary>
    public OrderKind Kind { get; init; } = OrderKind.GoodsNow;

    /// <summary>Whose hand made it one without charge; null where it is none.</summary>
    public Hand? FreeBy { get; init; }

    /// <summary>Incoterms 2020; null where it is not agreed yet.</summary>
    public string? Incoterm { get; init; }

    /// <summary>The freight service; null: the cheapest.</summary>
    public string? FreightService { get; init; }

    /// <summary>
    /// What its lines were priced at when it left the house, by the key of the line; empty for a sheet that is priced
    /// anew each time.
    /// </summary>
    public ImmutableDictionary<long, KeptLine> Kept { get; init; } = ImmutableDictionary<long, KeptLine>.Empty;

    /// <summary>
    /// All charges as they were when it left the house; null for a sheet whose charges are worked out anew.
    /// </summary>
    public ImmutableArray<SheetCharge>? KeptCharges { get; init; }

    /// <summary>The country that a line goes to: its own place's, else the whole's.</summary>
    public string? CountryOf(SheetLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return line.DeliverTo?.Country ?? DeliverToCountry;
    }
}

/// <summary>
/// What a line was priced at, kept as long as item, unit and quantity stay: what was offered is what is ordered,
/// whatever price lists do meanwhile.
/// </summary>
/// <param name="Quantity">Null: for any, as what is called off of a frame.</param>
public sealed record KeptLine(
    ItemId Item,
    Unit Unit,
    decimal? Quantity,
    PriceBuild Build,
    decimal? Cost,
    decimal? Floor
);
