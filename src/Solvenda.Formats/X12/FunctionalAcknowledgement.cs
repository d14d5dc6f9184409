using System.Globalization;
using System.Text;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats.X12;

/// <summary>
/// Writes the transaction set 997, functional acknowledgement (ASC X12, version 4010): one for each group, with every
/// fault at its segment and element.
/// </summary>
public static class FunctionalAcknowledgement
{
    /// <param name="control">Control number of this interchange.</param>
    public static string Write(EdiInterchange of, int control, DateTime at)
    {
        ArgumentNullException.ThrowIfNull(of);
        var day = at.ToString("yyyyMMdd", CultureInfo.InvariantCulture);
        var time = at.ToString("HHmm", CultureInfo.InvariantCulture);
        var text = new StringBuilder();
        void Add(string segment) => text.Append(segment).Append("~\n");
        Add(
            $"ISA*00*          *00*          *{Two(of.ReceiverQualifier)}*{X12Text.Clean(of.Receiver), -15}*{Two(of.SenderQualifier)}*{X12Text.Clean(of.Sender), -15}*{day[2..]}*{time}*U*00401*{control:D9}*0*P*>"
        );
        Add($"GS*FA*{X12Text.Clean(of.Receiver)}*{X12Text.Clean(of.Sender)}*{day}*{time}*{control}*X*004010");
        var sets = 0;
        foreach (var group in of.Groups.DefaultIfEmpty(new EdiGroup("PO", "0", of.Sender)))
        {
            var messages = of.Messages.Where(m => m.Group is null || ReferenceEquals(m.Group, group)).ToList();
            var set = new List<string>
            {
                $"ST*997*{++sets:D4}",
                $"AK1*{X12Text.Clean(group.Function)}*{X12Text.Clean(group.Reference)}",
            };
            foreach (var m in messages)
                set.AddRange(Of(m));
            var taken = messages.Count(m => !m.Faults.Any(f => f.Breaks));
            // Element 715: accepted, partly, rejected.
            set.Add(
                $"AK9*{(taken == messages.Count ? messages.Any(m => m.Faults.Count > 0) ? "E" : "A" : taken == 0 ? "R" : "P")}*{messages.Count}*{messages.Count}*{taken}{(group.Faults.Count > 0 ? "*" + (group.Faults[0].Kind == FaultKind.Count ? "5" : "4") : "")}"
            );
            set.Add($"SE*{set.Count + 1}*{sets:D4}");
            set.ForEach(Add);
        }
        Add($"GE*{sets}*{control}");
        Add($"IEA*1*{control:D9}");
        return text.ToString();
    }

    private static IEnumerable<string> Of(EdiMessage m)
    {
        yield return $"AK2*{X12Text.Clean(m.Type)}*{X12Text.Clean(m.Reference)}";
        foreach (
            var at in m
                .Faults.Where(f =>
                    f.Segment > 0 && f.Kind is not (FaultKind.Count or FaultKind.Reference or FaultKind.BrokenOff)
                )
                .GroupBy(f => (f.Segment, f.Tag))
                .OrderBy(g => g.Key.Segment)
        )
        {
            // Element 720: 3 mandatory segment missing, 8 segment has data element errors.
            yield return $"AK3*{X12Text.Clean(at.Key.Tag)}*{at.Key.Segment}**{(at.Any(f => f.Kind == FaultKind.SegmentMissing) ? "3" : "8")}";
            foreach (var f in at.Where(f => f.Element > 0))
                yield return $"AK4*{f.Element}**{Code(f.Kind)}{(f.Bad.Length > 0 ? "*" + X12Text.Clean(f.Bad.Length > 99 ? f.Bad[..99] : f.Bad) : "")}";
        }
        // Element 718: 1 not supported, 2 trailer missing, 3 numbers differ, 4 count is wrong, 5 segments in error.
        var breaks = m.Faults.FirstOrDefault(f => f.Breaks);
        var code = m.Faults.Any(f => f.Kind == FaultKind.NotTaken)
            ? "1"
            : breaks?.Kind switch
            {
                FaultKind.BrokenOff => "2",
                FaultKind.Reference => "3",
                FaultKind.Count => "4",
                FaultKind.SegmentMissing => "5",
                _ => m.Faults.Count > 0 ? "5" : "",
            };
        yield return $"AK5*{(breaks is not null || m.Faults.Any(f => f.Kind == FaultKind.NotTaken) ? "R" : m.Faults.Count > 0 ? "E" : "A")}{(code.Length > 0 ? "*" + code : "")}";
    }

    // Element 723: mandatory element missing, invalid character, invalid date.
    private static string Code(FaultKind kind) =>
        kind switch
        {
            FaultKind.ElementMissing => "1",
            FaultKind.NotADate => "8",
            FaultKind.NotANumber => "6",
            _ => "7",
        };

    private static string Two(string qualifier) => qualifier.Length == 2 ? qualifier : "ZZ";
}
