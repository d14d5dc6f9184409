using System.Collections.Immutable;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Wordings;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Papers;

/// <summary>
/// Turns a judged sheet into the printed document, in the sheet's language: every figure as Core rounded it, so that
/// what is printed adds up.
/// </summary>
public static class SheetPrint
{
    /// <summary>A quote, ready to be set.</summary>
    /// <param name="letter">The letter to print in front of it; null where it goes another way.</param>
    public static PrintedDocument Quote(Judged judged, Seller seller, DateOnly today, PrintedLetter? letter = null) =>
        Of(judged, seller, today, PaperKind.Quote, letter);

    /// <summary>An order acknowledgement, ready to be set, with the date of each line.</summary>
    public static PrintedDocument Acknowledgement(
        Judged judged,
        Seller seller,
        DateOnly today,
        PrintedLetter? letter = null
    ) => Of(judged, seller, today, PaperKind.Acknowledgement, letter);

    /// <summary>What an order will be invoiced for, to be paid ahead: no invoice, and it has no number of its
    /// own.</summary>
    public static PrintedDocument ProForma(Judged judged, Seller seller, DateOnly today, PrintedLetter? letter = null)
    {
        ArgumentNullException.ThrowIfNull(judged);
        ArgumentNullException.ThrowIfNull(seller);
        return Of(judged, seller, today, PaperKind.ProForma, letter);
    }

    /// <summary>The words of a tax category; categories without tax name why (EN 16931, BT-120).</summary>
    public static string TaxWords(Tax tax, Wording wording) =>
        wording
            .Or("tax." + tax.Category, "{0} %")
            .Replace("{0}", wording.Number(tax.Percent), StringComparison.Ordinal);

    /// <summary>
    /// What a charge is called: ours by language, those of the house's own rules as the house calls them.
    /// </summary>
    public static string ChargeWords(SheetCharge charge, Wording wording) =>
        wording.Or("charge." + charge.Kind, charge.Words);

    private static PrintedDocument Of(
        Judged judged,
        Seller seller,
        DateOnly today,
        PaperKind paper,
        PrintedLetter? letter
    )
    {
        ArgumentNullException.ThrowIfNull(judged);
        var open = judged.Open;
        var wording = open.Wording;
        var currency = judged.Priced.Sheet.Currency;
        string Money(decimal value) => wording.Fixed(value, currency.Decimals);
        return new PrintedDocument(
            seller.Name,
            seller.Address,
            wording.TitleOf(paper),
            open.Number,
            AddressLines(open, open.Buyer.Address),
            Facts(open, wording, today),
            open.Dossier.Matter,
            currency.Code,
            Lines(judged, wording, Money, withDates: paper != PaperKind.Quote),
            Totals(judged, wording, Money),
            [
                .. judged.Priced.Tally.Taxes.Select(t => new PrintedTax(
                    TaxWords(t.Tax, wording),
                    Money(t.Basis.Value),
                    Money(t.TaxAmount.Value)
                )),
            ],
            paper == PaperKind.ProForma ? ToBePaidAhead(judged.Open, seller) : Closing(judged, wording),
            string.Join(" · ", new[] { seller.Name, seller.Address[0], seller.Bank }.Where(t => t.Length > 0)),
            new PrintedLabels(
                wording["what"],
                wording["quantity"],
                wording["price"],
                wording["less"],
                wording["tax"],
                wording["taxOn"],
                wording["page"]
            ),
            letter
        )
            .On(seller)
            .Saying(open.House.Texts, paper, wording, open.Buyer);
    }

    private static ImmutableArray<string> ToBePaidAhead(OpenSheet open, Seller seller) =>
        [open.Wording["proFormaSays"], string.Join(" · ", new[] { seller.Bank, open.Number }.Where(t => t.Length > 0))];

    /// <summary>A letter for the post, to an address of the buyer's.</summary>
    public static PrintedLetter Letter(OpenSheet open, string address, string text) =>
        new(AddressLines(open, address), text);

