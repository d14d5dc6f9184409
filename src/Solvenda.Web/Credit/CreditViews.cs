using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Credit;

/// <summary>
/// Puts together what a buyer owes, for the order, the ask, the buyer's page and the controller's list.
/// </summary>
public static class CreditViews
{
    private static readonly CultureInfo Plain = CultureInfo.InvariantCulture;

    /// <summary>Of an order, as it is judged.</summary>
    public static async Task<CreditView> OfOrderAsync(SolvendaDb db, Judged judged, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(judged);
        var (open, at) = (judged.Open, judged.Facts.Credit!);
        var rates = Rates.On(judged.Day, open.Book.Home, open.Book.DatedRates);
        var known = await CreditFacts.StandingAsync(db, open.Buyer, rates, judged.Day, cancel);
        at = at with { Standing = at.Standing with { DaysLate = known.DaysLate } };
        var order = open.Order!.Id;
        var currency = Currency.Of(open.Sheet.Currency);
        var deposits = await db.Deposits.AsNoTracking().Where(d => d.OrderId == order).ToListAsync(cancel);
        var asked = open.Asks.Where(a =>
            a.SheetId == open.Sheet.Id
            && a.Outcome == AskOutcome.Granted
            && AskFacts.FiredOf(a).Any(f => FigureList.Of(f.Figure) is CreditFigure)
        );
        return await OfAsync(db, open.Buyer, at.Standing, judged.Day, cancel) with
        {
            ThisOrder = at.ThisOrder.Value,
            Excess = at.Excess.Value,
            Stop = string.Join(' ', judged.Findings.Where(f => f.Check == "credit").Select(f => f.Words)),
            Offers =
            [
                .. CreditOffers
                    .Of(at, judged.Day)
                    .Select(o => new CreditWay(o.Code, o.Words, o.Amount.Value, o.Exposure.Value)),
            ],
            Deposits =
            [
                .. deposits.Select(d => new DepositView(
                    d.ReceivedOn,
                    Amount.FromMinor(d.Minor, currency).Value,
                    d.Reference,
                    d.By
                )),
            ],
            LetPass =
            [
                .. open
                    .Waivers.Where(w => w.Check == "credit")
                    .Select(w => new LetPassView(w.ByName, w.Excess, w.Until, w.Reason)),
                .. asked.Select(a => new LetPassView(
                    a.DecidedById is { } by ? open.People[new Core.People.PersonId(by)].Name : "",
                    a.UpTo ?? AskFacts.FiredOf(a).Where(f => f.Figure == "credit").Sum(f => f.Value),
                    a.Until,
                    a.Note
                )),
            ],
        };
    }

    /// <summary>Of a buyer, with no order looked at.</summary>
    public static async Task<CreditView> OfAsync(
        SolvendaDb db,
        BuyerRow buyer,
        CreditStanding standing,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(buyer);
        ArgumentNullException.ThrowIfNull(standing);
        return new CreditView(
            standing.Limit.Currency.Code,
            standing.HasLimit ? standing.Limit.Value : null,
            standing.Until,
            standing.Ended,
            await SetByAsync(db, standing.SharedWith is null ? buyer.Id : buyer.ParentId ?? buyer.Id, cancel),
            standing.SharedWith,
            standing.Insured?.Value,
            standing.Uninsured.Value,
            standing.Blocked,
            standing.Exposure.Value,
            Parts(standing),
            Ages(standing.Aged(today)),
            standing.OldestOverdueDays,
            standing.GraceDays,
            standing.DaysLate,
            standing.MissingRate,
            null,
            0m,
            "",
            [],
            [],
            []
        );
    }

    private static List<CreditPart> Parts(CreditStanding s)
    {
        var invoices = s.Invoices.Length;
        var parts = new List<CreditPart>
        {
            new(
                "open invoices",
                s.OpenInvoices.Value,
                invoices == 0 ? "" : $"{invoices} {(invoices == 1 ? "invoice" : "invoices")}"
            ),
            new("shipped, not invoiced", s.ShippedNotInvoiced.Value),
            new("confirmed orders", s.OpenOrders.Value, "not shipped yet, with tax"),
        };
        if (!s.ReceiptsNotApplied.IsZero)
            parts.Add(new CreditPart("receipts not applied", -s.ReceiptsNotApplied.Value));
        if (!s.Deposits.IsZero)
            parts.Add(new CreditPart("deposits", -s.Deposits.Value));
        return parts;
    }

    private static List<CreditPart> Ages(OpenAges ages) =>
        [
            new("not due", ages.NotDue.Value),
            new("to 30 days late", ages.UpTo30.Value),
            new("to 60", ages.UpTo60.Value),
            new("older", ages.Older.Value),
        ];

    // The newest change of the limit; what came with the house's data was set by nobody here.
    private static async Task<string> SetByAsync(SolvendaDb db, long buyer, CancellationToken cancel)
    {
        var (subject, code) = (Work.SubjectOf("buyers", buyer), EventCodes.Of<RecordChanged>());
        var events = await db
            .Events.AsNoTracking()
            .Where(e => e.Subject == subject && e.Code == code && e.Facts.Contains("creditLimit"))
            .OrderByDescending(e => e.Id)
            .Take(1)
            .ToListAsync(cancel);
        return events is [var e] ? string.Create(Plain, $"{e.Who}, {e.At:d MMM yyyy}") : "";
    }
}
