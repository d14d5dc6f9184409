namespace Solvenda.Acts.Acting;

/// <summary>The house's calendar: what day it is there.</summary>
public sealed class HouseClock(TimeProvider time, TimeZoneInfo zone)
{
    public DateTime UtcNow => time.GetUtcNow().UtcDateTime;

    public DateTime LocalNow => TimeZoneInfo.ConvertTimeFromUtc(UtcNow, zone);

    public DateOnly Today => DateOnly.FromDateTime(LocalNow);
}
