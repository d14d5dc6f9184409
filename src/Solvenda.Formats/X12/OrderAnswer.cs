using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.X12;

/// <summary>
/// Answers an 850 by an 855, and tells what is changed later by an 865. Units and price bases are theirs: the answer
/// speaks the language of the order.
/// </summary>
internal sealed class OrderAnswer : IOrderAnswer
{
    public Syntax Answers => Syntax.X12;

    public WrittenMessage? Write(ConfirmedOrder order, string original, int control, DateTime at)
    {
        if (Asked(order.PoNumber, original) is not var (theirs, segments))
            return null;
        var po1 = segments.Where(s => s.Tag == "PO1").ToList();
        var lines = ImmutableArray.CreateBuilder<ConfirmedLine>();
        var answered = new HashSet<Segment>();
        foreach (var line in order.Lines)
        {
            var place = po1.Count == order.Lines.Length ? lines.Count : (int?)null;
            var its = TheirsOf(po1, line.Line.Line.Asked, place);
            if (its is not null)
                answered.Add(its);
            lines.Add(LineOf(line, its) with { Since = Since(order.SinceBefore(line)) });
        }
        foreach (var gone in order.Gone)
        {
            var its = TheirsOf(po1, gone.Line.Line.Asked, null);
            if (its is not null)
                answered.Add(its);
            lines.Add(LineOf(gone, its) with { Change = "ID", Since = "DI", Ships = null });
        }
        // What they ordered and nobody confirms is refused by name.
        if (order.Version == 0)
            lines.AddRange(po1.Where(s => !answered.Contains(s)).Select(Rejected));
        var text = Acknowledgement.Write(
            new OrderAcknowledgement(
                theirs.Receiver,
                theirs.Sender,
                control,
                at,
                order.PoNumber,
                PoDate(segments),
                order.Number,
                lines.Count != po1.Count || lines.Any(l => l.Change != "IA"),
                order.Currency,
                lines.ToImmutable()
            )
            {
                Version = order.Version,
            }
        );
        var name = order.Version == 0 ? $"855-{order.Number}" : $"865-{order.Number}-{order.Version}";
        return new WrittenMessage($"{name}.x12", theirs.Sender, Encoding.ASCII.GetBytes(text))
        {
            Control = control.ToString(System.Globalization.CultureInfo.InvariantCulture),
        };
    }

    // POC02, what became of the line (X12 element 670).
    private static string Since(LineChange change) =>
        change switch
        {
            LineChange.Added => "AI",
            LineChange.Changed => "CA",
            _ => "NC",
        };

    private static ConfirmedLine Rejected(Segment theirs) =>
        new(
            theirs[1],
            Number(theirs[2]) ?? 0m,
            theirs[3],
            Number(theirs[4]) ?? 0m,
            theirs[5].Length > 0 ? theirs[5] : "PE",
            "IR",
            null,
            theirs.Elements >= 7 ? [(theirs[6], theirs[7])] : []
        );

    // The order among all that came in one file; the first where none has its number.
    internal static (EdiInterchange Interchange, List<Segment> Segments)? Asked(string poNumber, string original)
    {
        var messages = Interchanges
            .Of(Encoding.Latin1.GetBytes(original), isX12: true)
            .Select(raw => X12Interchange.Open(Encoding.Latin1.GetString(raw)).Interchange)
            .OfType<EdiInterchange>()
            .SelectMany(x => x.Messages.Select(m => (Interchange: x, m.Segments)))
            .ToList();
        var at = messages.FindIndex(m =>
            m.Segments.Find(s => s.Tag == "BEG") is { } beg && PoKey.Of(beg[3]) == PoKey.Of(poNumber)
        );
        return messages.Count == 0 ? null : messages[Math.Max(0, at)];
    }

    private static DateOnly? PoDate(List<Segment> theirs) =>
        DateOnly.TryParseExact(
            theirs.Find(s => s.Tag == "BEG")?[5],
            "yyyyMMdd",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var day
        )
            ? day
            : null;

    private static ConfirmedLine LineOf(ConfirmedOrderLine confirmed, Segment? theirs)
    {
        var (line, asked) = (confirmed.Line, confirmed.Line.Line.Asked);
        var (unit, quantity, price, basis) = InTheirs(line, theirs);
        var codes = new List<(string, string)>();
        if (asked.Code is { } code && asked.Code != line.Item?.Code)
            codes.Add(("BP", code));
        if (line.Item is { } item)
            codes.Add(("VP", item.Code));
        return new ConfirmedLine(
            theirs?[1] ?? line.Line.Key.ToString(CultureInfo.InvariantCulture),
            quantity,
            unit,
            price,
            basis,
            Change(
                theirs is not null && asked.Price is { } p && price != p,
                theirs is not null && Number(theirs[2]) is { } n && quantity != n
            ),
            confirmed.Ready,
            [.. codes]
        );
    }

    // ACK01, line item status (X12 element 668).
    private static string Change(bool price, bool quantity) =>
        (price, quantity) switch
        {
            (true, true) => "IC",
            (true, false) => "IP",
            (false, true) => "IQ",
            _ => "IA",
        };

    private static decimal? Number(string text) =>
        decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            ? number
            : null;

    // By the code and quantity that they wrote, since lines may have been left out, split or added; else by its place,
    // as long as there are as many.
    private static Segment? TheirsOf(List<Segment> po1, AskedFor asked, int? place)
    {
        bool Names(Segment s) =>
            asked.Code is { } code && Enumerable.Range(6, Math.Max(0, s.Elements - 5)).Any(e => s.Says(e, code));
        bool AsMany(Segment s) => Number(s[2]) is { } quantity && quantity == asked.Quantity;
        return po1.FirstOrDefault(s => Names(s) && AsMany(s))
            ?? po1.FirstOrDefault(Names)
            ?? (place is { } at ? po1[at] : null);
    }

    private static (string Unit, decimal Quantity, decimal Price, string Basis) InTheirs(
        PricedLine line,
        Segment? theirs
    )
    {
        var net = line.Figures.NetPrice / line.Terms.PriceBase;
        if (
            theirs is null
            || UnitTable.FromCode(theirs[3]) is not { } unit
            || line.Item?.Factor(unit) is not { } to
            || line.Item.Factor(line.Line.Unit) is not { } from
        )
            return (line.Line.Unit.Code, line.Line.Quantity, UnitPrice.Round4(net), "PE");
        var times = line.Line.Asked.PriceBase;
        return (
            theirs[3],
            decimal.Round(line.Line.Quantity * from / to, 4),
            UnitPrice.Round4(net / from * to * times),
            theirs[5].Length > 0 ? theirs[5] : "PE"
        );
    }
}
