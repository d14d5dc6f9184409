namespace Solvenda.Core.Documents.Events;

/// <summary>Something came in and was stored.</summary>
/// <param name="Names">The request that it repeats or names: the same sender's id over other contents, or the same
/// contents without an id.</param>
/// <param name="With">The request that it came in one file with.</param>
[EventCode("request.received")]
public sealed record RequestReceived(string Channel, string? Names, string? With) : IEvent;

/// <summary>The same message came again; nothing was made of it.</summary>
[EventCode("request.repeated")]
public sealed record RequestRepeated(string Channel) : IEvent;

/// <summary>It was read.</summary>
/// <param name="Kind">What it is taken for.</param>
[EventCode("request.read")]
public sealed record RequestRead(string Kind, int Lines, string? About, RequestState Before, RequestState After)
    : IEvent;

/// <summary>It could not be read.</summary>
[EventCode("request.unreadable")]
public sealed record RequestUnreadable(string Reason, RequestState Before, RequestState After) : IEvent;

/// <summary>More messages stood in one file than become requests.</summary>
[EventCode("request.left")]
public sealed record MessagesLeft(int Found, int Made) : IEvent;

/// <summary>An interchange was answered by its functional acknowledgement.</summary>
[EventCode("request.answered")]
public sealed record InterchangeAnswered(string Name, int Faults) : IEvent;

/// <summary>A person corrected the reading.</summary>
/// <param name="What">settled, corrected, chosen, added, split, joined, left_out.</param>
/// <param name="Line">Its number; null for the head.</param>
/// <param name="Field">For "corrected": which.</param>
[EventCode("request.corrected")]
public sealed record ReadingCorrected(
    string What,
    int? Line,
    string? Field,
    string? Before,
    string? After,
    string? Remembered = null
) : IEvent;

/// <summary>What the columns of a sender's tables mean was said, and is remembered.</summary>
[EventCode("request.columns")]
public sealed record ColumnsLearned(string Sender, string Columns) : IEvent;

/// <summary>It was put aside.</summary>
[EventCode("request.set_aside")]
public sealed record RequestSetAside(RequestState Before, RequestState After) : IEvent;

/// <summary>It became a quote or an order.</summary>
[EventCode("request.turned")]
public sealed record RequestTurned(DocumentRef Into, RequestState Before, RequestState After) : IEvent;

/// <summary>It was answered, and nothing was made of it.</summary>
[EventCode("request.replied")]
public sealed record RequestReplied(RequestState Before, RequestState After) : IEvent;

/// <summary>Somebody has it since, or nobody.</summary>
/// <param name="Before">Who had it; empty: nobody.</param>
/// <param name="After">Who has it; empty: nobody.</param>
[EventCode("request.handed")]
public sealed record RequestHanded(string Before, string After) : IEvent;

/// <summary>Whoever sent it was written to.</summary>
/// <param name="To">A mail address, or the channel.</param>
[EventCode("request.written")]
public sealed record AnswerWritten(string To, string Subject) : IEvent;

/// <summary>It was put into the dossier of a matter that was there.</summary>
[EventCode("request.joined")]
public sealed record RequestJoined(string Dossier) : IEvent;

/// <summary>Some of its lines became a request of their own.</summary>
[EventCode("request.split")]
public sealed record RequestSplit(string Into, int Lines) : IEvent;
