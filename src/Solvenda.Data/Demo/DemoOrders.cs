using Solvenda.Core.Calendars;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>Two years of orders, and what is still open of them.</summary>
internal sealed class DemoOrders(
    SolvendaDb db,
    DemoPapers papers,
    DemoHabits habits,
    IReadOnlyList<DemoCatalogue.Entry> catalogue,
    DemoStock stock,
    DemoGoods goods,
    Random random
)
{
    private const int Orders = 1_500;

    private long _order;

    public void AddPast()
    {
        var days = Enumerable
            .Range(0, Orders)
            .Select(_ => papers.Today.AddDays(-random.Next(1, 730)))
            .Where(d => d.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday))
            .Order()
            .ToList();
        while (days.Count < Orders)
            days.Insert(0, days[0]);
        foreach (var day in days)
            PastOrder(day, habits.Somebody());
    }

    private void PastOrder(DateOnly day, BuyerRow buyer)
    {
        var sheet = papers.Sheet(buyer, day, [.. habits.Lines(buyer, 7)]);
        Order(
            buyer,
            day,
            sheet,
            papers.Dossier(buyer, day, DemoHabits.Matters[random.Next(DemoHabits.Matters.Length)]),
            $"{buyer.Name.ToUpperInvariant()[..2]}-{day:yyMM}{_order % 100:00}{random.Next(10)}"
        );
    }

    /// <summary>What a buyer accepted, as an order of the day after.</summary>
    public void FromQuote(BuyerRow buyer, DateOnly day, SheetRow sheet, QuoteRow quote) =>
        Order(buyer, day, sheet, quote.Dossier, $"{buyer.Name.ToUpperInvariant()[..2]}Q-{day:yyMMdd}{quote.Id}", quote);

    private OrderRow Order(
        BuyerRow buyer,
        DateOnly day,
        SheetRow sheet,
        DossierRow dossier,
        string po,
        QuoteRow? quote = null,
        DateOnly? leaves = null
    )
    {
        var age = papers.Today.DayNumber - day.DayNumber;
        sheet.Take(sheet.Head.With(HeadTerms.PoNumber.Name, po, papers.Hand(buyer)));
        var order = new OrderRow
        {
            Id = ++_order,
            Number = papers.Number(NumberSeries.Order, day),
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
            CreatedAt = DemoPapers.At(day),
            ConfirmedAt = DemoPapers.At(day).AddHours(1),
        };
        db.Orders.Add(order);
        if (quote is not null)
            quote.OrderId = order.Id;
        papers.Leave(new OrderBegun(order.Channel, quote?.Number, null), order.Number, dossier.Id, DemoPapers.At(day));
        papers.Leave(
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
            DemoPapers.At(day).AddHours(1)
        );
        if (order.Money is MoneyTrack.Invoiced or MoneyTrack.Paid)
            Bill(order, sheet, buyer, day);
        Deliver(order, sheet, buyer, day, leaves);
        return order;
    }

    private void Deliver(OrderRow order, SheetRow sheet, BuyerRow buyer, DateOnly day, DateOnly? leaves)
    {
        if (order.Goods == GoodsTrack.Shipped)
            Ship(order, sheet, buyer, sheet.Lines, Working.OnOrAfter(day.AddDays(9)));
        else
            Commit(order, sheet, buyer, leaves);
        if (order.Goods == GoodsTrack.Picking)
            goods.Add(order, To(sheet, buyer), [.. sheet.Lines.Select(l => (l, Taken(l)))], papers.Today, null);
    }

    private void Ship(OrderRow order, SheetRow sheet, BuyerRow buyer, IReadOnlyList<SheetLineRow> lines, DateOnly day)
    {
        var left = Earlier(day, papers.Today.AddDays(-1));
        var number = goods.Add(
            order,
            To(sheet, buyer),
            [.. lines.Select(l => (l, Taken(l)))],
            left,
            left,
            InvoiceOf(order)
        );
        foreach (var (item, quantity) in lines.SelectMany(Needs))
            stock.Went(item.Id, quantity, left, number);
    }

    private IReadOnlyList<(ItemRow, decimal)> Taken(SheetLineRow line) => [.. Needs(line)];

    private static string To(SheetRow sheet, BuyerRow buyer) => HeadTerms.DeliverTo.In(sheet.Head) ?? buyer.Address;

    // Empty where it is still to be invoiced.
    private static string InvoiceOf(OrderRow order) =>
        order.Money is MoneyTrack.Invoiced or MoneyTrack.Paid ? order.Number.Replace('S', 'F') : "";

    private void Bill(OrderRow order, SheetRow sheet, BuyerRow buyer, DateOnly day)
    {
        var due = day.AddDays(10 + (buyer.PaymentDays ?? 30));
        var paid = order.Money == MoneyTrack.Paid;
        // Some pay early and some late, each in their own way; never after today.
        var late = (int)((buyer.Id * 7) + (order.Id * 13)) % 15 - 4 + (int)(buyer.Id % 5);
        db.OpenItems.Add(
            new OpenItemRow
            {
                BuyerId = buyer.Id,
                Number = InvoiceOf(order),
                Due = due,
                OpenMinor = paid ? 0 : sheet.TotalWithTaxMinor,
                PaidOn = paid ? Earlier(due.AddDays(late), papers.Today.AddDays(-1)) : null,
            }
        );
    }

    private static DateOnly Earlier(DateOnly one, DateOnly other) => one < other ? one : other;

    // Promised as it is when one is confirmed: a day for picking, then the road.
    private void Commit(OrderRow order, SheetRow sheet, BuyerRow buyer, DateOnly? leaves)
    {
        DateOnly Arrives(DateOnly taken) => Working.Add(Working.Add(taken, 1), buyer.TransitDays);
        foreach (var line in sheet.Lines)
        {
            var day = leaves ?? Working.OnOrAfter(papers.Today.AddDays(random.Next(1, 8)));
            if (sheet.Wanted is { } wanted && Arrives(day) > wanted)
                day = Working.OnOrAfter(papers.Today);
            line.Promised = Arrives(day);
            foreach (var (needed, amount) in Needs(line))
                stock.Promise(
                    new CommitmentRow
                    {
                        OrderId = order.Id,
                        LineKey = line.Key,
                        ItemId = needed.Id,
                        Warehouse = DemoStock.Quay,
                        Day = day,
                        Quantity = amount,
                    },
                    order.Goods == GoodsTrack.Waiting && leaves is null
                );
        }
    }

    private static readonly WorkCalendar Working = WorkCalendar.MondayToFriday;

    // What a line takes from the shelf; a bundle takes its parts.
    private IEnumerable<(ItemRow Item, decimal Quantity)> Needs(SheetLineRow line)
    {
        var item = catalogue[(int)line.ItemId!.Value - 1].Row;
        var quantity = line.Quantity * (item.SalesUnits.FirstOrDefault(u => u.Unit == line.Unit)?.Factor ?? 1m);
        return PartsText
            .Parse(item.Parts)
            .Select(p => (catalogue.First(e => e.Row.Code == p.Code).Row, p.Quantity * quantity))
            .DefaultIfEmpty((item, quantity))
            .Where(n => n.Item1.Stocked);
    }

    /// <summary>
    /// Orders of the last days whose goods lie there, to be picked today and tomorrow; of one a part has gone, and two
    /// are held.
    /// </summary>
    /// <param name="by">Of its own, so that nothing else of the demo hangs on it.</param>
    public void AddWaiting(DemoHabits recent, Random by)
    {
        for (var i = 0; i < Waiting; i++)
        {
            var (buyer, day) = (recent.Somebody(), Worked(papers.Today.AddDays(-1 - by.Next(4))));
            var lines = recent.Lines(buyer, 6).Where(l => stock.Holds(l.Item1.Row, Of(l))).ToList();
            // Something goes by number on every day.
            if (
                i == ByNumber
                && catalogue.FirstOrDefault(e => e.Row.HasSerials && stock.Holds(e.Row, 4m)) is { } jacket
            )
                lines.Add((jacket, 4m, jacket.Row.StockUnit, 0m));
            if (lines.Count == 0 || buyer.IsProspect)
                continue;
            var sheet = papers.Sheet(buyer, day, lines, by);
            var order = Order(
                buyer,
                day,
                sheet,
                papers.Dossier(buyer, day, DemoHabits.Matters[by.Next(DemoHabits.Matters.Length)]),
                $"{buyer.Name.ToUpperInvariant()[..2]}-{day:MMdd}{i:00}",
                leaves: Working.Add(Working.OnOrAfter(papers.Today), i % 4 == 3 ? 1 : 0)
            );
            if (i is 5 or 9)
                order.HeldWhy = i == 5 ? "they ring back about the colour" : "the crane is booked for another day";
        }
    }

    // That day, or the last before it that was worked.
    private static DateOnly Worked(DateOnly day) => Working.Works(day) ? day : Worked(day.AddDays(-1));

    private const int Waiting = 30;
    private const int ByNumber = 12;

    private static decimal Of((DemoCatalogue.Entry Item, decimal Quantity, string Unit, decimal) line) =>
        line.Quantity * (line.Item.Row.SalesUnits.FirstOrDefault(u => u.Unit == line.Unit)?.Factor ?? 1m);

    // What the story leans on: they bought the navy braid before, in lengths that differ, and they owe nearly what they
    // may.
    public void AddTressel(BuyerRow buyer)
    {
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
            var day = papers.Today.AddDays(-ago);
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
                papers.Sheet(buyer, day, lines.Take(ago % 2 == 0 ? 4 : 3)),
                papers.Dossier(buyer, day, matter),
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
                    Number = $"F{papers.Today.Year % 100:00}{number[1..]}",
                    Due = papers.Today.AddDays(due),
                    OpenMinor = minor,
                }
            );
    }
}
