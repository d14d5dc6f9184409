using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>The number series: each its own, a new start every year.</summary>
public static class Series
{
    public const string Request = "R";
    public const string Dossier = "D";
    public const string Quote = "Q";
    public const string Order = "S";

    /// <summary>The interchange control numbers that we give, which run on over the years.</summary>
    public const string Interchange = "X12";

    /// <summary>The next number, as R26-00412. Within a transaction, so that a number is never given twice.</summary>
    public static async Task<string> NextInTransactionAsync(
        SolvendaDb db,
        string series,
        int year,
        CancellationToken cancel
    ) => Format(series, year, await NextCountInTransactionAsync(db, series, year, cancel));

    public static async Task<int> NextCountInTransactionAsync(
        SolvendaDb db,
        string series,
        int year,
        CancellationToken cancel
    )
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
        return row.Next++;
    }

    public static string Format(string series, int year, int count) =>
        string.Create(CultureInfo.InvariantCulture, $"{series}{year % 100:00}-{count:00000}");
}
