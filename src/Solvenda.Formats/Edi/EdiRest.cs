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
        var isUsed = new bool[segments.Count];
        foreach (var where in Taken(document))
            Mark(segments, where, isUsed);
        var overs = ImmutableArray.CreateBuilder<LeftOver>();
        var unused = ImmutableArray.CreateBuilder<Unused>();
        var counts = new Dictionary<string, int>();
        for (var i = 0; i < segments.Count; i++)
        {
            var segment = segments[i];
            if (isUsed[i] || used.Contains(segment) || segment.OneOf(frame).Length > 0)
                continue;
            var tag = segment.Tag;
            if ((counts[tag] = counts.GetValueOrDefault(tag) + 1) > MostOfATag)
                continue;
            var called = name(segment) is { Length: > 0 } n ? $"{tag}, {n}" : tag;
            var words = segment.Length > MostLetters ? segment.Text[..MostLetters] + "…" : segment.Text;
            if (matters.Contains(tag))
                overs.Add(new LeftOver(words, EdiInterchange.Where(segment), $"No value was read from it ({called})."));
            else
                unused.Add(new Unused(words, $"nothing here uses it ({called})", EdiInterchange.Where(segment)));
        }
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

    // Evidence begins within its segment, and may reach over several.
    private static void Mark(List<Segment> segments, Evidence where, bool[] isUsed)
    {
        var (low, high) = (0, segments.Count - 1);
        while (low < high)
        {
            var middle = (low + high + 1) / 2;
            if (segments[middle].Start <= where.Start)
                low = middle;
            else
                high = middle - 1;
        }
        for (; low < segments.Count && segments[low].Start < where.Start + Math.Max(1, where.Length); low++)
            isUsed[low] = true;
    }

    private static IEnumerable<Evidence> Taken(OrderDocument d)
    {
        IEnumerable<Evidence?> heads =
        [
            d.Contact?.Where,
            d.PoNumber?.Where,
            d.QuoteNumber?.Where,
            d.Wanted?.Where,
            d.DeliverTo?.Where,
            d.Incoterm?.Where,
            d.IncotermPlace?.Where,
            d.Currency?.Where,
            d.PaymentDays?.Where,
            d.Goods?.Where,
            d.Note?.Where,
        ];
        return heads
            .OfType<Evidence>()
            .Concat(d.Clues.SelectMany(c => c.Where))
            .Concat(d.LeftOvers.Select(o => o.Where))
            .Concat(
                d.Lines.SelectMany(l =>
                    new Evidence?[] { l.Quantity?.Where, l.Price?.Where, l.Wanted?.Where, l.Amount?.Where }
                        .OfType<Evidence>()
                        .Concat(l.Evidence)
                        .Concat(new[] { l.BuyersCode?.Where, l.SellersCode?.Where, l.Gtin?.Where }.OfType<Evidence>())
                )
            );
    }
}
