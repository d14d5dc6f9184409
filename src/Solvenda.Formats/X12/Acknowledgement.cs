using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Solvenda.Formats.X12;

/// <summary>One line as confirmed: what was ordered, what is confirmed, at what price and for when.</summary>
/// <param name="Change">IA accepted, IP accepted with a changed price, DR accepted with a changed date (element
/// 668).</param>
public sealed record ConfirmedLine(
    string Number,
    decimal Quantity,
    string Unit,
    decimal Price,
    string PriceBasis,
    string Change,
    DateOnly? Ships,
    ImmutableArray<(string Qualifier, string Code)> Codes
);

/// <summary>What an 855 says.</summary>
public sealed record OrderAcknowledgement(
    string Sender,
    string Receiver,
    int Control,
    DateTime At,
    string PoNumber,
    DateOnly? PoDate,
    string OrderNumber,
    bool WithChanges,
    string Currency,
    ImmutableArray<ConfirmedLine> Lines
);

/// <summary>Writes the transaction set 855, purchase order acknowledgement (ASC X12, version 4010).</summary>
public static class Acknowledgement
{
    public static string Write(OrderAcknowledgement ack)
    {
        ArgumentNullException.ThrowIfNull(ack);
        var day = Day(DateOnly.FromDateTime(ack.At), "yyyyMMdd");
        var time = ack.At.ToString("HHmm", CultureInfo.InvariantCulture);
        var control = ack.Control.ToString("D9", CultureInfo.InvariantCulture);
        var set = new List<string>
        {
            "ST*855*0001",
            // BAK01 00 original; BAK02 AC with detail and change, AD without change.
            $"BAK*00*{(ack.WithChanges ? "AC" : "AD")}*{X12Text.Clean(ack.PoNumber)}*{Day(ack.PoDate ?? DateOnly.FromDateTime(ack.At), "yyyyMMdd")}****{X12Text.Clean(ack.OrderNumber)}",
            $"CUR*SE*{ack.Currency}",
        };
        foreach (var line in ack.Lines)
        {
            var codes = string.Concat(line.Codes.Select(c => $"*{c.Qualifier}*{X12Text.Clean(c.Code)}"));
            set.Add(
                $"PO1*{X12Text.Clean(line.Number)}*{Number(line.Quantity)}*{X12Text.Clean(line.Unit)}*{Number(line.Price)}*{X12Text.Clean(line.PriceBasis)}{codes}"
            );
            set.Add(
                $"ACK*{line.Change}*{Number(line.Quantity)}*{X12Text.Clean(line.Unit)}"
                    + (line.Ships is { } ships ? $"*068*{Day(ships, "yyyyMMdd")}" : "")
            );
        }
        set.Add($"CTT*{ack.Lines.Length}");
        set.Add($"SE*{set.Count + 1}*0001");

        var text = new StringBuilder();
        void Add(string segment) => text.Append(segment).Append("~\n");
        Add(
            $"ISA*00*          *00*          *ZZ*{X12Text.Clean(ack.Sender), -15}*01*{X12Text.Clean(ack.Receiver), -15}*{Day(DateOnly.FromDateTime(ack.At), "yyMMdd")}*{time}*U*00401*{control}*0*P*>"
        );
        Add($"GS*PR*{X12Text.Clean(ack.Sender)}*{X12Text.Clean(ack.Receiver)}*{day}*{time}*{ack.Control}*X*004010");
        set.ForEach(Add);
        Add($"GE*1*{ack.Control}");
        Add($"IEA*1*{control}");
        return text.ToString();
    }

    private static string Number(decimal value) => value.ToString("0.####", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day, string format) => day.ToString(format, CultureInfo.InvariantCulture);
}
