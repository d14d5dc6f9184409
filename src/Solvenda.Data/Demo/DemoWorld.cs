using System.Reflection;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Pricing;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>
/// Writes the demo world: people, items, buyers, prices, two years of orders, open quotes, stock. From a fixed seed,
/// relative to a day, so that it never grows old.
/// </summary>
public sealed class DemoWorld(SolvendaDb db, PriceBooks books, DateTime now)
{
    /// <summary>The key of the demo's machine door. Only a database made by the demo knows it.</summary>
    public const string IntegrationKey = "demo-integration-key";

    public static readonly Seller Seller = new(
        "Brinemoor Cordage & Deck Supply",
        "IE",
        Core.Money.Currency.Of("EUR"),
        "house",
        ["The Quay, Skerrow, Ireland", "orders@brinemoor.example · +353 20 555 0100", "tax number IE9999999WA"],
        "orders@brinemoor.example"
    );

    private readonly Random _random = new(20_260_301);
    private readonly DateOnly _today = DateOnly.FromDateTime(now);

    /// <param name="keyHash">SHA-256 of <see cref="IntegrationKey"/>.</param>
    public async Task WriteAsync(string keyHash, CancellationToken cancel)
    {
        db.ChangeTracker.AutoDetectChangesEnabled = false;
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        db.People.AddRange(DemoPeople.Make());
        db.ApiKeys.Add(
            new ApiKey
            {
                Name = "demo integration",
                Hash = keyHash,
                Scopes = "inbound read price cost authority",
                CreatedAt = now,
            }
        );
        var catalogue = AddCatalogue();
        var buyers = AddBuyers();
        await db.SaveChangesAsync(cancel);
        await AddAgreementsAsync(catalogue, cancel);
        AddStock(catalogue);
        await db.SaveChangesAsync(cancel);

        var book = await books.BookAsync(db, cancel);
        var history = new DemoHistory(db, book, buyers, catalogue, _random, now);
        history.Add();
        await EventChain.AppendInTransactionAsync(db, history.Events, cancel);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        db.ChangeTracker.AutoDetectChangesEnabled = true;
        db.ChangeTracker.Clear();
    }

    /// <summary>The messages that wait when the demo opens: name and bytes, dates moved to today.</summary>
    public IEnumerable<(string Channel, string Name, byte[] Bytes)> Messages()
    {
        (string Channel, string Name, DateOnly Written)[] samples =
        [
            ("mail", "tressel-usual.eml", new DateOnly(2026, 3, 2)),
            ("edi", "northgannet-850.x12", new DateOnly(2026, 3, 5)),
            ("mail", "dunmarrow-lines.eml", new DateOnly(2026, 3, 3)),
            ("mail", "petrel-order.eml", new DateOnly(2026, 3, 3)),
            ("mail", "corrie-question.eml", new DateOnly(2026, 3, 3)),
            ("edi", "cut-off.x12", new DateOnly(2026, 3, 3)),
            ("mail", "oystercatcher-season.eml", new DateOnly(2026, 3, 3)),
            ("mail", "nordvass-sv.eml", new DateOnly(2026, 3, 4)),
            ("edi", "teerling-orders.edi", new DateOnly(2026, 3, 6)),
            ("edi", "havnlys-orders.edi", new DateOnly(2026, 3, 7)),
            ("edi", "aeolis-order.xml", new DateOnly(2026, 3, 9)),
            ("edi", "harbourmart-orders.json", new DateOnly(2026, 3, 10)),
        ];
        foreach (var (channel, name, written) in samples)
        {
            using var stream =
                Assembly.GetExecutingAssembly().GetManifestResourceStream($"Solvenda.Data.Demo.Messages.{name}")
                ?? throw new InvalidOperationException($"The demo message {name} is not in the assembly.");
            using var copy = new MemoryStream();
            stream.CopyTo(copy);
            yield return (channel, name, MessageDates.Shift(copy.ToArray(), written, _today));
        }
    }

