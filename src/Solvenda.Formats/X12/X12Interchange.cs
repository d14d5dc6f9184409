using System.Globalization;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.X12;

/// <summary>
/// Opens an X12 interchange (ASC X12.5, X12.6): delimiters from its ISA, groups and transaction sets with their counts
/// and control numbers. A set that is broken is so alone.
/// </summary>
public static class X12Interchange
{
    // ISA is fixed in length: 106 characters to its terminator (X12.5, section 3).
    private const int IsaLength = 106;

    private static readonly string[] Envelope = ["GS", "ST", "SE", "GE", "IEA"];

    /// <summary>Null with the reason where not even the delimiters can be told.</summary>
    public static (EdiInterchange? Interchange, string? Problem) Open(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var start = text.IndexOf("ISA", StringComparison.Ordinal);
        if (start < 0 || text.Length < start + IsaLength)
            return (null, "The interchange ends inside its ISA segment.");
        var element = text[start + 3];
        var (component, terminator) = Tail(text, start, element);
        if (char.IsLetterOrDigit(element) || char.IsLetterOrDigit(terminator) || element == terminator)
            return (null, "The ISA segment does not have its sixteen elements, so its delimiters cannot be told.");
        var separators = new Separators(element, component, terminator);
        var (segments, brokenOff) = Segment.Split(text, start, separators);
        var isa = segments[0];
        var interchange = new EdiInterchange(text, separators, segments, isa[6].Trim(), isa[8].Trim(), isa[13].Trim())
        {
            SenderQualifier = isa[5].Trim(),
            ReceiverQualifier = isa[7].Trim(),
        };
        Walk(interchange, brokenOff);
        return (interchange, null);
    }

    // ISA16 is the component separator, and what follows it ends the segment; counted by elements too, since not
    // everybody pads to the fixed length.
    private static (char Component, char Terminator) Tail(string text, int start, char element)
    {
        if (text[start + IsaLength - 3] == element)
            return (text[start + IsaLength - 2], text[start + IsaLength - 1]);
        var at = start;
        for (var i = 0; i < 16 && at >= 0; i++)
            at = text.IndexOf(element, at + 1);
        return at < 0 || at + 2 >= text.Length ? (':', element) : (text[at + 1], text[at + 2]);
    }

    private static void Walk(EdiInterchange x, bool brokenOff)
    {
        EdiGroup? group = null;
        var (groups, sets, st) = (0, 0, -1);
        for (var i = 0; i < x.Segments.Count; i++)
        {
            var s = x.Segments[i];
            // Most segments are none of the envelope's.
            switch (s.OneOf(Envelope))
            {
                case "GS":
                    x.Groups.Add(group = new EdiGroup(s[1].Trim(), s[6].Trim(), s[2].Trim()));
                    (groups, sets) = (groups + 1, 0);
                    break;
                case "ST":
                    Close(x, group, st, i - 1, null);
                    (st, sets) = (i, sets + 1);
                    break;
                case "SE":
                    Close(x, group, st, i, s);
                    st = -1;
                    break;
                case "GE":
                    Close(x, group, st, i - 1, null);
                    st = -1;
                    if (group is null)
                        break;
                    CheckGroup(group, s, sets);
                    group = null;
                    break;
                case "IEA":
                    Close(x, group, st, i - 1, null);
                    CheckEnd(x, s, groups);
                    return;
            }
        }
        Close(x, group, st, x.Segments.Count - 1, null);
        x.Faults.Add(
            new Fault(
                FaultKind.BrokenOff,
                brokenOff
                    ? $"The interchange breaks off inside a segment, after segment {x.Segments.Count - 1}."
                    : $"The interchange breaks off after segment {x.Segments.Count}: its IEA is missing."
            )
        );
    }

    private static void CheckGroup(EdiGroup group, Segment ge, int sets)
    {
        if (ge[1].Trim() != sets.ToString(CultureInfo.InvariantCulture))
            group.Faults.Add(
                new Fault(FaultKind.Count, $"GE counts {ge[1]} transaction sets; there are {sets}.", Bad: ge[1])
            );
        if (ge[2].Trim() != group.Reference)
            group.Faults.Add(
                new Fault(
                    FaultKind.Reference,
                    $"Control numbers differ: GS says {group.Reference}, GE says {ge[2]}.",
                    Bad: ge[2]
                )
            );
    }

    private static void CheckEnd(EdiInterchange x, Segment iea, int groups)
    {
        if (iea[1].Trim() != groups.ToString(CultureInfo.InvariantCulture))
            x.Faults.Add(new Fault(FaultKind.Count, $"IEA counts {iea[1]} groups; there are {groups}.", Bad: iea[1]));
        if (iea[2].Trim().TrimStart('0') != x.Reference.TrimStart('0'))
            x.Faults.Add(
                new Fault(
                    FaultKind.Reference,
                    $"Control numbers differ: ISA says {x.Reference}, IEA says {iea[2]}.",
                    Bad: iea[2]
                )
            );
    }

    private static void Close(EdiInterchange x, EdiGroup? group, int st, int last, Segment? se)
    {
        if (st < 0)
            return;
        var head = x.Segments[st];
        var message = new EdiMessage(
            head[1].Trim(),
            head[2].Trim(),
            head[3].Trim(),
            x.Segments.GetRange(st, last - st + 1)
        )
        {
            Group = group,
        };
        x.Messages.Add(message);
        if (se is null)
        {
            message.Faults.Add(
                new Fault(
                    FaultKind.BrokenOff,
                    $"Transaction set {message.Reference} breaks off: its SE is missing.",
                    message.Segments.Count,
                    "SE"
                )
            );
            return;
        }
        if (se[1].Trim() != message.Segments.Count.ToString(CultureInfo.InvariantCulture))
            message.Faults.Add(
                new Fault(
                    FaultKind.Count,
                    $"SE counts {se[1]} segments; there are {message.Segments.Count}.",
                    message.Segments.Count,
                    "SE",
                    1,
                    0,
                    se[1]
                )
            );
        if (se[2].Trim() != message.Reference)
            message.Faults.Add(
                new Fault(
                    FaultKind.Reference,
                    $"Control numbers differ: ST says {message.Reference}, SE says {se[2]}.",
                    message.Segments.Count,
                    "SE",
                    2,
                    0,
                    se[2]
                )
            );
    }
}
