using System.Threading.RateLimiting;
using Solvenda.Acts.Acting;

namespace Solvenda.Web.Security;

/// <summary>
/// How often somebody may try at the doors that need no sign-in: each door and each thing tried has a bucket of its
/// own, so that nobody can lock others out by trying.
/// </summary>
public sealed class Buckets : IDisposable
{
    private readonly PartitionedRateLimiter<string> _accounts;
    private readonly PartitionedRateLimiter<string> _addresses;
    private readonly PartitionedRateLimiter<string> _missedLinks;
    private readonly PartitionedRateLimiter<string> _portal = Windows(20, TimeSpan.FromHours(1));

    public Buckets(IConfiguration configuration)
    {
        var perMinute = configuration.GetValue("doorLimit", 60);
        _accounts = Windows(Math.Max(10, perMinute / 6), TimeSpan.FromMinutes(5));
        _addresses = Windows(perMinute, TimeSpan.FromMinutes(1));
        _missedLinks = Windows(perMinute, TimeSpan.FromMinutes(1));
    }

    /// <summary>A try to sign in, right or wrong.</summary>
    /// <exception cref="RefusedException">This account or this address tried too often; for how long.</exception>
    public void SignIn(string login, HttpContext http)
    {
        Take(_addresses, AddressOf(http));
        Take(_accounts, login);
    }

    /// <summary>A link that leads nowhere. Whoever has one that leads somewhere is never refused for it.</summary>
    public void Missed(HttpContext http) => Take(_missedLinks, AddressOf(http));

    /// <summary>Something written on a buyer's page: so many an hour on each, wherever from.</summary>
    public void Portal(string page) => Take(_portal, page);

    public void Dispose()
    {
        _portal.Dispose();
        _accounts.Dispose();
        _addresses.Dispose();
        _missedLinks.Dispose();
    }

    private static string AddressOf(HttpContext http) => http.Connection.RemoteIpAddress?.ToString() ?? "";

    private static PartitionedRateLimiter<string> Windows(int permits, TimeSpan window) =>
        PartitionedRateLimiter.Create<string, string>(key =>
            RateLimitPartition.GetFixedWindowLimiter(
                key,
                _ => new FixedWindowRateLimiterOptions { PermitLimit = permits, Window = window }
            )
        );

    private static void Take(PartitionedRateLimiter<string> bucket, string key)
    {
        using var lease = bucket.AttemptAcquire(key);
        if (lease.IsAcquired)
            return;
        var wait = lease.TryGetMetadata(MetadataName.RetryAfter, out var after) ? after : TimeSpan.FromMinutes(1);
        throw new RefusedException(
            Refused.TooMany,
            "too_many",
            $"Too many tries; wait {Math.Ceiling(wait.TotalSeconds):0} seconds."
        )
        {
            RetryAfter = wait,
        };
    }
}
