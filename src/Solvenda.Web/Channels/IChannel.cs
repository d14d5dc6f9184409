using Solvenda.Acts.Ways;

namespace Solvenda.Web.Channels;

/// <summary>A message that arrived by a channel, and what to do once it is stored.</summary>
/// <param name="Delivery">By which the channel knows it again, where it could not be put away.</param>
/// <param name="Problem">Why it cannot be taken; it was put apart, and is not lost. Null where it can.</param>
public sealed record Arrived(string Name, byte[] Bytes, string Delivery, Func<Task> Stored, string? Problem = null)
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
public interface IChannel : IWayIn
{
    /// <summary>What it has to say of itself where it is set up; null for nothing.</summary>
    string? Says => null;

    /// <summary>How long it waits at least before it looks again.</summary>
    TimeSpan Pause => TimeSpan.FromMilliseconds(500);

    /// <summary>Whether anything can arrive by it.</summary>
    bool Takes => true;

    /// <summary>Whether it sends what is of that kind and for whom.</summary>
    bool Sends(string kind, string to);

    /// <summary>What has arrived and is not yet taken in.</summary>
    IAsyncEnumerable<Arrived> TakeAsync(CancellationToken cancel);

    /// <summary>Sends.</summary>
    Task<Departed> SendAsync(Departing message, CancellationToken cancel);
}
