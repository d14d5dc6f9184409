namespace Solvenda.Core.Documents.Events;

/// <summary>The first administrator came in by the one-time link.</summary>
[EventCode("house.first_administrator")]
public sealed record FirstAdministrator(string Login) : IEvent;

/// <summary>Something left the house, or could not.</summary>
/// <param name="Problem">Why not; empty where it left.</param>
[EventCode("house.sent")]
public sealed record LetterSent(string Kind, string Key, int Try, string Problem) : IEvent;

/// <summary>Whoever we sent something says that they have it.</summary>
/// <param name="What">The name of what was sent.</param>
[EventCode("house.received")]
public sealed record DocumentReceived(string To, string What) : IEvent;

/// <summary>Something that we sent did not arrive, was refused, or nobody said in time that it did.</summary>
[EventCode("house.missing")]
public sealed record DocumentNotReceived(string To, string What, string Why) : IEvent;

/// <summary>Somebody saw to something that was not received.</summary>
/// <param name="Again">It goes out again; else they have it all the same.</param>
[EventCode("house.receipt")]
public sealed record ReceiptSettled(string To, string What, bool Again) : IEvent;

/// <summary>A worker could not do something, again and again, and set it apart.</summary>
/// <param name="Subject">What it was at; empty for its whole round.</param>
[EventCode("house.set_apart")]
public sealed record SetApart(string Worker, string Subject, string Words) : IEvent;

/// <summary>An administrator looked at what a worker could not do.</summary>
/// <param name="Again">Whether it is to be tried once more.</param>
[EventCode("house.trouble_settled")]
public sealed record TroubleSettled(string Worker, string Subject, bool Again) : IEvent;

/// <summary>Somebody signed in.</summary>
[EventCode("people.signed_in")]
public sealed record SignedIn : IEvent;

/// <summary>Somebody signed out.</summary>
[EventCode("people.signed_out")]
public sealed record SignedOut : IEvent;

/// <summary>The morning's letters of those who want one a day went into the post.</summary>
/// <param name="Notices">How many things stood in them.</param>
[EventCode("house.digests_sent")]
public sealed record DigestsSent(int Letters, int Notices) : IEvent;

/// <summary>Public holidays were put into the house's calendar.</summary>
/// <param name="Days">How many were new.</param>
[EventCode("house.holidays")]
public sealed record HolidaysFilled(string Country, int Year, int Days) : IEvent;
