using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.Edifact;

/// <summary>Reads the messages ORDERS, ORDCHG and REQOTE (UN/EDIFACT directories D.93A and later).</summary>
public sealed class EdifactOrders
{
    private static readonly Dictionary<string, MessageKind> Kinds = new()
    {
        ["ORDERS"] = MessageKind.Order,
        ["ORDCHG"] = MessageKind.Change,
        ["REQOTE"] = MessageKind.RequestForQuotation,
    };

    // 2005: delivery requested, latest delivery, delivery, ship requested, earliest delivery, pick-up.
    private static readonly string[] Wanted = ["2", "63", "76", "10", "64", "200", "69"];

    // Item number types, 7143: those that the buyer gave, and those that are ours.
    private static readonly string[] Buyers = ["IN", "BP"];

    // Prices, the one that counts first.
    private static readonly string[] Prices = ["AAA", "AAB", "INF", "CAL"];
    private static readonly string[] Sellers = ["SA", "VP", "VN"];
    private static readonly string[] Gtins = ["EN", "SRV", "UP", "EAN"];

    private readonly EdiInterchange _interchange;
    private readonly EdiMessage _message;
    private readonly EdiValues _values;
    private readonly List<Segment> _set;
    private readonly int _firstLine;
    private readonly int _end;

    // Segments whose values stand in no field of their own.
    private readonly HashSet<Segment> _used = [];

    private EdifactOrders(EdiInterchange interchange, EdiMessage message)
    {
        (_interchange, _message, _set) = (interchange, message, message.Segments);
        _values = new EdiValues(message, interchange.Separators.DecimalMark);
        _end = Index(s => s.Is("UNS") || s.Is("UNT"), 0);
        _firstLine = Math.Min(_end, Index(s => s.Is("LIN"), 0));
    }

    /// <summary>Null, with a fault on the message, where it is none of these or lacks what makes it one.</summary>
    public static OrderDocument? Read(EdiInterchange interchange, EdiMessage message)
    {
        ArgumentNullException.ThrowIfNull(interchange);
        ArgumentNullException.ThrowIfNull(message);
        if (!Kinds.TryGetValue(message.Type, out var kind))
        {
            message.Faults.Add(
                new Fault(
                    FaultKind.NotTaken,
                    $"Message {message.Type}{(EdifactNames.OfMessage(message.Type) is { Length: > 0 } name ? $" ({name})" : "")} is not one that becomes a request; it is kept and shown."
                )
            );
            return null;
        }
        return new EdifactOrders(interchange, message).Read(kind);
    }

