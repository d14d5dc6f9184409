using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets;

/// <summary>
/// What went of an order stays as it went. A line does not fall below it; where the rest of a line becomes something
/// else, or has another price than was billed, what went closes as its own line and the rest is a new one
/// (docs/calculations.md, Billing).
/// </summary>
public static partial class SheetDoor
{
    private static Edited Kept(Draft before, Edited edited, DoorFacts facts, bool divides)
    {
        if (facts.Begun is not { } begun || edited.Refused is not null || edited.Clash is not null)
            return edited;
        foreach (var change in edited.Changes.Where(c => c.Line is null))
            if (Stands(facts.Term(change.Field), begun) is { } fixedWhy)
                return Refuse(before, new Refusal("order_begun", fixedWhy, change.Field));
        foreach (var was in before.Lines)
        {
            if (!begun.Lines.TryGetValue(was.Key, out var went))
                continue;
            var at = At(edited.Draft, was.Key);
            if (at < 0)
                return Refuse(before, Fixed(was, went, "line"));
            var now = edited.Draft.Lines[at];
            if (IsSame(was, now, went))
            {
                if (now.Quantity < Math.Min(went.Quantity, was.Quantity))
                    return Refuse(before, Fixed(was, went, "quantity"));
                continue;
            }
            var field = edited.Changes.FirstOrDefault(c => c.Line == was.Key)?.Field ?? "line";
            if (!divides || now.Unit != was.Unit || now.Quantity <= went.Quantity)
                return Refuse(before, Fixed(was, went, field));
            if (edited.Changes.Any(c => c.Line != was.Key))
                return Refuse(before, Fixed(was, went, field));
            return Divide(before, was, now, went, facts);
        }
        return edited;
    }

    // What went of it is all that stays.
    private static Edited RemoveRest(Draft draft, int at, BegunLine went, DoorFacts facts)
    {
        var line = draft.Lines[at];
        return went.Quantity < line.Quantity
            ? PutLine(draft, at, line with { Quantity = went.Quantity }, facts)
            : Refuse(draft, Fixed(line, went, "line"));
    }

    private static Edited Divide(Draft before, SheetLine was, SheetLine now, BegunLine went, DoorFacts facts)
    {
        var rest = now with
        {
            Key = before.NextKey,
            Quantity = now.Quantity - went.Quantity,
            // What is charged on the line, and what they asked for, stands with what went.
            Charges = [],
            Asked = AskedFor.Nothing,
        };
        var done = PutLine(before, At(before, was.Key), was with { Quantity = went.Quantity }, facts);
        done = And(done, draft => Insert(draft, rest, was.Key, facts));
        return done.Refused is null
            ? done with
            {
                Rests = ImmutableDictionary<long, long>.Empty.Add(was.Key, rest.Key),
            }
            : done with
            {
                Draft = before,
                Changes = [],
            };
    }

    // A price that nothing was billed at is still that of the whole line.
    private static bool IsSame(SheetLine was, SheetLine now, BegunLine went) =>
        was.Item == now.Item
        && was.Unit == now.Unit
        && was.Optional == now.Optional
        && was.DeliverTo == now.DeliverTo
        && (!went.IsBilled || (was.ByHand == now.ByHand && was.Cost == now.Cost));

    private static string? Stands(HeadTerm? term, Begun begun) =>
        term?.Stands switch
        {
            StandsOnce.Begun => $"Part of it went or is being picked: “{term.Label}” stands",
            StandsOnce.Billed when begun.IsBilled => $"Part of it is on an invoice: “{term.Label}” stands",
            _ => null,
        };

    private static Refusal Fixed(SheetLine line, BegunLine went, string field)
    {
        var much = string.Create(
                CultureInfo.InvariantCulture,
                $"{went.Quantity:#,0.######} {UnitTable.OnSheet(line.Unit)}"
            )
            .Trim();
        var how = field is "hand" or "cost" ? "; what an invoice has is set right by a credit note" : "";
        return new Refusal(
            "order_begun",
            went.Quantity < line.Quantity
                ? $"Of {line.Words} {much} went or is being picked: so much of it stays"
                : $"All of {line.Words} went or is being picked: it stays as it is{how}",
            field
        );
    }
}
