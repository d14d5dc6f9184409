using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>A field of a record, before and after.</summary>
/// <param name="Money">Whether it carries money or authority: its owner is told.</param>
public sealed record RecordFieldChange(string Field, string Label, string? Before, string? After, bool Money = false);

/// <summary>A record was made.</summary>
/// <param name="Owner">Key of the person whose it is, and who is told; null for nobody.</param>
[EventCode("record.made")]
public sealed record RecordMade(string Kind, string Calls, bool Money, long? Owner) : IEvent;

/// <summary>A record was changed.</summary>
/// <param name="Owner">Key of the person whose it is; null for nobody.</param>
/// <param name="OwnerBefore">Whose it was before, where that changed; they are told too.</param>
[EventCode("record.changed")]
public sealed record RecordChanged(
    string Kind,
    string Calls,
    ImmutableArray<RecordFieldChange> Changes,
    long? Owner,
    long? OwnerBefore = null
) : IEvent;

/// <summary>
/// A prospect became a customer, once it was looked at whether the house may deliver to them; the reason says why they
/// are not the party that they are much like.
/// </summary>
[EventCode("record.customer")]
public sealed record CustomerMade(string Name) : IEvent;

/// <summary>A record was switched off, or on again.</summary>
[EventCode("record.switched")]
public sealed record RecordSwitched(string Kind, string Calls, bool On) : IEvent;

/// <summary>A file was put to a record, or taken away.</summary>
[EventCode("record.file")]
public sealed record RecordFile(string Name, bool Added) : IEvent;

/// <summary>An import was brought, and looked at or taken.</summary>
/// <param name="Step">brought, named, taking, looked, taken, failed.</param>
[EventCode("record.import")]
public sealed record ImportMoved(string Kind, string FileName, string Step, int New, int Changed) : IEvent;

/// <summary>The list prices of a family were raised.</summary>
[EventCode("record.prices_raised")]
public sealed record PricesRaised(string Family, string List, decimal Percent, DateOnly From, int Prices) : IEvent;

/// <summary>What was talked about with a buyer was noted.</summary>
[EventCode("record.talk")]
public sealed record TalkNoted(long Buyer) : IEvent;

/// <summary>A view of a list was saved, or taken away.</summary>
[EventCode("record.view")]
public sealed record ViewSaved(string Kind, string Name, bool ForAll, bool Removed) : IEvent;

/// <summary>A buyer got a page to write requests on, or it was ended.</summary>
/// <param name="Label">Who has it.</param>
[EventCode("buyer.portal")]
public sealed record PortalKeyChanged(string Label, bool Ended) : IEvent;
