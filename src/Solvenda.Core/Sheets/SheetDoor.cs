using System.Collections.Immutable;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets;

/// <summary>
/// The one door for whatever is typed on a sheet: typing, quick entry, paste, undo, copies, imports, the API, readings.
/// All of it meets the same bounds,
/// and all of it comes out as changes. Edits are taken together or not at all.
/// </summary>
public static partial class SheetDoor
{
    /// <summary>Lines that a sheet holds at most.</summary>
    public const int MostLines = 2_000;

    /// <summary>Edits that are taken at once at most.</summary>
    public const int MostEdits = 500;

    /// <summary>The longest words and notes of a line, in letters; what is longer is cut.</summary>
    public const int MostLetters = 500;

    /// <summary>Takes edits in their order.</summary>
    public static Edited Take(Draft draft, IReadOnlyList<SheetEdit> edits, DoorFacts facts)
    {
        ArgumentNullException.ThrowIfNull(edits);
        ArgumentNullException.ThrowIfNull(facts);
        if (edits.Count > MostEdits)
            return Refuse(draft, new Refusal("too_many_lines", $"At most {MostEdits} edits are taken at once"));
        var (changes, rests) = (ImmutableArray.CreateBuilder<FieldChange>(), ImmutableDictionary<long, long>.Empty);
        var now = draft;
        foreach (var edit in edits)
        {
            var one = Kept(now, One(now, edit, facts), facts, divides: true);
            if (one.Refused is not null)
                return one with { Draft = draft, Changes = [] };
            now = one.Draft;
            changes.AddRange(one.Changes);
            rests = rests.SetItems(one.Rests);
        }
        return new Edited(now, changes.ToImmutable()) { Rests = rests };
    }

    /// <summary>
    /// Takes rows that were pasted, behind a line or at the end. What is beyond a bound comes without it, for a check
    /// to name; more rows than a sheet holds are refused together.
    /// </summary>
    public static Edited Paste(Draft draft, Pasted pasted, long? after, DoorFacts facts)
    {
        ArgumentNullException.ThrowIfNull(draft);
        ArgumentNullException.ThrowIfNull(pasted);
        var many = Math.Max(pasted.TooMany, pasted.Rows.Length);
        if (draft.Lines.Length + many > MostLines)
            return Refuse(
                draft,
                new Refusal("too_many_lines", $"A sheet holds {MostLines:#,0} lines; these rows are {many:#,0}")
            );
        var changes = ImmutableArray.CreateBuilder<FieldChange>();
        var now = draft;
        foreach (var row in pasted.Rows)
        {
            // Whoever pastes types; the buyer asked for nothing in these words.
            var line = row.Line is { } asked
                ? AskedLines.LineOf(now, asked, facts) with
                {
                    Asked = AskedFor.Nothing,
                }
                : Bare(now, LineKind.Heading) with
                {
                    Words = Short(row.Heading ?? ""),
                };
            if (
                row.Price is { } price and <= LineFields.MostPrice
                && LineFields.Hand(line, ByHandKind.NetPrice, price * BaseOf(line, facts), facts).Line is { } priced
            )
                line = priced;
            var one = Insert(now, line, after, facts);
            now = one.Draft;
            changes.AddRange(one.Changes);
            after = after is null ? null : line.Key;
        }
        return new Edited(now, changes.ToImmutable());
    }

    // How many units the price of a line is for.
    private static decimal BaseOf(SheetLine line, DoorFacts facts) =>
        line.Item is { } id && facts.Book.Find(id) is { } item
            ? BasePrice
                .Find(
                    facts.Book,
                    Rates.On(facts.Today, facts.Book.Home, facts.Book.DatedRates),
                    new PriceQuestion(item, line.Quantity, line.Unit, facts.Buyer, facts.Currency, facts.Today)
                )
                .PriceBase
            : 1m;

    /// <summary>
    /// Takes changes back, the last first. A field that stands otherwise by now is a clash, and then nothing is taken
    /// back.
    /// </summary>
    public static Edited TakeBack(Draft draft, IReadOnlyList<FieldChange> changes, DoorFacts facts)
    {
        ArgumentNullException.ThrowIfNull(changes);
        var back = ImmutableArray.CreateBuilder<FieldChange>();
        var now = draft;
        foreach (var change in changes.Reverse())
        {
            var one = Kept(now, Back(now, change, facts), facts, divides: false);
            if (one.Refused is not null || one.Clash is not null)
                return one with { Draft = draft, Changes = [] };
            now = one.Draft;
            back.AddRange(one.Changes);
        }
        return new Edited(now, back.ToImmutable());
    }