    internal static ImmutableArray<string> AddressLines(OpenSheet open, string address) =>
        [
            open.Buyer.Name,
            .. address.Split(", "),
            .. open.Buyer.ContactName is { } name ? new[] { open.Wording.With("for", name) } : [],
        ];

    internal static ImmutableArray<(string Label, string Value)> Facts(OpenSheet open, Wording wording, DateOnly today)
    {
        var facts = ImmutableArray.CreateBuilder<(string, string)>();
        facts.Add((wording["date"], wording.Day(today)));
        foreach (var term in HeadTerms.All.Where(t => t.Paper is not null))
        {
            if (term.In(open.WholeHead()) is { } text)
                facts.Add((wording[term.Paper!], Said(term, text, wording)));
            // The Incoterm stands behind the payment, with its place.
            if (term == HeadTerms.PaymentDays && Delivery(open.Sheet.Head) is { } delivery)
                facts.Add((wording["delivery"], delivery));
        }
        foreach (var own in open.Own.Where(f => f.OnPaper))
            if (open.Sheet.Head.Text(own.Name) is { } text)
                facts.Add((own.Label, own.Type == OwnType.Date ? DayOf(text, wording) : text));
        facts.Add((wording["yourContact"], open.Owner.Name));
        return facts.ToImmutable();
    }

    private static string? Delivery(Head head) =>
        HeadTerms.Incoterm.In(head) is { } term
            ? $"{term} {HeadTerms.IncotermPlace.In(head)} (Incoterms 2020)".Replace("  ", " ", StringComparison.Ordinal)
            : null;

    private static string Said(HeadTerm term, string text, Wording wording) =>
        term switch
        {
            { Kind: TermKind.Date } => DayOf(text, wording),
            { Kind: TermKind.Days } => PaymentPlan.Read(text, out _) is { } plan ? PlanWords.Of(plan, wording) : text,
            { PaperValue: { } key } when key.EndsWith('.') => wording[key + text],
            { PaperValue: { } key } => wording.With(key, text),
            _ => text,
        };

