using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.House;

/// <summary>Says how the numbers of a series look from now on, and where it goes on.</summary>
/// <param name="Series">Code of the series: R, D, Q, S.</param>
/// <param name="Next">What is counted next; null: it goes on where it is.</param>
/// <param name="Seen">The pattern that was looked at.</param>
public sealed record SetNumbers(string Series, string Pattern, int? Next, string Seen) : IAct<string>;

[Leaves(typeof(NumbersSet))]
public sealed class SetNumbersAct : Act<SetNumbers, string>
{
    private const int MostCount = 99_999_999;

    public override Right Needs => Rights.Administer;

    /// <returns>The next number.</returns>
    public override async Task<string> RunAsync(Work work, SetNumbers input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var series = NumberSeries.Find(input.Series) ?? throw RefusedException.NotFound("such series");
        var before = await Series.PatternAsync(work.Db, series, cancel);
        if (before.Text != input.Seen)
            throw RefusedException.Clash(
                "stale",
                $"The {series.Words} have the pattern {before} by now; yours was not saved over it."
            );
        var pattern = await FittingAsync(work.Db, series, input.Pattern, cancel);
        var year = Series.CountedIn(pattern, work.Today.Year);
        var next = await NextAsync(work.Db, series, year, cancel);
        if (input.Next is { } wanted && (wanted < next || wanted > MostCount))
            throw RefusedException.Bad(
                "series_next",
                FormattableString.Invariant(
                    $"It goes on from {next} or higher, up to {MostCount}: what was given is not given again."
                ),
                "next"
            );
        // Numbers of invoices follow each other without a gap, from the first on (Directive 2006/112/EC, art. 226).
        if (input.Next > next && series == NumberSeries.Invoice && await work.Db.Invoices.AnyAsync(cancel))
            throw RefusedException.Clash(
                "series_gap",
                FormattableString.Invariant($"Invoices are issued already: the next is {next}, and none is left out.")
            );
        if (pattern.Text != before.Text)
            work.Db.Patterns.Add(
                new PatternRow
                {
                    Series = series.Code,
                    Pattern = pattern.Text,
                    Since = work.Now,
                }
            );
        if (input.Next is { } from && from > next)
            await Series.GoOnFromAsync(work.Db, series.Code, year, from, cancel);
        var (was, shall) = (before.Format(work.Today.Year, next), pattern.Format(work.Today.Year, input.Next ?? next));
        if (was != shall || before.Text != pattern.Text)
            work.Leave(new NumbersSet(series.Words, before.Text, pattern.Text, shall), "house");
        return shall;
    }

    /// <summary>What the next count of a series is.</summary>
    public static async Task<int> NextAsync(SolvendaDb db, NumberSeries series, int year, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(series);
        return await db
                .Series.Where(s => s.Code == series.Code && s.Year == year)
                .Select(s => (int?)s.Next)
                .FirstOrDefaultAsync(cancel)
            ?? 1;
    }

    /// <summary>
    /// A pattern as typed, refused where numbers of it could be those of something else, or were given already.
    /// </summary>
    public static async Task<NumberPattern> FittingAsync(
        SolvendaDb db,
        NumberSeries series,
        string text,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(series);
        var pattern =
            NumberPattern.Read(text, out var fault)
            ?? throw RefusedException.Bad("series_pattern", $"{fault}; the old pattern was kept.", "pattern");
        var set = await db.Patterns.AsNoTracking().OrderBy(p => p.Id).ToListAsync(cancel);
        var all = NumberSeries
            .All.Select(s => (Series: s, Pattern: s.Usual))
            .Concat(set.Select(p => (NumberSeries.Find(p.Series)!, NumberPattern.Of(p.Pattern))));
        foreach (var (other, old) in all)
            if (other == series ? !pattern.MayFollow(old) : pattern.Meets(old))
                throw RefusedException.Bad(
                    "series_collides",
                    other == series
                        ? $"A number of it could be one that was given as {old}; the old pattern was kept."
                        : $"A number of it could be one of the {other.Words}, which have {old}; the old pattern was kept.",
                    "pattern"
                );
        return pattern;
    }
}