    /// <summary>
    /// What only shows once it is priced: a price typed so far over its base that it is a slip. Null where none is.
    /// </summary>
    public static Refusal? Slip(PricedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var line = sheet.Sold.FirstOrDefault(l =>
            l.HasPrice && l.Terms.Base > 0 && l.DiscountPercent < -LineFields.MostSurcharge
        );
        return line is null
            ? null
            : new Refusal(
                "number",
                FormattableString.Invariant(
                    $"{line.Figures.NetPrice:0.0000} is more than ten times the price of {line.Item?.Code}, {line.Terms.Base:0.0000}"
                ),
                "net"
            );
    }

    internal static string Short(string text) => text.Length <= MostLetters ? text : text[..MostLetters];

    private static Edited One(Draft draft, SheetEdit edit, DoorFacts facts)
    {
        var value = (edit.Value ?? "").Trim();
        switch (edit.Kind)
        {
            case EditKind.Set when edit.Line is null:
                return SetTerm(draft, edit.Field ?? "", value, facts);
            case EditKind.Add:
                return Add(draft, value, edit, facts);
            case EditKind.AddHeading:
                return Insert(draft, Bare(draft, LineKind.Heading) with { Words = Short(value) }, edit.After, facts);
            case EditKind.AddComment:
                return Insert(draft, Bare(draft, LineKind.Comment) with { Words = Short(value) }, edit.After, facts);
            case EditKind.AddCharge:
                return AddCharge(draft, value, edit.After, facts);
            case EditKind.Gather:
                return Gather(draft, value, edit.Field ?? "", facts);
        }
        var at = At(draft, edit.Line ?? 0);
        if (at < 0)
            return Refuse(draft, new Refusal("line_gone", "That line is no longer there; somebody took it out"));
        return edit.Kind switch
        {
            EditKind.Set => SetLine(draft, at, edit.Field ?? "", value, facts),
            EditKind.Remove => facts.Begun?.Lines.GetValueOrDefault(edit.Line ?? 0) is { } went
                ? RemoveRest(draft, at, went, facts)
                : Remove(draft, at, facts),
            EditKind.Alternative => Alternative(draft, at, facts),
            _ => Move(draft, at, edit.After),
        };
    }

    private static Edited SetTerm(Draft draft, string name, string value, DoorFacts facts)
    {
        if (facts.Term(name) is not { } term)
            return Refuse(draft, new Refusal("field_unknown", $"There is no field “{name}”", name));
        if (value.Length == 0 && term.Needed)
            return Refuse(draft, new Refusal("field_needed", $"“{term.Label}” cannot be empty", name));
        var taken = value.Length == 0 ? new Taken(null) : term.Read(value, facts);
        if (taken.Refused is { } refused)
            return Refuse(draft, refused with { Field = name });
        var also = taken.Also.IsDefault ? [] : taken.Also;
        return PutTerms(draft, [(name, taken.Text), .. also], facts);
    }

    // Lines that still say what the item is called say so in the new language; what somebody typed stays.
    private static Edited PutTerms(Draft draft, IEnumerable<(string Name, string? Text)> terms, DoorFacts facts)
    {
        var changes = ImmutableArray.CreateBuilder<FieldChange>();
        var (head, lines) = (draft.Head, draft.Lines);
        foreach (var (name, text) in terms)
        {
            var before = head.Text(name);
            if (before == text)
                continue;
            head = head.With(name, text, facts.Hand);
            changes.Add(new FieldChange(null, name, before, head.Text(name)));
            if (name != HeadTerms.Language.Name)
                continue;
            for (var i = 0; i < lines.Length; i++)
            {
                var line = lines[i];
                if (
                    line.Item is not { } id
                    || facts.Book.Find(id) is not { } item
                    || line.Words != item.WordsIn(before ?? "en")
                )
                    continue;
                lines = lines.SetItem(i, line with { Words = item.WordsIn(text ?? "en") });
                changes.AddRange(LineText.Changes(line, lines[i], facts));
            }
        }
        return new Edited(draft with { Head = head, Lines = lines }, changes.ToImmutable());
    }

    private static Edited SetLine(Draft draft, int at, string field, string value, DoorFacts facts)
    {
        if (LineFields.Find(field) is not { } known)
            return Refuse(draft, new Refusal("field_unknown", $"A line has no field “{field}”", field));
        var line = draft.Lines[at];
        if (!line.HasFigures && field is not ("words" or "note" or "inner"))
            return Refuse(
                draft,
                new Refusal("field_unknown", "A heading or a comment has words and nothing else", field)
            );
        if (IsSpread(field, value))
            return Spread(draft, at, value, facts);
        return line.Kind == LineKind.Charge && field is "item" or "discount" or "margin"
            ? Refuse(draft, new Refusal("field_unknown", "A charge has words, a quantity and a price", field))
            : PutLine(draft, at, known.Set(line, value, draft.Head, facts), facts);
    }

