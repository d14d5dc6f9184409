using System.Collections.Immutable;
using System.Globalization;

namespace Solvenda.Core.Reading;

/// <summary>Lines that one part of a message states: the letter, a table, a page.</summary>
/// <param name="Name">What the part is called.</param>
internal sealed record Source(string Name, int Part, ImmutableArray<ReadLine> Lines);

/// <summary>
/// Brings together what several parts of one message say. What they say alike counts once; where they say different
/// things both are shown, and neither is taken silently.
/// </summary>
internal static class Sources
{
    // How sure a quantity is that another part contradicts, or a line that only running text knows.
    private const decimal Contradicted = 0.4m;
    private const decimal OnlySaid = 0.6m;

    /// <param name="tables">Each with all of its lines.</param>
    /// <param name="said">Running text beside them, with the lines that it surely names.</param>
    public static (ImmutableArray<ReadLine> Lines, ImmutableArray<Unused> Unused) Merged(
        IReadOnlyList<Source> tables,
        IReadOnlyList<Source> said,
        ItemFinder items
    )
    {
        var lines = new List<(ReadLine Line, string From)>();
        var unused = ImmutableArray.CreateBuilder<Unused>();
        foreach (var table in tables)
        {
            if (lines.Count == 0 || !Repeats(lines, table))
                lines.AddRange(table.Lines.Select(l => (l, table.Name)));
            else
            {
                unused.Add(
                    new Unused(table.Name, $"says again what {lines[0].From} says", new Evidence(table.Part, 0, 0))
                );
                Compare(lines, table, l => l, items);
            }
        }
        // What says most comes first; what only another part says is asked.
        foreach (var source in said.OrderByDescending(s => s.Lines.Length))
        {
            var isFirst = lines.Count == 0;
            Compare(lines, source, l => isFirst ? l : OnlyIn(l, source.Name), items);
        }
        return ([.. lines.Select(l => l.Line)], unused.ToImmutable());
    }

    private static ReadLine OnlyIn(ReadLine line, string name) =>
        line with
        {
            Quantity = line.Quantity with
            {
                Sure = Math.Min(line.Quantity.Sure, OnlySaid),
                How = $"stands only in {name}",
            },
        };

    // The same order as a sheet and as a page: nearly all of its items stand there already.
    private static bool Repeats(List<(ReadLine Line, string From)> lines, Source more)
    {
        var known = lines.Where(l => IsKnown(l.Line)).Select(l => l.Line.Item.Value).ToHashSet();
        var theirs = more.Lines.Where(IsKnown).ToList();
        return theirs.Count > 0 && theirs.Count(l => known.Contains(l.Item.Value)) * 2 > more.Lines.Length;
    }

    private static void Compare(
        List<(ReadLine Line, string From)> lines,
        Source more,
        Func<ReadLine, ReadLine> alone,
        ItemFinder items
    )
    {
        var matched = new HashSet<int>();
        foreach (var line in more.Lines)
        {
            var same = Enumerable
                .Range(0, lines.Count)
                .Where(i => lines[i].From != more.Name && !matched.Contains(i) && IsSame(lines[i].Line, line))
                .OrderBy(i => lines[i].Line.Quantity.Value == line.Quantity.Value ? 0 : 1)
                .Cast<int?>()
                .FirstOrDefault();
            if (same is not { } at)
            {
                lines.Add((alone(line), more.Name));
                continue;
            }
            matched.Add(at);
            lines[at] = (
                lines[at].Line.Quantity.Value == line.Quantity.Value || line.Quantity.Value is null
                    ? WithEvidence(lines[at].Line, line)
                    : Torn(lines[at].Line, lines[at].From, line, more.Name, items),
                lines[at].From
            );
        }
    }

    private static bool IsKnown(ReadLine line) => line.Item is { Sure: >= ReadLine.SureEnough, Value.Value: > 0 };

    private static bool IsSame(ReadLine a, ReadLine b) => IsKnown(a) && IsKnown(b) && a.Item.Value == b.Item.Value;

    // What the other part says too lights up with it.
    private static ReadLine WithEvidence(ReadLine line, ReadLine other) =>
        line with
        {
            Evidence = line.Evidence.AddRange(other.Evidence),
        };

    private static ReadLine Torn(ReadLine line, string from, ReadLine other, string otherFrom, ItemFinder items)
    {
        var item = items.ById(line.Item.Value)!;
        Proposal Proposed(ReadLine l, string where) =>
            new(item.Id, item.Code, item.Words, l.Quantity.Value ?? 0m, l.Unit.Value, 0.5m, where);
        return WithEvidence(line, other) with
        {
            Quantity = line.Quantity with
            {
                Sure = Contradicted,
                How = string.Create(
                    CultureInfo.InvariantCulture,
                    $"{from} says {line.Quantity.Value:0.######}, {otherFrom} says {other.Quantity.Value:0.######}"
                ),
                Evidence = line.Quantity.Evidence.AddRange(other.Quantity.Evidence),
            },
            Proposals = [Proposed(line, from), Proposed(other, otherFrom)],
        };
    }
}
