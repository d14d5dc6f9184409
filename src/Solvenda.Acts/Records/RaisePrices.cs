using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>Raises (or cuts) the list prices of a family from a day on.</summary>
/// <param name="Percent">Negative for a cut.</param>
/// <param name="Decimals">What the new prices are rounded to, 2 or 4.</param>
public sealed record RaisePrices(string Family, string List, decimal Percent, DateOnly From, int Decimals) : IAct<int>;

/// <summary>One price before and after.</summary>
public sealed record MovedPrice(string Item, string Words, string Unit, string Currency, decimal Before, decimal After);

[Leaves(typeof(PricesRaised), typeof(RecordChanged))]
public sealed class RaisePricesAct(PriceBooks books) : Act<RaisePrices, int>
{
    public override Right Needs => Rights.Records;

    /// <returns>How many prices moved.</returns>
    public override async Task<int> RunAsync(Work work, RaisePrices input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        RecordKinds.Changeable("prices", work.Actor);
        var (moved, _) = await MovedAsync(work.Db, input, work.Today, cancel);
        if (moved.Count == 0)
            throw RefusedException.Bad(
                "nothing_moves",
                "No price of this list and family holds on that day; nothing was changed.",
                "family"
            );
        var keeping = await Keeping.ForAsync(work.Db, books, work.Actor.Hand.Person, work.Today, cancel);
        foreach (var (row, view) in moved)
        {
            var made = Made(input, row, view);
            keeping.MustBeOurs(
                Kinds.Prices.Kind,
                made,
                [new RecordFieldChange("price", "price", Plain(view.Before), Plain(view.After), true)]
            );
            Move(work, input, row, view, made);
        }
        work.Leave(
            new PricesRaised(input.Family, input.List, input.Percent, input.From, moved.Count),
            $"families:{input.Family}"
        );
        return moved.Count;
    }

    private static string Plain(decimal price) => price.ToString(CultureInfo.InvariantCulture);

    private static ListPriceRow Made(RaisePrices input, ListPriceRow row, MovedPrice view) =>
        new()
        {
            List = row.List,
            ItemId = row.ItemId,
            Unit = row.Unit,
            Currency = row.Currency,
            PriceBase = row.PriceBase,
            Price = view.After,
            From = input.From,
            To = row.To,
        };

    private static void Move(Work work, RaisePrices input, ListPriceRow row, MovedPrice view, ListPriceRow made)
    {
        work.Db.ListPrices.Add(made);
        var until = input.From.AddDays(-1);
        work.Leave(
            new RecordChanged(
                "prices",
                view.Item,
                [new RecordFieldChange("to", "to", Day(row.To), Day(until), true)],
                null
            ),
            Work.SubjectOf("prices", row.Id)
        );
        (row.To, row.Version) = (until, row.Version + 1);
    }

    private static string Day(DateOnly? day) => day?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "";

    /// <summary>
    /// Prices that hold the day before and have not yet one of their own from then on; what has is left and named.
    /// </summary>
    public static async Task<(List<(ListPriceRow Row, MovedPrice View)> Moved, List<string> Left)> MovedAsync(
        SolvendaDb db,
        RaisePrices input,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(input);
        MustBeBounded(input, today);
        var rows = await (
            from p in db.ListPrices
            join i in db.Items on p.ItemId equals i.Id
            where
                p.List == input.List
                && i.Family == input.Family
                && p.Active
                && i.Active
                && (p.To == null || p.To >= input.From)
            orderby i.Code, p.Unit, p.From
            select new Price(p, i.Code, i.Words)
        ).ToListAsync(cancel);
        var moved = new List<(ListPriceRow, MovedPrice)>();
        var left = new List<string>();
        foreach (var same in rows.GroupBy(r => (r.Row.ItemId, r.Row.Unit, r.Row.Currency)))
        {
            if (same.FirstOrDefault(r => r.Row.From >= input.From) is { } later)
                left.Add(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{later.Code} by {later.Row.Unit}: it has a price of its own from {later.Row.From:yyyy-MM-dd}"
                    )
                );
            else if (same.MaxBy(r => r.Row.From) is { } now)
                moved.Add((now.Row, After(now, input)));
        }
        return (moved, left);
    }

    private static MovedPrice After(Price now, RaisePrices input) =>
        new(
            now.Code,
            now.Words,
            now.Row.Unit,
            now.Row.Currency,
            now.Row.Price,
            decimal.Round(now.Row.Price * (1 + (input.Percent / 100m)), input.Decimals, MidpointRounding.AwayFromZero)
        );

    private static void MustBeBounded(RaisePrices input, DateOnly today)
    {
        if (input.From <= today || input.From > today.AddYears(5))
            throw RefusedException.Bad(
                "date",
                "A rise begins tomorrow at the earliest, and within five years: what holds today was told to buyers.",
                "from"
            );
        if (input.Percent is <= -100 or > 1000 or 0 || input.Decimals is not (2 or 4))
            throw RefusedException.Bad(
                "number",
                "A rise is between −100 and 1,000 %, and not nothing; prices are rounded to 2 or 4 decimals.",
                "percent"
            );
    }

    private sealed record Price(ListPriceRow Row, string Code, string Words);
}
