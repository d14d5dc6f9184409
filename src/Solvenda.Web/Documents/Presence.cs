using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Solvenda.Acts.Acting;

namespace Solvenda.Web.Documents;

/// <summary>Somebody who has the same document open.</summary>
/// <param name="Line">Key of the line that they are on; null for none.</param>
public sealed record Somebody(string Name, long? Line);

/// <summary>What is told to an open page: who else is there, and whether the document was changed.</summary>
public sealed record Heard(IReadOnlyList<Somebody> Others, bool Changed);

/// <summary>
/// Who has which document open. Held in memory only: it says who looks now, and after a restart the pages that are open
/// say so again.
/// </summary>
public sealed class Presence
{
    // A page that does not listen for a while hears the newest of it.
    private const int Waiting = 8;

    private readonly Lock _lock = new();
    private readonly List<Seat> _seats = [];

    public Presence(Pulse pulse)
    {
        ArgumentNullException.ThrowIfNull(pulse);
        pulse.Told += subjects => Tell(s => subjects.Contains(s.Subject), changed: true);
    }

    private sealed class Seat(string subject, long person, string name)
    {
        public string Subject { get; } = subject;
        public long Person { get; } = person;
        public string Name { get; } = name;
        public long? Line { get; set; }
        public Channel<bool> Bell { get; } =
            Channel.CreateBounded<bool>(
                new BoundedChannelOptions(Waiting) { FullMode = BoundedChannelFullMode.DropOldest }
            );
    }

    /// <summary>
    /// Sits down at a document, and hears who comes, moves and goes, and when it is changed; until it is cancelled.
    /// </summary>
    public async IAsyncEnumerable<Heard> SitAsync(
        string subject,
        long person,
        string name,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        var seat = new Seat(subject, person, name);
        lock (_lock)
            _seats.Add(seat);
        Tell(s => s.Subject == subject, changed: false);
        try
        {
            await foreach (var changed in seat.Bell.Reader.ReadAllAsync(cancel))
                yield return new Heard(Others(seat), changed);
        }
        finally
        {
            lock (_lock)
                _seats.Remove(seat);
            Tell(s => s.Subject == subject, changed: false);
        }
    }

    /// <summary>Somebody who is there goes to another line.</summary>
    public void Move(string subject, long person, long? line)
    {
        lock (_lock)
            foreach (var seat in _seats.Where(s => s.Subject == subject && s.Person == person))
                seat.Line = line;
        Tell(s => s.Subject == subject && s.Person != person, changed: false);
    }

    // One who has it open twice is one.
    private List<Somebody> Others(Seat me)
    {
        lock (_lock)
            return
            [
                .. _seats
                    .Where(s => s.Subject == me.Subject && s.Person != me.Person)
                    .DistinctBy(s => s.Person)
                    .Select(s => new Somebody(s.Name, s.Line)),
            ];
    }

    private void Tell(Func<Seat, bool> whom, bool changed)
    {
        lock (_lock)
            foreach (var seat in _seats.Where(whom))
                seat.Bell.Writer.TryWrite(changed);
    }
}
