using System.Globalization;
using System.Text;
using System.Text.Json;
using Solvenda.Core.Ordering;

namespace Solvenda.Formats.Channels;

/// <summary>
/// Answers an order of a sales channel as the channel takes it: its own id, and for each of its lines what is confirmed
/// and when it leaves. JSON (RFC 8259).
/// </summary>
internal sealed class ChannelAnswer : IOrderAnswer
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    public Syntax Answers => Syntax.Json;

    public WrittenMessage? Write(ConfirmedOrder order, string original, int control, DateTime at)
    {
        var lines = order.Lines.Select(l => (Line: l, Answer: AnsweredLine.Of(l))).ToList();
        var answer = new
        {
            Answer = control,
            Id = order.PoNumber,
            Ours = order.Number,
            Change = order.Version,
            At = at.ToString("O", CultureInfo.InvariantCulture),
            Status = lines.TrueForAll(l => l.Answer.AsOrdered) ? "accepted" : "changed",
            Lines = lines
                .Select(l => new
                {
                    Sku = l.Line.Line.Line.Asked.Code ?? l.Line.Line.Item?.Code ?? l.Line.Line.Line.Words,
                    l.Answer.Quantity,
                    Status = l.Answer.AsOrdered ? "accepted" : "changed",
                    Leaves = l.Answer.Ready,
                })
                .ToList(),
            Refused = order
                .Gone.Select(g => new { Sku = g.Line.Line.Asked.Code ?? g.Line.Item?.Code ?? g.Line.Line.Words })
                .ToList(),
        };
        var again = order.Version == 0 ? "" : FormattableString.Invariant($"-{order.Version}");
        return new WrittenMessage(
            $"order-{order.Number}{again}.json",
            order.PoNumber,
            Encoding.UTF8.GetBytes(JsonSerializer.Serialize(answer, Json))
        );
    }
}
