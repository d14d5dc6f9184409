using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Quotes;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Wordings;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Web.Documents;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Quotes;

/// <summary>A line as the buyer sees it: no cost, no margin, no floor.</summary>
/// <param name="Key">By which it is chosen.</param>
/// <param name="Number">As it is printed; empty for headings and comments.</param>
/// <param name="OneOf">The letter of the choice that it is one of; empty for none.</param>
/// <param name="Counts">Whether it is in the total.</param>
public sealed record OfferLine(
    long Key,
    string Number,
    LineKind Kind,
    string Code,
    string Words,
    string Note,
    decimal Quantity,
    string UnitWord,
    decimal? Price,
    decimal PriceBase,
    decimal DiscountPercent,
    decimal Amount,
    bool Optional,
    string OneOf,
    bool Counts
);

/// <summary>
/// A quote as the buyer sees it. <paramref name="Open"/>: may be answered; else <paramref name="Why"/> says why not.
/// <paramref name="Words"/>: what the page says, in the quote's language.
/// </summary>
public sealed record OfferView(
    string Seller,
    IReadOnlyList<string> SellerLines,
    string Number,
    string Revision,
    string Buyer,
    string Contact,
    string Matter,
    DateOnly Date,
    DateOnly ValidUntil,
    string Currency,
    int Decimals,
    IReadOnlyList<OfferLine> Lines,
    decimal Goods,
    decimal SheetDiscount,
    IReadOnlyList<ChargeView> Charges,
    IReadOnlyList<TaxWordsView> Taxes,
    decimal TotalWithoutTax,
    decimal TotalTax,
    decimal TotalWithTax,
    string? Payment,
    string? Incoterm,
    string? IncotermPlace,
    string? DeliverTo,
    string Note,
    bool PoNumberRequired,
    bool Open,
    string Why,
    string SellerPerson,
    string Language,
    IReadOnlyDictionary<string, string> Words,
    IReadOnlyList<ToChooseView> ToChoose,
    IReadOnlyList<OfferFile> Files
);

/// <summary>A file that goes with the quote.</summary>
public sealed record OfferFile(long Id, string Name);

public sealed record TaxWordsView(string Words, decimal Basis, decimal Tax);

/// <summary>Puts together what the buyer sees, on their page and in the preview before it is sent.</summary>
public sealed class OfferViews(Judge judge, Seller seller, HouseClock clock)
{
    /// <param name="me">Who looks: nobody of ours, on the buyer's own page.</param>
    public async Task<OfferView> OfAsync(SolvendaDb db, OpenSheet open, Hand me, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var judged = await judge.JudgeAsync(db, open, me, cancel);
        var s = open.Sheet;
        var t = judged.Priced.Tally;
        var why = Offers.WhyNot(open, clock.Today);
        return new OfferView(
            seller.Name,
            seller.Address,
            open.Subject,
            Revision.Letter(open.Quote!.Revision),
            open.Buyer.Name,
            open.Buyer.ContactName ?? "",
            open.Dossier.Matter,
            DateOnly.FromDateTime(open.Quote.SentAt ?? open.Quote.CreatedAt),
            open.Quote.ValidUntil,
            s.Currency,
            judged.Priced.Sheet.Currency.Decimals,
            LinesOf(judged.Priced, open.Wording),
            t.Goods.Value,
            t.SheetDiscount.Value,
            [
                .. judged.Priced.Charges.Select(c =>
                    ChargeView.Of(c, judged.Priced.Sheet.Currency) with
                    {
                        Words = SheetPrint.ChargeWords(c, open.Wording),
                    }
                ),
            ],
            [
                .. t.Taxes.Select(x => new TaxWordsView(
                    SheetPrint.TaxWords(x.Tax, open.Wording),
                    x.Basis.Value,
                    x.TaxAmount.Value
                )),
            ],
            t.TotalWithoutTax.Value,
            t.TotalTax.Value,
            t.TotalWithTax.Value,
            HeadTerms.PlanIn(s.Head) is { } plan ? PlanWords.Of(plan, open.Wording) : null,
            HeadTerms.Incoterm.In(s.Head),
            HeadTerms.IncotermPlace.In(s.Head),
            HeadTerms.DeliverTo.In(s.Head),
            HeadTerms.Note.In(s.Head) ?? "",
            open.Buyer.PoNumberRequired,
            why.Length == 0,
            why,
            open.Owner.Name,
            open.Wording.Code,
            open.Wording.Texts,
            await ToChooseAsync(db, open, cancel),
            await db
                .Attachments.Where(a => a.Document == open.Subject && a.ForBuyer)
                .OrderBy(a => a.Id)
                .Select(a => new OfferFile(a.Id, a.Name))
                .ToListAsync(cancel)
        );
    }

    // Those of the set that left the house too.
    private static async Task<List<ToChooseView>> ToChooseAsync(
        SolvendaDb db,
        OpenSheet open,
        CancellationToken cancel
    ) =>
        [
            .. (await DocumentViews.ToChooseAsync(db, open, cancel)).Where(q =>
                q.State is QuoteState.WithCustomer or QuoteState.Accepted or QuoteState.Declined
            ),
        ];

    private static List<OfferLine> LinesOf(PricedSheet priced, Wording wording)
    {
        var (numbers, sums) = (LineNumbers.Of(priced.Sheet.Lines), priced.Subtotals());
        return
        [
            .. priced.Lines.Select(l =>
                LineOf(
                    l,
                    numbers.GetValueOrDefault(l.Line.Key) ?? "",
                    sums.TryGetValue(l.Line.Key, out var sum) ? sum.Value : l.Figures.Net.Value,
                    wording
                )
            ),
        ];
    }

    private static OfferLine LineOf(PricedLine l, string number, decimal amount, Wording wording)
    {
        var shown = l.Terms.ByHand.Kind == Core.Pricing.ByHandKind.DiscountPercent;
        return new OfferLine(
            l.Line.Key,
            number,
            l.Line.Kind,
            l.Item?.Code ?? "",
            SheetPrint.WordsOf(l, wording),
            SheetPrint.NoteOf(l.Line, wording),
            l.Line.Quantity,
            wording.UnitWord(l.Line.Unit),
            !l.HasPrice ? null
                : shown ? l.Terms.Base
                : l.Figures.NetPrice,
            l.Terms.PriceBase,
            shown ? l.Terms.ByHand.Value : 0m,
            amount,
            l.Line.Optional,
            l.Line.OneOf,
            l.Counts
        );
    }
}
