using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>A buyer wants to give goods back.</summary>
/// <param name="Lines">What of, with how much of each.</param>
[EventCode("return.asked")]
public sealed record ReturnAsked(string Number, ImmutableArray<string> Lines, ReturnFor For, string Reason) : IEvent;

/// <summary>It was decided whether goods may come back.</summary>
[EventCode("return.decided")]
public sealed record ReturnDecided(string Number, bool Allowed, string Words, string ToldTo) : IEvent;

/// <summary>Goods came back.</summary>
/// <param name="Shelved">What of it went back to the shelf.</param>
[EventCode("return.taken")]
public sealed record ReturnTaken(string Number, ImmutableArray<string> Lines, ImmutableArray<string> Shelved) : IEvent;

/// <summary>The buyer has what they get for what they gave back.</summary>
/// <param name="By">Numbers of credit notes, or of the order that replaces it.</param>
[EventCode("return.settled")]
public sealed record ReturnSettled(string Number, ImmutableArray<string> By) : IEvent;
