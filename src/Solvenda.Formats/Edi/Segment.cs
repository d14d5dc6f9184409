namespace Solvenda.Formats.Edi;

/// <summary>The characters that cut an interchange into segments, elements and components.</summary>
/// <param name="Release">Takes the meaning of the character behind it away (EDIFACT); null where the syntax has
/// none.</param>
public sealed record Separators(
    char Element,
    char Component,
    char Terminator,
    char? Release = null,
    char DecimalMark = '.'
);

/// <summary>
/// One segment. Where its elements end is known from the one pass over the text; their own text is cut out only when
/// somebody asks for it, since of most nobody does.
/// </summary>
public sealed class Segment
{
    private readonly string _text;
    private readonly Separators _separators;
    private readonly Ends _ends;
    private readonly int _first;
    private readonly int _shift;

    private Segment(
        string text,
        int start,
        int length,
        Separators separators,
        Ends ends,
        int first,
        int elements,
        int shift
    )
    {
        (_text, Start, Length, _separators, _ends, _first, Elements, _shift) = (
            text,
            start,
            length,
            separators,
            ends,
            first,
            elements,
            shift
        );
    }

    // Where the tag and every element of all segments ends: one array for the whole interchange.
    private sealed class Ends
    {
        private int[] _all = new int[1024];

        public int Count { get; private set; }

        public int this[int at] => _all[at];

        public void Add(int end)
        {
            if (Count == _all.Length)
                Array.Resize(ref _all, Count * 2);
            _all[Count++] = end;
        }
    }

    /// <summary>Characters of the interchange that it stands in, without its terminator.</summary>
    public int Start { get; }

    public int Length { get; }

    /// <summary>Number of elements behind the tag.</summary>
    public int Elements { get; }

    public string Tag => _text.AsSpan(Start, EndOf(0) - Start).Trim().ToString();

    /// <summary>As it stands in the interchange.</summary>
    public string Text => _text.Substring(Start, Length);

    private int EndOf(int element) => _ends[_first + element] + _shift;

    /// <summary>Whether it is this one, without cutting anything out.</summary>
    public bool Is(string tag)
    {
        ArgumentNullException.ThrowIfNull(tag);
        return Length >= tag.Length
            && _text.AsSpan(Start).StartsWith(tag, StringComparison.Ordinal)
            && (
                Length == tag.Length
                || _text[Start + tag.Length] is var next
                    && (next == _separators.Element || next == _separators.Component || char.IsWhiteSpace(next))
            );
    }

    /// <summary>Which of these it is; empty where it is none.</summary>
    public string OneOf(ReadOnlySpan<string> tags)
    {
        foreach (var tag in tags)
        {
            if (Is(tag))
                return tag;
        }
        return "";
    }

    /// <summary>Element by its position, from 1, released; empty where it is not there.</summary>
    public string this[int element]
    {
        get
        {
            var (from, count) = Place(element);
            return Plain(_text.AsSpan(from, count));
        }
    }

    /// <summary>
    /// Component of an element, both from 1, released and trimmed; with component 0 the whole element; empty where it
    /// is not there.
    /// </summary>
    public string this[int element, int component]
    {
        get
        {
            var (from, count) = Place(element, component);
            return Plain(_text.AsSpan(from, count).Trim());
        }
    }

    /// <summary>Whether the element says exactly this.</summary>
    public bool Says(int element, string value)
    {
        var (from, count) = Place(element);
        return _text.AsSpan(from, count).Trim().SequenceEqual(value);
    }

    /// <summary>
    /// Characters that a component stands in; with component 0 the whole element. Where there is none: the segment's
    /// end, without length.
    /// </summary>
    public (int Start, int Length) Place(int element, int component = 0)
    {
        if (element > Elements)
            return (Start + Length, 0);
        var from = element == 0 ? Start : EndOf(element - 1) + 1;
        var to = EndOf(element);
        for (var n = 1; n < component; n++)
        {
            var end = Next(from, to, _separators.Component);
            if (end >= to)
                return (to, 0);
            from = end + 1;
        }
        return component == 0 ? (from, to - from) : (from, Next(from, to, _separators.Component) - from);
    }

    private int Next(int from, int to, char separator)
    {
        if (_separators.Release is not { } release)
        {
            var found = _text.AsSpan(from, to - from).IndexOf(separator);
            return found < 0 ? to : from + found;
        }
        for (var at = from; ; )
        {
            var found = _text.AsSpan(at, to - at).IndexOfAny(separator, release);
            if (found < 0)
                return to;
            if (_text[at + found] == separator)
                return at + found;
            at = Math.Min(at + found + 2, to);
        }
    }

    private string Plain(ReadOnlySpan<char> raw)
    {
        if (raw.IsEmpty)
            return "";
        if (_separators.Release is not { } release || raw.IndexOf(release) < 0)
            return raw.ToString();
        var plain = new System.Text.StringBuilder(raw.Length);
        for (var i = 0; i < raw.Length; i++)
        {
            if (raw[i] == release && i + 1 < raw.Length)
                i++;
            plain.Append(raw[i]);
        }
        return plain.ToString();
    }

    /// <summary>The same segment in another text that holds it elsewhere.</summary>
    public Segment In(string other, int delta) =>
        new(other, Start + delta, Length, _separators, _ends, _first, Elements, _shift + delta);

    /// <summary>
    /// Cuts a text into segments and finds where their elements end, in one pass; the last is cut off where no
    /// terminator follows it.
    /// </summary>
    public static (List<Segment> Segments, bool BrokenOff) Split(string text, int from, Separators separators)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(separators);
        var segments = new List<Segment>(Math.Max(16, (text.Length - from) / 32));
        var ends = new Ends();
        var release = separators.Release ?? separators.Terminator;
        var at = from;
        while (true)
        {
            while (at < text.Length && (char.IsWhiteSpace(text[at]) || text[at] == '\0'))
                at++;
            if (at >= text.Length)
                return (segments, false);
            var (start, first) = (at, ends.Count);
            while (true)
            {
                var found =
                    at < text.Length
                        ? text.AsSpan(at).IndexOfAny(separators.Element, separators.Terminator, release)
                        : -1;
                if (found < 0)
                {
                    ends.Add(text.Length);
                    segments.Add(
                        new Segment(
                            text,
                            start,
                            text.Length - start,
                            separators,
                            ends,
                            first,
                            ends.Count - first - 1,
                            0
                        )
                    );
                    return (segments, true);
                }
                at += found;
                if (text[at] == separators.Element)
                {
                    ends.Add(at++);
                }
                else if (text[at] == separators.Terminator)
                {
                    ends.Add(at);
                    break;
                }
                else
                {
                    at += 2;
                }
            }
            segments.Add(new Segment(text, start, at - start, separators, ends, first, ends.Count - first - 1, 0));
            at++;
        }
    }
}
