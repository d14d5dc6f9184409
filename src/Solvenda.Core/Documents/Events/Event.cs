namespace Solvenda.Core.Documents.Events;

/// <summary>What an act left behind: facts, never prose. Words are made where it is shown.</summary>
public interface IEvent;

/// <summary>The stable code of an event's facts, and the version of their shape.</summary>
[AttributeUsage(AttributeTargets.Class)]
public sealed class EventCodeAttribute(string code, int version = 1) : Attribute
{
    /// <summary>Such as quote.sent; never changes.</summary>
    public string Code { get; } = code;

    /// <summary>Counted up when facts change their shape.</summary>
    public int Version { get; } = version;
}