    private OrderDocument? Read(MessageKind kind)
    {
        var bgm = _message.Find("BGM");
        if (bgm is null)
        {
            _message.Faults.Add(
                new Fault(FaultKind.SegmentMissing, $"The {_message.Type} has no BGM segment.", 2, "BGM")
            );
            return null;
        }
        // 1225: 1 is a cancellation.
        if (bgm[3, 1] == "1")
            kind = MessageKind.Cancellation;
        _values.Needs(bgm, 2);
        var lines = Lines();
        if (lines.IsEmpty && kind != MessageKind.Cancellation)
        {
            _message.Faults.Add(
                new Fault(FaultKind.SegmentMissing, $"The {_message.Type} has no lines.", _set.Count, "LIN")
            );
            return null;
        }
        CheckTotals(lines);
        var head = _set.Take(_firstLine).ToList();
        var tod = head.FirstOrDefault(s => s.Is("TOD"));
        var contact = head.FirstOrDefault(s => s.Is("CTA"));
        var (deliverTo, country) = EdifactParties.DeliverTo(head);
        var references = head.Where(s => s.Is("RFF")).ToList();
        // A change names the order that it changes; a cancellation too.
        var order = kind is MessageKind.Change or MessageKind.Cancellation
            ? references.FirstOrDefault(s => s[1, 1] is "ON" or "CO" or "ACW")
            : null;
        var document = new OrderDocument(kind, lines)
        {
            Clues = EdifactParties.Clues(_interchange, head),
            Contact = EdiValues.Text(contact, 2, 2),
            PoNumber = order is not null ? EdiValues.Text(order, 1, 2) : EdiValues.Text(bgm, 2),
            QuoteNumber = references.FirstOrDefault(s => s[1, 1] is "AAG" or "PR" or "PQ") is { } quoted
                ? EdiValues.Text(quoted, 1, 2)
                : null,
            Written = head.Where(s => s.Is("DTM") && s[1, 1] == "137")
                .Select(Date)
                .FirstOrDefault(d => d is not null)
                ?.Value,
            Wanted = Wish(head),
            DeliverTo = deliverTo,
            DeliverToCountry = country,
            Incoterm = tod is not null && Incoterms.Is(tod[3, 1].ToUpperInvariant()) ? EdiValues.Text(tod, 3) : null,
            IncotermPlace = tod is null ? null : Place(head),
            Currency = head.FirstOrDefault(s => s.Is("CUX")) is { } cux ? EdiValues.Text(cux, 1, 2) : null,
            PaymentDays = PaymentDays(head),
            Goods = _set.Skip(_end).FirstOrDefault(s => s.Is("MOA") && s[1, 1] is "79" or "86") is { } total
                ? _values.Number(total, 1, 2)
                : null,
            Note = Note(head),
            Charges = Charges(head),
            LeftOvers = [.. _values.Overs],
        };
        return EdiRest.With(document, _message, _used, EdifactNames.Frame, EdifactNames.Matters, EdifactNames.Of);
    }

    private int Index(Func<Segment, bool> fits, int from)
    {
        while (from < _set.Count && !fits(_set[from]))
            from++;
        return from;
    }

    // 2379: the forms of a date that orders use. A week is its Monday.
    private Stated<DateOnly>? Date(Segment dtm)
    {
        var text = dtm[1, 2];
        switch (dtm[1, 3])
        {
            case "616"
                when text.Length == 6
                    && int.TryParse(text[..4], out var year)
                    && int.TryParse(text[4..], out var week)
                    && week is >= 1 and <= 53
                    && year is > 1900 and < 9000:
                return new Stated<DateOnly>(
                    DateOnly.FromDateTime(ISOWeek.ToDateTime(year, week, DayOfWeek.Monday)),
                    EdiInterchange.Where(dtm, 1, 2)
                );
            case "2":
                return _values.Date(dtm, 1, 2, "ddMMyy");
            case "101":
                return _values.Date(dtm, 1, 2, "yyMMdd");
            case "610":
                return _values.Date(dtm, 1, 2, "yyyyMM");
            default:
                // 102, 203, 204, and 718, a period, begin with the whole date.
                return _values.Date(dtm, 1, 2, "yyyyMMdd", "yyMMdd");
        }
    }

    private Stated<DateOnly>? Wish(IReadOnlyList<Segment> segments) =>
        Wanted
            .SelectMany(q => segments.Where(s => s.Is("DTM") && s[1, 1] == q))
            .Select(Date)
            .FirstOrDefault(d => d is not null);

    // The place stands in the LOC behind the TOD; 1 is the place of the delivery terms.
    private static Stated<string>? Place(List<Segment> head)
    {
        var at = head.FindIndex(s => s.Is("TOD"));
        var loc = head.Skip(at + 1).TakeWhile(s => s.Is("LOC")).FirstOrDefault();
        return loc is null ? EdiValues.Text(head[at], 3, 4) : EdiValues.Text(loc, 2, 4) ?? EdiValues.Text(loc, 2);
    }

    // PAT with C112: so many (4) of a unit (3: D days) after a reference date.
    private static Stated<int>? PaymentDays(List<Segment> head)
    {
        var pat = head.FirstOrDefault(s => s.Is("PAT") && s[3, 3] is "D" or "CD" or "" && s[3, 4].Length > 0);
        return pat is not null && int.TryParse(pat[3, 4], NumberStyles.None, CultureInfo.InvariantCulture, out var days)
            ? new Stated<int>(days, EdiInterchange.Where(pat, 3, 4))
            : null;
    }

