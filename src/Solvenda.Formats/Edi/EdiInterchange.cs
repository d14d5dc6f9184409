using Solvenda.Core.Reading;

namespace Solvenda.Formats.Edi;

/// <summary>What is wrong with a message, a group or the interchange.</summary>
public enum FaultKind
{
    /// <summary>The trailer counts another number than there is.</summary>
    Count,

    /// <summary>Head and trailer carry different numbers.</summary>
    Reference,

    /// <summary>The trailer is missing.</summary>
    BrokenOff,
    SegmentMissing,
    ElementMissing,
    NotANumber,
    NotADate,

    /// <summary>The kind of message is not one that becomes a request.</summary>
    NotTaken,
}

/// <summary>A fault and its place.</summary>
/// <param name="Segment">Position in the message, its head being 1; 0 where it is about the envelope.</param>
/// <param name="Element">From 1; 0 where it is about the whole segment.</param>
/// <param name="Bad">What stands there.</param>
public sealed record Fault(
    FaultKind Kind,
    string Words,
    int Segment = 0,
    string Tag = "",
    int Element = 0,
    int Component = 0,
    string Bad = ""
)
{
    /// <summary>Whether the message cannot be relied on at all.</summary>
    public bool Breaks =>
        Kind is FaultKind.Count or FaultKind.Reference or FaultKind.BrokenOff or FaultKind.SegmentMissing;
}

/// <summary>One message of an interchange: its segments from head to trailer.</summary>
/// <param name="Type">850, ORDERS.</param>
/// <param name="Version">004010, D.96A.</param>
public sealed record EdiMessage(string Type, string Reference, string Version, List<Segment> Segments)
{
    public List<Fault> Faults { get; } = [];

    /// <summary>The group it stands in; null where there are none.</summary>
    public EdiGroup? Group { get; init; }

    public Segment? Find(string tag) => Segments.FirstOrDefault(s => s.Is(tag));
}

/// <summary>A group of messages.</summary>
public sealed record EdiGroup(string Function, string Reference, string Sender)
{
    public List<Fault> Faults { get; } = [];
}

/// <summary>An interchange of either syntax, as far as its envelope could be told.</summary>
/// <param name="Text">What evidence points into.</param>
public sealed record EdiInterchange(
    string Text,
    Separators Separators,
    List<Segment> Segments,
    string Sender,
    string Receiver,
    string Reference
)
{
    public bool IsX12 => Segments[0].Is("ISA");

    /// <summary>What the sender identifies it by: the parties, its number and its date.</summary>
    public string OwnId =>
        IsX12
            ? $"x12:{Sender}>{Receiver}:{Reference}:{Segments[0][9]}"
            : $"edifact:{Sender}>{Receiver}:{Reference}:{Segments[0][4, 1]}";

    public List<EdiMessage> Messages { get; } = [];

    public List<EdiGroup> Groups { get; } = [];

    public List<Fault> Faults { get; } = [];

    /// <summary>Qualifiers of sender and receiver, to answer with.</summary>
    public string SenderQualifier { get; init; } = "";

    public string ReceiverQualifier { get; init; } = "";

    /// <summary>Where a segment, element or component stands.</summary>
    public static Evidence Where(Segment segment, int element = 0, int component = 0)
    {
        ArgumentNullException.ThrowIfNull(segment);
        if (element == 0)
            return new Evidence(0, segment.Start, segment.Length);
        var (start, length) = segment.Place(element, component);
        return length == 0 ? new Evidence(0, segment.Start, segment.Length) : new Evidence(0, start, length);
    }
}