    private static Edited PutLine(Draft draft, int at, LineTaken taken, DoorFacts facts) =>
        taken.Line is { } after
            ? new Edited(
                draft with
                {
                    Lines = draft.Lines.SetItem(at, after),
                },
                [.. LineText.Changes(draft.Lines[at], after, facts)]
            )
            : Refuse(draft, taken.Refused!);

    private static SheetLine Bare(Draft draft, LineKind kind) =>
        new(draft.NextKey, kind, null, "", 0m, Unit.Piece, ByHand.None, [], false, "", AskedFor.Nothing);

    private static Edited Insert(Draft draft, SheetLine line, long? after, DoorFacts facts)
    {
        if (draft.Lines.Length >= MostLines)
            return Refuse(draft, new Refusal("too_many_lines", $"A sheet holds {MostLines} lines"));
        var at = after is { } key ? At(draft, key) + 1 : draft.Lines.Length;
        var lines = draft.Lines.Insert(at, line);
        return new Edited(
            draft with
            {
                Lines = lines,
                NextKey = Math.Max(draft.NextKey, line.Key + 1),
            },
            [new FieldChange(line.Key, "line", null, LineText.Whole(line, Behind(lines, at), facts))]
        );
    }

    private static Edited Remove(Draft draft, int at, DoorFacts facts)
    {
        var line = draft.Lines[at];
        return new Edited(
            draft with
            {
                Lines = draft.Lines.RemoveAt(at),
            },
            [new FieldChange(line.Key, "line", LineText.Whole(line, Behind(draft.Lines, at), facts), null)]
        );
    }

    private static Edited Move(Draft draft, int at, long? after)
    {
        var line = draft.Lines[at];
        var without = draft.Lines.RemoveAt(at);
        var to = 0;
        if (after is { } key)
        {
            while (to < without.Length && without[to].Key != key)
                to++;
            to = Math.Min(to + 1, without.Length);
        }
        var lines = without.Insert(to, line);
        var (before, now) = (Text(Behind(draft.Lines, at)), Text(Behind(lines, to)));
        return new Edited(
            draft with
            {
                Lines = lines,
            },
            before == now ? [] : [new FieldChange(line.Key, "place", before, now)]
        );
    }

    private static Edited Back(Draft draft, FieldChange change, DoorFacts facts)
    {
        if (change.Line is not { } key)
            return draft.Head.Text(change.Field) == change.After
                ? PutTerms(draft, [(change.Field, change.Before)], facts)
                : Clash(draft, change);
        var at = At(draft, key);
        if (change.Field == "line")
            return LineBack(draft, at, key, change, facts);
        if (at < 0)
            return Clash(draft, change);
        if (change.Field == "place")
            return Text(Behind(draft.Lines, at)) == change.After
                ? Move(draft, at, Key(change.Before))
                : Clash(draft, change);
        var line = draft.Lines[at];
        return LineText.Get(line, change.Field, facts) == change.After
            ? PutLine(draft, at, LineText.Put(line, change.Field, change.Before, draft.Head, facts), facts)
            : Clash(draft, change);
    }

    private static Edited LineBack(Draft draft, int at, long key, FieldChange change, DoorFacts facts)
    {
        if (change.Before is { } whole)
        {
            if (at >= 0 || draft.Lines.Length >= MostLines)
                return Clash(draft, change);
            var (taken, behind) = LineText.FromWhole(key, whole, draft.Head, facts);
            if (taken.Line is not { } line)
                return Refuse(draft, taken.Refused!);
            var place = behind is { } b ? At(draft, b) + 1 : 0;
            var lines = draft.Lines.Insert(place, line);
            return new Edited(draft with { Lines = lines }, [change with { Before = null, After = whole }]);
        }
        if (at < 0)
            return Clash(draft, change);
        // A line that was added and then changed by somebody is not simply taken out again.
        var asAdded = LineText.FromWhole(key, change.After!, draft.Head, facts).Line.Line;
        return asAdded is null || LineText.Changes(asAdded, draft.Lines[at], facts).Any()
            ? Clash(draft, change)
            : Remove(draft, at, facts);
    }

    private static Edited Clash(Draft draft, FieldChange change) => new(draft, [], null, change);

    private static Edited Refuse(Draft draft, Refusal refused) =>
        new(draft, [], refused with { Words = refused.Words + "; what stood there was kept." });

    private static int At(Draft draft, long key)
    {
        for (var i = 0; i < draft.Lines.Length; i++)
        {
            if (draft.Lines[i].Key == key)
                return i;
        }
        return -1;
    }

    private static long? Behind(ImmutableArray<SheetLine> lines, int at) => at == 0 ? null : lines[at - 1].Key;

    private static string? Text(long? key) => key?.ToString(System.Globalization.CultureInfo.InvariantCulture);

    private static long? Key(string? text) =>
        text is null ? null : long.Parse(text, System.Globalization.CultureInfo.InvariantCulture);
}
