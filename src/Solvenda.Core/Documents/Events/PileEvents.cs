namespace Solvenda.Core.Documents.Events;

/// <summary>Documents were put on a pile.</summary>
/// <param name="Name">What the pile is called.</param>
[EventCode("pile.put")]
public sealed record PilePut(string Name, string Kind, int Count) : IEvent;

/// <summary>Documents were taken off a pile.</summary>
[EventCode("pile.taken")]
public sealed record PileTaken(string Name, string Kind, int Count) : IEvent;

/// <summary>A pile was named anew, shared, kept to oneself, or taken away with all that lay on it.</summary>
[EventCode("pile.changed")]
public sealed record PileChanged(string Name, bool Shared, bool Removed) : IEvent;

/// <summary>One thing is to be done to many documents.</summary>
[EventCode("round.begun")]
public sealed record RoundBegun(string Kind, string Deed, int Count) : IEvent;

/// <summary>A round was stopped; what was done is done, and the rest is left.</summary>
[EventCode("round.stopped")]
public sealed record RoundStopped(string Kind, string Deed) : IEvent;
