using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets.Entry;

/// <summary>
/// A row of a spreadsheet as it goes onto a sheet: a heading, or a line with the price that stood there.
/// </summary>
/// <param name="Price">For one unit.</param>
public sealed record PastedRow(string? Heading, AskedLine? Line, decimal? Price);

/// <summary>What was pasted, and the heads of columns that nobody knows.</summary>
public sealed record Pasted(ImmutableArray<PastedRow> Rows, ImmutableArray<string> UnusedColumns)
{
    /// <summary>How many rows there are, where they are more than a sheet could ever hold; else 0.</summary>
    public int TooMany { get; init; }

    /// <summary>How many of its lines somebody has to put right.</summary>
    public int ToFix => Rows.Count(r => r.Line is { Code: null } or { Quantity: 0m });
}

/// <summary>
/// Reads rows of a spreadsheet that somebody pastes: by the heads of their columns, else by what stands in them, else
/// row by row as if typed. What is not understood stays as a line to be put right; nothing that is filled is left out.
/// </summary>
public static class PastedRows
{
    /// <param name="buyer">Whose codes and words count.</param>
    public static Pasted Read(
        ImmutableArray<ImmutableArray<Cell>> rows,
        BuyerId buyer,
        Language language,
        DateOnly today,
        ReadingContext context
    )
    {
        ArgumentNullException.ThrowIfNull(language);
        ArgumentNullException.ThrowIfNull(context);
        var filled = rows.Count(r => r.Any(c => c.Text.Trim().Length > 0));
        if (filled > SheetDoor.MostLines)
            return new Pasted([], []) { TooMany = filled };
        var theirs = new Field<BuyerId>(buyer, 1m, "", []);
        var found = TableReading.Read(rows, 0, "", today, language, context, PartKind.Table);
        if (found.Lines.IsEmpty)
            return new Pasted(
                [
                    .. rows.Select(r => string.Join(' ', r.Select(c => c.Text.Trim()).Where(t => t.Length > 0)))
                        .Where(t => t.Length > 0)
                        .Select(t => Typed(t, theirs, language, today, context)),
                ],
                []
            );
        var read = DocumentReader.Read(new OrderDocument(MessageKind.Order, found.Lines), context, theirs, language);
        var said = read
            .Lines.Select(l => (At: l.Evidence.Min(e => e.Start), Row: OfTable(l, context)))
            .Concat(found.LeftOvers.Where(o => o.Why.Length == 0).Select(o => (At: o.Where.Start, Row: ToFix(o.Words))))
            .Concat(
                found
                    .Unused.Where(u => found.Heads.All(h => !Stands(rows[h], u.Where)))
                    .Select(u => (At: u.Where.Start, Row: Alone(rows, u)))
            );
        return new Pasted(
            [.. said.OrderBy(s => s.At).Select(s => s.Row)],
            [.. found.Unused.Where(u => found.Heads.Any(h => Stands(rows[h], u.Where))).Select(u => u.Words)]
        );
    }

    private static bool Stands(ImmutableArray<Cell> row, Evidence where) =>
        row.Any(c => c.Length > 0 && c.Start == where.Start);

    // One filled cell without a figure is a heading over what follows.
    private static PastedRow Alone(ImmutableArray<ImmutableArray<Cell>> rows, Unused unused) =>
        rows.FirstOrDefault(r => Stands(r, unused.Where)) is { IsDefault: false } row
        && row.Count(c => c.Text.Trim().Length > 0) == 1
            ? new PastedRow(unused.Words, null, null)
            : ToFix(unused.Words);

    private static PastedRow ToFix(string words) =>
        new(null, new AskedLine(new AskedFor(words, null, null, null, null, 1m), null, 0m, Unit.Piece, "", null), null);

    private static PastedRow OfTable(ReadLine line, ReadingContext context)
    {
        var unit = line.Unit.Sure > 0m ? line.Unit.Value : Unit.Piece;
        // A code that nobody knows is all that there is to go by.
        var words =
            line.Code is { } code && !line.Words.Contains(code, StringComparison.Ordinal)
                ? $"{code} {line.Words}"
                : line.Words;
        return new PastedRow(
            null,
            new AskedLine(
                new AskedFor(words, line.Code, line.Quantity.Value, unit, line.Price, line.PriceBase),
                line.Item.Sure >= ReadLine.SureEnough ? context.Items.ById(line.Item.Value)?.Code : null,
                // One that could be two is for somebody to say.
                line.Quantity.Sure >= ReadLine.SureEnough
                    ? line.Quantity.Value ?? 0m
                    : 0m,
                unit,
                line.Note,
                line.Wanted.Value
            ),
            line.Price is { } price ? price / line.PriceBase : null
        );
    }

    private static PastedRow Typed(
        string text,
        Field<BuyerId> buyer,
        Language language,
        DateOnly today,
        ReadingContext context
    )
    {
        if (text.StartsWith('#'))
            return new PastedRow(text[1..].Trim(), null, null);
        var first = EntryChoices.Of(
            QuickLine.Undecided(text, today, language),
            context.Items,
            words => context.AliasOf(buyer, words) is { } alias ? context.Items.ById(alias.Item) : null,
            ImmutableHashSet<Catalogue.ItemId>.Empty,
            language
        )
            is [var choice, ..]
            ? choice
            : null;
        var line = first?.Line ?? QuickLine.Parse(text, today, language);
        var unit = line.Unit ?? first?.Item?.StockUnit ?? Unit.Piece;
        return new PastedRow(
            null,
            new AskedLine(
                new AskedFor(line.Words, null, line.Quantity, line.Unit, null, 1m),
                first?.Item?.Code,
                line.Quantity ?? (first?.Item is null ? 0m : 1m),
                unit,
                line.Note,
                line.Wanted
            ),
            line.NetPrice
        );
    }
}
