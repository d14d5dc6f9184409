using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Money;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Lists;

/// <summary>
/// The foot of a column over all rows that fit, not only those on the screen. Prices and factors of different things do
/// not add up to anything, so only fields that say so are summed.
/// </summary>
public static class ListFoot
{
    private static readonly CultureInfo Plain = CultureInfo.InvariantCulture;

    /// <summary>
    /// In words: "EUR 1,250,000; NOK 90,000", "0.5 to 120", "from 2025-01-01 to 2026-12-31", "14 different"; empty
    /// where there is nothing.
    /// </summary>
    public static async Task<string> OfAsync<TRow>(IQueryable<TRow> rows, Field field, CancellationToken cancel)
        where TRow : class, IListRow
    {
        ArgumentNullException.ThrowIfNull(field);
        if (field.IsOwn)
            return field.Type == FieldType.Number
                ? await RangeAsync(
                    rows.Select(Member.Of<TRow, double?>(field)),
                    v => v.ToString("#,0.####", Plain),
                    " to ",
                    cancel
                )
                : "";
        var name = field.Property!;
        if (field.AddedBy is { } by)
            return await SumsAsync(rows, name, by, cancel);
        var type = typeof(TRow).GetProperty(name)!.PropertyType;
        var plain = Nullable.GetUnderlyingType(type) ?? type;
        if (plain == typeof(decimal))
            return await RangeAsync(
                rows.Select(Member.Of<TRow, decimal?>(name)),
                v => v.ToString("#,0.####", Plain),
                " to ",
                cancel
            );
        if (plain == typeof(int))
            return await RangeAsync(
                rows.Select(Member.Of<TRow, int?>(name)),
                v => v.ToString("#,0", Plain),
                " to ",
                cancel
            );
        if (plain == typeof(DateOnly))
            return await RangeAsync(
                rows.Select(Member.Of<TRow, DateOnly?>(name)),
                v => v.ToString("yyyy-MM-dd", Plain),
                " to ",
                cancel
            );
        if (field.Type == FieldType.Flag)
            return await rows.CountAsync(Member.Is<TRow>(name, true), cancel) is var yes and > 0
                ? string.Create(Plain, $"{yes:#,0} yes")
                : "none";
        if (field.Type is not (FieldType.Reference or FieldType.Choice))
            return "";
        var different = await (
            plain == typeof(long)
                ? rows.Select(Member.Of<TRow, long?>(name)).Where(v => v != null).Distinct().CountAsync(cancel)
            : plain == typeof(string)
                ? rows.Select(Member.Of<TRow, string?>(name))
                    .Where(v => v != null && v != "")
                    .Distinct()
                    .CountAsync(cancel)
            : Task.FromResult(0)
        );
        return different > 1 ? string.Create(Plain, $"{different:#,0} different") : "";
    }

    private static async Task<string> SumsAsync<TRow>(
        IQueryable<TRow> rows,
        string name,
        string by,
        CancellationToken cancel
    )
        where TRow : class, IListRow
    {
        var sums = await rows.Where(Member.IsThere<TRow>(name))
            .GroupBy(Member.Of<TRow, string>(by), Member.Of<TRow, long?>(name))
            .Select(g => new { g.Key, Minor = g.Sum() })
            .OrderBy(g => g.Key)
            .ToListAsync(cancel);
        return string.Join(
            "; ",
            sums.Where(s => Currency.TryOf(s.Key, out _))
                .Select(s => Say(Amount.FromMinor(s.Minor ?? 0, Currency.Of(s.Key))))
        );
    }

    // Whole amounts without their noughts, so that limits and totals both read well.
    private static string Say(Amount sum) =>
        $"{sum.Currency.Code} {sum.Value.ToString(sum.Value == decimal.Truncate(sum.Value) ? "#,0" : $"N{sum.Currency.Decimals}", Plain)}";

    private static async Task<string> RangeAsync<T>(
        IQueryable<T?> values,
        Func<T, string> say,
        string between,
        CancellationToken cancel
    )
        where T : struct, IComparable<T>
    {
        // One row each by the order, since the database has the order of these types and not always their extremes.
        var least = await values.Where(v => v != null).OrderBy(v => v).FirstOrDefaultAsync(cancel);
        var most = await values.Where(v => v != null).OrderByDescending(v => v).FirstOrDefaultAsync(cancel);
        return least is not { } a || most is not { } b ? ""
            : a.CompareTo(b) == 0 ? say(a)
            : say(a) + between + say(b);
    }
}
