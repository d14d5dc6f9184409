using System.Globalization;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>What the demo's orders and quotes are made of: dossiers, sheets, numbers, and what happened.</summary>
internal sealed class DemoPapers(SolvendaDb db, PriceBook book, Random random, DateTime now)
{
    private readonly Dictionary<(NumberSeries, int), int> _counts = [];
    private readonly List<Leaving> _events = [];
    private long _sheet;
    private long _dossier;

    public DateOnly Today { get; } = DateOnly.FromDateTime(now);

    public IReadOnlyDictionary<PersonId, Decider> People { get; } = DemoPeople.Deciders(DateOnly.FromDateTime(now));

    public string Number(NumberSeries series, DateOnly day)
    {
        var key = (series, day.Year);
        _counts[key] = _counts.GetValueOrDefault(key) + 1;
        return series.Usual.Format(day.Year, _counts[key]);
    }

    public DossierRow Dossier(BuyerRow buyer, DateOnly day, string matter)
    {
        var dossier = new DossierRow
        {
            Id = ++_dossier,
            Number = Number(NumberSeries.Dossier, day),
            BuyerId = buyer.Id,
            Matter = matter,
            CreatedAt = At(day),
        };
        db.Dossiers.Add(dossier);
        return dossier;
    }

    public SheetRow Sheet(
        BuyerRow buyer,
        DateOnly day,
        IEnumerable<(DemoCatalogue.Entry Item, decimal Quantity, string Unit, decimal Discount)> lines,
        Random? by = null
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
                    day.AddDays((by ?? random).Next(7, 21)).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    Hand(buyer)
                )
        );
        foreach (var (item, quantity, unit, discount) in lines)
        {
            sheet.Add(
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
    public Hand Hand(BuyerRow buyer) => People[new PersonId(buyer.AccountManagerId ?? 3)].Hand;

    public PricedSheet Priced(SheetRow sheet, BuyerRow buyer) => sheet.Priced(buyer, book);

    /// <summary>Where each series goes on.</summary>
    public void KeepSeries()
    {
        // Invoices of before have the numbers of their orders.
        var invoices = _counts
            .Where(c => c.Key.Item1 == NumberSeries.Order)
            .Select(c => new KeyValuePair<(NumberSeries, int), int>((NumberSeries.Invoice, c.Key.Item2), c.Value));
        foreach (
            var ((series, year), count) in _counts
                .Append(new((NumberSeries.Request, Today.Year), 400))
                .Concat(invoices.ToList())
        )
            db.Series.Add(
                new SeriesRow
                {
                    Code = series.Code,
                    Year = year,
                    Next = count + 1,
                }
            );
    }

    /// <summary>What happened, in the order of time.</summary>
    public IReadOnlyList<Leaving> Events => [.. _events.OrderBy(e => e.At)];

    public void Leave(IEvent facts, string subject, long dossier, DateTime at) =>
        _events.Add(new Leaving(facts, subject, dossier, null, null, "demo", at));

    public static DateTime At(DateOnly day) =>
        day.ToDateTime(new TimeOnly(9 + (day.Day % 6), day.Day * 2 % 60), DateTimeKind.Utc);
}
