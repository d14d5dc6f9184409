using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets.Entry;

namespace Solvenda.Core.Sheets;

/// <summary>How lines come onto a sheet, and how they stand to each other.</summary>
public static partial class SheetDoor
{
    private static Edited Add(Draft draft, string value, SheetEdit edit, DoorFacts facts)
    {
        var typed = QuickLine.Parse(value, facts.Today);
        var line = Bare(draft, LineKind.Item) with
        {
            Words = Short(typed.Words),
            Note = Short(typed.Note),
            Quantity = 0m,
        };
        var code =
            edit.Field is { Length: > 0 } picked ? picked
            : facts.Book.FindByCode(typed.Words) is not null ? typed.Words
            : null;
        LineTaken taken = line;
        if (code is not null)
            taken = LineFields.TakeItem(line, code, draft.Head, facts);
        if (taken.Line is { } known)
            taken = LineFields.Quantity(known, typed.Quantity ?? 1m, typed.Unit, facts);
        if (taken.Line is { } counted && typed.DiscountPercent is { } percent)
            taken = LineFields.Hand(counted, ByHandKind.DiscountPercent, percent, facts);
        // With a price beside it, the discount is in what is left of that.
        if (taken.Line is { } plain && typed.NetPrice is { } price)
            taken = LineFields.Hand(plain, ByHandKind.NetPrice, price, facts);
        if (taken.Line is { } priced && typed.Wanted is { } wanted)
            taken = LineFields.WantedBy(priced, wanted, facts);
        if (taken.Line is not { } done)
            return Refuse(draft, taken.Refused!);
        var added = Insert(draft, done with { Optional = typed.IsOption }, edit.After, facts);
        return typed.IsAlternative && added.Refused is null
            ? And(added, now => Alternative(now, At(now, done.Key), facts))
            : added;
    }

    // A line of its own again; or one of those that the line above is one of, under a letter that both get.
    private static Edited Alternative(Draft draft, int at, DoorFacts facts)
    {
        var line = draft.Lines[at];
        if (line.OneOf.Length > 0)
        {
            var left = draft.Lines.Where(l => l.OneOf == line.OneOf && l.Key != line.Key).ToList();
            var alone = PutLine(draft, at, line with { OneOf = "" }, facts);
            // What is left alone is no choice.
            return left is [var last]
                ? And(alone, now => PutLine(now, At(now, last.Key), last with { OneOf = "" }, facts))
                : alone;
        }
        if (at == 0 || !draft.Lines[at - 1].HasFigures)
            return Refuse(draft, new Refusal("choice", "There is no line above it that it could stand in for"));
        var above = draft.Lines[at - 1];
        if ((above.OneOf.Length > 0 ? above.OneOf : Choices.NextLetter(draft.Lines)) is not { } letter)
            return Refuse(draft, new Refusal("choice", "A quote has at most 26 choices"));
        var first = PutLine(draft, at - 1, LineFields.OneOfThese(above, letter, facts), facts);
        return first.Refused is not null
            ? first
            : And(first, now => PutLine(now, at, LineFields.OneOfThese(line, letter, facts), facts));
    }

    private static Edited And(Edited first, Func<Draft, Edited> then)
    {
        var second = then(first.Draft);
        return second with { Changes = [.. first.Changes, .. second.Changes] };
    }

    private static Edited AddCharge(Draft draft, string value, long? after, DoorFacts facts)
    {
        var typed = QuickLine.Parse(value, facts.Today);
        LineTaken taken = Bare(draft, LineKind.Charge) with { Words = Short(typed.Words), Note = Short(typed.Note) };
        taken = LineFields.Quantity(taken.Line!, typed.Quantity ?? 1m, typed.Unit, facts);
        if (taken.Line is { } counted && typed.NetPrice is { } price)
            taken = LineFields.Hand(counted, ByHandKind.NetPrice, price, facts);
        return taken.Line is { } done ? Insert(draft, done, after, facts) : Refuse(draft, taken.Refused!);
    }

    // A heading where the first of the lines stands, and all of them under it, in the order in which they stood.
    private static Edited Gather(Draft draft, string words, string keys, DoorFacts facts)
    {
        var wanted = keys.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(k => long.TryParse(k, NumberStyles.None, CultureInfo.InvariantCulture, out var key) ? key : 0)
            .ToHashSet();
        var lines = draft.Lines.Where(l => wanted.Contains(l.Key)).ToList();
        if (lines.Count == 0 || lines.Count != wanted.Count)
            return Refuse(draft, new Refusal("line_gone", "One of these lines is no longer there"));
        var heading = Bare(draft, LineKind.Heading) with { Words = Short(words) };
        var done = Insert(draft, heading, null, facts);
        done = And(done, now => Move(now, now.Lines.Length - 1, Behind(draft.Lines, At(draft, lines[0].Key))));
        var last = heading.Key;
        foreach (var line in lines)
        {
            if (done.Refused is not null)
                return done with { Draft = draft, Changes = [] };
            var behind = last;
            done = And(done, now => Move(now, At(now, line.Key), behind));
            last = line.Key;
        }
        return done;
    }
}
