using System.Globalization;
using System.Text;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.Edifact;

/// <summary>
/// Writes a CONTRL message, the syntax and service report (ISO 9735-4, version 3): one for an interchange, with every
/// fault at its segment and element.
/// </summary>
public static class SyntaxReport
{
    /// <param name="reference">Reference of this interchange.</param>
    public static string Write(EdiInterchange of, string reference, DateTime at)
    {
        ArgumentNullException.ThrowIfNull(of);
        var text = new StringBuilder();
        var count = 0;
        void Add(string segment)
        {
            count++;
            text.Append(segment).Append("'\n");
        }
        Add(
            $"UNB+UNOC:3+{EdifactText.Party(of.Receiver, of.ReceiverQualifier)}+{EdifactText.Party(of.Sender, of.SenderQualifier)}+{at.ToString("yyMMdd:HHmm", CultureInfo.InvariantCulture)}+{EdifactText.Clean(reference)}"
        );
        count = 0;
        Add("UNH+1+CONTRL:D:3:UN");
        // 0083: 7 acknowledged, 8 received, 4 rejected with all its messages.
        var envelope = of.Faults.FirstOrDefault();
        Add(
            $"UCI+{EdifactText.Clean(of.Reference)}+{EdifactText.Party(of.Sender, of.SenderQualifier)}+{EdifactText.Party(of.Receiver, of.ReceiverQualifier)}+{(envelope is null ? "7" : "8")}{(envelope is null ? "" : $"+{Code(envelope.Kind)}+{EdifactText.Clean(envelope.Tag.Length > 0 ? envelope.Tag : "UNZ")}")}"
        );
        foreach (var m in of.Messages)
        {
            var breaks = m.Faults.FirstOrDefault(f => f.Breaks);
            var action = breaks is not null || m.Faults.Any(f => f.Kind == FaultKind.NotTaken) ? "4" : "7";
            var code =
                m.Faults.Any(f => f.Kind == FaultKind.NotTaken) ? "14"
                : breaks is null ? ""
                : Code(breaks.Kind);
            var version = m.Version.Split('.');
            Add(
                $"UCM+{EdifactText.Clean(m.Reference)}+{EdifactText.Clean(m.Type)}:{EdifactText.Clean(version[0])}:{EdifactText.Clean(version.Length > 1 ? version[1] : "")}:UN+{action}{(code.Length > 0 ? "+" + code : "")}"
            );
            foreach (
                var at2 in m
                    .Faults.Where(f =>
                        f.Segment > 0
                        && f.Kind
                            is FaultKind.SegmentMissing
                                or FaultKind.ElementMissing
                                or FaultKind.NotANumber
                                or FaultKind.NotADate
                    )
                    .GroupBy(f => f.Segment)
                    .OrderBy(g => g.Key)
            )
            {
                Add($"UCS+{at2.Key}{(at2.Any(f => f.Kind == FaultKind.SegmentMissing) ? "+13" : "")}");
                foreach (var f in at2.Where(f => f.Element > 0))
                    Add($"UCD+{Code(f.Kind)}+{f.Element + 1}{(f.Component > 0 ? $":{f.Component}" : "")}");
            }
        }
        Add($"UNT+{count + 1}+1");
        text.Append("UNZ+1+").Append(EdifactText.Clean(reference)).Append("'\n");
        return text.ToString();
    }

    // 0085: 12 invalid value, 13 missing, 14 value not supported in this position, 28 references do not match, 29
    // control count does not match, 37 invalid type of characters.
    private static string Code(FaultKind kind) =>
        kind switch
        {
            FaultKind.SegmentMissing or FaultKind.ElementMissing or FaultKind.BrokenOff => "13",
            FaultKind.Reference => "28",
            FaultKind.Count => "29",
            FaultKind.NotANumber => "37",
            _ => "12",
        };
}
