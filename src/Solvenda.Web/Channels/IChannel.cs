namespace Solvenda.Web.Channels;

/// <summary>A message that arrived by a channel, and what to do once it is stored.</summary>
/// <param name="Delivery">By which the channel knows it again, where it could not be put away.</param>
/// <param name="Problem">Why it cannot be taken; it was put apart, and is not lost. Null where it can.</param>
public sealed record Arrived(string Name, byte[] Bytes, string Delivery, Action Stored, string? Problem = null)
{
    /// <summary>So long it has lain there; nothing where it came just now.</summary>
    public TimeSpan Age { get; init; }
}

/// <summary>A message as the outbox holds it.</summary>
/// <param name="Key">The same at every try: the receiver knows a repeat by it.</param>
public sealed record Departing(string Kind, string Key, string To, string Name, byte[] Bytes);

/// <summary>What became of sending.</summary>
/// <param name="Problem">Null where it left.</param>
/// <param name="Never">The other side refused this very message: sending it again is of no use.</param>
public sealed record Departed(string? Problem, bool Never = false)
{
    public static readonly Departed Well = new((string?)null);

    public static Departed Later(string why) => new(why);
}

/// <summary>
/// A way in and out. It knows no act: what it takes is taken in by one, and what it sends is what the outbox holds. One
/// folder or file each, one line in Startup.
/// </summary>
public interface IChannel
{
    /// <summary>As requests say that they came by it.</summary>
    string Name { get; }

    /// <summary>Whether anything can arrive by it.</summary>
    bool Takes => true;

    /// <summary>Kinds of the outbox that it sends.</summary>
    bool Sends(string kind);

    /// <summary>What has arrived and is not yet taken in.</summary>
    IAsyncEnumerable<Arrived> TakeAsync(CancellationToken cancel);

    /// <summary>Sends.</summary>
    Task<Departed> SendAsync(Departing message, CancellationToken cancel);
}
