namespace Solvenda.Formats.X12;

/// <summary>One segment: its tag, its elements (from 1), and the characters it stands in.</summary>
public sealed record Segment(string Tag, string[] Elements, int Start, int Length)
{
    /// <summary>Element by its X12 position, from 1; empty where it is not there.</summary>
    public string this[int position] => position >= 1 && position <= Elements.Length ? Elements[position - 1] : "";
}

/// <summary>An X12 interchange (ASC X12.5), with its delimiters taken from the ISA segment.</summary>
public sealed record Interchange(IReadOnlyList<Segment> Segments)
{
    // ISA is fixed in length: 106 characters to its terminator (X12.5, section 3).
    private const int IsaLength = 106;

    public Segment Isa => Segments[0];

    public string Sender => Isa[6].Trim();

    public string Receiver => Isa[8].Trim();

    public string ControlNumber => Isa[13].Trim();

    /// <summary>Splits the text into segments. The problem says what is wrong with the envelope; the segments are there as far as they could be told.</summary>
    public static (Interchange? Interchange, string? Problem) Parse(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var start = text.IndexOf("ISA", StringComparison.Ordinal);
        if (start < 0 || text.Length < start + IsaLength)
            return (null, "The interchange ends inside its ISA segment.");
        var element = text[start + 3];
        var terminator = text[start + IsaLength - 1];
        if (char.IsLetterOrDigit(element) || char.IsLetterOrDigit(terminator) || element == terminator)
            return (null, "The ISA segment does not have its fixed length, so its delimiters cannot be told.");

        var segments = new List<Segment>();
        var at = start;
        while (at < text.Length)
        {
            while (at < text.Length && char.IsWhiteSpace(text[at]))
                at++;
            if (at >= text.Length)
                break;
            var end = text.IndexOf(terminator, at);
            if (end < 0)
                return (new Interchange(segments), $"The interchange breaks off inside a segment, after segment {segments.Count}.");
            var parts = text[at..end].Split(element);
            segments.Add(new Segment(parts[0].Trim(), parts[1..], at, end - at));
            at = end + 1;
        }
        var interchange = new Interchange(segments);
        return (interchange, interchange.EnvelopeProblem());
    }

    private string? EnvelopeProblem()
    {
        if (Segments[^1].Tag != "IEA")
            return $"The interchange breaks off after segment {Segments.Count}: its IEA is missing.";
        if (Segments[^1][2].Trim().TrimStart('0') != ControlNumber.TrimStart('0'))
            return $"Control numbers differ: ISA says {ControlNumber}, IEA says {Segments[^1][2]}.";
        var st = -1;
        for (var i = 0; i < Segments.Count; i++)
        {
            if (Segments[i].Tag == "ST")
                st = i;
            if (Segments[i].Tag != "SE" || st < 0)
                continue;
            if (Segments[i][1].Trim() != (i - st + 1).ToString(System.Globalization.CultureInfo.InvariantCulture))
                return $"SE counts {Segments[i][1]} segments; there are {i - st + 1}.";
            if (Segments[i][2] != Segments[st][2])
                return $"Control numbers differ: ST says {Segments[st][2]}, SE says {Segments[i][2]}.";
        }
        return st < 0 ? "The interchange holds no transaction set." : null;
    }
}
