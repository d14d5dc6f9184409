namespace Solvenda.Acts.Acting;

/// <summary>Wakes a worker when there may be something to do.</summary>
public class Signal : IDisposable
{
    private readonly SemaphoreSlim _signal = new(0, 1);

    public void Wake()
    {
        lock (_signal)
            if (_signal.CurrentCount == 0)
                _signal.Release();
    }

    public Task<bool> WaitAsync(TimeSpan atMost, CancellationToken cancel) => _signal.WaitAsync(atMost, cancel);

    public void Dispose()
    {
        _signal.Dispose();
        GC.SuppressFinalize(this);
    }
}

/// <summary>Rings when an act may have put something into the outbox.</summary>
public sealed class OutboxSignal : Signal;
