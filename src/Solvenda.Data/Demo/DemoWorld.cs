using Solvenda.Core.Sheets.Terms;
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

    /// <summary>Who carries its parcels.</summary>
    public const string ParcelCarrier = DemoGoods.Post;

    /// <summary>Who sells in the demo; each process has its own, since setup may change what it says.</summary>
    public static Seller Seller =>
        new(
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
        db.Authorities.AddRange(DemoPeople.Authorities(_today));
        db.Absences.Add(DemoPeople.PazAway(_today));
        db.Teams.Add(
            new TeamRow
            {
                Code = "credit-control",
                Words = "credit control",
                Members = "stroud,vantongeren",
            }
        );
        foreach (var year in new[] { _today.Year, _today.Year + 1 })
            db.Holidays.AddRange(
                PublicHolidays.Of("IE", year)!.Select(h => new HolidayRow { Day = h.Day, Words = h.Name })
            );
        AddPolicies();
        AddHouse();
        AddOwnFields();
        DemoPlans.Add(db);
        await DemoBank.AddHeldAsync(db, _today, cancel);
        await AddKeyAsync(keyHash, cancel);
        var prices = new DemoPrices(db, _random, _today);
        var catalogue = AddCatalogue();
        prices.AddAll(catalogue);
        var buyers = AddBuyers();
        await db.SaveChangesAsync(cancel);
        prices.AddAgreements(catalogue, buyers);
        AddAliases(catalogue, buyers.First(b => b.Name == "Northgannet Marine Depot").Id);
        var stock = new DemoStock(db, catalogue, _random, _today);
        stock.Add();
        await db.SaveChangesAsync(cancel);

        var book = await books.BookAsync(db, cancel);
        var events = DemoHistory.Add(db, book, buyers, catalogue, stock, _random, now);
        await EventChain.AppendInTransactionAsync(db, events, cancel);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        db.ChangeTracker.AutoDetectChangesEnabled = true;
        db.ChangeTracker.Clear();
    }

    // What it orders at our prices, up to the shop's usual size, needs nobody's yes.
    private async Task AddKeyAsync(string keyHash, CancellationToken cancel)
    {
        var key = new ApiKey
        {
            Name = "demo integration",
            Hash = keyHash,
            Scopes = "inbound read price orders cost authority money",
            CreatedAt = now,
        };
        db.ApiKeys.Add(key);
        await db.SaveChangesAsync(cancel);
        db.Authorities.Add(
            new AuthorityRow
            {
                KeyId = key.Id,
                Kind = "value",
                Limit = 10_000m,
                From = _today.AddYears(-2),
                GivenById = 1,
                GivenByName = "Wilhelmina Oduya",
                GivenAt = now.AddYears(-2),
            }
        );
    }

    private void AddOwnFields() =>
        db.OwnFields.AddRange(
            new OwnFieldRow
            {
                On = OwnOn.Orders,
                Label = "crane on site",
                Type = OwnType.Choice,
                Choices = "yes; no; ask them",
                OnPaper = true,
            },
            new OwnFieldRow
            {
                On = OwnOn.Quotes,
                Label = "crane on site",
                Type = OwnType.Choice,
                Choices = "yes; no; ask them",
            },
            new OwnFieldRow
            {
                On = OwnOn.Buyers,
                Label = "visited last",
                Type = OwnType.Date,
            },
            new OwnFieldRow
            {
                On = OwnOn.Items,
                Label = "shelf",
                Hint = "aisle and bay: C-14",
            }
        );

    private void AddHouse()
    {
        db.House.Add(
            new HouseRow
            {
                Name = "Brinemoor Cordage & Deck Supply",
                Address = "The Quay, Skerrow, Ireland",
                Mail = "orders@brinemoor.example",
                Phone = "+353 20 555 0100",
                TaxNumber = "IE9999999WA",
                Bank = "Harbour Savings Bank, IE00 HARB 9999 0001 0002 03",
            }
        );
        db.Warehouses.AddRange(
            new WarehouseRow { Code = "Skerrow quay", Address = "The Quay, Skerrow" },
            new WarehouseRow
            {
                Code = "Ardmoyle depot",
                Address = "Depot Road 4, Ardmoyle",
                CutOff = "13:00",
            }
        );
        (string Code, string Words, string Countries, long Seller)[] territories =
        [
            ("yards", "yards and schools", "IE GB", 4),
            ("aquaculture", "aquaculture and offshore", "NO DK SE DE NL", 5),
            ("harbours", "harbours and councils", "", 3),
        ];
        db.Territories.AddRange(
            territories.Select(t => new TerritoryRow
            {
                Code = t.Code,
                Words = t.Words,
                Countries = t.Countries,
                SellerId = t.Seller,
            })
        );
        (ReasonUse Use, string Words)[] reasons =
        [
            (ReasonUse.Lost, "the price was too high"),
            (ReasonUse.Lost, "we could not deliver in time"),
            (ReasonUse.Lost, "they put it off"),
            (ReasonUse.Waived, "talked over with the buyer"),
            (ReasonUse.Waived, "payment was promised in writing"),
            (ReasonUse.SetAside, "not for us"),
            (ReasonUse.SetAside, "dealt with on the telephone"),
            (ReasonUse.Returned, "the wrong item was sent"),
            (ReasonUse.Returned, "damaged on the road"),
        ];
        AddRestrictions();
        AddTemplates();
        db.Reasons.AddRange(reasons.Select(r => new ReasonRow { Use = r.Use, Words = r.Words }));
    }

    private void AddTemplates() =>
        db.Templates.AddRange(
            new TemplateRow
            {
                Name = "we look into it",
                Words = "Dear {name},\n\nthank you; we have it as {number} and come back to you today.\n\n{me}",
            },
            new TemplateRow
            {
                Name = "hours",
                Words =
                    "Dear {name},\n\nthe quay counter is open from Monday to Friday, 8 to 17, and not on public holidays.\n\n{me}",
            },
            new TemplateRow
            {
                Name = "please send it again",
                Words =
                    "Dear {name},\n\nwhat you sent reached us, but it cannot be opened. Would you send it again? We know it as {number}.\n\n{me}",
            },
            new TemplateRow
            {
                Name = "we look into it",
                Language = "sv",
                Words = "Hej {name},\n\ntack, vi har det som {number} och återkommer i dag.\n\n{me}",
            }
        );

    private void AddRestrictions() =>
        db.Restrictions.AddRange(
            new RestrictionRow { Country = "QX", Why = "embargo of the demo’s list, part 1" },
            new RestrictionRow
            {
                Name = "Kelder Maritime Trading",
                Country = "NL",
                Why = "the demo’s list, part 2, no. 14",
            },
            new RestrictionRow { Name = "Ostrava Deepsea Holdings", Why = "the demo’s list, part 2, no. 31" },
            new RestrictionRow
            {
                Name = "Sundby Works",
                Country = "DK",
                Why = "the demo’s list, part 2, no. 40",
            }
        );

    private void AddPolicies()
    {
        // Credit is for credit control, and above what they may for whoever is above them.
        foreach (
            var policy in db
                .Policies.Where(p => p.Figure == "credit" || p.Figure == "overdue" || p.Figure == "limit-raised")
                .ToList()
        )
        {
            (policy.Route, policy.Named) = (Core.Approvals.Policies.RouteKind.Named, "credit-control");
            db.Policies.Update(policy);
        }
        // One that is written, and does not hold yet.
        db.Policies.Add(
            new PolicyRow
            {
                Code = "large-discounts",
                Figure = "discount",
                Route = Core.Approvals.Policies.RouteKind.EachLevel,
                Conditions = "discount > 10; value > 400",
                PatienceHours = 8,
                From = new DateOnly(_today.Year, 1, 1),
            }
        );
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
            ("harbourmart", "harbourmart-orders.json", new DateOnly(2026, 3, 10)),
        ];
        foreach (var (channel, name, written) in samples)
        {
            yield return (channel, name, Message(name, written, _today));
        }
    }

    /// <summary>Yesterday's statement of the bank.</summary>
    public Task<(string Name, byte[] Bytes)> StatementAsync() => DemoBank.StatementAsync(db, _today);

    /// <summary>One of the messages of the demo's partners, as it would be written that day.</summary>
    public static byte[] Message(string name, DateOnly today) => Message(name, new DateOnly(2026, 3, 5), today);

    private static byte[] Message(string name, DateOnly written, DateOnly today)
    {
        using var stream = WorldFile.Open($"Messages.{name}");
        using var copy = new MemoryStream();
        stream.CopyTo(copy);
        return MessageDates.Shift(copy.ToArray(), written, today);
    }

    private IReadOnlyList<DemoCatalogue.Entry> AddCatalogue()
    {
        var catalogue = DemoCatalogue.Make();
        for (var i = 0; i < catalogue.Count; i++)
        {
            var row = catalogue[i].Row;
            row.Id = i + 1;
            foreach (var unit in row.SalesUnits)
                unit.ItemId = row.Id;
            db.Items.Add(row);
        }
        db.Families.AddRange(DemoCatalogue.Families);
        return catalogue;
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

    // What Northgannet calls some things, learned from their orders.
    private void AddAliases(IReadOnlyList<DemoCatalogue.Entry> catalogue, long northgannet)
    {
        foreach (
            var (theirs, code) in new[]
            {
                ("NGD-3S12W", "PS3-12-WH"),
                ("NGD-SHB10", "SHK-BOW-10"),
                ("NGD-MOOR10", "SET-MOOR-10"),
            }
        )
        {
            db.Aliases.Add(
                new AliasRow
                {
                    BuyerId = northgannet,
                    Words = Core.Reading.ItemFinder.Normal(theirs),
                    ItemId = catalogue.First(e => e.Row.Code == code).Row.Id,
                    LearnedFrom = "their item codes",
                    LearnedAt = now.AddYears(-1),
                }
            );
        }
    }
}
