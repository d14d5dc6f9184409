using System.Globalization;
using System.Text;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.Edifact;

/// <summary>
/// Opens an EDIFACT interchange (ISO 9735, versions 1 to 4): service characters from its UNA or by its syntax,
/// character set by its UNB, groups and messages with their counts and references. A message that is broken is so
/// alone.
/// </summary>
public static class EdifactInterchange
{
    private static readonly Separators Usual = new('+', ':', '\'', '?');

    // Level B without UNA has characters of its own (ISO 9735, annex A).
    private static readonly Separators OfLevelB = new('\u001D', '\u001F', '\u001C');

    // Syntax identifiers and the parts of ISO 8859 that they mean (ISO 9735-1, 0001).
    private static readonly Dictionary<string, int> CodePages = new()
    {
        ["UNOA"] = 28591,
        ["UNOB"] = 28591,
        ["UNOC"] = 28591,
        ["UNOD"] = 28592,
        ["UNOE"] = 28595,
        ["UNOF"] = 28597,
        ["UNOG"] = 28593,
        ["UNOH"] = 28594,
        ["UNOI"] = 28596,
        ["UNOJ"] = 28598,
        ["UNOK"] = 28599,
        ["UNOX"] = 50220,
        ["UNOY"] = 65001,
        ["UNOW"] = 65001,
    };

    static EdifactInterchange() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>The bytes as text, by the character set that the UNB names.</summary>
    public static string Decode(byte[] raw)
    {
        ArgumentNullException.ThrowIfNull(raw);
        var latin = Encoding.Latin1.GetString(raw);
        var unb = latin.IndexOf("UNB", StringComparison.Ordinal);
        var syntax = unb >= 0 && unb + 8 <= latin.Length ? latin.Substring(unb + 4, 4) : "";
        var page = CodePages.GetValueOrDefault(syntax, 28591);
        // Many write UTF-8 whatever they say; bytes that are valid UTF-8 and no ASCII are hardly anything else.
        if (page == 65001 || (raw.Any(b => b > 127) && System.Text.Unicode.Utf8.IsValid(raw)))
            return Encoding.UTF8.GetString(raw);
        return page == 28591 ? latin : Encoding.GetEncoding(page).GetString(raw);
    }

    private static readonly string[] Envelope = ["UNG", "UNH", "UNT", "UNE", "UNZ"];

    /// <summary>Null with the reason where not even the service characters can be told.</summary>
    public static (EdiInterchange? Interchange, string? Problem) Open(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var una = text.IndexOf("UNA", StringComparison.Ordinal);
        var unb = text.IndexOf("UNB", StringComparison.Ordinal);
        if (unb < 0 || text.Length < unb + 9)
            return (null, "The interchange has no UNB segment.");
        var separators = Usual;
        if (una >= 0 && una < unb && text.Length >= una + 9)
            separators = new Separators(
                text[una + 4],
                text[una + 3],
                text[una + 8],
                text[una + 6] == ' ' ? null : text[una + 6],
                text[una + 5]
            );
        else if (text[unb + 3] == OfLevelB.Element)
            separators = OfLevelB;
        if (
            separators.Element == separators.Terminator
            || char.IsLetterOrDigit(separators.Element)
            || char.IsLetterOrDigit(separators.Terminator)
            || text[unb + 3] != separators.Element
        )
            return (null, "The service characters cannot be told: UNA and UNB do not fit each other.");
        var (segments, brokenOff) = Segment.Split(text, unb, separators);
        var head = segments[0];
        var interchange = new EdiInterchange(text, separators, segments, head[2, 1], head[3, 1], head[5, 1])
        {
            SenderQualifier = head[2, 2],
            ReceiverQualifier = head[3, 2],
        };
        Walk(interchange, brokenOff);
        return (interchange, null);
    }