    private static Stated<string>? Note(List<Segment> head)
    {
        var notes = head.Where(s => s.Is("FTX")).ToList();
        return notes.Count == 0
            ? null
            : new Stated<string>(
                string.Join("; ", notes.Select(Words)),
                new Evidence(0, notes[0].Start, notes[^1].Start + notes[^1].Length - notes[0].Start)
            );
    }

    private static string Words(Segment ftx) =>
        string.Join(' ', Enumerable.Range(1, 5).Select(c => ftx[4, c]).Where(t => t.Length > 0));

    // ALC begins an allowance (A) or a charge (C); its MOA carries the amount.
    private ImmutableArray<(string, decimal)> Charges(List<Segment> head)
    {
        var charges = ImmutableArray.CreateBuilder<(string, decimal)>();
        for (var i = 0; i < head.Count; i++)
        {
            if (!head[i].Is("ALC"))
                continue;
            var moa = head.Skip(i + 1).TakeWhile(s => !s.Is("ALC")).FirstOrDefault(s => s.Is("MOA"));
            if (moa is not null && _values.Number(moa, 1, 2) is { } amount && _used.Add(head[i]) && _used.Add(moa))
                charges.Add(
                    (
                        head[i][5, 1] switch
                        {
                            "FC" => "freight",
                            "HD" => "handling",
                            "IN" => "insurance",
                            var other => head[i][5, 4].Length > 0 ? head[i][5, 4] : other,
                        },
                        head[i][1, 1] == "A" ? -amount.Value : amount.Value
                    )
                );
        }
        return charges.ToImmutable();
    }

    private ImmutableArray<StatedLine> Lines()
    {
        var lines = ImmutableArray.CreateBuilder<StatedLine>();
        for (var at = _firstLine; at < _end; )
        {
            var next = Math.Min(_end, Index(s => s.Is("LIN"), at + 1));
            var detail = _set.GetRange(at, next - at);
            lines.AddRange(Scheduled(Line(detail), detail));
            at = next;
        }
        return lines.ToImmutable();
    }

    private StatedLine Line(List<Segment> detail)
    {
        var lin = detail[0];
        Stated<string>? Code(string[] types) =>
            types.Contains(lin[3, 2]) && lin[3, 1].Length > 0
                ? EdiValues.Text(lin, 3)
                : detail
                    .Where(s => s.Is("PIA"))
                    .SelectMany(s =>
                        Enumerable.Range(2, 5).Where(e => types.Contains(s[e, 2])).Select(e => EdiValues.Text(s, e))
                    )
                    .FirstOrDefault(c => c is not null);
        // A schedule has quantities of its own behind SCC or LOC.
        var own = detail.TakeWhile(s => !s.Is("SCC") && !(s.Is("LOC") && s[1, 1] is "7" or "11")).ToList();
        var qty =
            own.FirstOrDefault(s => s.Is("QTY") && s[1, 1] is "21" or "1" or "12" or "47")
            ?? own.FirstOrDefault(s => s.Is("QTY"));
        if (qty is not null)
            _values.Needs(qty, 1, 2);
        var pri = Prices
            .Select(q => detail.FirstOrDefault(s => s.Is("PRI") && s[1, 1] == q))
            .FirstOrDefault(s => s is not null);
        var imd = detail.Where(s => s.Is("IMD")).ToList();
        var amount = detail.FirstOrDefault(s => s.Is("MOA") && s[1, 1] is "203" or "38");
        var change = lin[2, 1] switch
        {
            "1" => "added",
            "2" => "taken back",
            "3" => "changed",
            _ => "",
        };
        return new StatedLine(
            lin[1, 1],
            qty is null ? null : _values.Number(qty, 1, 2),
            qty?[1, 3] is { Length: > 0 } unit ? unit : "PCE",
            pri is null ? null : _values.Number(pri, 1, 2),
            pri is not null && _values.Number(pri, 1, 5) is { Value: > 0 } each ? each.Value : 1m,
            Code(Buyers),
            Code(Sellers),
            Code(Gtins),
            string.Join(' ', imd.Select(s => s[3, 4].Length > 0 ? $"{s[3, 4]} {s[3, 5]}".Trim() : s[3, 1])),
            [EdiInterchange.Where(lin), .. imd.Select(s => EdiInterchange.Where(s))]
        )
        {
            Wanted = Wish(own),
            Amount = amount is null ? null : _values.Number(amount, 1, 2),
            Allowances = EdifactAllowances.Of(detail, qty, pri, _values, _used),
            Note = string.Join(
                "; ",
                detail
                    .Where(s => s.Is("FTX") && _used.Add(s))
                    .Select(Words)
                    .Prepend(_message.Type == "ORDCHG" ? change : "")
                    .Where(w => w.Length > 0)
            ),
            TakenBack = _message.Type == "ORDCHG" && lin[2, 1] == "2",
        };
    }

