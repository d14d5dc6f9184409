namespace Solvenda.Formats.Edi;

/// <summary>The characters that cut an interchange into segments, elements and components.</summary>
/// <param name="Release">Takes the meaning of the character behind it away (EDIFACT); null where the syntax has none.</param>
public sealed record Separators(char Element, char Component, char Terminator, char? Release = null, char DecimalMark = '.');

/// <summary>One segment. Its elements are cut out of the text when somebody asks for them, since most are never asked for.</summary>
public sealed class Segment(string text, int start, int length, Separators separators)
{
    private string? _tag;

    /// <summary>Characters of the interchange that it stands in, without its terminator.</summary>
    public int Start { get; } = start;

    public int Length { get; } = length;

    public string Tag => _tag ??= Cut(0).Trim().ToString();

    public bool Is(string tag) => Cut(0).Trim().SequenceEqual(tag);

    /// <summary>As it stands in the interchange.</summary>
    public string Text => text.Substring(Start, Length);

    /// <summary>Number of elements behind the tag.</summary>
    public int Elements
    {
        get
        {
            var (count, at) = (0, Start);
            while ((at = Next(at, Start + Length, separators.Element)) < Start + Length)
            {
                count++;
                at++;
            }
            return count;
        }
    }

    /// <summary>Element by its position, from 1, released; empty where it is not there.</summary>
    public string this[int element] => Plain(Cut(element));

    /// <summary>Component of an element, both from 1, released and trimmed; empty where it is not there.</summary>
    public string this[int element, int component]
    {
        get
        {
            var (from, length) = Place(element, component);
            return Plain(text.AsSpan(from, length)).Trim();
        }
    }

    /// <summary>Characters that a component stands in; with component 0 the whole element. Where there is none: the whole segment's end, without length.</summary>
    public (int Start, int Length) Place(int element, int component = 0)
    {
        var (from, to) = Bounds(Start, Start + Length, separators.Element, element);
        if (component > 0)
            (from, to) = Bounds(from, to, separators.Component, component - 1);
        return (from, to - from);
    }

    private ReadOnlySpan<char> Cut(int element)
    {
        var (from, length) = Place(element);
        return text.AsSpan(from, length);
    }

    // The n-th piece between separators, from 0.
    private (int From, int To) Bounds(int from, int to, char separator, int n)
    {
        for (var at = from; ; n--)
        {
            var end = Next(at, to, separator);
            if (n == 0)
                return (at, end);
            if (end >= to)
                return (to, to);
            at = end + 1;
        }
    }

    private int Next(int from, int to, char separator)
    {
        if (separators.Release is not { } release)
        {
            var found = text.AsSpan(from, to - from).IndexOf(separator);
            return found < 0 ? to : from + found;
        }
        for (var at = from; ;)
        {
            var found = text.AsSpan(at, to - at).IndexOfAny(separator, release);
            if (found < 0)
                return to;
            if (text[at + found] == separator)
                return at + found;
            at = Math.Min(at + found + 2, to);
        }
    }

    private string Plain(ReadOnlySpan<char> raw)
    {
        if (separators.Release is not { } release || raw.IndexOf(release) < 0)
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

    /// <summary>Cuts a text into segments; the last is cut off where no terminator follows it.</summary>
    public static (List<Segment> Segments, bool BrokenOff) Split(string text, int from, Separators separators)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(separators);
        var segments = new List<Segment>(Math.Max(16, (text.Length - from) / 32));
        var at = from;
        while (true)
        {
            while (at < text.Length && (char.IsWhiteSpace(text[at]) || text[at] == '\0'))
                at++;
            if (at >= text.Length)
                return (segments, false);
            var end = End(text, at, separators);
            if (end < 0)
            {
                segments.Add(new Segment(text, at, text.Length - at, separators));
                return (segments, true);
            }
            segments.Add(new Segment(text, at, end - at, separators));
            at = end + 1;
        }
    }

    private static int End(string text, int from, Separators separators)
    {
        for (var at = from; at < text.Length;)
        {
            var found = separators.Release is { } release ? text.AsSpan(at).IndexOfAny(separators.Terminator, release) : text.AsSpan(at).IndexOf(separators.Terminator);
            if (found < 0)
                return -1;
            if (text[at + found] == separators.Terminator)
                return at + found;
            at += found + 2;
        }
        return -1;
    }
}
