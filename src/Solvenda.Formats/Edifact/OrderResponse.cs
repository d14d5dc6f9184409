using System.Globalization;
using System.Text;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.Edifact;

/// <summary>
/// Answers an ORDERS by an ORDRSP (UN/EDIFACT directory D.96A): each line accepted, changed or added, with its price
/// and the day on which it is ready, in the buyer's own units.
/// </summary>
internal sealed class OrderResponse : IOrderAnswer
{
    public Syntax Answers => Syntax.Edifact;

    public WrittenMessage? Write(ConfirmedOrder order, string original, int control, DateTime at)
    {
        if (Asked(order.PoNumber, original) is not var (theirs, message))
            return null;
        var lines = order.Lines.Select(l => (Line: l, Answer: AnsweredLine.Of(l))).ToList();
        var asOrdered =
            lines.TrueForAll(l => l.Answer.AsOrdered) && lines.Count == message.Segments.Count(s => s.Is("LIN"));
        var body = new List<string>
        {
            "UNH+1+ORDRSP:D:96A:UN",
            // 1001: 231 purchase order response; 1225: 29 accepted without amendment, 4 change.
            $"BGM+231+{EdifactText.Clean(order.Number)}+{(asOrdered ? "29" : "4")}",
            $"DTM+137:{Day(DateOnly.FromDateTime(at))}:102",
            $"RFF+ON:{EdifactText.Clean(order.PoNumber)}",
        };
        // Parties go back as they came.
        body.AddRange(
            message.Segments.Where(s => s.Is("NAD") && s[1] is "BY" or "SU").Select(s => EdifactText.Again(s))
        );
        body.Add($"CUX+2:{order.Currency}:9");
        var number = 0;
        foreach (var (line, answer) in lines)
            body.AddRange(LineOf(line, answer, ++number));
        foreach (var refused in Refused(message, [.. lines.Select(l => l.Line)]))
        {
            // 1229: 7 not accepted.
            body.Add($"LIN+{++number}+7{(refused.Length > 0 ? $"+{EdifactText.Clean(refused)}" : "")}");
        }
        body.Add("UNS+S");
        body.Add($"CNT+2:{number}");
        body.Add($"UNT+{body.Count + 1}+1");
        var reference = control.ToString(CultureInfo.InvariantCulture);
        var text = new StringBuilder();
        text.Append(
                CultureInfo.InvariantCulture,
                $"UNB+UNOC:3+{EdifactText.Party(theirs.Receiver, theirs.ReceiverQualifier)}"
            )
            .Append(CultureInfo.InvariantCulture, $"+{EdifactText.Party(theirs.Sender, theirs.SenderQualifier)}")
            .Append(CultureInfo.InvariantCulture, $"+{at:yyMMdd:HHmm}+{reference}'\n");
        foreach (var segment in body)
            text.Append(segment).Append("'\n");
        text.Append(CultureInfo.InvariantCulture, $"UNZ+1+{reference}'\n");
        var again = order.Version == 0 ? "" : FormattableString.Invariant($"-{order.Version}");
        return new WrittenMessage(
            $"ORDRSP-{order.Number}{again}.edi",
            theirs.Sender,
            Encoding.Latin1.GetBytes(text.ToString())
        )
        {
            Control = reference,
        };
    }

    private static IEnumerable<string> LineOf(ConfirmedOrderLine confirmed, AnsweredLine answer, int number)
    {
        var (line, asked) = (confirmed.Line, confirmed.Line.Line.Asked);
        // 1229: 1 added, 3 changed, 5 accepted without amendment.
        var action =
            !answer.IsTheirs ? "1"
            : answer.AsOrdered ? "5"
            : "3";
        yield return $"LIN+{number}+{action}{(line.Item?.Gtin is { Length: > 0 } gtin ? $"+{gtin}:EN" : "")}";
        if (line.Item is { } item)
            yield return $"PIA+5+{EdifactText.Clean(item.Code)}:SA";
        if (asked.Code is { Length: > 0 } code && code != line.Item?.Code)
            yield return $"PIA+1+{EdifactText.Clean(code)}:IN";
        yield return $"IMD+F++:::{EdifactText.Clean(Short(line.Line.Words))}";
        // 6063: 113 quantity to be delivered.
        yield return $"QTY+113:{Number(answer.Quantity)}:{answer.Unit.Code}";
        // 2005: 69 delivery promised for.
        if (answer.Ready is { } ready)
            yield return $"DTM+69:{Day(ready)}:102";
        yield return $"PRI+AAA:{Number(answer.Price)}:::{Number(answer.PriceBase)}:{answer.Unit.Code}";
    }

    // Codes of what they ordered and nobody confirms; known where all of it goes by codes.
    private static IEnumerable<string> Refused(EdiMessage message, List<ConfirmedOrderLine> lines)
    {
        var ordered = message.Segments.Where(s => s.Is("LIN")).Select(s => s[3].Split(':')[0]).ToList();
        return lines.Count >= ordered.Count
            ? []
            : ordered.Where(code => code.Length > 0 && lines.TrueForAll(l => !IsOf(l, code)));
    }

    private static bool IsOf(ConfirmedOrderLine line, string code) =>
        line.Line.Line.Asked.Code == code || line.Line.Item?.Gtin == code || line.Line.Item?.Code == code;

    // The order among all that came in one file; the first where none has its number.
    internal static (EdiInterchange Interchange, EdiMessage Message)? Asked(string poNumber, string original)
    {
        var bytes = Encoding.Latin1.GetBytes(original);
        var messages = Interchanges
            .Of(bytes, isX12: false)
            .Select(raw => EdifactInterchange.Open(EdifactInterchange.Decode(raw)).Interchange)
            .OfType<EdiInterchange>()
            .SelectMany(x => x.Messages.Select(m => (Interchange: x, Message: m)))
            .ToList();
        var at = messages.FindIndex(m =>
            m.Message.Find("BGM") is { } bgm && PoKey.Of(bgm[2].Split(':')[0]) == PoKey.Of(poNumber)
        );
        return messages.Count == 0 ? null : messages[Math.Max(0, at)];
    }

    // An item description has at most 35 letters (7008).
    private static string Short(string words) => words.Length > 35 ? words[..35] : words;

    private static string Number(decimal number) => number.ToString("0.####", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day) => day.ToString("yyyyMMdd", CultureInfo.InvariantCulture);
}