    private IReadOnlyList<DemoCatalogue.Entry> AddCatalogue()
    {
        var catalogue = DemoCatalogue.Make();
        var since = _today.AddYears(-3);
        for (var i = 0; i < catalogue.Count; i++)
        {
            var (row, list, cost, coil) = catalogue[i];
            row.Id = i + 1;
            foreach (var unit in row.SalesUnits)
                unit.ItemId = row.Id;
            db.Items.Add(row);
            db.ListPrices.Add(
                new ListPriceRow
                {
                    List = "house",
                    ItemId = row.Id,
                    Unit = row.StockUnit,
                    Price = list,
                    Currency = "EUR",
                    From = since,
                }
            );
            if (coil is { } perCoil)
                db.ListPrices.Add(
                    new ListPriceRow
                    {
                        List = "house",
                        ItemId = row.Id,
                        Unit = "CL",
                        Price = perCoil,
                        Currency = "EUR",
                        From = since,
                    }
                );
            db.Costs.Add(
                new CostRow
                {
                    ItemId = row.Id,
                    From = since,
                    Cost = cost,
                }
            );
        }
        db.Families.AddRange(DemoCatalogue.Families);
        db.TaxRates.Add(
            new TaxRateRow
            {
                Class = TaxClass.Standard,
                From = since,
                Percent = 23m,
            }
        );
        db.TaxRates.Add(
            new TaxRateRow
            {
                Class = TaxClass.Reduced,
                From = since,
                Percent = 13.5m,
            }
        );
        foreach (
            var (currency, rate) in new[]
            {
                ("GBP", 1.1713m),
                ("NOK", 0.08542m),
                ("SEK", 0.0898m),
                ("USD", 0.9236m),
                ("DKK", 0.13404m),
            }
        )
        {
            // A rate a fortnight, wandering a little around today's.
            for (var day = since; day <= _today; day = day.AddDays(14))
                db.ExchangeRates.Add(
                    new ExchangeRateRow
                    {
                        Currency = currency,
                        Day = day,
                        Rate = Math.Round(rate * (1 + (decimal)((_random.NextDouble() - 0.5) * 0.04)), 6),
                    }
                );
            db.ExchangeRates.Add(
                new ExchangeRateRow
                {
                    Currency = currency,
                    Day = _today.AddDays(-1),
                    Rate = rate,
                }
            );
        }
        AddPriceRules(since);
        return catalogue;
    }

    private void AddPriceRules(DateOnly since)
    {
        db.PriceLists.Add(new PriceListRow { Code = "house", Words = "House list" });
        db.Groups.AddRange(
            new GroupRow { Code = "chandlers", Words = "Chandlers" },
            new GroupRow { Code = "schools", Words = "Sailing schools" }
        );
        string[] near = ["IE"],
            islands = ["GB"],
            north = ["NO", "SE", "DK"],
            west = ["NL", "DE", "FR", "ES"],
            over = ["US"];
        foreach (var (zone, countries) in new[] { ("1", near), ("2", islands), ("3", west), ("4", north), ("5", over) })
            db.FreightZones.AddRange(countries.Select(c => new FreightZoneRow { Country = c, Zone = zone }));
        foreach (var (zone, factor) in new[] { ("1", 1m), ("2", 1.9m), ("3", 2.2m), ("4", 2.8m), ("5", 5.5m) })
        {
            foreach (
                var (kg, price) in new[]
                {
                    (30m, 9.50m),
                    (100m, 24.00m),
                    (250m, 38.50m),
                    (500m, 62.00m),
                    (1_000m, 98.00m),
                    (3_000m, 210.00m),
                    (12_000m, 590.00m),
                    (60_000m, 1_850.00m),
                }
            )
                db.FreightBands.Add(
                    new FreightBandRow
                    {
                        Zone = zone,
                        Service = "road",
                        UpToKg = kg,
                        Price = Math.Round(price * factor, 2),
                        Currency = "EUR",
                        From = since,
                    }
                );
            foreach (var (kg, price) in new[] { (30m, 21.00m), (100m, 58.00m), (250m, 110.00m) })
                db.FreightBands.Add(
                    new FreightBandRow
                    {
                        Zone = zone,
                        Service = "express",
                        UpToKg = kg,
                        Price = Math.Round(price * factor, 2),
                        Currency = "EUR",
                        From = since,
                    }
                );
        }
        db.ChargeRules.Add(
            new ChargeRuleRow
            {
                Code = "small-order",
                Words = "small order",
                Basis = ChargeBasis.Sheet,
                BelowGoods = 40m,
                Amount = 7.50m,
                Currency = "EUR",
                From = since,
            }
        );
        db.ChargeRules.Add(
            new ChargeRuleRow
            {
                Code = "dangerous-goods",
                Words = "dangerous goods",
                Basis = ChargeBasis.Sheet,
                DangerousOnly = true,
                Amount = 24.00m,
                Currency = "EUR",
                From = since,
            }
        );
        db.Settings.Add(
            new SettingRow
            {
                Code = SettingRow.InsurancePercent,
                Words = "Premium under CIP and CIF, percent",
                Value = 0.35m,
            }
        );
        db.Campaigns.Add(
            new CampaignRow
            {
                Code = "WINTER-FEND",
                Words = "winter fenders",
                Scope = RuleScope.Family,
                Family = "fender",
                Kind = RuleKind.PercentOff,
                Value = 6m,
                Channel = "shop",
                From = new DateOnly(_today.Year, 1, 1),
                To = new DateOnly(_today.Year, 12, 31),
            }
        );
    }

