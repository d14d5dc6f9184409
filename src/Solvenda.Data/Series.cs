using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>The number series: each its own, a new start every year.</summary>
public static class Series
{
    /// <summary>The interchange control numbers that we give, which run on over the years.</summary>
    public const string Interchange = "X12";

    /// <summary>The next number, as R26-00412. Within a transaction, so that a number is never given twice.</summary>
    public static async Task<string> NextInTransactionAsync(
        SolvendaDb db,
        NumberSeries series,
        int year,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(series);
        var pattern = await PatternAsync(db, series, cancel);
        return pattern.Format(
            year,
            await NextCountInTransactionAsync(db, series.Code, CountedIn(pattern, year), cancel)
        );
    }

    /// <summary>The year that a number is counted in; 0 where its series runs on over the years.</summary>
    public static int CountedIn(NumberPattern pattern, int year)
    {
        ArgumentNullException.ThrowIfNull(pattern);
        return pattern.HasYear ? year : 0;
    }

    /// <summary>The pattern that holds for a series.</summary>
    public static async Task<NumberPattern> PatternAsync(SolvendaDb db, NumberSeries series, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(series);
        var set = await db
            .Patterns.AsNoTracking()
            .Where(p => p.Series == series.Code)
            .OrderByDescending(p => p.Id)
            .Select(p => p.Pattern)
            .FirstOrDefaultAsync(cancel);
        return set is null ? series.Usual : NumberPattern.Of(set);
    }

    /// <summary>Our own numbers, by every pattern that there ever was.</summary>
    public static async Task<OurNumbers> OursAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var set = await db.Patterns.AsNoTracking().OrderBy(p => p.Id).ToListAsync(cancel);
        return set.Count == 0
            ? OurNumbers.Usual
            : new OurNumbers(set.Select(p => (p.Series, NumberPattern.Of(p.Pattern))));
    }

    public static async Task<int> NextCountInTransactionAsync(
        SolvendaDb db,
        string series,
        int year,
        CancellationToken cancel
    ) => (await RowAsync(db, series, year, cancel)).Next++;

    /// <summary>Lets a series go on from a count that is higher than what it has.</summary>
    public static async Task GoOnFromAsync(SolvendaDb db, string series, int year, int count, CancellationToken cancel)
    {
        var row = await RowAsync(db, series, year, cancel);
        row.Next = Math.Max(row.Next, count);
    }

    private static async Task<SeriesRow> RowAsync(SolvendaDb db, string series, int year, CancellationToken cancel)
    {
        var row = await db.Series.FirstOrDefaultAsync(s => s.Code == series && s.Year == year, cancel);
        if (row is null)
        {
            row = new SeriesRow
            {
                Code = series,
                Year = year,
                Next = 1,
            };
            db.Series.Add(row);
        }
        return row;
    }
}
