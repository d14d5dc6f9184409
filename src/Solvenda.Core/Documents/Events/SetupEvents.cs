using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>What papers and letters say of the house was changed.</summary>
[EventCode("house.saved")]
public sealed record HouseSaved(System.Collections.Immutable.ImmutableArray<RecordFieldChange> Changes) : IEvent;

/// <summary>How the numbers of a series look, or where it goes on, was set.</summary>
/// <param name="Series">What they are numbers of: quotes.</param>
/// <param name="Next">The next number.</param>
[EventCode("house.numbers")]
public sealed record NumbersSet(string Series, string Before, string After, string Next) : IEvent;

/// <summary>What somebody may decide alone was set.</summary>
/// <param name="Whose">The person, or the machine's key.</param>
/// <param name="First">Whether they are the first to hold authority of that kind.</param>
/// <param name="AgreedBy">Who agreed to what an administrator proposed; null where nobody had to.</param>
[EventCode("authority.set")]
public sealed record AuthoritySet(
    string Whose,
    string Kind,
    string Before,
    string After,
    DateOnly From,
    bool First,
    string? AgreedBy
) : IEvent;

/// <summary>A limit was proposed, and waits for somebody who has that much.</summary>
[EventCode("authority.proposed")]
public sealed record AuthorityProposed(string Whose, string Kind, string Before, string After, DateOnly From) : IEvent;

/// <summary>What was proposed was not agreed to, or taken back.</summary>
[EventCode("authority.dropped")]
public sealed record AuthorityDropped(string Whose, string Kind, string After) : IEvent;

/// <summary>Days on which somebody is away were set, or taken away.</summary>
[EventCode("people.away")]
public sealed record AwaySet(string Who, DateOnly From, DateOnly To, string? StandIn, bool Gone) : IEvent;

/// <summary>Somebody reports to somebody else from now on.</summary>
[EventCode("people.reports_to")]
public sealed record ReportsToSet(string Who, string? Before, string? After) : IEvent;

/// <summary>A policy was written, changed, switched, or dropped.</summary>
/// <param name="Before">Its sentence before; null where it is new.</param>
/// <param name="After">Its sentence since; null where it was dropped.</param>
/// <param name="Holds">Whether it holds since.</param>
[EventCode("policy.saved")]
public sealed record PolicySaved(string Policy, string? Before, string? After, bool Holds) : IEvent;

/// <summary>Somebody was invited by a letter with a one-time link.</summary>
[EventCode("people.invited")]
public sealed record PersonInvited(string Name, string Login, string Roles) : IEvent;

/// <summary>What is kept of a person was changed.</summary>
[EventCode("people.changed")]
public sealed record PersonChanged(string Name, ImmutableArray<RecordFieldChange> Changes) : IEvent;

/// <summary>Somebody was switched off, or on again.</summary>
/// <param name="To">Who has what they left behind; null where they left nothing.</param>
[EventCode("people.switched")]
public sealed record PersonSwitched(string Name, bool On, string? To, int Handed) : IEvent;

/// <summary>A password or a second factor was set, or taken away.</summary>
/// <param name="What">password, factor, factor-gone.</param>
[EventCode("people.secret")]
public sealed record SecretSet(string Name, string What) : IEvent;

/// <summary>Sessions were ended from elsewhere.</summary>
[EventCode("people.sessions_ended")]
public sealed record SessionsEnded(string Name, int Sessions) : IEvent;

/// <summary>A machine's key was made, or revoked.</summary>
[EventCode("keys.changed")]
public sealed record KeyChanged(string Name, string Scopes, DateOnly? Expires, bool Revoked) : IEvent;

/// <summary>Somebody saw what they were told.</summary>
[EventCode("notices.seen")]
public sealed record NoticesSeen(int Notices) : IEvent;

/// <summary>What may go through by itself on a way in was said.</summary>
/// <param name="Buyer">Of whom alone; null: of all others.</param>
[EventCode("way.set")]
public sealed record WaySet(string Channel, string? Buyer, string Before, string After) : IEvent;
