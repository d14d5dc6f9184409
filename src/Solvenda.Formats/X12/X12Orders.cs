using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.X12;

/// <summary>
/// Reads the transaction sets 850 (purchase order), 860 (change) and 840 (request for quotation), ASC X12, versions
/// 3040 to 8010.
/// </summary>
public sealed class X12Orders
{
    // Basis of unit price, element 639: how many units a price is for.
    private static readonly Dictionary<string, decimal> PriceBases = new()
    {
        ["HP"] = 100m,
        ["HN"] = 100m,
        ["HF"] = 100m,
        ["PN"] = 10m,
        ["TP"] = 1000m,
        ["TH"] = 1000m,
        ["TF"] = 1000m,
    };

    private static readonly Dictionary<string, string> Charges = new()
    {
        ["D240"] = "freight",
        ["D500"] = "handling",
        ["D980"] = "insurance",
    };

    // Element 374: delivery requested, ship requested, deliver no later than, ship no later than.
    private static readonly string[] Wanted = ["002", "010", "063", "038", "074", "106"];

    private static readonly Dictionary<string, MessageKind> Kinds = new()
    {
        ["850"] = MessageKind.Order,
        ["860"] = MessageKind.Change,
        ["840"] = MessageKind.RequestForQuotation,
    };

    private readonly EdiInterchange _interchange;
    private readonly EdiMessage _message;
    private readonly EdiValues _values;
    private readonly List<Segment> _set;

    // Segments whose values stand in no field of their own.
    private readonly HashSet<Segment> _used = [];