    // SCC, or LOC with a place of delivery, begins a part of the schedule; its QTY and DTM follow.
    private IEnumerable<StatedLine> Scheduled(StatedLine line, List<Segment> detail)
    {
        var parts = new List<StatedLine>();
        var place = "";
        for (var i = 0; i < detail.Count; i++)
        {
            if (detail[i].Is("LOC") && detail[i][1, 1] is "7" or "11")
                place = detail[i][2, 4].Length > 0 ? detail[i][2, 4] : detail[i][2, 1];
            else if (!detail[i].Is("SCC"))
                continue;
            var group = detail.Skip(i + 1).TakeWhile(s => !s.Is("SCC") && !s.Is("LOC") && !s.Is("PRI")).ToList();
            foreach (var (qty, days) in Quantities(group))
            {
                parts.Add(
                    line with
                    {
                        Quantity = _values.Number(qty, 1, 2),
                        Unit = qty[1, 3].Length > 0 ? qty[1, 3] : line.Unit,
                        Wanted = Wish(days) ?? line.Wanted,
                        Note = place.Length > 0 ? $"to {place}" : line.Note,
                        Evidence = [EdiInterchange.Where(qty), .. line.Evidence],
                    }
                );
            }
        }
        if (parts.Count == 0)
            return [line];
        _values.AddUp(line, parts, detail[0]);
        return parts;
    }

    // Each QTY of a group with the dates up to the next.
    private static IEnumerable<(Segment Qty, List<Segment> Days)> Quantities(List<Segment> group)
    {
        var before = group.TakeWhile(s => !s.Is("QTY")).Where(s => s.Is("DTM")).ToList();
        for (var i = 0; i < group.Count; i++)
        {
            if (group[i].Is("QTY"))
                yield return (
                    group[i],
                    [.. group.Skip(i + 1).TakeWhile(s => !s.Is("QTY")).Where(s => s.Is("DTM")), .. before]
                );
        }
    }

    // 6069: 1 is the total of the quantities, 2 the number of lines.
    private void CheckTotals(ImmutableArray<StatedLine> lines)
    {
        foreach (var cnt in _set.Skip(_end).Where(s => s.Is("CNT")))
        {
            if (_values.Number(cnt, 1, 2) is not { } stated)
                continue;
            var number = _set.Count(s => s.Is("LIN"));
            var sum = lines.Sum(l => l.Quantity?.Value ?? 0m);
            if (cnt[1, 1] == "2" && stated.Value != number)
                _values.Disagrees(
                    stated,
                    cnt,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"CNT counts {stated.Value:0} lines; there are {number}."
                    )
                );
            else if (cnt[1, 1] == "1" && stated.Value != sum)
                _values.Disagrees(
                    stated,
                    cnt,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"The control total of the quantities is {stated.Value:0.##}; they add up to {sum:0.##}."
                    )
                );
        }
    }
}
