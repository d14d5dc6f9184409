using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.X12;

/// <summary>Reads the transaction set 850, purchase order (ASC X12, versions 3040 to 8010).</summary>
public static class PurchaseOrder
{
    // Basis of unit price, element 639: how many units a price is for.
    private static readonly Dictionary<string, decimal> PriceBases = new() { ["HP"] = 100m, ["HN"] = 100m, ["PN"] = 10m, ["TP"] = 1000m, ["TH"] = 1000m };

    private static readonly Dictionary<string, string> Charges = new() { ["D240"] = "freight", ["D500"] = "handling", ["D980"] = "insurance" };

    /// <summary>The first 850 of the interchange. Null, with the reason, where there is none or where it has no lines.</summary>
    public static (OrderDocument? Document, string? Problem) Read(Interchange interchange)
    {
        ArgumentNullException.ThrowIfNull(interchange);
        var start = interchange.Segments.ToList().FindIndex(s => s.Tag == "ST");
        if (start < 0)
            return (null, "The interchange holds no transaction set.");
        if (interchange.Segments[start][1] != "850")
            return (null, $"Transaction set {interchange.Segments[start][1]} is kept, but not read yet.");
        var set = interchange.Segments.Skip(start).TakeWhile(s => s.Tag != "SE").ToList();
        var reader = new Reader(set, interchange.Sender, Where(interchange.Isa));
        return reader.Read();
    }

    private static Evidence Where(Segment segment) => new(0, segment.Start, segment.Length);

    private sealed class Reader(List<Segment> set, string sender, Evidence senderWhere)
    {
        private readonly List<string> _warnings = [];

        public (OrderDocument? Document, string? Problem) Read()
        {
            var beg = set.FirstOrDefault(s => s.Tag == "BEG");
            var lines = Lines();
            if (beg is null || lines.IsEmpty)
                return (null, beg is null ? "The 850 has no BEG segment." : "The 850 has no lines.");
            CheckTotals(lines);
            var fob = set.FirstOrDefault(s => s.Tag == "FOB");
            var per = set.FirstOrDefault(s => s.Tag == "PER");
            return (new OrderDocument(
                MessageKind.Order,
                new Stated<string>(sender, senderWhere),
                Text(per, 2),
                per is not null && per[3] == "EM" ? Text(per, 4) : null,
                Text(beg, 3),
                Date(beg[5]),
                Wanted(),
                DeliverTo(),
                fob is not null && Incoterm(fob) is { } term ? new Stated<string>(term, Where(fob)) : null,
                fob is not null && Place(fob) is { } place ? new Stated<string>(place, Where(fob)) : null,
                Text(set.FirstOrDefault(s => s.Tag == "CUR"), 2),
                PaymentDays(),
                lines,
                SheetCharges(),
                [.. _warnings]), null);
        }

        private static Stated<string>? Text(Segment? segment, int position) =>
            segment is not null && segment[position].Trim() is { Length: > 0 } text ? new Stated<string>(text, Where(segment)) : null;

