using System.Collections.Immutable;
using Solvenda.Core.Approvals;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;

namespace Solvenda.Bench;

/// <summary>A made price book of any size, the same at every run, and sheets that buy from it.</summary>
internal sealed class MadeBook
{
    public static readonly Currency Eur = Currency.Of("EUR");
    public static readonly DateOnly Day = new(2026, 3, 2);

    private const int Families = 40;
    private const int Groups = 20;

    public MadeBook(int items, int agreements, int buyers)
    {
        var random = new Random(20260302);
        Items =
        [
            .. Enumerable
                .Range(1, items)
                .Select(i => new Item(
                    new ItemId(i),
                    $"IT-{i:000000}",
                    $"Item {i}",
                    $"family-{i % Families}",
                    Unit.Metre,
                    [new SalesUnit(Unit.Coil, 200m)],
                    TaxClass.Standard,
                    null,
                    10,
                    true,
                    null,
                    null,
                    null
                )),
        ];
        Buyers =
        [
            .. Enumerable
                .Range(1, buyers)
                .Select(i => new Buyer(
                    new BuyerId(i),
                    $"Buyer {i}",
                    "IE",
                    Eur,
                    $"group-{i % Groups}",
                    null,
                    $"IE{i}",
                    false,
                    false,
                    false,
                    30,
                    "DAP",
                    "Skerrow"
                )),
        ];
        Book = new PriceBook(
            new PriceBookContents(
                Eur,
                "IE",
                "house",
                Items,
                [.. Enumerable.Range(0, Families).Select(f => new Family($"family-{f}", $"Family {f}", 20m))],
                [
                    .. Items.Select(i => new ListPrice(
                        "house",
                        i.Id,
                        i.StockUnit,
                        UnitPrice.Round(random.Next(100, 20_000) / 100m, Eur),
                        1m,
                        new DateOnly(2025, 1, 1),
                        null
                    )),
                ],
                [.. Enumerable.Range(1, agreements).Select(n => AgreementOf(n, random))],
                [],
                [.. Items.Select(i => new DatedCost(i.Id, new DateOnly(2025, 1, 1), 0.60m))],
                [new TaxRate(TaxClass.Standard, 23m, new DateOnly(2020, 1, 1), null)],
                [new DatedRate(Currency.Of("USD"), new DateOnly(2026, 1, 1), 0.9236m)],
                ImmutableDictionary<string, string>.Empty
            )
        );
        Rates = Rates.On(Day, Eur, Book.DatedRates);
    }

    public ImmutableArray<Item> Items { get; }

    public ImmutableArray<Buyer> Buyers { get; }

    public PriceBook Book { get; }

    public Rates Rates { get; }

    public static readonly Decider Director = new(
        new PersonId(3),
        "Director",
        null,
        new Authority(100m, Authority.AnyMargin, Authority.AnyValue, null)
    );
    public static readonly Decider Lead = new(
        new PersonId(2),
        "Lead",
        Director.Id,
        new Authority(15m, 15m, 60_000m, null)
    );
    public static readonly Decider Seller = new(
        new PersonId(1),
        "Seller",
        Lead.Id,
        new Authority(8m, 22m, 20_000m, null)
    );
    public static readonly IReadOnlyDictionary<PersonId, Decider> People = new[]
    {
        Director,
        Lead,
        Seller,
    }.ToDictionary(p => p.Id);

    public Sheet SheetOf(int lines)
    {
        var random = new Random(7);
        return new Sheet(
            Eur,
            Day,
            "IE",
            [
                .. Enumerable
                    .Range(1, lines)
                    .Select(n =>
                    {
                        var item = Items[random.Next(Items.Length)];
                        var hand = n % 5 == 0 ? new ByHand(ByHandKind.DiscountPercent, 3m, Seller.Hand) : ByHand.None;
                        return new SheetLine(
                            n,
                            LineKind.Item,
                            item.Id,
                            item.Words,
                            random.Next(1, 600),
                            item.StockUnit,
                            hand,
                            [],
                            false,
                            "",
                            AskedFor.Nothing
                        );
                    }),
            ],
            new SheetDiscount(2m, null),
            [new SheetCharge("freight", 38.50m, null)],
            0m
        );
    }

    // Mostly a buyer's own item prices, some on families and on all, some of a group: as price books are.
    private Agreement AgreementOf(int n, Random random)
    {
        var ofGroup = n % 10 == 0;
        var scope = (n % 20) switch
        {
            3 => RuleScope.Family,
            7 when n % 100 == 7 => RuleScope.All,
            _ => RuleScope.Item,
        };
        return new Agreement(
            $"AG-{n}",
            $"agreement {n}",
            ofGroup ? RuleParty.Group : RuleParty.Buyer,
            ofGroup ? null : Buyers[random.Next(Buyers.Length)].Id,
            ofGroup ? $"group-{random.Next(Groups)}" : null,
            scope,
            scope == RuleScope.Item ? Items[random.Next(Items.Length)].Id : null,
            scope == RuleScope.Family ? $"family-{random.Next(Families)}" : null,
            RuleKind.PercentOff,
            null,
            [new QuantityBreak(0m, 4m), new QuantityBreak(200m, 6m)],
            new DateOnly(2026, 1, 1),
            new DateOnly(2026, 12, 31),
            false
        );
    }
}
