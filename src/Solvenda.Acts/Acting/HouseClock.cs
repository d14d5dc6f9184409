namespace Solvenda.Acts.Acting;

/// <summary>The house's calendar: what day it is there.</summary>
public sealed class HouseClock(TimeProvider time, TimeZoneInfo zone)
{
    public DateTime UtcNow => time.GetUtcNow().UtcDateTime;

    public DateTime LocalNow => ToLocal(UtcNow);

    /// <summary>A moment as the house's clock shows it.</summary>
    public DateTime ToLocal(DateTime utc) => TimeZoneInfo.ConvertTimeFromUtc(utc, zone);

    /// <summary>
    /// The moment that the house's clock shows; one that a change of the clock leaves out is an hour on.
    /// </summary>
    public DateTime ToUtc(DateTime local)
    {
        var plain = DateTime.SpecifyKind(local, DateTimeKind.Unspecified);
        return TimeZoneInfo.ConvertTimeToUtc(zone.IsInvalidTime(plain) ? plain.AddHours(1) : plain, zone);
    }

    public DateOnly Today => DateOnly.FromDateTime(LocalNow);
}
