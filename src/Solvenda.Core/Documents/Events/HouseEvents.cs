namespace Solvenda.Core.Documents.Events;

/// <summary>The first administrator came in by the one-time link.</summary>
[EventCode("house.first_administrator")]
public sealed record FirstAdministrator(string Login) : IEvent;

/// <summary>Something left the house, or could not.</summary>
/// <param name="Problem">Why not; empty where it left.</param>
[EventCode("house.sent")]
public sealed record LetterSent(string Kind, string Key, int Try, string Problem) : IEvent;