    private List<BuyerRow> AddBuyers()
    {
        var buyers = new List<BuyerRow>();
        foreach (var (row, signs) in DemoBuyers.Make())
        {
            buyers.Add(row);
            db.Buyers.Add(row);
            db.BuyerSigns.AddRange(
                signs.Select(s => new BuyerSignRow
                {
                    BuyerId = row.Id,
                    Kind = s.Kind,
                    Value = s.Value,
                })
            );
        }
        var ids = buyers.ToDictionary(b => b.Name, b => b.Id);
        db.Addresses.AddRange(
            DemoBuyers.Addresses.Select(a => new AddressRow
            {
                BuyerId = ids[a.Buyer],
                Code = a.Code,
                Use = a.Use,
                Words = a.Words,
                Country = a.Country,
                ReceivingDays = a.Days,
            })
        );
        return buyers;
    }

    private async Task AddAgreementsAsync(IReadOnlyList<DemoCatalogue.Entry> catalogue, CancellationToken cancel)
    {
        var ids = await db.Buyers.ToDictionaryAsync(b => b.Name, b => b.Id, cancel);
        long Item(string code) => catalogue.First(e => e.Row.Code == code).Row.Id;
        var end = new DateOnly(_today.Year, 12, 31);
        var n = 0;
        void Add(
            string? buyer,
            string? group,
            string words,
            RuleScope scope,
            string? family,
            long? item,
            RuleKind kind,
            string? currency,
            params (decimal From, decimal Value)[] breaks
        )
        {
            n++;
            db.Agreements.Add(
                new AgreementRow
                {
                    Id = n,
                    Code = $"AG-{n:0000}",
                    Words = words,
                    BuyerId = buyer is null ? null : ids[buyer],
                    Group = group,
                    Scope = scope,
                    Family = family,
                    ItemId = item,
                    Kind = kind,
                    Currency = currency,
                    From = _today.AddYears(-2),
                    To = end >= _today.AddDays(20) ? end : end.AddYears(1),
                    Breaks =
                    [
                        .. breaks.Select(b => new AgreementBreakRow
                        {
                            AgreementId = n,
                            From = b.From,
                            Value = b.Value,
                        }),
                    ],
                }
            );
        }

        Add(
            "Tressel & Vane Rigging",
            null,
            "ropes, T&V",
            RuleScope.Family,
            "rope",
            null,
            RuleKind.PercentOff,
            null,
            (0, 8),
            (200, 10),
            (1000, 14)
        );
        Add(
            "Havnlys Laks",
            null,
            "netting frame",
            RuleScope.Family,
            "netting",
            null,
            RuleKind.PercentOff,
            null,
            (0, 12),
            (1000, 18)
        );
        Add(
            "Havnlys Laks",
            null,
            "chain, per metre",
            RuleScope.Item,
            null,
            Item("CHN-SL-10"),
            RuleKind.Fixed,
            "EUR",
            (0, 7.10m),
            (250, 6.75m)
        );
        Add(
            "Northgannet Marine Depot",
            null,
            "three-strand, volume",
            RuleScope.Item,
            null,
            Item("PS3-12-WH"),
            RuleKind.Fixed,
            "EUR",
            (0, 1.92m),
            (1000, 1.9151m)
        );
        Add(
            "Northgannet Marine Depot",
            null,
            "boxes of shackles",
            RuleScope.Item,
            null,
            Item("SHK-BOW-10"),
            RuleKind.PercentOff,
            null,
            (0, 3.5m)
        );
        Add(
            "Aeolis Offshore Service",
            null,
            "frame 2026",
            RuleScope.All,
            null,
            null,
            RuleKind.PercentOff,
            null,
            (0, 5)
        );
        Add(
            "Lomond Reach Harbour Trust",
            null,
            "mooring gear",
            RuleScope.Family,
            "hardware",
            null,
            RuleKind.PercentOff,
            null,
            (0, 6),
            (100, 9)
        );
        Add(null, "chandlers", "trade", RuleScope.All, null, null, RuleKind.PercentOff, null, (0, 10));
        Add(null, "schools", "schools", RuleScope.Family, "safety", null, RuleKind.PercentOff, null, (0, 5), (20, 8));
        foreach (
            var code in new[] { ("NGD-3S12W", "PS3-12-WH"), ("NGD-SHB10", "SHK-BOW-10"), ("NGD-MOOR10", "SET-MOOR-10") }
        )
        {
            db.Aliases.Add(
                new AliasRow
                {
                    BuyerId = ids["Northgannet Marine Depot"],
                    Words = Core.Reading.ItemFinder.Normal(code.Item1),
                    ItemId = Item(code.Item2),
                    LearnedFrom = "their item codes",
                    LearnedAt = now.AddYears(-1),
                }
            );
        }
    }

