using Solvenda.Web.Security;

namespace Solvenda.Web.Workers;

/// <summary>
/// People come first: what is taken in, read and weighed by the thousand waits between one and the next while somebody
/// waits for a screen.
/// </summary>
public sealed class Courtesy
{
    // Whoever looks from screen to screen without end stops nobody's work.
    private static readonly TimeSpan AtMost = TimeSpan.FromMilliseconds(200);
    private static readonly TimeSpan Beat = TimeSpan.FromMilliseconds(5);

    private int _people;

    /// <summary>Before the next piece of work: returns once nobody waits, or soon after.</summary>
    public async Task AfterYouAsync(CancellationToken cancel)
    {
        for (var waited = TimeSpan.Zero; waited < AtMost && Volatile.Read(ref _people) > 0; waited += Beat)
            await Task.Delay(Beat, cancel);
    }

    /// <summary>Counts whoever waits for an answer; a stream that stays open waits for nothing.</summary>
    public async Task Serve(HttpContext http, Func<Task> next)
    {
        ArgumentNullException.ThrowIfNull(http);
        ArgumentNullException.ThrowIfNull(next);
        var waits =
            http.User.Identity is { IsAuthenticated: true }
            && http.User.ActorOf().PersonId is not null
            && !http.Request.Headers.Accept.ToString().Contains("text/event-stream", StringComparison.Ordinal);
        if (!waits)
        {
            await next();
            return;
        }
        Interlocked.Increment(ref _people);
        try
        {
            await next();
        }
        finally
        {
            Interlocked.Decrement(ref _people);
        }
    }
}
