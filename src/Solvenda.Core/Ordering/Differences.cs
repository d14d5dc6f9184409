using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering;

/// <summary>
/// What differs between the revision that a buyer accepted and the order that it became: what they accepted binds.
/// </summary>
public static class Differences
{
    private static readonly ImmutableHashSet<string> Binding =
    [
        HeadTerms.PaymentDays.Name,
        HeadTerms.Incoterm.Name,
        HeadTerms.IncotermPlace.Name,
        HeadTerms.DeliverTo.Name,
    ];

    /// <summary>What something is held against, in words.</summary>
    /// <param name="Was">accepted, confirmed.</param>
    /// <param name="Added">What is said of a line that it did not have.</param>
    public sealed record Standard(string Was, string Added);

    /// <summary>What the buyer accepted.</summary>
    public static readonly Standard Accepted = new("accepted", "was not on the quote");

    /// <summary>What was confirmed to them.</summary>
    public static readonly Standard Confirmed = new("confirmed", "is new");

    /// <summary>
    /// In words, line by line and term by term, upward in price as well; empty where nothing differs. An option that
    /// was taken differs as little as one that was left.
    /// </summary>
    public static ImmutableArray<string> Between(
        PricedSheet accepted,
        Head then,
        PricedSheet order,
        Head now,
        Standard? against = null
    )
    {
        ArgumentNullException.ThrowIfNull(accepted);
        ArgumentNullException.ThrowIfNull(order);
        var standard = against ?? Accepted;
        var was = standard.Was;
        var compared = Comparison.Of(Side.Of(accepted, then), Side.Of(order, now), byKey: true);
        // Closing a line short was meant when it was done.
        var closed = order.Sheet.Lines.Where(l => l.ClosedWhy.Length > 0).Select(l => l.Key).ToHashSet();
        var words = ImmutableArray.CreateBuilder<string>();
        foreach (var pair in compared.Pairs.Where(p => p.Now is not null))
        {
            if (Of(pair, standard) is { } difference)
                words.Add(difference);
        }
        words.AddRange(
            compared
                .Pairs.Where(p => p is { Now: null, Then.Counts: true } && !closed.Contains(p.Then.Key))
                .Select(p => $"{p.Then!.Name} is gone")
        );
        words.AddRange(
            compared
                .Terms.Where(t => Binding.Contains(t.Field))
                .Select(t => $"{t.Label} {t.Now ?? "not said"}, {was} was {t.Then ?? "not said"}")
        );
        if (
            compared is { Now.Charges: { } charged, Then.Charges: { } offered }
            && charged.Currency == offered.Currency
            && charged != offered
        )
            words.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"charges {charged.Value:#,0.00##}, {was} were {offered.Value:#,0.00##}"
                )
            );
        return words.ToImmutable();
    }

    // The first of what binds: another item is another line, and says enough.
    private static string? Of(ComparedPair pair, Standard against)
    {
        var now = pair.Now!;
        if (pair.Then is not { } was)
            return $"{now.Name} {against.Added}";
        string? Moved(string field) => pair.Moved.Any(m => m.Field == field) ? field : null;
        return (Moved("item") ?? Moved("quantity") ?? Moved("price")) switch
        {
            "item" => $"{now.Name} in place of {was.Name}",
            "quantity" => $"{now.Name}: {now.Amounts}, {against.Was} were {was.Amounts}",
            "price" => $"{now.Name}: {now.Priced ?? "no price"}, {against.Was} was {was.Priced ?? "no price"}",
            _ => null,
        };
    }
}
