using System.Collections.Immutable;
using System.Text;
using Solvenda.Core.Reading;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Edifact;
using Solvenda.Formats.X12;

namespace Solvenda.Formats;

/// <summary>
/// Reads an interchange of either syntax into its messages: each one that becomes a request, is broken, or is only
/// kept.
/// </summary>
public static class EdiFile
{
    /// <summary>An interchange with more is none that a person could work through.</summary>
    public const int MostMessages = 2_000;

    public const string NoMessages = "The interchange holds no message.";

    /// <summary>
    /// The interchange, as long as its delimiters could be told; and what it holds. An interchange that cannot be
    /// opened is one message with the reason.
    /// </summary>
    public static (EdiInterchange? Interchange, ImmutableArray<Incoming> Messages) Read(byte[] raw, bool isX12)
    {
        ArgumentNullException.ThrowIfNull(raw);
        // X12 is ASCII; what is beyond comes through as it was, one character a byte, so that evidence keeps its place.
        var text = isX12 ? Encoding.Latin1.GetString(raw) : EdifactInterchange.Decode(raw);
        var (x, problem) = isX12 ? X12Interchange.Open(text) : EdifactInterchange.Open(text);
        if (x is null)
            return (
                null,
                [
                    new Incoming(
                        "",
                        isX12 ? "X12" : "EDIFACT",
                        [new OriginalPart("the interchange", PartKind.Edi, text)]
                    )
                    {
                        Problem = problem,
                    },
                ]
            );
        var part = new OriginalPart("the interchange", PartKind.Edi, text);
        var ownId = x.OwnId;
        var envelope = x.Faults.Select(f => f.Words).ToImmutableArray();
        if (x.Messages.Count == 0)
            return (
                x,
                [
                    new Incoming(x.Sender, $"{(isX12 ? "X12" : "EDIFACT")} {x.Reference}", [part])
                    {
                        OwnId = ownId,
                        Problem = envelope.FirstOrDefault() ?? NoMessages,
                    },
                ]
            );
        if (x.Messages.Count > MostMessages)
            return (
                x,
                [
                    new Incoming(x.Sender, $"{(isX12 ? "X12" : "EDIFACT")} {x.Reference}", [part])
                    {
                        OwnId = ownId,
                        Problem = string.Create(
                            System.Globalization.CultureInfo.InvariantCulture,
                            $"The interchange holds {x.Messages.Count:#,0} messages; up to {MostMessages:#,0} are read from one. It is kept as it came."
                        ),
                    },
                ]
            );
        if (x.Messages.Count == 1)
            return (x, [One(x, x.Messages[0], isX12, part, ownId, envelope)]);
        return (x, [.. x.Messages.Select(m => OneOfMany(x, m, isX12, ownId, envelope))]);
    }

    // Each message is shown and kept with the envelope's head and its own segments only: a thousand in one file are not
    // each the whole file.
    private static Incoming OneOfMany(
        EdiInterchange x,
        EdiMessage m,
        bool isX12,
        string ownId,
        ImmutableArray<string> envelope
    )
    {
        var (first, last) = (m.Segments[0], m.Segments[^1]);
        var head = x.Text[..x.Messages[0].Segments[0].Start];
        var text = string.Concat(
            head,
            x.Text.AsSpan(first.Start, Math.Min(last.Start + last.Length + 1, x.Text.Length) - first.Start)
        );
        var delta = head.Length - first.Start;
        var one = new EdiMessage(m.Type, m.Reference, m.Version, [.. m.Segments.Select(s => s.In(text, delta))])
        {
            Group = m.Group,
        };
        one.Faults.AddRange(m.Faults);
        var alone = x with { Text = text, Segments = [x.Segments[0].In(text, 0), .. one.Segments] };
        var read = One(alone, one, isX12, new OriginalPart("the message", PartKind.Edi, text), ownId, envelope);
        m.Faults.AddRange(one.Faults.Except(m.Faults));
        return read;
    }

    private static Incoming One(
        EdiInterchange x,
        EdiMessage m,
        bool isX12,
        OriginalPart part,
        string ownId,
        ImmutableArray<string> envelope
    )
    {
        var document = isX12 ? X12Orders.Read(x, m) : EdifactOrders.Read(x, m);
        var problem = m.Faults.FirstOrDefault(f => f.Breaks || f.Kind == FaultKind.NotTaken);
        return new Incoming(
            x.Sender,
            $"{m.Type} {document?.PoNumber?.Value ?? m.Reference}, interchange {x.Reference}",
            [part]
        )
        {
            OwnId = ownId,
            Document = problem is null ? document : null,
            // Where the interchange itself breaks off, that says more than the trailer that is missing.
            Problem = problem is { Kind: FaultKind.BrokenOff }
                ? envelope.FirstOrDefault(e => e.Contains("breaks off", StringComparison.Ordinal)) ?? problem.Words
                : problem?.Words,
            Warnings =
            [
                .. envelope,
                .. m
                    .Faults.Where(f => !f.Breaks && f.Kind != FaultKind.NotTaken)
                    .Select(f => $"{f.Tag}, segment {f.Segment}: {f.Words}"),
            ],
        };
    }
}
