using Solvenda.Acts.Sheets;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Papers;

/// <summary>A letter to a buyer, in the language of the document that it goes with.</summary>
public sealed record BuyerLetter(string Subject, string Text);

/// <summary>The letters that we write by ourselves; those with quotes are only proposed.</summary>
public static class BuyerLetters
{
    /// <summary>Where the buyer's link stands in the letter with a quote, until it is sent.</summary>
    public const string LinkMark = "{link}";

    public static BuyerLetter Quote(OpenSheet open, Seller seller)
    {
        ArgumentNullException.ThrowIfNull(open);
        var wording = open.Wording;
        var matter = open.Dossier.Matter.Length > 0 ? wording.With("letter.matter", open.Dossier.Matter) : "";
        return new BuyerLetter(
            wording.With("letter.quoteSubject", open.Number) + matter,
            Text(
                open,
                seller,
                wording.With("letter.quote", open.Number, matter),
                LinkMark,
                wording.With("pricesHold", wording.Day(open.Quote!.ValidUntil))
            )
        );
    }

    public static BuyerLetter Acknowledgement(OpenSheet open, Seller seller)
    {
        ArgumentNullException.ThrowIfNull(open);
        return new BuyerLetter(
            open.Wording.With("letter.orderSubject", open.Order!.Number),
            Text(open, seller, open.Wording.With("letter.order", Po(open), open.Order.Number))
        );
    }

    /// <summary>Goes with a pro-forma invoice.</summary>
    public static BuyerLetter ProForma(OpenSheet open, Seller seller, Amount total)
    {
        ArgumentNullException.ThrowIfNull(open);
        var sum = open.Wording.Fixed(total.Value, total.Currency.Decimals);
        return new BuyerLetter(
            $"{open.Wording["proForma"]} {open.Order!.Number}",
            Text(open, seller, open.Wording.With("letter.proForma", open.Order.Number, sum, total.Currency.Code))
        );
    }

