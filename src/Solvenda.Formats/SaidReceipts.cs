using System.Collections.Immutable;
using System.Text;
using MimeKit;
using Solvenda.Formats.Edi;

namespace Solvenda.Formats;

/// <summary>What somebody says of something that we sent: that they have it, or that it did not arrive.</summary>
/// <param name="Control">Number of our interchange or group, or the Message-ID of our mail.</param>
/// <param name="From">The id of whoever says so, as interchanges name them; empty for a mail.</param>
/// <param name="HasIt">False where they refused it, or it came back.</param>
public sealed record SaidReceipt(string Control, string From, bool HasIt, string Words);

/// <summary>
/// Reads acknowledgements of what we sent: the functional acknowledgement 997 (ASC X12), the CONTRL message (ISO
/// 9735-4), and reports that a mail did not arrive (RFC 3464).
/// </summary>
public static class SaidReceipts
{
    /// <summary>Empty where the file is none, or holds anything else too.</summary>
    public static ImmutableArray<SaidReceipt> In(byte[] raw, Syntax syntax)
    {
        ArgumentNullException.ThrowIfNull(raw);
        return syntax switch
        {
            Syntax.X12 => Functional(Encoding.Latin1.GetString(raw)),
            Syntax.Edifact => Syntactic(Encoding.Latin1.GetString(raw)),
            Syntax.Mail => Bounced(raw),
            _ => [],
        };
    }

    private static ImmutableArray<SaidReceipt> Functional(string text)
    {
        var segments = Readers.SegmentsOf(text);
        var sets = segments.Where(s => s.Is("ST")).ToList();
        if (sets.Count == 0 || sets.Exists(s => s[1] is not ("997" or "999")))
            return [];
        var from = segments.FirstOrDefault(s => s.Is("ISA"))?[6].Trim() ?? "";
        var said = ImmutableArray.CreateBuilder<SaidReceipt>();
        var (of, why) = ("", new List<string>());
        foreach (var s in segments)
        {
            if (s.Is("AK1"))
                (of, why) = (s[2], []);
            else if (s.Is("AK3"))
                why.Add($"segment {s[2]}, {s[1]}");
            // Element 715: accepted, with errors noted, partly, rejected.
            else if (s.Is("AK9") && of.Length > 0)
                said.Add(
                    new SaidReceipt(
                        of.TrimStart('0'),
                        from,
                        s[1] is "A" or "E",
                        s[1] is "A" ? "" : $"they say {s[1]}{(why.Count > 0 ? ": " + string.Join("; ", why) : "")}"
                    )
                );
        }
        return said.ToImmutable();
    }

    private static ImmutableArray<SaidReceipt> Syntactic(string text)
    {
        var segments = Readers.SegmentsOf(text);
        var heads = segments.Where(s => s.Is("UNH")).ToList();
        if (heads.Count == 0 || heads.Exists(s => s[2, 1] != "CONTRL"))
            return [];
        var from = segments.FirstOrDefault(s => s.Is("UNB"))?[2, 1] ?? "";
        // 0083: 4 rejected with all its messages, 7 acknowledged, 8 received.
        var refused = segments.Any(s => s.Is("UCM") && s[3] == "4");
        return
        [
            .. segments
                .Where(s => s.Is("UCI"))
                .Select(s => new SaidReceipt(
                    s[1],
                    from,
                    s[4] != "4" && !refused,
                    s[4] == "4" || refused ? "they refused it" : ""
                )),
        ];
    }

    // The message that did not arrive stands behind the report, whole or its head alone.
    private static ImmutableArray<SaidReceipt> Bounced(byte[] raw)
    {
        try
        {
            using var stream = new MemoryStream(raw, writable: false);
            var mail = MimeMessage.Load(stream);
            if (mail.Body is not MultipartReport { ReportType: "delivery-status" } report)
                return [];
            var status = report.OfType<MessageDeliveryStatus>().FirstOrDefault();
            var group = status?.StatusGroups.FirstOrDefault(g =>
                g["Action"] is { } action && action.Trim().Equals("failed", StringComparison.OrdinalIgnoreCase)
            );
            if (group is null)
                return [];
            var sent =
                report.OfType<MessagePart>().FirstOrDefault()?.Message?.MessageId
                ?? report.OfType<TextRfc822Headers>().FirstOrDefault()?.Message?.MessageId;
            var to = (group["Final-Recipient"] ?? "").Split(';')[^1].Trim();
            var why = (group["Diagnostic-Code"] ?? group["Status"] ?? "").Trim();
            return sent is null
                ? []
                : [new SaidReceipt(sent, "", false, $"it did not reach {to}: {why}".TrimEnd(' ', ':'))];
        }
        catch (FormatException)
        {
            return [];
        }
    }
}
