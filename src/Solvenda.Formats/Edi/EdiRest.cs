using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Edi;

/// <summary>
/// What of a message no value was taken from: segments that carry quantities, prices or amounts are left over until a
/// person has seen them; the others are listed with the reason.
/// </summary>
internal static class EdiRest
{
    private const int MostLetters = 80;

    // A file of thousands of lines with the same unused segment behind each says so once for each tag, and how often.
    private const int MostOfATag = 3;

    /// <param name="frame">Segments that hold a message together and carry no value of their own.</param>
    /// <param name="matters">Segments that carry quantities, prices, amounts.</param>
    /// <param name="name">What a segment is called, for people.</param>
    public static OrderDocument With(
        OrderDocument document,
        EdiMessage message,
        IReadOnlySet<Segment> used,
        string[] frame,
        string[] matters,
        Func<Segment, string> name
    )
    {
        var segments = message.Segments;
        var isUsed = Used(document, segments);
        var overs = ImmutableArray.CreateBuilder<LeftOver>();
        var unused = ImmutableArray.CreateBuilder<Unused>();
        Dictionary<string, int>? counts = null;
        for (var i = 0; i < segments.Count; i++)
        {
            var segment = segments[i];
            if (isUsed[i] || used.Contains(segment) || segment.OneOf(frame).Length > 0)
                continue;
            var tag = segment.Tag;
            counts ??= [];
            if ((counts[tag] = counts.GetValueOrDefault(tag) + 1) > MostOfATag)
                continue;
            var called = name(segment) is { Length: > 0 } n ? $"{tag}, {n}" : tag;
            var words = segment.Length > MostLetters ? segment.Text[..MostLetters] + "…" : segment.Text;
            if (matters.Contains(tag))
                overs.Add(new LeftOver(words, EdiInterchange.Where(segment), $"No value was read from it ({called})."));
            else
                unused.Add(new Unused(words, $"nothing here uses it ({called})", EdiInterchange.Where(segment)));
        }
        if (counts is null)
            return document;
        foreach (var (tag, count) in counts.Where(c => c.Value > MostOfATag))
            unused.Add(
                new Unused(
                    tag,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{count - MostOfATag:#,0} more of these are not used either"
                    ),
                    new Evidence(0, 0, 0)
                )
            );
        return document with
        {
            LeftOvers = [.. document.LeftOvers, .. overs],
            Unused = [.. document.Unused, .. unused],
        };
    }

    private static bool[] Used(OrderDocument d, List<Segment> segments)
    {
        var marks = new Marks(segments);
        marks.Add(d.Contact);
        marks.Add(d.PoNumber);
        marks.Add(d.QuoteNumber);
        marks.Add(d.Wanted);
        marks.Add(d.DeliverTo);
        marks.Add(d.Incoterm);
        marks.Add(d.IncotermPlace);
        marks.Add(d.Currency);
        marks.Add(d.PaymentDays);
        marks.Add(d.Goods);
        marks.Add(d.Note);
        foreach (var clue in d.Clues)
            marks.Add(clue.Where);
        foreach (var over in d.LeftOvers)
            marks.Add(over.Where);
        foreach (var line in d.Lines)
        {
            marks.Add(line.Evidence);
            marks.Add(line.Quantity);
            marks.Add(line.Price);
            marks.Add(line.Wanted);
            marks.Add(line.Amount);
            marks.Add(line.BuyersCode);
            marks.Add(line.SellersCode);
            marks.Add(line.Gtin);
        }
        return marks.IsUsed;
    }

    // Values stand mostly in the segment of the last one, or right behind it.
    private sealed class Marks(List<Segment> segments)
    {
        private int _last;

        public bool[] IsUsed { get; } = new bool[segments.Count];

        public void Add<T>(Stated<T>? stated)
        {
            if (stated is not null)
                Add(stated.Where);
        }

        public void Add(ImmutableArray<Evidence> all)
        {
            foreach (var where in all)
                Add(where);
        }

        // Evidence begins within its segment, and may reach over several.
        public void Add(Evidence where)
        {
            if (segments.Count == 0)
                return;
            var at =
                Holds(_last, where.Start) ? _last
                : Holds(_last + 1, where.Start) ? _last + 1
                : Find(where.Start);
            _last = at;
            var end = where.Start + Math.Max(1, where.Length);
            for (; at < segments.Count && segments[at].Start < end; at++)
                IsUsed[at] = true;
        }

        private bool Holds(int at, int start) =>
            at < segments.Count
            && segments[at].Start <= start
            && (at + 1 == segments.Count || segments[at + 1].Start > start);

        private int Find(int start)
        {
            var (low, high) = (0, segments.Count - 1);
            while (low < high)
            {
                var middle = (low + high + 1) / 2;
                if (segments[middle].Start <= start)
                    low = middle;
                else
                    high = middle - 1;
            }
            return low;
        }
    }
}
