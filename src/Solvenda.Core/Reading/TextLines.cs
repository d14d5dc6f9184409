using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// Finds the lines of running text: quantities are the anchors, and what stands behind one (or before it, where nothing
/// stands behind) are the words for an item.
/// </summary>
internal static partial class TextLines
{
    /// <summary>More lines are no letter; those below are kept in the original, and that is said.</summary>
    public const int Most = 500;

    private const int FarthestPrice = 12;

    /// <summary>The lines of a text, for a buyer that is known or not.</summary>
    public static ImmutableArray<ReadLine> Of(Scene scene, TextMarks marks)
    {
        var fresh = scene.Text;
        var numbers = new Queue<Match>(marks.Numbers);
        var lines = ImmutableArray.CreateBuilder<ReadLine>();
        var spokenOf = "";
        foreach (var (start, length) in TextPieces.Clauses(fresh))
        {
            var clause = new Clause(fresh.Substring(start, length), start) { SpokenOf = spokenOf };
            spokenOf = clause.Text;
            var own = new List<Anchor>();
            while (numbers.TryPeek(out var number) && number.Index < start + length)
            {
                numbers.Dequeue();
                if (number.Index >= start)
                    own.Add(
                        new Anchor(number, number.Index - start, Math.Min(number.Length, start + length - number.Index))
                    );
            }
            AddLines(
                clause,
                TextPieces.Counting(clause.Text, own, scene.Grammar, scene.Context.Items),
                marks,
                scene,
                lines
            );
        }
        return lines.ToImmutable();
    }

    private static void AddLines(
        Clause clause,
        List<Anchor> anchors,
        TextMarks marks,
        Scene scene,
        ImmutableArray<ReadLine>.Builder lines
    )
    {
        var (text, start) = (clause.Text, clause.Offset);
        var second = anchors.Count > 1 ? anchors[1].At : text.Length;
        var leftward =
            anchors.Count > 0 && ThingsStandBefore(text[..anchors[0].At], text[anchors[0].End..second], scene);
        for (var i = 0; i < anchors.Count && lines.Count < Most; i++)
        {
            var next = i + 1 < anchors.Count ? anchors[i + 1].At : text.Length;
            var left = i == 0 ? 0 : anchors[i - 1].End;
            var price =
                marks.PriceIn(start + anchors[i].End, start + next)
                ?? (leftward ? marks.PriceIn(start + left, start + anchors[i].At) : null);
            var (from, to) = Thing(text, anchors[i], left, next, start, leftward, marks, scene);
            // A price that other words part from the thing is not its.
            if (price is not null && price.Index - start - Math.Max(to, anchors[i].End) > FarthestPrice)
                price = null;
            if (
                to > from
                && TextLine.Of(clause, anchors[i].Match, from, to, price, lines.Count > 0 ? lines[^1] : null, scene)
                    is { } line
            )
                lines.Add(IsPast(text, anchors[i].At, scene) ? Was(line) : line);
        }
    }

    // "We ordered 40 shackles in May": what was is not what is wanted.
    private static bool IsPast(string clause, int at, Scene scene) =>
        scene.Language.Says(clause[(clause.LastIndexOf(',', Math.Max(0, at - 1)) + 1)..at], l => l.Past);

    private static ReadLine Was(ReadLine line) =>
        line with
        {
            Quantity = line.Quantity with
            {
                Sure = Math.Min(line.Quantity.Sure, 0.5m),
                How = "what was, or what is wanted?",
            },
        };

    // "Rope 12 mm: 40 m", "7310-0042 3": the thing stands before its number. "For PO 881: 10 m of rope" only leads up.
    private static bool ThingsStandBefore(string before, string behind, Scene scene) =>
        (LeansLeft().IsMatch(before) && (Names(before, scene) || !(Names(behind, scene) || HasCode(behind, scene))))
        || HasCode(before, scene);

    private static bool HasCode(string text, Scene scene) =>
        text.Split(TextPieces.Blanks, StringSplitOptions.RemoveEmptyEntries)
            .Any(w => scene.Context.Items.ByCode(w.TrimEnd('.')) is not null);