    private X12Orders(EdiInterchange interchange, EdiMessage message)
    {
        (_interchange, _message, _set) = (interchange, message, message.Segments);
        _values = new EdiValues(message, '.');
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
                    $"Transaction set {message.Type}{(X12Names.OfSet(message.Type) is { Length: > 0 } name ? $" ({name})" : "")} is not one that becomes a request; it is kept and shown."
                )
            );
            return null;
        }
        return new X12Orders(interchange, message).Read(kind);
    }

    private OrderDocument? Read(MessageKind kind)
    {
        var tag = kind switch
        {
            MessageKind.Change => "BCH",
            MessageKind.RequestForQuotation => "BQT",
            _ => "BEG",
        };
        if (_message.Find(tag) is not { } begin)
        {
            _message.Faults.Add(
                new Fault(FaultKind.SegmentMissing, $"The {_message.Type} has no {tag} segment.", 2, tag)
            );
            return null;
        }
        // Element 353: 01 is a cancellation, whatever it is a cancellation of.
        if (begin[1].Trim() == "01")
            kind = MessageKind.Cancellation;
        // BEG03 and BCH03 are the order's number; BQT02 is the request's.
        var number = kind == MessageKind.RequestForQuotation ? 2 : 3;
        _values.Needs(begin, number);
        var lines = Lines();
        if (lines.IsEmpty && kind != MessageKind.Cancellation)
        {
            _message.Faults.Add(
                new Fault(
                    FaultKind.SegmentMissing,
                    $"The {_message.Type} has no lines.",
                    _set.Count,
                    kind == MessageKind.Change ? "POC" : "PO1"
                )
            );
            return null;
        }
        CheckTotals(lines);
        return EdiRest.With(
            Document(kind, begin, EdiValues.Text(begin, number, 0), lines),
            _message,
            _used,
            X12Names.Frame,
            X12Names.Matters,
            X12Names.Of
        );
    }

    private OrderDocument Document(
        MessageKind kind,
        Segment begin,
        Stated<string>? number,
        ImmutableArray<StatedLine> lines
    )
    {
        var head = _set.TakeWhile(s => !IsLine(s)).ToList();
        var fob = _message.Find("FOB");
        var contact = _set.FirstOrDefault(s => s.Is("PER"));
        var (deliverTo, country) = X12Parties.DeliverTo(head);
        Stated<string>? OfFob(Func<Segment, string?> what) =>
            fob is not null && what(fob) is { } said ? new Stated<string>(said, EdiInterchange.Where(fob)) : null;
        return new OrderDocument(kind, lines)
        {
            Clues = X12Parties.Clues(_interchange, _set, contact),
            Contact = EdiValues.Text(contact, 2, 0),
            PoNumber = number,
            QuoteNumber = head.Find(s => s.Is("REF") && s[1] is "PR" or "Q1") is { } quoted
                ? EdiValues.Text(quoted, 2, 0)
                : null,
            Written = _values.Date(begin, WrittenIn(begin), 1, "yyyyMMdd", "yyMMdd")?.Value,
            Wanted = WantedIn(head),
            DeliverTo = deliverTo,
            DeliverToCountry = country,
            Incoterm = OfFob(Incoterm),
            IncotermPlace = OfFob(Place),
            Currency = EdiValues.Text(_message.Find("CUR"), 2, 0),
            PaymentDays = PaymentDays(),
            Goods = _set.FirstOrDefault(s => s.Is("AMT") && s[1] == "TT") is { } total
                ? _values.Number(total, 2)
                : null,
            Note = Note(head),
            Charges = SheetCharges(head),
            LeftOvers = [.. _values.Overs],
        };
    }

    // BQT03, BCH06, BEG05: the day on which it was written.
    private static int WrittenIn(Segment begin) =>
        begin.Is("BQT") ? 3
        : begin.Is("BCH") ? 6
        : 5;

    private static bool IsLine(Segment s) => s.Is("PO1") || s.Is("POC");

    // ITD07 is the net days (element 386).
    private Stated<int>? PaymentDays()
    {
        var itd = _message.Find("ITD");
        return itd is not null && int.TryParse(itd[7], NumberStyles.None, CultureInfo.InvariantCulture, out var days)
            ? new Stated<int>(days, EdiInterchange.Where(itd, 7))
            : null;
    }

    // FOB04/05 carry the term as a code (qualifier 01 = Incoterms); many partners write it into the description, FOB03,
    // instead.
    private static string? Incoterm(Segment fob) =>
        Incoterms.Is(fob[5].Trim())
            ? fob[5].Trim()
            : Incoterms.All.FirstOrDefault(t => fob[3].StartsWith(t + " ", StringComparison.OrdinalIgnoreCase));

    private static string? Place(Segment fob) =>
        Incoterm(fob) is { } term
            ? fob[3].StartsWith(term + " ", StringComparison.OrdinalIgnoreCase)
                ? fob[3][(term.Length + 1)..].Trim()
                : fob[7].Trim().Length > 0
                    ? fob[7].Trim()
                    : fob[3].Trim() is { Length: > 0 } words
                        ? words
                        : null
            : null;

    private static Stated<string>? Note(List<Segment> head)
    {
        var notes = head.Where(s => s.Is("MSG") || s.Is("NTE")).ToList();
        return notes.Count == 0
            ? null
            : new Stated<string>(
                string.Join(' ', notes.Select(s => (s.Is("NTE") ? s[2] : s[1]).Trim())),
                new Evidence(0, notes[0].Start, notes[^1].Start + notes[^1].Length - notes[0].Start)
            );
    }

    // SAC01 C is a charge, A an allowance; SAC05 is an amount with two implied decimals (type N2).
    private ImmutableArray<(string Kind, decimal Amount)> SheetCharges(List<Segment> head) =>
        [
            .. head.Where(s => s.Is("SAC"))
                .Select(s => (Segment: s, Amount: _values.Number(s, 5)))
                .Where(s => s.Amount is not null && _used.Add(s.Segment))
                .Select(s =>
                    (
                        Charges.GetValueOrDefault(
                            s.Segment[2],
                            s.Segment[15] is { Length: > 0 } words ? words : s.Segment[2]
                        ),
                        s.Amount!.Value / 100m * (s.Segment[1] == "A" ? -1m : 1m)
                    )
                ),
        ];

    private ImmutableArray<StatedLine> Lines()
    {
        var lines = ImmutableArray.CreateBuilder<StatedLine>();
        for (var i = 0; i < _set.Count; i++)
        {
            if (!IsLine(_set[i]))
                continue;
            var end = i + 1;
            while (end < _set.Count && !IsLine(_set[end]) && !_set[end].Is("CTT") && !_set[end].Is("SE"))
                end++;
            var detail = _set.GetRange(i + 1, end - i - 1);
            Scheduled(_set[i], Line(_set[i], detail), detail, lines);
            i = end - 1;
        }
        return lines.ToImmutable();
    }

    private StatedLine Line(Segment line, List<Segment> detail)
    {
        // POC has the change before the quantity and the quantity left behind it.
        var isChange = line.Is("POC");
        var (quantity, unit, price, basis, codes) = isChange ? (3, 5, 6, 7, 8) : (2, 3, 4, 5, 6);
        if (isChange)
            _values.Needs(line, 2);
        Stated<string>? Code(params ReadOnlySpan<string> qualifiers)
        {
            // From the codes on: pairs of qualifier and code.
            for (var p = codes; p < line.Elements; p += 2)
            {
                foreach (var qualifier in qualifiers)
                {
                    if (line.Says(p, qualifier) && line[p + 1].Trim() is { Length: > 0 } code)
                        return new Stated<string>(code, EdiInterchange.Where(line, p + 1));
                }
            }
            return null;
        }
        var (counted, priced) = (_values.Number(line, quantity), _values.Number(line, price));
        var descriptions = detail.FindAll(s => s.Is("PID") && s[5].Trim().Length > 0);
        var amount = detail.Find(s => s.Is("AMT") && s[1] == "1");
        return new StatedLine(
            line[1].Trim(),
            counted,
            line[unit, 1],
            priced,
            PriceBases.GetValueOrDefault(line[basis].Trim(), 1m),
            Code("BP", "IN", "SK", "CB", "PI"),
            Code("VP", "VN", "VC", "SA"),
            Code("UP", "EN", "UK", "UI", "UA"),
            string.Join(' ', descriptions.Select(s => s[5].Trim())),
            [EdiInterchange.Where(line), .. descriptions.Select(s => EdiInterchange.Where(s))]
        )
        {
            Wanted = WantedIn(detail),
            Amount = amount is null ? null : _values.Number(amount, 2),
            Allowances = detail.Exists(s => s.Is("SAC"))
                ? X12Allowances.Of(detail, _values, Gross(counted, priced, line[basis]), _used)
                : 0m,
            Note = isChange ? Changes.GetValueOrDefault(line[2].Trim(), line[2].Trim()) : NoteOf(detail),
            TakenBack = isChange && line[2].Trim() == "DI",
        };
    }

    private Stated<DateOnly>? WantedIn(List<Segment> segments)
    {
        foreach (var s in segments)
        {
            if (s.Is("DTM") && Wanted.Contains(s[1]) && _values.Date(s, 2, 1, "yyyyMMdd", "yyMMdd") is { } day)
                return day;
        }
        return null;
    }

    private string NoteOf(List<Segment> detail) =>
        string.Join(' ', detail.FindAll(s => s.Is("MSG") && _used.Add(s)).Select(s => s[1].Trim()));

    // What a line comes to before anything is taken off; null where it does not say.
    private static decimal? Gross(Stated<decimal>? quantity, Stated<decimal>? price, string basis) =>
        quantity is not null && price is not null
            ? quantity.Value * price.Value / PriceBases.GetValueOrDefault(basis.Trim(), 1m)
            : null;

    // Element 670.
    private static readonly Dictionary<string, string> Changes = new()
    {
        ["AI"] = "added",
        ["DI"] = "taken back",
        ["CA"] = "changed",
        ["PC"] = "price changed",
        ["QI"] = "quantity raised",
        ["QD"] = "quantity lowered",
        ["PQ"] = "price and quantity changed",
        ["RZ"] = "replaced",
        ["RS"] = "other dates",
    };

    // SCH says how much on which day; SDQ how much to which place, ten pairs to a segment.
    private void Scheduled(
        Segment head,
        StatedLine line,
        List<Segment> detail,
        ImmutableArray<StatedLine>.Builder lines
    )
    {
        if (!detail.Exists(s => s.Is("SCH") || s.Is("SDQ")))
        {
            lines.Add(line);
            return;
        }
        var parts = new List<StatedLine>();
        foreach (var sch in detail.Where(s => s.Is("SCH")))
        {
            var day = _values.Date(sch, 6, 1, "yyyyMMdd", "yyMMdd") ?? _values.Date(sch, 9, 1, "yyyyMMdd", "yyMMdd");
            parts.Add(
                line with
                {
                    Quantity = _values.Number(sch, 1),
                    Unit = sch[2].Trim().Length > 0 ? sch[2].Trim() : line.Unit,
                    Wanted = day ?? line.Wanted,
                    Note = sch[4].Trim(),
                    Evidence = [EdiInterchange.Where(sch), .. line.Evidence],
                }
            );
        }
        foreach (var sdq in detail.Where(s => s.Is("SDQ")))
        {
            for (var e = 3; e < sdq.Elements; e += 2)
            {
                if (sdq[e].Trim().Length > 0)
                    parts.Add(
                        line with
                        {
                            Quantity = _values.Number(sdq, e + 1),
                            Unit = sdq[1].Trim().Length > 0 ? sdq[1].Trim() : line.Unit,
                            Note = $"to {sdq[e].Trim()}",
                            Evidence = [EdiInterchange.Where(sdq, e + 1), .. line.Evidence],
                        }
                    );
            }
        }
        if (parts.Count == 0)
        {
            lines.Add(line);
            return;
        }
        _values.AddUp(line, parts, head);
        lines.AddRange(parts);
    }

    private void CheckTotals(ImmutableArray<StatedLine> lines)
    {
        var ctt = _message.Find("CTT");
        if (ctt is null)
            return;
        var numbers = _set.Count(IsLine);
        if (_values.Number(ctt, 1) is { } count && count.Value != numbers)
            _values.Disagrees(
                count,
                ctt,
                string.Create(CultureInfo.InvariantCulture, $"CTT counts {count.Value:0} lines; there are {numbers}.")
            );
        var sum = lines.Sum(l => l.Quantity?.Value ?? 0m);
        if (_values.Number(ctt, 2) is { } hash && hash.Value != sum)
            _values.Disagrees(
                hash,
                ctt,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The control total of the quantities is {hash.Value:0.##}; they add up to {sum:0.##}."
                )
            );
    }
}
