using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Solvenda.Formats.X12;

/// <summary>One line as confirmed: what was ordered, what is confirmed, at what price and for when.</summary>
/// <param name="Change">IA accepted, IP accepted with a changed price, IQ with a changed quantity, IC with both, IR
/// rejected (element 668).</param>
public sealed record ConfirmedLine(
    string Number,
    decimal Quantity,
    string Unit,
    decimal Price,
    string PriceBasis,
    string Change,
    DateOnly? Ships,
    ImmutableArray<(string Qualifier, string Code)> Codes
)
{
    /// <summary>For a change: AI added, CA changed, DI deleted, NC as it was (element 670).</summary>
    public string Since { get; init; } = "NC";
}

/// <summary>What an 855 says; and, where it was confirmed before, an 865.</summary>
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
)
{
    /// <summary>Which change it is, from 1; 0 where it is the first answer.</summary>
    public int Version { get; init; }
}

/// <summary>
/// Writes the transaction sets 855, purchase order acknowledgement, and 865, purchase order change of the seller's (ASC
/// X12, version 4010).
/// </summary>
public static class Acknowledgement
{
    public static string Write(OrderAcknowledgement ack)
    {
        ArgumentNullException.ThrowIfNull(ack);
        var day = Day(DateOnly.FromDateTime(ack.At), "yyyyMMdd");
        var time = ack.At.ToString("HHmm", CultureInfo.InvariantCulture);
        var control = ack.Control.ToString("D9", CultureInfo.InvariantCulture);
        var isChange = ack.Version > 0;
        var poDay = Day(ack.PoDate ?? DateOnly.FromDateTime(ack.At), "yyyyMMdd");
        var set = new List<string>
        {
            $"ST*{(isChange ? "865" : "855")}*0001",
            // BAK01 00 original, BCA01 04 change; BAK02 and BCA02 AC with detail and change, AD without change.
            isChange
                ? $"BCA*04*AC*{X12Text.Clean(ack.PoNumber)}**{ack.Version}*{poDay}***{X12Text.Clean(ack.OrderNumber)}"
                : $"BAK*00*{(ack.WithChanges ? "AC" : "AD")}*{X12Text.Clean(ack.PoNumber)}*{poDay}****{X12Text.Clean(ack.OrderNumber)}",
            $"CUR*SE*{ack.Currency}",
        };
        foreach (var line in ack.Lines)
        {
            var codes = string.Concat(line.Codes.Select(c => $"*{c.Qualifier}*{X12Text.Clean(c.Code)}"));
            var (number, quantity) = (X12Text.Clean(line.Number), Number(line.Quantity));
            var priced = $"{X12Text.Clean(line.Unit)}*{Number(line.Price)}*{X12Text.Clean(line.PriceBasis)}{codes}";
            // POC04, left to receive: all of it, since nothing that has gone is changed.
            set.Add(
                isChange
                    ? $"POC*{number}*{line.Since}*{quantity}*{(line.Since == "DI" ? "0" : quantity)}*{priced}"
                    : $"PO1*{number}*{quantity}*{priced}"
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
        Add(
            $"GS*{(isChange ? "CA" : "PR")}*{X12Text.Clean(ack.Sender)}*{X12Text.Clean(ack.Receiver)}*{day}*{time}*{ack.Control}*X*004010"
        );
        set.ForEach(Add);
        Add($"GE*1*{ack.Control}");
        Add($"IEA*1*{control}");
        return text.ToString();
    }

    private static string Number(decimal value) => value.ToString("0.####", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day, string format) => day.ToString(format, CultureInfo.InvariantCulture);
}
