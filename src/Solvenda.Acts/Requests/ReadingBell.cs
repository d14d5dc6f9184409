using System.Collections.Concurrent;
using Solvenda.Acts.Acting;

namespace Solvenda.Acts.Requests;

/// <summary>
/// The bell between those who bring something in and the worker that reads: the queue itself is the requests that say
/// "Reading".
/// </summary>
public sealed class ReadingBell : IDisposable
{
    private readonly ConcurrentDictionary<long, TaskCompletionSource> _waiting = new();

    /// <summary>Rings when there is something to read.</summary>
    public Signal Signal { get; } = new();

    /// <summary>Waits until a request was read, or for so long; reading goes on without whoever waits.</summary>
    /// <param name="isRead">Whether it is already.</param>
    public async Task ReadAsync(long request, Func<Task<bool>> isRead, TimeSpan atMost, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(isRead);
        var waiting = _waiting.GetOrAdd(
            request,
            _ => new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously)
        );
        Signal.Wake();
        try
        {
            if (!await isRead())
                await waiting.Task.WaitAsync(atMost, cancel);
        }
        catch (TimeoutException)
        {
            // It is stored, and is read when its turn comes.
        }
        finally
        {
            _waiting.TryRemove(request, out _);
        }
    }

    /// <summary>Tells whoever waits that a request was read.</summary>
    public void Done(long request)
    {
        if (_waiting.TryGetValue(request, out var waiting))
            waiting.TrySetResult();
    }

    public void Dispose() => Signal.Dispose();
}
