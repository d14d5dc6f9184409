using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Quotes;

/// <summary>
/// Begins a quote of its own from another: a declined or lapsed one taken up again, or a second one beside it for the
/// buyer to choose from. Prices are those of today; what it is a copy of stays as it is.
/// </summary>
/// <param name="Revision">Null: the newest.</param>
/// <param name="ToChoose">Whether the buyer takes one of the two.</param>
public sealed record CopyQuote(string Quote, int? Revision, bool ToChoose) : IAct<DocumentRef>;

[Leaves(typeof(QuoteBegun), typeof(QuoteCopied))]
public sealed class CopyQuoteAct(SheetLoader loader, Settling settling) : Act<CopyQuote, DocumentRef>
{
    // So many lines are named in the history; the rest is counted.
    private const int MostNamed = 5;

    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, CopyQuote input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.QuoteAsync(work.Db, input.Quote, input.Revision, cancel);
        var sheet = Drafting.CopyOf(open.Sheet, work.Actor.Hand);
        (sheet.PricingDate, sheet.FrozenRate, sheet.Kept) = (work.Today, null, "");
        var quote = await Drafting.QuoteAsync(work, open.Dossier, sheet, null, cancel);
        if (input.ToChoose)
            quote.OneOf = await SetAsync(work, open.Quote!, cancel);
        await work.Db.SaveChangesAsync(cancel);
        var fresh = await loader.QuoteAsync(work.Db, quote.Number, null, cancel);
        var judged = (await settling.SettleAsync(work, fresh, cancel)).Judged;
        work.Leave(
            new QuoteCopied(
                open.Number,
                Moved(open.Sheet.Priced(open.Buyer, open.Book), judged.Priced),
                input.ToChoose
            ),
            quote.Number,
            open.Dossier.Id
        );
        return fresh.Ref;
    }

    // All revisions of the first are of the set.
    private static async Task<string> SetAsync(Work work, QuoteRow first, CancellationToken cancel)
    {
        if (QuoteMoves.Table.After(first.State, QuoteDoing.Withdraw) is null)
            throw RefusedException.Clash("quote_state", "Only a quote that is still open can be chosen from.");
        var set = first.OneOf ?? first.Number;
        foreach (var revision in await work.Db.Quotes.Where(q => q.Number == first.Number).ToListAsync(cancel))
            revision.OneOf = set;
        return set;
    }

    private static string Moved(PricedSheet then, PricedSheet now)
    {
        var compared = Comparison.Of(Side.Of(then, Head.Empty), Side.Of(now, Head.Empty), byKey: true);
        var moved = compared.Pairs.Where(p => p.Moved.Any(m => m.Field == "price")).ToList();
        if (moved.Count == 0)
            return "";
        var named = moved
            .Take(MostNamed)
            .Select(p => $"{p.Now!.Name} {p.Then!.Priced ?? "no price"} \u2192 {p.Now.Priced ?? "no price"}");
        var rest = moved.Count > MostNamed ? $" and {moved.Count - MostNamed} more" : "";
        var more = now.Tally.TotalWithoutTax - then.Tally.TotalWithoutTax;
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{string.Join(", ", named)}{rest}: {Math.Abs(more.Value):#,0.00##} {(more.Minor < 0 ? "less" : "more")} without tax"
        );
    }
}
