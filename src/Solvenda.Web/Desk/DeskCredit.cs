using System.Globalization;
using Solvenda.Web.Credit;

namespace Solvenda.Web.Desk;

/// <summary>
/// Credit on the desk of who controls it: what waits because of it, who is over or late, limits that end.
/// </summary>
public static class DeskCredit
{
    private const int SoonDays = 14;
    private static readonly CultureInfo Plain = CultureInfo.InvariantCulture;

    public static IEnumerable<DeskItem> Of(CreditList list, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(list);
        return list.Rows.SelectMany(r => Of(r, today));
    }

    private static IEnumerable<DeskItem> Of(CreditRow row, DateOnly today)
    {
        var item = new DeskItem(
            Urgency.Today,
            "credit",
            row.Code,
            $"/records/buyers/{row.BuyerId}",
            row.Name,
            "",
            row.Limit is { } limit
                ? string.Create(Plain, $"{row.Exposure:#,0} of {limit:#,0} {row.Currency}")
                : string.Create(Plain, $"{row.Exposure:#,0} {row.Currency}, no limit"),
            "credit",
            null,
            row.Currency,
            null,
            "look",
            2
        );
        foreach (var number in row.Held)
            yield return item with
            {
                Kind = "credit waits",
                Number = number,
                Path = $"/orders/{number}",
                Reason = "waits because of their credit",
                Rank = 1,
            };
        if (row.Over > 0)
            yield return item with
            {
                Reason = "over the limit",
                Value = row.Over,
            };
        else if (row.BeyondGrace)
            yield return item with
            {
                Reason = string.Create(Plain, $"{row.OverdueDays} days overdue"),
                Value = row.OverdueAmount,
                Rank = 3,
            };
        if (row.Until is { } until && until.DayNumber - today.DayNumber <= SoonDays)
            yield return item with
            {
                Urgency = Urgency.WhenThereIsTime,
                Kind = "credit ends",
                Rest = string.Create(
                    Plain,
                    $"{item.Rest}, and the limit {(until < today ? "ended" : "ends")} on {until:d MMM}"
                ),
                Rank = 4,
            };
    }
}
