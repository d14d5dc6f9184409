using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering;

/// <summary>A line of a buyer's message about an order that we have.</summary>
/// <param name="No">Its number in the reading, from 1.</param>
/// <param name="IsTakenBack">They do not want it any more.</param>
public sealed record WantedLine(int No, AskedLine Asked, bool IsTakenBack)
{
    /// <summary>
    /// They take back as much as it says, and the rest stays: a letter that cancels "ten of the shackles".
    /// </summary>
    public bool IsSoMuchLess { get; init; }
}

/// <summary>What a buyer wants of one line.</summary>
public enum WishKind
{
    /// <summary>As it is.</summary>
    Same,

    /// <summary>More or less of it, on another day, or at another price.</summary>
    Changed,

    /// <summary>Not any more.</summary>
    Gone,

    /// <summary>Something that was not ordered.</summary>
    New,
}

/// <summary>A wish beside the line that it is about.</summary>
/// <param name="Wanted">Null for a line that they do not speak of: it stays.</param>
/// <param name="Line">Null for a new one, and for one taken back that we do not have.</param>
public sealed record LineWish(WishKind Kind, WantedLine? Wanted, SheetLine? Line)
{
    /// <summary>The line as they want it; null where it goes, or where they do not speak of it.</summary>
    public SheetLine? Then { get; init; }
}

/// <summary>
/// A buyer's change of an order, line by line: which line of ours each of theirs is about, and the order as they want
/// it. What they do not speak of stays.
/// </summary>
public static class BuyersChange
{
    /// <summary>Puts what they want beside the order's lines, in the order of the order; new ones come last.</summary>
    public static ImmutableArray<LineWish> Of(Draft order, IReadOnlyList<WantedLine> wanted, DoorFacts facts)
    {
        ArgumentNullException.ThrowIfNull(order);
        ArgumentNullException.ThrowIfNull(wanted);
        ArgumentNullException.ThrowIfNull(facts);
        var left = order.Lines.Where(l => l.HasFigures).ToList();
        var found = new Dictionary<long, LineWish>();
        var added = new List<LineWish>();
        foreach (var wish in wanted)
        {
            var theirs = AskedLines.LineOf(order, wish.Asked, facts);
            var line = Like(theirs, wish, left);
            if (line is null)
            {
                // Taken back, and never ordered: nothing to do.
                added.Add(
                    new LineWish(wish.IsTakenBack || wish.IsSoMuchLess ? WishKind.Gone : WishKind.New, wish, null)
                    {
                        Then = theirs,
                    }
                );
                continue;
            }
            left.Remove(line);
            found[line.Key] =
                wish.IsSoMuchLess ? Less(line, theirs, wish)
                : wish.IsTakenBack ? new LineWish(WishKind.Gone, wish, line)
                : Beside(line, theirs, wish);
        }
        return
        [
            .. order
                .Lines.Where(l => l.HasFigures)
                .Select(l => found.GetValueOrDefault(l.Key) ?? new LineWish(WishKind.Same, null, l)),
            .. added,
        ];
    }

    /// <summary>The order with those of the wishes that are taken, through the one door; all of them or none.</summary>
    /// <param name="taken">Numbers in the reading.</param>
    /// <param name="day">The day by which they want the whole; null where they name none.</param>
    public static Edited Take(
        Draft order,
        IReadOnlyList<LineWish> wishes,
        IReadOnlySet<int> taken,
        DateOnly? day,
        DoorFacts facts
    )
    {
        ArgumentNullException.ThrowIfNull(order);
        ArgumentNullException.ThrowIfNull(wishes);
        ArgumentNullException.ThrowIfNull(taken);
        ArgumentNullException.ThrowIfNull(facts);
        var edits = new List<SheetEdit>();
        if (day is { } wanted)
            edits.Add(new SheetEdit(EditKind.Set, null, "wanted", Iso(wanted)));
        var asked = new Dictionary<long, AskedFor>();
        var added = new List<AskedLine>();
        foreach (var wish in wishes.Where(w => w.Wanted is { } theirs && taken.Contains(theirs.No)))
        {
            if (wish.Line is not { } line)
            {
                if (wish.Kind == WishKind.New)
                    added.Add(wish.Wanted!.Asked);
            }
            else if (wish.Kind == WishKind.Gone)
                edits.Add(new SheetEdit(EditKind.Remove, line.Key, null, null));
            else if (wish.Then is { } then)
            {
                edits.AddRange(Edits(line, then));
                asked[line.Key] = then.Asked;
            }
        }
        var edited = SheetDoor.Take(order, edits, facts);
        if (edited.Refused is not null)
            return edited;
        var draft = edited.Draft with
        {
            Lines = [.. edited.Draft.Lines.Select(l => asked.TryGetValue(l.Key, out var a) ? l with { Asked = a } : l)],
        };
        return edited with { Draft = AskedLines.Add(draft, added, facts) };
    }

    // Of the same item the one with as much of it, else the first.
    private static SheetLine? Like(SheetLine theirs, WantedLine wish, List<SheetLine> ours)
    {
        var same = theirs.Item is { } item
            ? ours.Where(l => l.Item == item).ToList()
            : ours.Where(l =>
                    l.Item is null && l.Words.Equals(theirs.Words, StringComparison.OrdinalIgnoreCase)
                    || (
                        wish.Asked.Asked.Code is { Length: > 0 } code
                        && code.Equals(l.Asked.Code, StringComparison.OrdinalIgnoreCase)
                    )
                )
                .ToList();
        return same.Find(l => l.Quantity == theirs.Quantity && l.Unit == theirs.Unit) ?? same.FirstOrDefault();
    }

    private static LineWish Less(SheetLine line, SheetLine theirs, WantedLine wish)
    {
        var rest = line.Quantity - theirs.Quantity;
        return wish.Asked.Asked.Quantity is null || theirs.Unit != line.Unit || rest <= 0
            ? new LineWish(WishKind.Gone, wish, line)
            : new LineWish(WishKind.Changed, wish, line) { Then = line with { Quantity = rest } };
    }

    private static LineWish Beside(SheetLine line, SheetLine theirs, WantedLine wish)
    {
        var then = line with
        {
            Quantity = wish.Asked.Asked.Quantity is null ? line.Quantity : theirs.Quantity,
            Unit = wish.Asked.Asked.Quantity is null ? line.Unit : theirs.Unit,
            Wanted = wish.Asked.Wanted ?? line.Wanted,
            Asked = theirs.Asked,
        };
        var same =
            then.Quantity == line.Quantity
            && then.Unit == line.Unit
            && then.Wanted == line.Wanted
            && (then.Asked.Price is null || then.Asked.Price == line.Asked.Price);
        return new LineWish(same ? WishKind.Same : WishKind.Changed, wish, line) { Then = then };
    }

    private static IEnumerable<SheetEdit> Edits(SheetLine line, SheetLine then)
    {
        if (line.Unit != then.Unit)
            yield return new SheetEdit(EditKind.Set, line.Key, "unit", then.Unit.Code);
        if (line.Quantity != then.Quantity || line.Unit != then.Unit)
            yield return new SheetEdit(
                EditKind.Set,
                line.Key,
                "quantity",
                then.Quantity.ToString(CultureInfo.InvariantCulture)
            );
        if (line.Wanted != then.Wanted && then.Wanted is { } day)
            yield return new SheetEdit(EditKind.Set, line.Key, "wanted", Iso(day));
    }

    private static string Iso(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
