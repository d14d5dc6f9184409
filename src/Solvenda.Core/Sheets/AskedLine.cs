using Solvenda.Core.Pricing;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets;

/// <summary>A line as it was read from what the buyer wrote: what they asked for, and what it means to us.</summary>
/// <param name="Code">Our item; null where it is not known yet.</param>
/// <param name="Quantity">In <paramref name="Unit"/>.</param>
/// <param name="Wanted">The day of this line, where it has one of its own.</param>
public sealed record AskedLine(
    AskedFor Asked,
    string? Code,
    decimal Quantity,
    Unit Unit,
    string Note,
    DateOnly? Wanted
);

/// <summary>Lines of a reading through the one door.</summary>
public static class AskedLines
{
    /// <summary>
    /// The draft with the lines behind those that it has. What is beyond a bound comes without it (a quantity of
    /// nothing), for a check to name: nothing
    /// that was asked for is left out.
    /// </summary>
    public static Draft Add(Draft draft, IEnumerable<AskedLine> lines, DoorFacts facts)
    {
        ArgumentNullException.ThrowIfNull(draft);
        ArgumentNullException.ThrowIfNull(lines);
        ArgumentNullException.ThrowIfNull(facts);
        return lines
            .Take(SheetDoor.MostLines - draft.Lines.Length)
            .Aggregate(draft, (now, line) => Add(now, line, facts));
    }

    private static Draft Add(Draft draft, AskedLine asked, DoorFacts facts) =>
        draft with
        {
            Lines = draft.Lines.Add(LineOf(draft, asked, facts)),
            NextKey = draft.NextKey + 1,
        };

    /// <summary>As the next line of the draft.</summary>
    internal static SheetLine LineOf(Draft draft, AskedLine asked, DoorFacts facts)
    {
        var line = new SheetLine(
            draft.NextKey,
            LineKind.Item,
            null,
            SheetDoor.Short(asked.Asked.Words),
            0m,
            asked.Unit,
            ByHand.None,
            [],
            false,
            SheetDoor.Short(asked.Note),
            asked.Asked
        );
        if (asked.Code is { } code && LineFields.TakeItem(line, code, draft.Head, facts).Line is { } known)
            line = known;
        var (unit, quantity) = Ours(line, asked, facts);
        line = line with { Unit = unit };
        if (LineFields.Quantity(line, quantity, null, facts).Line is { } counted)
            line = counted;
        return asked.Wanted is { } day && LineFields.WantedBy(line, day, facts).Line is { } dated ? dated : line;
    }

    // A unit that the item is sold in stays; another measure (feet) becomes the stock unit by the unit table.
    private static (Unit Unit, decimal Quantity) Ours(SheetLine line, AskedLine asked, DoorFacts facts)
    {
        if (line.Item is not { } id || facts.Book.Find(id) is not { } item)
            return (asked.Unit, asked.Quantity);
        if (asked.Unit == item.StockUnit || item.SalesUnits.Any(u => u.Unit == asked.Unit))
            return (asked.Unit, asked.Quantity);
        return item.Factor(asked.Unit) is { } factor
            ? (item.StockUnit, asked.Quantity * factor)
            : (asked.Unit, asked.Quantity);
    }
}
