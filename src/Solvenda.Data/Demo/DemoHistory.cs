using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>Two years of orders, what is still open of them, and the quotes that are out.</summary>
internal sealed class DemoHistory(
    SolvendaDb db,
    PriceBook book,
    IReadOnlyList<BuyerRow> buyers,
    IReadOnlyList<DemoCatalogue.Entry> catalogue,
    Random random,
    DateTime now
)
{
    private const int Orders = 1_500;

    private static readonly string[] Matters =
    [
        "spring refit",
        "mooring renewal",
        "net mending",
        "stock order",
        "winter lay-up",
        "pontoon lines",
        "halyards",
        "training boats",
        "tow gear",
        "fly floor",
        "yard stock",
        "charter fleet",
    ];

    private readonly DateOnly _today = DateOnly.FromDateTime(now);
    private readonly Dictionary<(string, int), int> _counts = [];
    private readonly Dictionary<PersonId, Decider> _people = DemoPeople
        .Make()
        .ToDictionary(p => new PersonId(p.Id), p => p.ToDecider());
    private readonly List<Leaving> _events = [];
    private readonly Dictionary<long, DemoCatalogue.Entry[]> _favourites = [];
    private long _sheet;
    private long _dossier;
    private long _order;
    private long _quote;

    public void Add()
    {
        foreach (var buyer in buyers)
            _favourites[buyer.Id] =
            [
                .. catalogue.Where(e => e.Row.Successor is null).OrderBy(_ => random.Next()).Take(random.Next(6, 14)),
            ];

        var days = Enumerable
            .Range(0, Orders)
            .Select(_ => _today.AddDays(-random.Next(1, 730)))
            .Where(d => d.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday))
            .Order()
            .ToList();
        while (days.Count < Orders)
            days.Insert(0, days[0]);
        foreach (var day in days)
            PastOrder(day, Somebody());
        Tressel();
        OpenQuotes();
        OpenItems();
        foreach (var ((series, year), count) in _counts)
            db.Series.Add(
                new SeriesRow
                {
                    Code = series,
                    Year = year,
                    Next = count + 1,
                }
            );
        db.Series.Add(
            new SeriesRow
            {
                Code = Series.Request,
                Year = _today.Year,
                Next = 401,
            }
        );
    }

    private BuyerRow Somebody()
    {
        // Tressel's orders are written on purpose, below; prospects have none.
        while (true)
        {
            var buyer = buyers[(int)(Math.Pow(random.NextDouble(), 1.6) * buyers.Count)];
            if (!buyer.IsProspect && buyer.Name != "Tressel & Vane Rigging")
                return buyer;
        }
    }

    private string Number(string series, DateOnly day)
    {
        var key = (series, day.Year);
        _counts[key] = _counts.GetValueOrDefault(key) + 1;
        return Series.Format(series, day.Year, _counts[key]);
    }

    private DossierRow Dossier(BuyerRow buyer, DateOnly day, string matter)
    {
        var dossier = new DossierRow
        {
            Id = ++_dossier,
            Number = Number(Series.Dossier, day),
            BuyerId = buyer.Id,
            Matter = matter,
            CreatedAt = At(day),
        };
        db.Dossiers.Add(dossier);
        return dossier;
    }

    private SheetRow Sheet(
        BuyerRow buyer,
        DateOnly day,
        IEnumerable<(DemoCatalogue.Entry Item, decimal Quantity, string Unit, decimal Discount)> lines
    )
    {
        var sheet = new SheetRow
        {
            Id = ++_sheet,
            Currency = buyer.Currency,
            PricingDate = day,
        };
        sheet.Take(
            HeadTerms
                .Of(buyer.ToBuyer())
                .With(
                    HeadTerms.Wanted.Name,
                    day.AddDays(random.Next(7, 21)).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    Hand(buyer)
                )
        );
        foreach (var (item, quantity, unit, discount) in lines)
        {
            sheet.Lines.Add(
                new SheetLineRow
                {
                    SheetId = sheet.Id,
                    Key = sheet.NextKey++,
                    Position = sheet.Lines.Count + 1,
                    ItemId = item.Row.Id,
                    Kind = LineKind.Item,
                    Words = book.Find(new(item.Row.Id))!.WordsIn(buyer.Language),
                    Quantity = quantity,
                    Unit = unit,
                    HandKind = discount > 0 ? ByHandKind.DiscountPercent : ByHandKind.None,
                    HandValue = discount,
                    HandId = discount > 0 ? Hand(buyer).Person!.Value.Value : null,
                    HandName = discount > 0 ? Hand(buyer).Name : null,
                }
            );
        }
        sheet.Keep(sheet.Priced(buyer, book));
        db.Sheets.Add(sheet);
        return sheet;
    }

    // Whoever looks after them typed it.
    private Hand Hand(BuyerRow buyer) => _people[new PersonId(buyer.AccountManagerId ?? 3)].Hand;

    private (DemoCatalogue.Entry, decimal, string, decimal) RandomLine(DemoCatalogue.Entry item)
    {
        var coil = item.CoilPrice is not null && random.Next(3) == 0;
        var quantity =
            coil ? random.Next(1, 6)
            : item.Row.StockUnit is "MTR" or "MTK" ? random.Next(2, 40) * 10
            : Math.Max(1, (int)(random.Next(4, 80) / Math.Max(1m, item.List / 20m)));
        return (item, quantity, coil ? "CL" : item.Row.StockUnit, random.Next(5) == 0 ? random.Next(1, 5) : 0);
    }

    private IEnumerable<(DemoCatalogue.Entry, decimal, string, decimal)> RandomLines(BuyerRow buyer, int most)
    {
        var favourites = _favourites[buyer.Id];
        return favourites
            .OrderBy(_ => random.Next())
            .Take(random.Next(1, Math.Min(most, favourites.Length) + 1))
            .Select(RandomLine);
    }

    private void PastOrder(DateOnly day, BuyerRow buyer)
    {
        var sheet = Sheet(buyer, day, [.. RandomLines(buyer, 7)]);
        Order(
            buyer,
            day,
            sheet,
            Dossier(buyer, day, Matters[random.Next(Matters.Length)]),
            $"{buyer.Name.ToUpperInvariant()[..2]}-{day:yyMM}{_order % 100:00}{random.Next(10)}"
        );
    }

    private void Order(BuyerRow buyer, DateOnly day, SheetRow sheet, DossierRow dossier, string po)
    {
        var age = _today.DayNumber - day.DayNumber;
        sheet.Take(sheet.Head.With(HeadTerms.PoNumber.Name, po, Hand(buyer)));
        var order = new OrderRow
        {
            Id = ++_order,
            Number = Number(Series.Order, day),
            DossierId = dossier.Id,
            SheetId = sheet.Id,
            SellerId = buyer.AccountManagerId ?? 3,
            Channel = buyer.Country is "NO" or "US" or "NL" ? "edi" : "mail",
            PoKey = PoKey.Of(po),
            Terms = TermsTrack.Confirmed,
            Goods =
                age > 9 ? GoodsTrack.Shipped
                : age > 5 ? GoodsTrack.Picking
                : GoodsTrack.Waiting,
            Money =
                age > 45 ? MoneyTrack.Paid
                : age > 12 ? MoneyTrack.Invoiced
                : age > 9 ? MoneyTrack.ToInvoice
                : MoneyTrack.NotDue,
            CreatedAt = At(day),
            ConfirmedAt = At(day).AddHours(1),
        };
        db.Orders.Add(order);
        Leave(new OrderBegun(order.Channel, null, null), order.Number, dossier.Id, At(day));
        Leave(
            new OrderConfirmed(
                buyer.DocumentsBy ?? DocumentsBy.Mail,
                buyer.ContactMail ?? buyer.Name,
                Core.Money.Amount.FromMinor(sheet.TotalWithTaxMinor, Core.Money.Currency.Of(sheet.Currency)).Value,
                sheet.Currency,
                TermsTrack.Open,
                TermsTrack.Confirmed
            ),
            order.Number,
            dossier.Id,
            At(day).AddHours(1)
        );
        if (order.Money == MoneyTrack.Invoiced)
        {
            db.OpenItems.Add(
                new OpenItemRow
                {
                    BuyerId = buyer.Id,
                    Number = order.Number.Replace('S', 'F'),
                    Due = day.AddDays(10 + (buyer.PaymentDays ?? 30)),
                    OpenMinor = sheet.TotalWithTaxMinor,
                }
            );
        }
        if (order.Goods != GoodsTrack.Shipped)
            Commit(order, sheet);
    }

    private void Commit(OrderRow order, SheetRow sheet)
    {
        foreach (var line in sheet.Lines)
        {
            var item = catalogue[(int)line.ItemId!.Value - 1].Row;
            var quantity = line.Quantity * (item.SalesUnits.FirstOrDefault(u => u.Unit == line.Unit)?.Factor ?? 1m);
            // A bundle takes its parts.
            var needs = PartsText
                .Parse(item.Parts)
                .Select(p => (catalogue.First(e => e.Row.Code == p.Code).Row, p.Quantity * quantity))
                .DefaultIfEmpty((item, quantity));
            var day = _today.AddDays(random.Next(1, 8));
            foreach (var (needed, amount) in needs.Where(n => n.Item1.Stocked))
                db.Commitments.Add(
                    new CommitmentRow
                    {
                        OrderId = order.Id,
                        LineKey = line.Key,
                        ItemId = needed.Id,
                        Warehouse = "Skerrow quay",
                        Day = day,
                        Quantity = amount,
                    }
                );
        }
    }

    // What the story leans on: they bought the navy braid before, in lengths that differ, and they owe nearly what they
    // may.
    private void Tressel()
    {
        var buyer = buyers.First(b => b.Name == "Tressel & Vane Rigging");
        DemoCatalogue.Entry Item(string code) => catalogue.First(e => e.Row.Code == code);
        (int DaysAgo, decimal Metres, string Matter)[] bought =
        [
            (640, 120, "running rigging"),
            (480, 150, "halyards"),
            (286, 150, "charter fleet"),
            (205, 90, "sheets"),
            (104, 150, "spare halyards"),
            (61, 180, "halyards, 4 by 45 m"),
        ];
        foreach (var (ago, metres, matter) in bought)
        {
            var day = _today.AddDays(-ago);
            var lines = new[]
            {
                (Item("BB2-10-NV"), metres, "MTR", ago is 104 ? 2.0834m : 0m),
                (Item("SHK-BOW-10"), 12m, "C62", 0m),
                (Item("PS3-12-WH"), 1m, "CL", 0m),
                (Item("SVC-EYE"), 6m, "C62", 0m),
            };
            Order(
                buyer,
                day,
                Sheet(buyer, day, lines.Take(ago % 2 == 0 ? 4 : 3)),
                Dossier(buyer, day, matter),
                $"TV-{day:yyMMdd}"
            );
        }
        foreach (
            var (number, due, minor) in new[]
            {
                ("F-0218", -4, 1_904_20L),
                ("F-0231", 3, 2_811_75L),
                ("F-0239", 17, 1_622_10L),
            }
        )
            db.OpenItems.Add(
                new OpenItemRow
                {
                    BuyerId = buyer.Id,
                    Number = $"F{_today.Year % 100:00}{number[1..]}",
                    Due = _today.AddDays(due),
                    OpenMinor = minor,
                }
            );
    }

    private void OpenQuotes()
    {
        for (var i = 0; i < 26; i++)
        {
            var buyer = i == 3 ? buyers.First(b => b.IsProspect) : Somebody();
            var age = 1 + (i % 13);
            var day = _today.AddDays(-age);
            var state =
                i % 6 == 5 ? QuoteState.Drafting
                : i % 9 == 7 ? QuoteState.Declined
                : QuoteState.WithCustomer;
            var sheet = Sheet(buyer, day, RandomLines(buyer, 6));
            // One lapses today, some this week, the rest later.
            var until =
                state == QuoteState.WithCustomer ? _today.AddDays(i == 0 ? 0 : 1 + (i * 2 % 27)) : _today.AddDays(14);
            Quote(buyer, day, sheet, state, until, i);
        }
        WaitingAsk();
    }

    private QuoteRow Quote(BuyerRow buyer, DateOnly day, SheetRow sheet, QuoteState state, DateOnly until, int i)
    {
        var dossier = Dossier(buyer, day, Matters[i % Matters.Length]);
        var quote = new QuoteRow
        {
            Id = ++_quote,
            Number = Number(Series.Quote, day),
            DossierId = dossier.Id,
            SheetId = sheet.Id,
            SellerId = buyer.AccountManagerId ?? 3,
            State = state,
            ValidUntil = until,
            CreatedAt = At(day),
            SentAt = state is QuoteState.Drafting or QuoteState.InApproval ? null : At(day).AddHours(3),
            SentTo = buyer.ContactMail,
            AnsweredAt = state == QuoteState.Declined ? At(day).AddDays(1) : null,
            DeclineReason = state == QuoteState.Declined ? "bought elsewhere" : null,
        };
        db.Quotes.Add(quote);
        Leave(new QuoteBegun("A", null), quote.Number, dossier.Id, At(day));
        if (quote.SentAt is { } sent)
        {
            Leave(
                new QuoteSent(
                    "A",
                    DocumentsBy.Mail,
                    buyer.ContactMail ?? buyer.Name,
                    Core.Money.Amount.FromMinor(sheet.TotalWithTaxMinor, Core.Money.Currency.Of(sheet.Currency)).Value,
                    sheet.Currency,
                    QuoteState.Drafting,
                    QuoteState.WithCustomer
                ),
                quote.Number,
                dossier.Id,
                sent
            );
            if (state == QuoteState.WithCustomer)
                db.FollowUps.Add(
                    new FollowUpRow
                    {
                        DossierId = dossier.Id,
                        PersonId = quote.SellerId,
                        Due = _today
                            .AddDays(i % 5)
                            .ToDateTime(new TimeOnly(9 + (i % 7), 15 * (i % 4)), DateTimeKind.Utc),
                        Words = $"call {buyer.ContactName}",
                    }
                );
        }
        return quote;
    }

    // Mohr asked Paz yesterday: there is something on Paz's desk from the start.
    private void WaitingAsk()
    {
        var buyer = buyers.First(b => b.Name == "Aeolis Offshore Service");
        var day = _today.AddDays(-1);
        DemoCatalogue.Entry Item(string code) => catalogue.First(e => e.Row.Code == code);
        var sheet = Sheet(
            buyer,
            day,
            [
                (Item("HM12-08-GY"), 800m, "MTR", 10m),
                (Item("SHK-DEE-12"), 60m, "C62", 0m),
                (Item("SVC-SEW"), 40m, "C62", 0m),
            ]
        );
        var quote = Quote(buyer, day, sheet, QuoteState.InApproval, _today.AddDays(21), 4);
        var seller = _people[new PersonId(quote.SellerId)];
        var judged = Judgement.Of(
            sheet.Priced(buyer, book),
            new JudgedBy(sheet.Head, seller.Hand, seller, _people, [])
        );
        if (judged.Needs is not [{ Approver: { } approver } need])
            throw new InvalidOperationException("The demo's waiting ask is not one for one: its figures changed.");
        db.Asks.Add(
            new AskRow
            {
                Id = 1,
                SheetId = sheet.Id,
                Subject = quote.Number,
                HandId = seller.Id.Value,
                HandName = seller.Name,
                AskedById = seller.Id.Value,
                AskedByName = seller.Name,
                OwnerId = seller.Id.Value,
                ApproverId = approver.Id.Value,
                Outcome = AskOutcome.Waiting,
                Why = "They run three vessels and want one supplier; the next order is in March.",
                Shown = JsonSerializer.Serialize(need.Shown),
                Fired = JsonSerializer.Serialize(need.Fired),
                AskedAt = At(day).AddHours(6),
            }
        );
        Leave(
            new AskMade(1, seller.Name, approver.Name, [.. need.Fired.Select(f => f.Words)]),
            quote.Number,
            quote.DossierId,
            At(day).AddHours(6)
        );
    }

    // One buyer is late beyond what is allowed.
    private void OpenItems()
    {
        var dunmarrow = buyers.First(b => b.Name == "Dunmarrow Rescue Trust");
        db.OpenItems.Add(
            new OpenItemRow
            {
                BuyerId = dunmarrow.Id,
                Number = $"F{_today.Year % 100:00}-0102",
                Due = _today.AddDays(-11),
                OpenMinor = 1_280_40,
            }
        );
    }

    /// <summary>What happened, in the order of time.</summary>
    public IReadOnlyList<Leaving> Events => [.. _events.OrderBy(e => e.At)];

    private void Leave(IEvent facts, string subject, long dossier, DateTime at) =>
        _events.Add(new Leaving(facts, subject, dossier, null, null, "demo", at));

    private static DateTime At(DateOnly day) =>
        day.ToDateTime(new TimeOnly(9 + (day.Day % 6), day.Day * 2 % 60), DateTimeKind.Utc);
}
