using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets;

/// <summary>What became of a line between two documents.</summary>
public enum LineChange
{
    /// <summary>It stands there as it stood here.</summary>
    Same,

    /// <summary>Only the later one has it.</summary>
    Added,

    /// <summary>Only the earlier one has it.</summary>
    Gone,

    /// <summary>Both have it, and something about it is another.</summary>
    Changed,
}

/// <summary>Something that was said one way and is said another; null where nothing is said.</summary>
/// <param name="Field">Stable: a field of a line, or a term of the head.</param>
public sealed record FieldMoved(string Field, string Label, string? Then, string? Now);

/// <summary>A line of a document as it is compared: a priced one, or what somebody asked for.</summary>
/// <param name="Number">As it is printed.</param>
/// <param name="Price">Net, per price base; null where none is said.</param>
/// <param name="Net">Null where it is not worked out.</param>
/// <param name="Counts">Whether it is in the totals.</param>
public sealed record ComparedLine(
    long Key,
    string Number,
    string? Code,
    string Words,
    decimal? Quantity,
    Unit? Unit,
    decimal? Price,
    decimal PriceBase,
    Amount? Net,
    bool Counts,
    DateOnly? Wanted
)
{
    /// <summary>What it goes by.</summary>
    public string Name => Code ?? Words;

    /// <summary>How much of it, in words; null where nobody said.</summary>
    public string? Amounts =>
        Quantity is { } quantity
            ? string.Create(
                    CultureInfo.InvariantCulture,
                    $"{quantity:#,0.######} {(Unit is { } unit ? UnitTable.OnSheet(unit) : "")}"
                )
                .Trim()
            : null;

    /// <summary>What one costs, in words; null where nobody said.</summary>
    public string? Priced =>
        Price is { } price
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{price:0.0000}{(PriceBase == 1m ? "" : $" per {PriceBase:0.######}")}"
            )
            : null;
}

/// <summary>One of two documents that are put beside each other.</summary>
/// <param name="Head">Null where its terms are not compared.</param>
/// <param name="Charges">Beside the lines; null where they are not compared.</param>
/// <param name="Total">Without tax; null where it is not known.</param>
public sealed record Side(
    Currency Currency,
    ImmutableArray<ComparedLine> Lines,
    Head? Head,
    Amount? Charges,
    Amount? Total
)
{
    /// <summary>A sheet as it is priced.</summary>
    public static Side Of(PricedSheet sheet, Head head)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var numbers = LineNumbers.Of(sheet.Sheet.Lines);
        return new Side(
            sheet.Sheet.Currency,
            [
                // What was closed short is no part of it any more.
                .. sheet
                    .Sold.Where(l => l.Line.ClosedWhy.Length == 0)
                    .Select(l => new ComparedLine(
                        l.Line.Key,
                        numbers[l.Line.Key],
                        l.Item?.Code,
                        l.Line.Words,
                        l.Line.Quantity,
                        l.Line.Unit,
                        l.HasPrice ? l.Figures.NetPrice : null,
                        l.Terms.PriceBase,
                        l.Figures.Net,
                        l.Counts,
                        l.Line.Wanted
                    )),
            ],
            head,
            sheet.Tally.Charges,
            sheet.Tally.TotalWithoutTax
        );
    }

    /// <summary>What the buyer asked for, as it was read, line by line of the sheet that was made of it.</summary>
    public static Side Asked(PricedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var currency = sheet.Sheet.Currency;
        var numbers = LineNumbers.Of(sheet.Sheet.Lines);
        var lines = sheet
            .Sold.Where(l => l.Line.Asked != AskedFor.Nothing)
            .Select(l => (l, l.Line.Asked))
            .Select(x => new ComparedLine(
                x.l.Line.Key,
                numbers[x.l.Line.Key],
                x.Asked.Code,
                x.Asked.Words,
                x.Asked.Quantity,
                x.Asked.Unit,
                x.Asked.Price,
                x.Asked.PriceBase,
                x.Asked is { Price: { } price, Quantity: { } quantity, PriceBase: not 0m }
                    ? Amount.Round(quantity * price / x.Asked.PriceBase, currency)
                    : null,
                true,
                x.l.Line.Wanted
            ));
        return new Side(currency, [.. lines], null, null, null);
    }
}

/// <summary>A line of one document beside its like in the other.</summary>
/// <param name="Then">Null for a line that was added.</param>
/// <param name="Now">Null for a line that is gone.</param>
/// <param name="Moved">What is another; empty for what was added or is gone.</param>
public sealed record ComparedPair(ComparedLine? Then, ComparedLine? Now, ImmutableArray<FieldMoved> Moved)
{
    /// <summary>What became of it.</summary>
    public LineChange Change =>
        Then is null ? LineChange.Added
        : Now is null ? LineChange.Gone
        : Moved.IsEmpty ? LineChange.Same
        : LineChange.Changed;