    /// <summary>Goes with an invoice, or with a credit note.</summary>
    public static BuyerLetter Invoice(OpenSheet open, Seller seller, IssuedInvoice issued)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(issued);
        var wording = open.Wording;
        var total = wording.Fixed(issued.TotalWithTax, Currency.Of(issued.Currency).Decimals);
        if (issued.Kind == BillKind.Deposit)
            return new BuyerLetter(
                wording.With("letter.depositSubject", issued.Number),
                Text(open, seller, wording.With("letter.deposit", issued.Number, total, issued.Currency, issued.Order))
            );
        return issued.Kind == BillKind.Credit
            ? new BuyerLetter(
                wording.With("letter.creditSubject", issued.Number),
                Text(open, seller, wording.With("letter.credit", issued.Number, total, issued.Currency, issued.Credits))
            )
            : new BuyerLetter(
                wording.With("letter.invoiceSubject", issued.Number),
                Text(
                    open,
                    seller,
                    wording.With("letter.invoice", issued.Number, total, issued.Currency, wording.Day(issued.Due))
                )
            );
    }

    /// <summary>Tells the buyer what is otherwise than it was confirmed.</summary>
    public static BuyerLetter Change(OpenSheet open, Seller seller, Comparison compared)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(compared);
        return new BuyerLetter(
            open.Wording.With("letter.changedSubject", open.Order!.Number),
            Text(
                open,
                seller,
                open.Wording.With("letter.changed", Po(open), open.Order.Number),
                string.Join('\n', compared.Pairs.Select(Line).OfType<string>())
            )
        );
    }

    /// <summary>Tells the buyer that what they want otherwise cannot be done.</summary>
    public static BuyerLetter NotChanged(OpenSheet open, Seller seller, string reason)
    {
        ArgumentNullException.ThrowIfNull(open);
        return new BuyerLetter(
            open.Wording.With("letter.notChangedSubject", open.Order!.Number),
            Text(open, seller, open.Wording.With("letter.notChanged", Po(open), open.Order.Number), reason)
        );
    }

    /// <summary>Tells the buyer on which days lines of their order come instead.</summary>
    public static BuyerLetter Dates(OpenSheet open, Seller seller, IEnumerable<LineDate> lines)
    {
        ArgumentNullException.ThrowIfNull(open);
        var wording = open.Wording;
        return new BuyerLetter(
            wording.With("letter.datesSubject", open.Order!.Number),
            Text(
                open,
                seller,
                wording.With("letter.dates", Po(open), open.Order.Number),
                string.Join(
                    '\n',
                    lines.Select(l =>
                        l.Before is { } before
                            ? $"  {l.Line}. {l.Words}: {wording.Day(before)} \u2192 {wording.Day(l.After)}"
                            : $"  {l.Line}. {l.Words}: {wording.Day(l.After)}"
                    )
                )
            )
        );
    }

    /// <summary>Tells the buyer that goods left.</summary>
    /// <param name="followAt">Where it can be followed; empty for nowhere.</param>
    /// <param name="rest">Whether something follows later.</param>
    public static BuyerLetter Sent(OpenSheet open, Seller seller, ShipmentRow shipment, string followAt, bool rest)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(shipment);
        var wording = open.Wording;
        var parts = new List<string> { wording.With("letter.sent", Po(open), open.Order!.Number, shipment.Number) };
        if (shipment.Carrier.Length > 0)
            parts.Add(wording.With("letter.sentBy", shipment.Carrier));
        if (shipment.Tracking.Length > 0)
            parts.Add(wording.With("letter.sentTracking", shipment.Tracking));
        if (followAt.Length > 0)
            parts.Add(wording.With("letter.sentFollow", followAt));
        if (rest)
            parts.Add(wording["letter.sentRest"]);
        return new BuyerLetter(
            wording.With("letter.sentSubject", Po(open)),
            Text(open, seller, string.Join(' ', parts))
        );
    }

    /// <summary>Tells the buyer by which number goods that left are followed.</summary>
    /// <param name="followAt">Where; empty for nowhere.</param>
    public static BuyerLetter Tracking(OpenSheet open, Seller seller, ShipmentRow shipment, string followAt)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(shipment);
        var wording = open.Wording;
        var parts = new List<string>
        {
            wording.With("letter.sentTracking", shipment.Tracking),
            wording.With("letter.sentBy", shipment.Carrier),
        };
        if (followAt.Length > 0)
            parts.Add(wording.With("letter.sentFollow", followAt));
        return new BuyerLetter(
            $"{wording.With("letter.sentSubject", Po(open))}, {shipment.Number}",
            Text(open, seller, string.Join(' ', parts))
        );
    }

    /// <summary>Tells the buyer that they may send goods back.</summary>
    public static BuyerLetter ReturnAllowed(OpenSheet open, Seller seller, string number, IEnumerable<string> lines) =>
        Return(open, seller, number, "letter.returnAllowed", string.Join("; ", lines));

    /// <summary>Tells the buyer that goods cannot come back.</summary>
    public static BuyerLetter ReturnRefused(OpenSheet open, Seller seller, string number, string why) =>
        Return(open, seller, number, "letter.returnRefused", why);

    /// <summary>Tells the buyer that their goods are back.</summary>
    public static BuyerLetter ReturnBack(OpenSheet open, Seller seller, string number, IEnumerable<string> lines) =>
        Return(open, seller, number, "letter.returnBack", string.Join("; ", lines));

    private static BuyerLetter Return(OpenSheet open, Seller seller, string number, string key, string what)
    {
        ArgumentNullException.ThrowIfNull(open);
        return new BuyerLetter(
            open.Wording.With("letter.returnSubject", number),
            Text(open, seller, open.Wording.With(key, number, what))
        );
    }

    /// <summary>Tells the buyer that an order of theirs is cancelled.</summary>
    public static BuyerLetter Cancelled(OpenSheet open, Seller seller)
    {
        ArgumentNullException.ThrowIfNull(open);
        return new BuyerLetter(
            open.Wording.With("letter.cancelledSubject", open.Order!.Number),
            Text(open, seller, open.Wording.With("letter.cancelled", Po(open), open.Order.Number))
        );
    }

    private static string Po(OpenSheet open) => open.Sheet.PoNumber is { } po ? " " + po : "";

    // In signs, so that it is read in every language.
    private static string? Line(ComparedPair pair) =>
        pair switch
        {
            { Then: null, Now: { } now } => $"+ {now.Name}: {now.Amounts}, {now.Priced}",
            { Then: { } then, Now: null } => $"\u2212 {then.Name}: {then.Amounts}",
            { Now: { } now, Moved.IsEmpty: false } =>
                $"  {now.Name}: {string.Join("; ", pair.Moved.Select(m => $"{m.Then} \u2192 {m.Now}"))}",
            _ => null,
        };

    /// <summary>Tells the buyer that their answer to a quote arrived.</summary>
    /// <param name="declined">Why it was declined; null: it was accepted.</param>
    public static BuyerLetter Answer(OpenSheet open, Seller seller, string? name, string? declined)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(seller);
        var wording = open.Wording;
        var who = name ?? wording["letter.theBuyer"];
        var words = declined is null
            ? wording.With(
                "letter.accepted",
                who,
                open.Number,
                open.Sheet.PoNumber is { } po ? wording.With("letter.acceptedPo", po) : ""
            )
            : wording.With("letter.declined", who, open.Number, declined);
        return new BuyerLetter(
            wording.With("letter.answerSubject", open.Number),
            $"{wording["letter.thanks"]} {words}\n\n{open.SignedBy}\n{seller.Name}\n"
        );
    }

    private static string Text(OpenSheet open, Seller seller, params string[] paragraphs)
    {
        var wording = open.Wording;
        var first = open.Buyer.ContactName?.Split(' ')[0] ?? wording["letter.all"];
        return $"{wording.With("letter.dear", first)}\n\n{string.Join("\n\n", paragraphs)}\n\n{wording["letter.regards"]}\n{open.SignedBy}\n{seller.Name}";
    }
}
