using System.Collections.Immutable;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>
/// Sheets put together from others, and what the buyer accepted of those, put together in the same way, to hold them
/// against. A line says where it was taken from.
/// </summary>
internal static class Origins
{
    /// <summary>One sheet of several, each under a heading of its own.</summary>
    /// <param name="froms">What each is called, and its sheet.</param>
    public static SheetRow Joined(IReadOnlyList<(string Name, SheetRow Sheet)> froms)
    {
        var first = froms[0].Sheet;
        var made = new SheetRow
        {
            Currency = first.Currency,
            PricingDate = first.PricingDate,
            FrozenRate = first.FrozenRate,
            Channel = first.Channel,
        };
        var draft = new Draft(first.Head, [], 1);
        foreach (var (name, sheet) in froms)
        {
            draft = With(draft, Heading(draft.NextKey, name));
            foreach (var line in Choices.Settled(sheet.ToDraft().Lines))
                draft = With(draft, line with { Key = draft.NextKey, From = new LineOrigin(sheet.Id, line.Key) });
        }
        made.Take(draft);
        made.Kept = Kept(draft.Lines, [.. froms.Select(f => f.Sheet)], forAny: false);
        return made;
    }

    /// <summary>
    /// What the buyer accepted of what a sheet was joined from; what was left out of it stands there too.
    /// </summary>
    public static SheetRow Accepted(SheetRow made, IReadOnlyList<SheetRow> froms)
    {
        var taken = made.ToDraft().Lines.Where(l => l.From is not null).ToDictionary(l => l.From!, l => l.Key);
        var next = made.NextKey;
        var lines = froms.SelectMany(f =>
            Choices
                .Settled(f.ToDraft().Lines)
                .Select(l => (Line: l, From: new LineOrigin(f.Id, l.Key)))
                .Select(l => l.Line with { Key = taken.TryGetValue(l.From, out var key) ? key : next++, From = l.From })
        );
        return Beside(made, froms, froms[0].Head, [.. lines], forAny: false);
    }

    /// <summary>
    /// What of a frame is agreed for what a sheet calls off of it: its lines, in so far as they are left, at the prices
    /// of
    /// the frame.
    /// </summary>
    public static SheetRow Agreed(SheetRow made, SheetRow frame, CallOff left)
    {
        var lines = frame.ToDraft().Lines.ToDictionary(l => l.Key);
        var called =
            from line in made.ToDraft().Lines
            where line.From is { } origin && origin.Sheet == frame.Id && lines.ContainsKey(origin.Key)
            let rest = left.RestOf(line.From!.Key)
            select lines[line.From!.Key] with
            {
                Key = line.Key,
                From = line.From,
                Wanted = line.Wanted,
                Quantity = Math.Min(line.Quantity, rest),
            };
        return Beside(made, [frame], OfRelease(frame.Head), [.. called], forAny: true);
    }

    /// <summary>What lines were priced at where they were taken from.</summary>
    /// <param name="forAny">Whether the price holds for any quantity.</param>
    public static string Kept(ImmutableArray<SheetLine> lines, IReadOnlyList<SheetRow> froms, bool forAny) =>
        KeptLines.Together(
            froms.ToDictionary(f => f.Id, f => f.Kept),
            lines.Where(l => l.From is not null).Select(l => (l.Key, l.From!)),
            forAny
        );

    /// <summary>The head of a frame, for what is called off of it: goods that go now.</summary>
    public static Head OfRelease(Head frame) =>
        new[] { HeadTerms.Kind, HeadTerms.Release, HeadTerms.Wanted, HeadTerms.Freight, HeadTerms.Insurance }.Aggregate(
            frame,
            (head, term) => head.With(term.Name, null, null)
        );

    private static SheetRow Beside(
        SheetRow made,
        IReadOnlyList<SheetRow> froms,
        Head head,
        ImmutableArray<SheetLine> lines,
        bool forAny
    )
    {
        var beside = new SheetRow
        {
            Currency = made.Currency,
            PricingDate = made.PricingDate,
            FrozenRate = made.FrozenRate,
            Channel = made.Channel,
        };
        beside.Take(new Draft(head, lines, made.NextKey + lines.Length));
        beside.Kept = Kept(lines, froms, forAny);
        return beside;
    }

    private static Draft With(Draft draft, SheetLine line) =>
        draft with
        {
            Lines = draft.Lines.Add(line),
            NextKey = draft.NextKey + 1,
        };

    private static SheetLine Heading(long key, string words) =>
        new(
            key,
            LineKind.Heading,
            null,
            words,
            0m,
            Core.Units.Unit.Piece,
            Core.Pricing.ByHand.None,
            [],
            false,
            "",
            AskedFor.Nothing
        );
}