    private static void Walk(EdiInterchange x, bool brokenOff)
    {
        EdiGroup? group = null;
        var (groups, inGroup, all, unh) = (0, 0, 0, -1);
        for (var i = 1; i < x.Segments.Count; i++)
        {
            var s = x.Segments[i];
            // Most segments are none of the envelope's.
            switch (s.OneOf(Envelope))
            {
                case "UNG":
                    x.Groups.Add(group = new EdiGroup(s[1, 1], s[5, 1], s[2, 1]));
                    (groups, inGroup) = (groups + 1, 0);
                    break;
                case "UNH":
                    Close(x, group, unh, i - 1, null);
                    (unh, inGroup, all) = (i, inGroup + 1, all + 1);
                    break;
                case "UNT":
                    Close(x, group, unh, i, s);
                    unh = -1;
                    break;
                case "UNE" when group is not null:
                    CheckGroup(group, s, inGroup);
                    group = null;
                    break;
                case "UNZ":
                    Close(x, group, unh, i - 1, null);
                    // With groups the groups are counted, else the messages (ISO 9735-1, 0036).
                    var counted = groups > 0 ? groups : all;
                    CheckEnd(x, s, counted);
                    return;
            }
        }
        Close(x, group, unh, x.Segments.Count - 1, null);
        x.Faults.Add(
            new Fault(
                FaultKind.BrokenOff,
                brokenOff
                    ? $"The interchange breaks off inside a segment, after segment {x.Segments.Count - 1}."
                    : $"The interchange breaks off after segment {x.Segments.Count}: its UNZ is missing.",
                Tag: "UNZ"
            )
        );
    }

    private static void CheckGroup(EdiGroup group, Segment une, int messages)
    {
        if (une[1, 1] != messages.ToString(CultureInfo.InvariantCulture))
            group.Faults.Add(
                new Fault(
                    FaultKind.Count,
                    $"UNE counts {une[1]} messages; there are {messages}.",
                    Tag: "UNE",
                    Bad: une[1]
                )
            );
        if (une[2, 1] != group.Reference)
            group.Faults.Add(
                new Fault(
                    FaultKind.Reference,
                    $"References differ: UNG says {group.Reference}, UNE says {une[2]}.",
                    Tag: "UNE",
                    Bad: une[2]
                )
            );
    }

    private static void CheckEnd(EdiInterchange x, Segment unz, int counted)
    {
        if (unz[1, 1] != counted.ToString(CultureInfo.InvariantCulture))
            x.Faults.Add(
                new Fault(
                    FaultKind.Count,
                    $"UNZ counts {unz[1]}; there are {counted}.",
                    Tag: "UNZ",
                    Element: 1,
                    Bad: unz[1]
                )
            );
        if (unz[2, 1] != x.Reference)
            x.Faults.Add(
                new Fault(
                    FaultKind.Reference,
                    $"References differ: UNB says {x.Reference}, UNZ says {unz[2]}.",
                    Tag: "UNZ",
                    Element: 2,
                    Bad: unz[2]
                )
            );
    }

    private static void Close(EdiInterchange x, EdiGroup? group, int unh, int last, Segment? unt)
    {
        if (unh < 0)
            return;
        var head = x.Segments[unh];
        var message = new EdiMessage(
            head[2, 1],
            head[1, 1],
            $"{head[2, 2]}.{head[2, 3]}",
            x.Segments.GetRange(unh, last - unh + 1)
        )
        {
            Group = group,
        };
        x.Messages.Add(message);
        if (unt is null)
        {
            message.Faults.Add(
                new Fault(
                    FaultKind.BrokenOff,
                    $"Message {message.Reference} breaks off: its UNT is missing.",
                    message.Segments.Count,
                    "UNT"
                )
            );
            return;
        }
        if (unt[1, 1] != message.Segments.Count.ToString(CultureInfo.InvariantCulture))
            message.Faults.Add(
                new Fault(
                    FaultKind.Count,
                    $"UNT counts {unt[1]} segments; there are {message.Segments.Count}.",
                    message.Segments.Count,
                    "UNT",
                    1,
                    0,
                    unt[1]
                )
            );
        if (unt[2, 1] != message.Reference)
            message.Faults.Add(
                new Fault(
                    FaultKind.Reference,
                    $"References differ: UNH says {message.Reference}, UNT says {unt[2]}.",
                    message.Segments.Count,
                    "UNT",
                    2,
                    0,
                    unt[2]
                )
            );
    }
}
