using System.Collections.Immutable;
using Solvenda.Core.Approvals;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;

namespace Solvenda.Core.Tests;

/// <summary>
/// A small house to test in: three items, one buyer with an agreement, a seller with 8 % and 22 %, a lead with 15 % and
/// 15 %.
/// </summary>
internal static class World
{
    public static readonly Currency Eur = Currency.Of("EUR");
    public static readonly DateOnly Day = new(2026, 3, 2);

    public static readonly Item Braid = Of(
        1,
        "BB2-10-NV",
        "Braid-on-braid rope 10 mm, navy",
        "rope",
        Unit.Metre,
        new SalesUnit(Unit.Coil, 200m)
    );
    public static readonly Item Shackle = Of(
        2,
        "SHK-BOW-10",
        "Bow shackle, galvanised, 10 mm",
        "hardware",
        Unit.Piece,
        new SalesUnit(Unit.Box, 25m)
    );
    public static readonly Item Splice = Of(3, "SVC-EYE", "Eye splice, per piece", "service", Unit.Piece) with
    {
        Stocked = false,
    };
    public static readonly Item White = Of(
        4,
        "PS3-12-WH",
        "Three-strand polyester rope 12 mm, white",
        "rope",
        Unit.Metre,
        new SalesUnit(Unit.Coil, 200m)
    );
    public static readonly Item Thick = Of(
        5,
        "PS3-16-BK",
        "Three-strand polyester rope 16 mm, black",
        "rope",
        Unit.Metre
    );

    public static readonly Buyer Tressel = new(
        new BuyerId(1),
        "Tressel & Vane Rigging",
        "IE",
        Eur,
        null,
        null,
        "IE1",
        false,
        false,
        false,
        30,
        "DAP",
        "Skerrow"
    )
    {
        Address = "Sail Loft Lane 3, Skerrow, A65 F4E2",
        ContactName = "Fionn Tressel",
        ContactMail = "fionn@tresselvane.example",
    };

    public static readonly Decider Lead = new(
        new PersonId(2),
        "Leandro Paz",
        null,
        new Authority(15m, 15m, 60_000m, null) { TermsDays = 15, FreightUnder = 50m }
    );
    public static readonly Decider Seller = new(
        new PersonId(1),
        "Sorcha Quill",
        Lead.Id,
        new Authority(8m, 22m, 20_000m, null)
    );
    public static readonly IReadOnlyDictionary<PersonId, Decider> People = new[] { Lead, Seller }.ToDictionary(p =>
        p.Id
    );

    public static readonly PriceBookContents Contents = new(
        Eur,
        "IE",
        "house",
        [Braid, Shackle, Splice, White, Thick],
        [
            new Family("rope", "Ropes", 22m),
            new Family("hardware", "Hardware", 24m),
            new Family("service", "Services", 30m),
        ],
        [Price(Braid, 2.42m), Price(Shackle, 4.15m), Price(Splice, 11.50m), Price(White, 1.84m), Price(Thick, 2.95m)],
        [
            new Agreement(
                "AG-1",
                "ropes, T&V",
                RuleParty.Buyer,
                Tressel.Id,
                null,
                RuleScope.Family,
                null,
                "rope",
                RuleKind.PercentOff,
                null,
                [new QuantityBreak(0m, 8m), new QuantityBreak(200m, 10m)],
                new DateOnly(2026, 1, 1),
                new DateOnly(2026, 12, 31),
                false
            ),
        ],
        [],
        [
            new DatedCost(Braid.Id, new DateOnly(2025, 1, 1), 1.6242m),
            new DatedCost(Shackle.Id, new DateOnly(2025, 1, 1), 2.28m),
            new DatedCost(Splice.Id, new DateOnly(2025, 1, 1), 4.83m),
        ],
        [new TaxRate(TaxClass.Standard, 23m, new DateOnly(2020, 1, 1), null)],
        [new DatedRate(Currency.Of("USD"), new DateOnly(2026, 1, 1), 0.9236m)],
        ImmutableDictionary<string, string>.Empty
    );

    public static readonly PriceBook Book = new(Contents);

    public static SheetLine Line(Item item, decimal quantity, ByHand? hand = null, Unit? unit = null) =>
        new(
            item.Id.Value,
            LineKind.Item,
            item.Id,
            item.Words,
            quantity,
            unit ?? item.StockUnit,
            hand ?? ByHand.None,
            [],
            false,
            "",
            AskedFor.Nothing
        );

    public static PricedSheet Sheet(params SheetLine[] lines) => Sheet(SheetDiscount.None, lines);

    public static PricedSheet Sheet(SheetDiscount discount, params SheetLine[] lines) =>
        SheetPricer.Price(
            Book,
            Rates.On(Day, Eur, Book.DatedRates),
            Tressel,
            new Sheet(Eur, Day, "IE", [.. lines], discount, [], 0m)
        );

    /// <summary>Terms as the seller typed them.</summary>
    public static Head Typed(params (HeadTerm Term, string Text)[] terms) =>
        terms.Aggregate(Head.Empty, (head, t) => head.With(t.Term.Name, t.Text, Seller.Hand));

    /// <summary>What the door judges against: the seller's hand on a quote for Tressel &amp; Vane.</summary>
    public static DoorFacts Door(Decider? who = null, DocumentKind kind = DocumentKind.Quote) =>
        new(
            kind,
            Book,
            Tressel,
            Eur,
            (who ?? Seller).Hand,
            Day,
            [new TermChoice("en", "English"), new TermChoice("de", "Deutsch")],
            ["Skerrow", "Antwerp"],
            [
                new BuyerPlace("YARD", "deliver-to", "The Yard, Skerrow quay", "IE"),
                new BuyerPlace("LOFT", "deliver-to", "The Loft, Antwerp", "BE"),
            ]
        );

    /// <summary>What a reader knows of this house: its items, and no buyers, orders or learnt words.</summary>
    public static ReadingContext BareReading =>
        new(new ItemFinder(Book.Items), new Dictionary<BuyerId, string>(), [], [], _ => []);

    private static Item Of(long id, string code, string words, string family, Unit unit, params SalesUnit[] units) =>
        new(new ItemId(id), code, words, family, unit, [.. units], TaxClass.Standard, null, 10, true, null, null, null);

    private static ListPrice Price(Item item, decimal price) =>
        new("house", item.Id, item.StockUnit, UnitPrice.Round(price, Eur), 1m, new DateOnly(2025, 1, 1), null);
}
