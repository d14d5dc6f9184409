namespace Solvenda.Web.Workers;

/// <summary>
/// Something that goes on by itself, round after round. Whatever one thing throws, it is kept for the administrator and
/// the next is taken up; the host never stops for it.
/// </summary>
public abstract class Worker(string name, Troubles troubles) : BackgroundService, IHostedLifecycleService
{
    private readonly TaskCompletionSource _answers = new(TaskCreationOptions.RunContinuationsAsynchronously);

    /// <summary>Does what is to be done now.</summary>
    protected abstract Task RoundAsync(CancellationToken cancel);

    /// <summary>Waits for the next round.</summary>
    protected abstract Task PauseAsync(CancellationToken cancel);

    protected Troubles Troubles { get; } = troubles;

    public Task StartingAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StartedAsync(CancellationToken cancellationToken)
    {
        _answers.TrySetResult();
        return Task.CompletedTask;
    }

    public Task StoppingAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StoppedAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // Whoever waits for the house to answer comes first.
        await _answers.Task.WaitAsync(stoppingToken);
        while (!stoppingToken.IsCancellationRequested)
        {
            await TryAsync("", () => RoundAsync(stoppingToken), stoppingToken);
            try
            {
                await PauseAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
        }
    }

    /// <summary>Does one thing, unless it was set apart or failed just now.</summary>
    /// <param name="subject">What it is, as an administrator knows it; empty for the whole round.</param>
    /// <returns>Whether it was done.</returns>
    protected async Task<bool> TryAsync(string subject, Func<Task> work, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        try
        {
            if (!await Troubles.MayTryAsync(name, subject, cancel))
                return false;
            await work();
            await Troubles.OverAsync(name, subject, cancel);
            return true;
        }
        catch (OperationCanceledException) when (cancel.IsCancellationRequested)
        {
            return false;
        }
        catch (Exception e)
        {
            return await KeptAsync(subject, e, cancel);
        }
    }

    private async Task<bool> KeptAsync(string subject, Exception why, CancellationToken cancel)
    {
        try
        {
            await Troubles.MetAsync(name, subject, why, mayBeSetApart: subject.Length > 0, cancel);
        }
        catch (OperationCanceledException) when (cancel.IsCancellationRequested)
        {
            // Stopping; it is met again.
        }
        return false;
    }
}
