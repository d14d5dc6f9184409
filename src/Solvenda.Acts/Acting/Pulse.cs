namespace Solvenda.Acts.Acting;

/// <summary>What moved since somebody last asked.</summary>
/// <param name="At">How far it is now: what to ask from next time.</param>
/// <param name="Subjects">What was changed: numbers of documents and requests, kinds and keys of records.</param>
/// <param name="Everything">True where it can no longer be said what: anything may have changed.</param>
public sealed record Moved(long At, IReadOnlyList<string> Subjects, bool Everything);

/// <summary>
/// What acts changed a moment ago, so that open pages follow what others do. Held in memory only: who asks from before
/// the process began, or from too long ago, is told that anything may have changed.
/// </summary>
public sealed class Pulse(TimeProvider time)
{
    private const int Kept = 2_000;
    private const int MostSubjects = 200;

    private readonly Lock _lock = new();
    private readonly Queue<string> _subjects = new();

    // Begins at the clock, so that no process counts on from where one before it was.
    private long _at = time.GetUtcNow().ToUnixTimeMilliseconds();

    /// <summary>Hears at once what was changed; it must not wait.</summary>
    public event Action<IReadOnlyCollection<string>>? Told;

    /// <summary>Something was changed, and is committed.</summary>
    public void Tell(IReadOnlyCollection<string> subjects)
    {
        ArgumentNullException.ThrowIfNull(subjects);
        lock (_lock)
            foreach (var subject in subjects)
            {
                _subjects.Enqueue(subject);
                _at++;
                if (_subjects.Count > Kept)
                    _subjects.Dequeue();
            }
        Told?.Invoke(subjects);
    }

    public Moved Since(long at)
    {
        lock (_lock)
        {
            var missed = _at - at;
            if (missed < 0 || missed > _subjects.Count)
                return new Moved(_at, [], true);
            var subjects = _subjects.Skip(_subjects.Count - (int)missed).Distinct().ToList();
            return subjects.Count > MostSubjects ? new Moved(_at, [], true) : new Moved(_at, subjects, false);
        }
    }
}