        private static DateOnly? Date(string text) =>
            DateOnly.TryParseExact(text.Trim(), ["yyyyMMdd", "yyMMdd"], CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day : null;

        private static decimal? Number(string text) =>
            decimal.TryParse(text.Trim(), NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var n) ? n : null;

        // Element 374: 002 delivery requested, 010 ship requested.
        private Stated<DateOnly>? Wanted()
        {
            var dtm = set.FirstOrDefault(s => s.Tag == "DTM" && s[1] is "002" or "010" && Date(s[2]) is not null);
            return dtm is null ? null : new Stated<DateOnly>(Date(dtm[2])!.Value, Where(dtm));
        }

        // ITD07 is the net days (element 386).
        private Stated<int>? PaymentDays()
        {
            var itd = set.FirstOrDefault(s => s.Tag == "ITD");
            return itd is not null && int.TryParse(itd[7], NumberStyles.None, CultureInfo.InvariantCulture, out var days) ? new Stated<int>(days, Where(itd)) : null;
        }

        // The N1 loop of the ship-to party, with its N3 and N4.
        private Stated<string>? DeliverTo()
        {
            var n1 = set.FindIndex(s => s.Tag == "N1" && s[1] == "ST");
            if (n1 < 0)
                return null;
            var loop = set.Skip(n1 + 1).TakeWhile(s => s.Tag is "N2" or "N3" or "N4").ToList();
            var parts = loop.Where(s => s.Tag is "N2" or "N3").SelectMany(s => s.Elements).Concat(
                loop.Where(s => s.Tag == "N4").Select(s => string.Join(' ', new[] { s[1], s[2], s[3] }.Where(p => p.Length > 0)))).ToList();
            var country = loop.FirstOrDefault(s => s.Tag == "N4")?[4];
            var text = string.Join(", ", parts.Prepend(set[n1][2]).Append(country ?? "").Where(p => p.Length > 0));
            var last = loop.Count > 0 ? loop[^1] : set[n1];
            return new Stated<string>(text, new Evidence(0, set[n1].Start, last.Start + last.Length - set[n1].Start));
        }

        private static readonly string[] Incoterms = ["EXW", "FCA", "CPT", "CIP", "DAP", "DPU", "DDP", "FAS", "FOB", "CFR", "CIF"];

        // FOB04/05 carry the term as a code (qualifier 01 = Incoterms); many partners write it into the description, FOB03, instead.
        private static string? Incoterm(Segment fob) =>
            Incoterms.Contains(fob[5]) ? fob[5] : Incoterms.FirstOrDefault(t => fob[3].StartsWith(t + " ", StringComparison.OrdinalIgnoreCase));

        private static string? Place(Segment fob) => Incoterm(fob) is { } term
            ? fob[3].StartsWith(term + " ", StringComparison.OrdinalIgnoreCase) ? fob[3][(term.Length + 1)..].Trim() : fob[7].Length > 0 ? fob[7] : fob[3]
            : null;

        // SAC01 C is a charge, A an allowance; SAC05 is an amount with two implied decimals (type N2).
        private ImmutableArray<(string Kind, decimal Amount)> SheetCharges() =>
        [
            .. set.TakeWhile(s => s.Tag != "PO1").Where(s => s.Tag == "SAC" && Number(s[5]) is not null).Select(s =>
                (Charges.GetValueOrDefault(s[2], s[2]), Number(s[5])!.Value / 100m * (s[1] == "A" ? -1m : 1m))),
        ];

        private ImmutableArray<StatedLine> Lines()
        {
            var lines = ImmutableArray.CreateBuilder<StatedLine>();
            for (var i = 0; i < set.Count; i++)
            {
                if (set[i].Tag == "PO1")
                    lines.Add(Line(set[i], set.Skip(i + 1).TakeWhile(s => s.Tag is not ("PO1" or "CTT" or "SE")).FirstOrDefault(s => s.Tag == "PID")));
            }
            return lines.ToImmutable();
        }

        private static StatedLine Line(Segment po1, Segment? pid)
        {
            var where = Where(po1);
            Stated<string>? Code(params string[] qualifiers)
            {
                // PO106 on: pairs of qualifier and code.
                for (var p = 6; p <= po1.Elements.Length; p += 2)
                {
                    if (qualifiers.Contains(po1[p]) && po1[p + 1].Length > 0)
                        return new Stated<string>(po1[p + 1].Trim(), where);
                }
                return null;
            }
            return new StatedLine(
                po1[1],
                Number(po1[2]) is { } q ? new Stated<decimal>(q, where) : null,
                po1[3],
                Number(po1[4]) is { } p ? new Stated<decimal>(p, where) : null,
                PriceBases.GetValueOrDefault(po1[5], 1m),
                Code("BP", "IN", "SK"),
                Code("VP", "VN"),
                Code("UP", "EN", "UK", "GTIN"),
                pid?[5] ?? "",
                pid is null ? [where] : [where, Where(pid)]);
        }

        private void CheckTotals(ImmutableArray<StatedLine> lines)
        {
            var ctt = set.FirstOrDefault(s => s.Tag == "CTT");
            if (ctt is null)
                return;
            if (Number(ctt[1]) is { } count && count != lines.Length)
                _warnings.Add(FormattableString.Invariant($"CTT counts {count:0} lines; there are {lines.Length}."));
            var sum = lines.Sum(l => l.Quantity?.Value ?? 0m);
            if (Number(ctt[2]) is { } hash && hash != sum)
                _warnings.Add(FormattableString.Invariant($"The control total of the quantities is {hash:0.##}; they add up to {sum:0.##}."));
        }
    }
}
