using System.Globalization;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;

namespace Solvenda.Acts.Sheets;

/// <summary>What a wish would take, before anybody does it.</summary>
/// <param name="Edits">What would be typed for it; empty where it cannot be done.</param>
/// <param name="WhyNot">Why it cannot; empty where it can.</param>
public sealed record Wished(IReadOnlyList<SheetEdit> Edits, Judged? After, string WhyNot);

/// <summary>"What would it take?": tries a wish on a sheet, and changes nothing.</summary>
public sealed class Reaching(SheetLoader loader, Judge judge)
{
    /// <summary>
    /// Tries "30000" (in all, with tax) or "28 %" (margin on every line that has a cost) on the sheet.
    /// </summary>
    public async Task<Wished> TryAsync(SolvendaDb db, long sheet, string wish, Actor actor, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(wish);
        ArgumentNullException.ThrowIfNull(actor);
        var open = await loader.BySheetAsync(db, sheet, cancel);
        if (!open.IsEditable)
            return Not("It left the house; a change takes a new revision.");
        var priced = open.Sheet.Priced(open.Buyer, open.Book);
        var (edits, whyNot) = EditsFor(priced, wish, actor.SeesCost);
        if (edits.Count == 0)
            return Not(whyNot);
        var edited = SheetDoor.Take(open.ToDraft(), edits, open.FactsFor(actor.Hand, judge.Today));
        if (edited.Refused is { } refused)
            return Not(refused.Words);
        open.Take(edited);
        return new Wished(edits, await judge.JudgeAsync(db, open, actor.Hand, cancel), "");
    }

    private static Wished Not(string why) => new([], null, why);

    private static (IReadOnlyList<SheetEdit> Edits, string WhyNot) EditsFor(
        PricedSheet priced,
        string wish,
        bool seesCost
    )
    {
        var text = wish.Trim();
        if (text.EndsWith('%'))
            return MarginEdits(priced, text.TrimEnd('%', ' '), seesCost);
        var currency = priced.Sheet.Currency;
        var plain = text.EndsWith(currency.Code, StringComparison.OrdinalIgnoreCase)
            ? text[..^currency.Code.Length]
            : text;
        if (Numbers.Read(plain.Trim()) is not ({ } total and >= 0m and <= LineFields.MostPrice))
            return ([], $"“{wish}” is neither a total nor a margin; type 30000, or 28 %.");
        var bare = priced.Sheet.Discount == SheetDiscount.None ? priced : priced.Under(SheetDiscount.None);
        if (bare.Tally.TotalWithTax.Value <= total)
            return ([], $"It comes to {Say(bare.Tally.TotalWithTax.Value)} without any discount on all.");
        return Wishes.DiscountFor(priced, total) is { } off
            ? (
                [
                    new SheetEdit(
                        EditKind.Set,
                        null,
                        HeadTerms.SheetDiscount.Name,
                        off.Value.ToString(CultureInfo.InvariantCulture) + " " + currency.Code
                    ),
                ],
                ""
            )
            : ([], "No discount on all leads there: what is charged beside the goods is more.");
    }

    private static (IReadOnlyList<SheetEdit> Edits, string WhyNot) MarginEdits(
        PricedSheet priced,
        string percent,
        bool seesCost
    )
    {
        if (!seesCost)
            return ([], "What things cost is not yours to see.");
        if (Numbers.Read(percent) is not ({ } margin and >= 0m and <= LineFields.MostMargin))
            return ([], "A margin is between 0 and 95 %.");
        var lines = priced
            .Sold.Where(l => l is { Counts: true, Item: not null } && (l.Line.Cost ?? l.Terms.Cost) is not null)
            .ToList();
        if (lines.Count > SheetDoor.MostEdits)
            return ([], $"At most {SheetDoor.MostEdits} lines are changed at once.");
        var text = margin.ToString("0.####", CultureInfo.InvariantCulture);
        return lines.Count == 0
            ? ([], "No line of it has a cost.")
            : ([.. lines.Select(l => new SheetEdit(EditKind.Set, l.Line.Key, "margin", text))], "");
    }

    private static string Say(decimal value) => value.ToString("#,0.00##", CultureInfo.InvariantCulture);
}