    private void AddStock(IReadOnlyList<DemoCatalogue.Entry> catalogue)
    {
        foreach (var (row, list, _, _) in catalogue.Where(e => e.Row.Stocked))
        {
            var plenty = row.StockUnit == "C62" ? 2400m : 18_000m;
            var onHand = Math.Round(plenty / Math.Max(1m, list / 4m) * (decimal)(0.4 + _random.NextDouble()), 0);
            // A few have none, a few far too much.
            if (row.Id % 29 == 0)
                onHand = 0;
            if (row.Id % 37 == 0)
                onHand *= 8;
            onHand = row.Code switch
            {
                "BB2-10-NV" => 1_240m,
                "PS3-12-WH" => 5_200m,
                "SHK-BOW-10" => 3_140m,
                "SET-MOOR-10" => 9m,
                "CLT-BZ-08" => 40m,
                _ => onHand,
            };
            db.Stock.Add(
                new StockRow
                {
                    ItemId = row.Id,
                    Warehouse = "Skerrow quay",
                    OnHand = onHand,
                }
            );
            db.Stock.Add(
                new StockRow
                {
                    ItemId = row.Id,
                    Warehouse = "Ardmoyle depot",
                    OnHand = Math.Round(onHand * 0.3m, 0),
                }
            );
            if (row.Id % 3 == 0 || row.Code is "BB2-10-NV" or "SET-MOOR-10")
            {
                db.Incoming.Add(
                    new IncomingRow
                    {
                        ItemId = row.Id,
                        Warehouse = "Skerrow quay",
                        Due = _today.AddDays(row.Code == "BB2-10-NV" ? 8 : _random.Next(2, 30)),
                        Quantity = row.Code switch
                        {
                            "BB2-10-NV" => 2_000m,
                            "SET-MOOR-10" => 12m,
                            _ => Math.Max(10m, Math.Round(plenty / list, 0)),
                        },
                    }
                );
            }
        }
    }
}
