using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Money;

namespace Solvenda.Core.Credit;

/// <summary>A way to get an order through, and what the exposure would be by it.</summary>
/// <param name="Code">deposit, part, advance or wait.</param>
/// <param name="Amount">What is paid before, or what of the order fits; in the credit's currency.</param>
/// <param name="Exposure">With the order, where it is taken.</param>
public sealed record CreditOffer(string Code, string Words, Amount Amount, Amount Exposure);

/// <summary>What would get an order through that its buyer's credit does not cover.</summary>
public static class CreditOffers
{
    /// <summary>All that help, the smallest step first; none where it is covered, or the buyer is blocked.</summary>
    public static ImmutableArray<CreditOffer> Of(CreditAtOrder at, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(at);
        if (at.Stop is not (CreditStop.Over or CreditStop.NoLimit or CreditStop.Ended))
            return [];
        var (standing, order, excess) = (at.Standing, at.ThisOrder, at.Excess);
        var offers = ImmutableArray.CreateBuilder<CreditOffer>();
        var all = standing.Exposure + order;
        if (excess.Minor > 0 && excess < order)
            offers.Add(
                new CreditOffer("deposit", $"a deposit of {Said(excess)} before it is confirmed", excess, all - excess)
            );
        var fits = order - excess;
        if (at.Stop == CreditStop.Over && fits.Minor > 0)
            offers.Add(
                new CreditOffer("part", $"a part of it now, up to {Said(fits)}, the rest later", fits, all - excess)
            );
        // Money that comes before the goods go adds nothing to what they owe.
        offers.Add(new CreditOffer("advance", "all of it paid in advance", order, standing.Exposure));
        if (at.Stop == CreditStop.Over && Back(standing, excess, today) is { } day)
            offers.Add(
                new CreditOffer(
                    "wait",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"waiting: it fits from {day:d MMM} if they pay as they do"
                    ),
                    excess,
                    standing.Limit
                )
            );
        return offers.ToImmutable();
    }

    // The first day by which enough of the invoices is paid, if they pay as late as they do; null where it never is.
    private static DateOnly? Back(CreditStanding standing, Amount excess, DateOnly today)
    {
        var paid = Amount.Zero(excess.Currency);
        var late = (int)Math.Ceiling(Math.Max(0m, standing.DaysLate ?? 0m));
        foreach (var invoice in standing.Invoices.OrderBy(i => i.Due))
        {
            paid += invoice.Open;
            if (paid >= excess)
                return invoice.Due.AddDays(late) is var day && day > today ? day : today.AddDays(1);
        }
        return null;
    }

    private static string Said(Amount amount) =>
        string.Create(CultureInfo.InvariantCulture, $"{amount.Value:#,0.00} {amount.Currency.Code}");
}