    // Whether a word stands there that things of ours are called by.
    private static bool Names(string text, Scene scene) =>
        ItemFinder
            .Normal(text)
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Any(w => w.Length > 2 && !w.Any(char.IsDigit) && scene.Context.Items.Knows(w, scene.Language));

    // Where the words for a thing stand; nothing where there are none.
    private static (int From, int To) Thing(
        string text,
        Anchor anchor,
        int left,
        int next,
        int start,
        bool leftward,
        TextMarks marks,
        Scene scene
    )
    {
        var until = marks.Until(start + anchor.End, start + next) - start;
        var (from, to) =
            anchor.ThingFrom is { } thing ? Phrase(text, thing, anchor.At, scene)
            : leftward ? Phrase(text, BehindLead(text, left, anchor.At, scene), anchor.At, scene)
            : Phrase(text, anchor.End, until, scene);
        if (scene.Grammar.Them.Match(text[anchor.End..next].TrimStart()) is { Success: true } them)
        {
            from = text.IndexOf(them.Value, anchor.End, StringComparison.Ordinal);
            to = from + them.Length;
        }
        if (to > from)
            return (from, to);
        return leftward ? Phrase(text, anchor.End, until, scene)
            : left == 0 ? Phrase(text, 0, anchor.At, scene)
            : (0, 0);
    }

    // "Please send rope PS3-12-WH for 1.000 m": the thing is what stands behind the last word that ends one.
    private static int BehindLead(string clause, int from, int to, Scene scene)
    {
        foreach (var word in clause[from..to].Split(TextPieces.Blanks, StringSplitOptions.RemoveEmptyEntries))
        {
            if (scene.Context.Items.ByCode(word.TrimEnd('.')) is null)
                continue;
            var lead = clause[from..clause.IndexOf(word, from, StringComparison.Ordinal)];
            return scene.Grammar.PhraseEnd.Matches(lead).LastOrDefault() is { } end
                ? from + end.Index + end.Length
                : from;
        }
        // "Please send deck varnish 1 l: 12": what asks for it is no part of its name.
        while (
            scene.Grammar.PhraseEnd.Match(clause, from, to - from) is { Success: true } stop
            && char.IsLetter(stop.Value[0])
            && string.IsNullOrWhiteSpace(clause[from..stop.Index])
        )
            from = stop.Index + stop.Length;
        return from;
    }

    private static (int From, int To) Phrase(string clause, int from, int to, Scene scene)
    {
        while (from < to && !char.IsLetterOrDigit(clause[from]))
            from++;
        var whole = to;
        var stop = scene.Grammar.PhraseEnd.Match(clause, from, to - from);
        if (stop.Success)
            to = stop.Index;
        // "rope 12 mm, white": what stands behind the comma belongs to it, as long as things are called so.
        while (stop.Success && stop.Value == "," && to < whole)
        {
            var end = clause.IndexOfAny([',', ';', '\n', '.'], to + 1, whole - to - 1);
            end = end < 0 ? whole : end;
            var words = ItemFinder.Normal(clause[(to + 1)..end]).Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (words.Length is 0 or > 4 || !words.All(w => scene.Context.Items.Knows(w, scene.Language)))
                break;
            to = end;
            if (end >= whole || clause[end] != ',')
                break;
        }
        to = TrimEnd(clause, from, to);
        // "… three strand and" before the next quantity: the joining word belongs to neither.
        foreach (var joint in scene.Grammar.Joints)
        {
            if (
                to - from > joint.Length
                && clause.AsSpan(from, to - from).EndsWith(joint, StringComparison.OrdinalIgnoreCase)
            )
                to = TrimEnd(clause, from, to - joint.Length);
        }
        var lead = scene.Grammar.Article.Match(clause, from, Math.Max(0, to - from));
        return (from + (lead.Success && lead.Index == from ? lead.Length : 0), to);
    }

    private static int TrimEnd(string clause, int from, int to)
    {
        while (to > from && !char.IsLetterOrDigit(clause[to - 1]))
            to--;
        return to;
    }

    [GeneratedRegex(@"[:=–-]\s*$")]
    private static partial Regex LeansLeft();
}