    /// <summary>
    /// What it comes to more than before, of what counts; null where both are not known in one currency.
    /// </summary>
    public Amount? More
    {
        get
        {
            if ((Then is { Net: null }) || (Now is { Net: null }) || (Then ?? Now)?.Net is not { } any)
                return null;
            var zero = Amount.Zero(any.Currency);
            var then = Then is { Counts: true, Net: { } a } ? a : zero;
            var now = Now is { Counts: true, Net: { } b } ? b : zero;
            return then.Currency == now.Currency ? now - then : null;
        }
    }
}

/// <summary>
/// Two documents beside each other, in words and money: revisions of a quote, a quote and its order, a quote and what
/// the buyer's own document says.
/// </summary>
/// <param name="Pairs">In the order of the later one; what is gone stands where it stood.</param>
/// <param name="Terms">Terms of the head that are another.</param>
public sealed record Comparison(
    Side Then,
    Side Now,
    ImmutableArray<ComparedPair> Pairs,
    ImmutableArray<FieldMoved> Terms
)
{
    /// <summary>Puts two documents beside each other.</summary>
    /// <param name="byKey">Whether a line keeps its key from one to the other; else they meet by code, then by
    /// words.</param>
    public static Comparison Of(Side then, Side now, bool byKey)
    {
        ArgumentNullException.ThrowIfNull(then);
        ArgumentNullException.ThrowIfNull(now);
        var left = then.Lines.ToList();
        var pairs = new List<ComparedPair>();
        foreach (var line in now.Lines)
        {
            var was =
                byKey ? left.Find(l => l.Key == line.Key)
                : line.Code is null ? left.Find(l => Same(l.Words, line.Words))
                : left.Find(l => Same(l.Code, line.Code)) ?? left.Find(l => Same(l.Words, line.Words));
            if (was is not null)
                left.Remove(was);
            pairs.Add(new ComparedPair(was, line, was is null ? [] : [.. Differing(was, line)]));
        }
        foreach (var gone in left)
            pairs.Insert(PlaceOf(gone, then.Lines, pairs), new ComparedPair(gone, null, []));
        return new Comparison(then, now, [.. pairs], [.. TermsOf(then.Head, now.Head)]);
    }

    // Behind the last that stood before it.
    private static int PlaceOf(ComparedLine gone, ImmutableArray<ComparedLine> lines, List<ComparedPair> pairs)
    {
        for (var at = lines.IndexOf(gone) - 1; at >= 0; at--)
        {
            var place = pairs.FindIndex(p => ReferenceEquals(p.Then, lines[at]));
            if (place >= 0)
                return place + 1;
        }
        return 0;
    }

    private static IEnumerable<FieldMoved> Differing(ComparedLine was, ComparedLine now)
    {
        if (was.Code is not null || now.Code is not null ? !Same(was.Code, now.Code) : !Same(was.Words, now.Words))
            yield return new FieldMoved("item", "item", was.Name, now.Name);
        if (was.Quantity != now.Quantity || was.Unit != now.Unit)
            yield return new FieldMoved("quantity", "quantity", was.Amounts, now.Amounts);
        if (was.Price != now.Price || (was.PriceBase != now.PriceBase && now.Price is not null))
            yield return new FieldMoved("price", "price", was.Priced, now.Priced);
        if (was.Wanted != now.Wanted)
            yield return new FieldMoved("wanted", "wanted", Day(was.Wanted), Day(now.Wanted));
        if (was.Counts != now.Counts)
            yield return new FieldMoved("counts", "counted", was.Counts ? "yes" : "no", now.Counts ? "yes" : "no");
    }

    private static IEnumerable<FieldMoved> TermsOf(Head? then, Head? now)
    {
        if (then is null || now is null)
            return [];
        var own = then.All.Concat(now.All).Select(t => t.Key).Where(OwnField.Is).Distinct();
        return HeadTerms
            .All.Select(t => Moved(t.Name, t.Label, t.Say, then, now))
            .Concat(own.Select(name => Moved(name, OwnField.LabelOf(name), text => text, then, now)))
            .OfType<FieldMoved>();
    }

    private static FieldMoved? Moved(string name, string label, Func<string, string> say, Head then, Head now)
    {
        var (a, b) = (then.Text(name), now.Text(name));
        return a == b ? null : new FieldMoved(name, label, a is null ? null : say(a), b is null ? null : say(b));
    }

    private static string? Day(DateOnly? day) => day?.ToString("d MMM yyyy", CultureInfo.InvariantCulture);

    private static bool Same(string? a, string? b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
