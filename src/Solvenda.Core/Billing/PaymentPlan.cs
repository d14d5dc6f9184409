using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Money;

namespace Solvenda.Core.Billing;

/// <summary>A part of an invoice that is due on a day of its own.</summary>
public sealed record DuePart(DateOnly Due, Amount Amount);

/// <summary>A share of an invoice.</summary>
/// <param name="Percent">Of all; the shares of a plan are a hundred together.</param>
/// <param name="Days">From when days are counted.</param>
public sealed record PlanShare(decimal Percent, int Days);

/// <summary>What may be taken off where it is paid early.</summary>
public sealed record EarlyPayment(decimal Percent, int Days);

/// <summary>
/// When an invoice is to be paid (docs/calculations.md, Billing): in days net, from the end of the month, in shares,
/// less
/// something for paying early. Written as it is typed: <c>30</c>, <c>30 end of month</c>, <c>30, less 2 % in 10</c>,
/// <c>30 % in 0, 70 % in 60</c>.
/// </summary>
/// <param name="Shares">One of a hundred percent where it is due at once.</param>
public sealed partial record PaymentPlan(ImmutableArray<PlanShare> Shares, bool EndOfMonth, EarlyPayment? Early)
{
    /// <summary>The longest that anybody may give: a year.</summary>
    public const int MostDays = 365;

    /// <summary>The most that may be taken off for paying early, in percent.</summary>
    public const decimal MostEarly = 3m;

    /// <summary>In how many shares it may be paid.</summary>
    public const int MostShares = 12;

    // So many days the end of a month is away at most.
    private const int MonthLong = 30;

    /// <summary>The days of the last share as they count against an authority: a month more from its end.</summary>
    public int Longest => Shares.Max(s => s.Days) + (EndOfMonth ? MonthLong : 0);

    /// <summary>Days net, and nothing else.</summary>
    public static PaymentPlan Net(int days) => new([new PlanShare(100m, days)], false, null);

    /// <summary>Reads one; null where it is none, with the fault in words.</summary>
    public static PaymentPlan? Read(string text, out string fault)
    {
        ArgumentNullException.ThrowIfNull(text);
        var shares = ImmutableArray.CreateBuilder<PlanShare>();
        var (endOfMonth, early) = (false, (EarlyPayment?)null);
        fault = "";
        foreach (var part in text.Split(',', StringSplitOptions.TrimEntries))
        {
            if (NetDays().Match(part) is { Success: true } net && shares.Count == 0)
            {
                shares.Add(new PlanShare(100m, Number(net.Groups[1])));
                endOfMonth = net.Groups[2].Success;
            }
            else if (Less().Match(part) is { Success: true } less && early is null)
                early = new EarlyPayment(Decimal(less.Groups[1]), Number(less.Groups[2]));
            else if (Share().Match(part) is { Success: true } share && shares.All(s => s.Percent < 100m))
                shares.Add(new PlanShare(Decimal(share.Groups[1]), Number(share.Groups[2])));
            else
                fault =
                    $"“{part}” is not understood; it is written as 30, as 30 end of month, as 30, less 2 % in 10, or as 30 % in 0, 70 % in 60";
        }
        fault = fault.Length > 0 ? fault : FaultOf(shares, early);
        return fault.Length > 0 ? null : new PaymentPlan(shares.ToImmutable(), endOfMonth, early);
    }

    private static string FaultOf(ImmutableArray<PlanShare>.Builder shares, EarlyPayment? early)
    {
        if (shares.Count == 0)
            return "say the days to pay too";
        if (shares.Count > MostShares || shares.Sum(s => s.Percent) != 100m || shares.Any(s => s.Percent <= 0m))
            return $"the shares are 100 % together, and at most {MostShares}";
        if (shares.Any(s => s.Days > MostDays))
            return $"at most {MostDays} days";
        if (shares.Zip(shares.Skip(1)).Any(p => p.First.Days >= p.Second.Days))
            return "each share is due later than the one before it";
        return early is { } e && (e.Percent <= 0m || e.Percent > MostEarly || e.Days >= shares[^1].Days)
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"for paying early at most {MostEarly:0.#} % go off, and early is before it is due"
            )
            : "";
    }

    /// <summary>What of an invoice is due when, the first first; the parts are all of it, to the minor unit.</summary>
    /// <param name="due">All that is to be paid; shares are rounded, and the last brings the rest.</param>
    public ImmutableArray<DuePart> Of(Amount due, DateOnly day)
    {
        var parts = ImmutableArray.CreateBuilder<DuePart>(Shares.Length);
        var (so, before) = (0m, Amount.Zero(due.Currency));
        foreach (var share in Shares)
        {
            so += share.Percent;
            var now = Amount.Round(due.Value * so / 100m, due.Currency);
            parts.Add(new DuePart(DayOf(day, share.Days), now - before));
            before = now;
        }
        return parts.MoveToImmutable();
    }

    /// <summary>Until when paying early takes something off; null where it takes nothing.</summary>
    public DateOnly? EarlyUntil(DateOnly day) => Early is { } early ? day.AddDays(early.Days) : null;

    private DateOnly DayOf(DateOnly day, int days)
    {
        if (!EndOfMonth)
            return day.AddDays(days);
        var end = new DateOnly(day.Year, day.Month, DateTime.DaysInMonth(day.Year, day.Month));
        return end.AddDays(days);
    }

    /// <summary>As it is typed, and kept.</summary>
    public override string ToString()
    {
        var first = Shares is [{ Percent: 100m } one]
            ? string.Create(CultureInfo.InvariantCulture, $"{one.Days}{(EndOfMonth ? " end of month" : "")}")
            : string.Join(
                ", ",
                Shares.Select(s => string.Create(CultureInfo.InvariantCulture, $"{s.Percent:0.##} % in {s.Days}"))
            );
        return Early is { } early
            ? string.Create(CultureInfo.InvariantCulture, $"{first}, less {early.Percent:0.##} % in {early.Days}")
            : first;
    }

    private static int Number(Group group) =>
        int.TryParse(group.ValueSpan, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? number
            : int.MaxValue;

    private static decimal Decimal(Group group) => decimal.Parse(group.ValueSpan, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^(\d{1,6})(?: days?)?( end of month)?$", RegexOptions.IgnoreCase)]
    private static partial Regex NetDays();

    [GeneratedRegex(@"^less (\d{1,3}(?:\.\d{1,2})?) ?% in (\d{1,6})(?: days?)?$", RegexOptions.IgnoreCase)]
    private static partial Regex Less();

    [GeneratedRegex(@"^(\d{1,3}(?:\.\d{1,2})?) ?% in (\d{1,6})(?: days?)?$", RegexOptions.IgnoreCase)]
    private static partial Regex Share();
}