    private static string DayOf(string text, Wording wording) =>
        wording.Day(DateOnly.ParseExact(text, "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture));

    private static ImmutableArray<(string, string, bool)> Totals(
        Judged judged,
        Wording wording,
        Func<decimal, string> money
    )
    {
        var tally = judged.Priced.Tally;
        var currency = judged.Priced.Sheet.Currency;
        return
        [
            (wording["goods"], money(tally.Goods.Value), false),
            .. tally.SheetDiscount.IsZero
                ? Array.Empty<(string, string, bool)>()
                :
                [
                    (
                        judged.Priced.Sheet.Discount.Percent is { } p
                            ? wording.With("lessPercent", wording.Number(p))
                            : wording["less"],
                        money(-tally.SheetDiscount.Value),
                        false
                    ),
                ],
            .. judged.Priced.Charges.Select(c =>
                (ChargeWords(c, wording), money(Amount.Round(c.Amount, currency).Value), false)
            ),
            (wording["withoutTax"], money(tally.TotalWithoutTax.Value), false),
            (wording["tax"], money(tally.TotalTax.Value), false),
            (wording.With("inAll", currency.Code), money(tally.TotalWithTax.Value), true),
            .. tally.Rounding is { IsZero: false } rounding
                ? [(wording["rounding"], money(rounding.Value), false)]
                : Array.Empty<(string, string, bool)>(),
            .. judged.Priced.Sheet.Paid is { } paid
                ? [(wording["paidOnChannel"], money(-paid.Total), false)]
                : Array.Empty<(string, string, bool)>(),
        ];
    }

    private static ImmutableArray<PrintedLine> Lines(
        Judged judged,
        Wording wording,
        Func<decimal, string> money,
        bool withDates
    )
    {
        var lines = ImmutableArray.CreateBuilder<PrintedLine>();
        var subtotals = judged.Priced.Subtotals();
        var numbers = LineNumbers.Of(judged.Priced.Sheet.Lines);
        foreach (var l in judged.Priced.Lines)
        {
            if (!l.IsSold)
            {
                var isHeading = l.Line.Kind == LineKind.Heading;
                var sum = isHeading && !subtotals[l.Line.Key].IsZero ? money(subtotals[l.Line.Key].Value) : "";
                lines.Add(new PrintedLine(isHeading, "", "", l.Line.Words, "", "", "", "", sum, false, ""));
                continue;
            }
            var baseWords = l.Terms.PriceBase == 1m ? "" : " " + wording.With("per", wording.Number(l.Terms.PriceBase));
            var shownDiscount = l.Terms.ByHand.Kind == ByHandKind.DiscountPercent;
            var price = shownDiscount ? l.Terms.Base ?? 0m : l.Figures.NetPrice;
            var promise = judged.Facts.Stock.GetValueOrDefault(l.Line.Key)?.Promise;
            lines.Add(
                new PrintedLine(
                    false,
                    numbers[l.Line.Key],
                    l.Item?.Code ?? "",
                    WordsOf(l, wording),
                    NoteOf(l.Line, wording),
                    $"{wording.Number(l.Line.Quantity)} {wording.UnitWord(l.Line.Unit)}".Trim(),
                    wording.Fixed(price, 4) + baseWords,
                    shownDiscount ? $"{wording.Number(l.Terms.ByHand.Value)} %" : "",
                    money(l.Figures.Net.Value),
                    !l.Counts,
                    withDates && promise is not null ? wording.With("withYouBy", wording.Day(promise.Arrives)) : ""
                )
            );
        }
        return lines.ToImmutable();
    }

    /// <summary>What it is, and what they can choose about it.</summary>
    public static string WordsOf(PricedLine line, Wording wording)
    {
        ArgumentNullException.ThrowIfNull(line);
        ArgumentNullException.ThrowIfNull(wording);
        var key =
            line.Line.Taken is not null ? null
            : line.Line.Optional ? "ifWanted"
            : line.Line.OneOf.Length == 0 ? null
            : line.Counts ? "oneOfThese"
            : "orThis";
        return key is null ? line.Line.Words : wording.With(key, line.Line.Words);
    }

    /// <summary>
    /// What the buyer is told beside a line: its note, and what is of its own on it: the day, the place, the job, and
    /// who ordered it.
    /// </summary>
    public static string NoteOf(SheetLine line, Wording wording)
    {
        ArgumentNullException.ThrowIfNull(line);
        ArgumentNullException.ThrowIfNull(wording);
        var wanted = line.Wanted is { } day ? wording.With("wantedBy", wording.Day(day)) : "";
        string Said(string key, string? text) => string.IsNullOrEmpty(text) ? "" : wording.With(key, text);
        return string.Join(
            "; ",
            new[]
            {
                line.Note,
                wanted,
                Said("toPlace", line.DeliverTo?.Words),
                Said("forJob", line.Job),
                Said("orderedByThem", line.OrderedBy),
            }.Where(t => t.Length > 0)
        );
    }

    private static ImmutableArray<string> Closing(Judged judged, Wording wording)
    {
        var closing = ImmutableArray.CreateBuilder<string>();
        if (HeadTerms.Note.In(judged.Open.Sheet.Head) is { } note)
            closing.Add(note);
        var arrivals = judged
            .Facts.Stock.Values.Where(s => s.Promise is not null)
            .Select(s => s.Promise!.Arrives)
            .ToList();
        if (judged.Open.Quote is { } quote)
        {
            if (arrivals.Count > 0)
                closing.Add(wording.With("allWithYouBy", wording.Day(arrivals.Max())));
            closing.Add(wording.With("pricesHold", wording.Day(quote.ValidUntil)));
        }
        return closing.ToImmutable();
    }
}
