using Solvenda.Core.Catalogue;
using Solvenda.Core.Pricing;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>All that the demo's prices are made of: lists, costs, taxes, rates, freight, charges, agreements.</summary>
internal sealed class DemoPrices(SolvendaDb db, Random random, DateOnly today)
{
    private readonly DateOnly _since = today.AddYears(-3);

    // A row of World/agreements.json.
    private sealed record AgreementLine(
        string Words,
        RuleScope Scope,
        RuleKind Kind,
        IReadOnlyList<QuantityBreak> Breaks,
        string? Buyer = null,
        string? Group = null,
        string? Family = null,
        string? Item = null,
        string? Currency = null
    );

    public void AddAll(IReadOnlyList<DemoCatalogue.Entry> catalogue)
    {
        foreach (var entry in catalogue)
            AddList(entry);
        AddTaxes();
        AddRates();
        db.PriceLists.Add(new PriceListRow { Code = "house", Words = "House list" });
        db.Groups.AddRange(
            new GroupRow { Code = "chandlers", Words = "Chandlers" },
            new GroupRow { Code = "schools", Words = "Sailing schools" }
        );
        AddFreight();
        AddCharges();
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
                From = new DateOnly(today.Year, 1, 1),
                To = new DateOnly(today.Year, 12, 31),
            }
        );
    }

    private void AddList(DemoCatalogue.Entry entry)
    {
        void Add(string unit, decimal price) =>
            db.ListPrices.Add(
                new ListPriceRow
                {
                    List = "house",
                    ItemId = entry.Row.Id,
                    Unit = unit,
                    Price = price,
                    Currency = "EUR",
                    From = _since,
                }
            );
        Add(entry.Row.StockUnit, entry.List);
        if (entry.CoilPrice is { } perCoil)
            Add("CL", perCoil);
        db.Costs.Add(
            new CostRow
            {
                ItemId = entry.Row.Id,
                From = _since,
                Cost = entry.Cost,
            }
        );
    }

    private void AddTaxes()
    {
        db.TaxRates.Add(
            new TaxRateRow
            {
                Class = TaxClass.Standard,
                From = _since,
                Percent = 23m,
            }
        );
        db.TaxRates.Add(
            new TaxRateRow
            {
                Class = TaxClass.Reduced,
                From = _since,
                Percent = 13.5m,
            }
        );
    }

    private void AddRates()
    {
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
            for (var day = _since; day <= today; day = day.AddDays(14))
                db.ExchangeRates.Add(
                    new ExchangeRateRow
                    {
                        Currency = currency,
                        Day = day,
                        Rate = Math.Round(rate * (1 + (decimal)((random.NextDouble() - 0.5) * 0.04)), 6),
                    }
                );
            db.ExchangeRates.Add(
                new ExchangeRateRow
                {
                    Currency = currency,
                    Day = today.AddDays(-1),
                    Rate = rate,
                }
            );
        }
    }

    private void AddFreight()
    {
        foreach (
            var (zone, countries) in new[]
            {
                ("1", "IE"),
                ("2", "GB"),
                ("3", "NL DE FR ES"),
                ("4", "NO SE DK"),
                ("5", "US"),
            }
        )
            db.FreightZones.AddRange(countries.Split(' ').Select(c => new FreightZoneRow { Country = c, Zone = zone }));
        (decimal UpToKg, decimal Price)[] road =
        [
            (30m, 9.50m),
            (100m, 24.00m),
            (250m, 38.50m),
            (500m, 62.00m),
            (1_000m, 98.00m),
            (3_000m, 210.00m),
            (12_000m, 590.00m),
            (60_000m, 1_850.00m),
        ];
        (decimal UpToKg, decimal Price)[] express = [(30m, 21.00m), (100m, 58.00m), (250m, 110.00m)];
        foreach (var (zone, factor) in new[] { ("1", 1m), ("2", 1.9m), ("3", 2.2m), ("4", 2.8m), ("5", 5.5m) })
        {
            AddBands(zone, "road", road, factor);
            AddBands(zone, "express", express, factor);
        }
    }

    private void AddBands(string zone, string service, (decimal UpToKg, decimal Price)[] bands, decimal factor) =>
        db.FreightBands.AddRange(
            bands.Select(b => new FreightBandRow
            {
                Zone = zone,
                Service = service,
                UpToKg = b.UpToKg,
                Price = Math.Round(b.Price * factor, 2),
                Currency = "EUR",
                From = _since,
            })
        );

    private void AddCharges()
    {
        db.ChargeRules.Add(
            new ChargeRuleRow
            {
                Code = "small-order",
                Words = "small order",
                Basis = ChargeBasis.Sheet,
                BelowGoods = 40m,
                Amount = 7.50m,
                Currency = "EUR",
                From = _since,
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
                From = _since,
            }
        );
        AddSettings();
    }

    private void AddSettings()
    {
        db.Settings.Add(
            new SettingRow
            {
                Code = SettingRow.InsurancePercent,
                Words = "Premium under CIP and CIF, percent",
                Value = 0.35m,
            }
        );
        db.Settings.Add(
            new SettingRow
            {
                Code = SettingRow.UsualDays,
                Words = "Days to pay where nothing was agreed",
                Value = 30m,
            }
        );
        db.Settings.AddRange(
            new SettingRow
            {
                Code = SettingRow.FirstReminder,
                Words = "Days late for the first reminder",
                Value = 7m,
            },
            new SettingRow
            {
                Code = SettingRow.SecondReminder,
                Words = "Days late for the second reminder",
                Value = 21m,
            },
            new SettingRow
            {
                Code = SettingRow.ThirdReminder,
                Words = "Days late for the last reminder",
                Value = 42m,
            },
            new SettingRow
            {
                Code = SettingRow.WriteOff,
                Words = "What of an invoice may be written off",
                Value = 5m,
            },
            new SettingRow
            {
                Code = SettingRow.OverDelivery,
                Words = "Percent that may go beyond what was ordered",
                Value = 0m,
            }
        );
    }

    /// <summary>The buyers' and the groups' agreements, until the end of the year or a little beyond.</summary>
    public void AddAgreements(IReadOnlyList<DemoCatalogue.Entry> catalogue, IReadOnlyList<BuyerRow> buyers)
    {
        var end = new DateOnly(today.Year, 12, 31);
        var number = 0;
        foreach (var line in WorldFile.Read<AgreementLine>("agreements.json"))
        {
            number++;
            db.Agreements.Add(
                new AgreementRow
                {
                    Id = number,
                    Code = $"AG-{number:0000}",
                    Words = line.Words,
                    BuyerId = buyers.FirstOrDefault(b => b.Name == line.Buyer)?.Id,
                    Group = line.Group,
                    Scope = line.Scope,
                    Family = line.Family,
                    ItemId = catalogue.FirstOrDefault(e => e.Row.Code == line.Item)?.Row.Id,
                    Kind = line.Kind,
                    Currency = line.Currency,
                    From = today.AddYears(-2),
                    To = end >= today.AddDays(20) ? end : end.AddYears(1),
                    Breaks =
                    [
                        .. line.Breaks.Select(b => new AgreementBreakRow
                        {
                            AgreementId = number,
                            From = b.From,
                            Value = b.Value,
                        }),
                    ],
                }
            );
        }
    }
}
