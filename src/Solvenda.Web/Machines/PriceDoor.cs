using System.Collections.Immutable;
using System.Globalization;
using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Machines;

/// <summary>
/// A line to be priced: an item's code or GTIN, a quantity, and at most one of discount, net price and margin.
/// </summary>
/// <param name="Unit">UN/ECE Rec 20 code or a word for one; without it the item's stock unit.</param>
public sealed record PriceLine(
    string Item,
    decimal Quantity,
    string? Unit = null,
    decimal? DiscountPercent = null,
    decimal? DiscountAmount = null,
    decimal? NetPrice = null,
    decimal? MarginPercent = null,
    IReadOnlyList<decimal>? Charges = null,
    bool Optional = false
);

/// <summary>A charge on the sheet, such as freight.</summary>
public sealed record PriceCharge(string Kind, decimal Amount);

/// <summary>What would this buyer pay on that day?</summary>
/// <param name="Buyer">Code, name, or key.</param>
/// <param name="Date">Without it: today.</param>
/// <param name="Currency">Without it: the buyer's.</param>
/// <param name="Channel">For campaigns; without it none of a channel is met.</param>
/// <param name="Incoterm">Without it the buyer's; freight and insurance follow it, unless charges of these kinds are
/// given.</param>
/// <param name="DeliverToCountry">ISO 3166-1 alpha-2; without it where the buyer's goods go by default.</param>
/// <param name="Seller">Whose authority it is judged by: login or name; without it the buyer's account manager. Takes
/// the scope "authority".</param>
public sealed record PriceRequest(
    string Buyer,
    IReadOnlyList<PriceLine> Lines,
    DateOnly? Date = null,
    string? Currency = null,
    string? DeliverToCountry = null,
    decimal? SheetDiscountPercent = null,
    decimal? SheetDiscountAmount = null,
    IReadOnlyList<PriceCharge>? Charges = null,
    string? Channel = null,
    string? Incoterm = null,
    string? IncotermPlace = null,
    string? FreightService = null,
    decimal? Deposit = null,
    string? Seller = null
);

/// <summary>Prices for machines: what would this buyer pay, and why. Stores nothing.</summary>
public static class PriceDoor
{
    public static async Task<SheetView> Price(
        PriceRequest body,
        ClaimsPrincipal user,
        SolvendaDb db,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        MustBeBounded(body);
        var buyer = await FindBuyerAsync(db, body.Buyer.Trim(), cancel);
        var book = await books.BookAsync(db, cancel);
        var finder = await books.ItemsAsync(db, cancel);
        if (!Currency.TryOf(body.Currency ?? buyer.Currency, out var currency))
            throw RefusedException.Bad(
                "currency_unknown",
                $"“{body.Currency}” is not a currency of ISO 4217.",
                "currency"
            );
        var day = body.Date ?? clock.Today;
        var sheet = new Sheet(
            currency,
            day,
            body.DeliverToCountry ?? buyer.DeliverToCountry,
            [.. body.Lines.Select((l, i) => LineOf(l, i, finder))],
            new SheetDiscount(body.SheetDiscountPercent, body.SheetDiscountAmount),
            [.. (body.Charges ?? []).Select(c => new SheetCharge(c.Kind, c.Amount, null, true))],
            body.Deposit ?? 0m
        )
        {
            Channel = body.Channel,
            Incoterm = (body.Incoterm ?? buyer.Incoterm)?.ToUpperInvariant(),
            FreightService = body.FreightService,
        };
        var priced = SheetPricer.Price(book, Rates.On(day, book.Home, book.DatedRates), buyer.ToBuyer(), sheet);
        var deciders = await Deciders.OnAsync(db, clock.Today, cancel);
        var logins = await db.People.AsNoTracking().Select(p => new { p.Id, p.Login }).ToListAsync(cancel);
        var seller = SellerOf(
            body,
            buyer,
            logins.ConvertAll(p => (p.Login, deciders.People[new PersonId(p.Id)])),
            user.ActorOf()
        );
        return Judged(
            seller,
            deciders.People,
            await PolicyBook.HoldingAsync(db, cancel),
            priced,
            HeadOf(body, buyer, seller?.Hand),
            user.ActorOf(),
            clock.Today
        );
    }

    // What somebody may decide is not everybody's to ask.
    private static Decider? SellerOf(
        PriceRequest body,
        BuyerRow buyer,
        List<(string Login, Decider Person)> people,
        Actor actor
    )
    {
        if (body.Seller?.Trim() is not { Length: > 0 } sought)
            return people.Find(p => p.Person.Id.Value == buyer.AccountManagerId).Person;
        if (!actor.SeesAuthority)
            throw RefusedException.Forbidden("Whose authority covers a price is for keys with the scope “authority”.");
        bool IsMeant(string said) => string.Equals(said, sought, StringComparison.OrdinalIgnoreCase);
        return people.Find(p => p.Person.Active && IsMeant(p.Login)).Person
            ?? people.Find(p => p.Person.Active && IsMeant(p.Person.Name)).Person
            ?? throw RefusedException.Bad("seller_unknown", $"We have no seller “{sought}”.", "seller");
    }

    // Figures of the head meet the bounds that typing meets.
    private static void MustBeBounded(PriceRequest body)
    {
        if (body.Lines.Count > SheetDoor.MostLines)
            throw RefusedException.Bad(
                "too_many_lines",
                $"At most {SheetDoor.MostLines} lines are priced at once.",
                "lines"
            );
        if (
            body
            is { SheetDiscountPercent: not null, SheetDiscountAmount: not null }
                or { SheetDiscountPercent: < 0 or > 100 }
                or { SheetDiscountAmount: < 0 or > HeadTerms.MostFreight }
        )
            throw RefusedException.Bad(
                "number",
                "A discount on the sheet is a percentage from 0 to 100, or an amount up to a million.",
                "sheetDiscountPercent"
            );
        if (
            (body.Charges ?? []).Any(c => c.Amount is < 0 or > HeadTerms.MostFreight)
            || body.Deposit is < 0 or > LineFields.MostPrice
        )
            throw RefusedException.Bad(
                "number",
                "A charge or a deposit is not negative, nor beyond a million.",
                "charges"
            );
        if (body.Date is { } day && (day.Year < 2000 || day.Year > 2100))
            throw RefusedException.Bad("date", "A day is between 2000 and 2100.", "date");
    }

    private static Head HeadOf(PriceRequest body, BuyerRow buyer, Hand? hand)
    {
        var head = HeadTerms.Of(buyer.ToBuyer());
        foreach (
            var (term, text) in new[]
            {
                (HeadTerms.Incoterm, body.Incoterm?.ToUpperInvariant()),
                (HeadTerms.IncotermPlace, body.IncotermPlace),
                (HeadTerms.DeliverToCountry, body.DeliverToCountry),
                (HeadTerms.SheetDiscount, DiscountOf(body, buyer)),
                (HeadTerms.Freight, Number(FreightOf(body))),
            }
        )
        {
            if (text is not null)
                head = head.With(term.Name, text, hand);
        }
        return head;
    }

    // Freight in parts is their sum; none: nobody typed one.
    private static decimal? FreightOf(PriceRequest body)
    {
        var typed = (body.Charges ?? []).Where(c => c.Kind == HeadTerms.Freight.Name).ToList();
        return typed.Count == 0 ? null : typed.Sum(c => c.Amount);
    }

    private static string? DiscountOf(PriceRequest body, BuyerRow buyer) =>
        body.SheetDiscountAmount is { } amount
            ? $"{Number(amount)} {body.Currency ?? buyer.Currency}"
            : Number(body.SheetDiscountPercent);

    private static string? Number(decimal? value) => value?.ToString(CultureInfo.InvariantCulture);

    // Nothing is stored, so checks that look at documents have nothing to look at; the rest run as on any quote of the
    // account manager's, and what is
    // his to know is shown to keys of that scope only.
    private static SheetView Judged(
        Decider? seller,
        IReadOnlyDictionary<PersonId, Decider> people,
        ImmutableArray<Policy> policies,
        PricedSheet priced,
        Head head,
        Actor actor,
        DateOnly today
    )
    {
        var asSeller = seller is null ? priced : Typed(priced, seller.Hand);
        var approval = seller is null
            ? Judgement.Nothing
            : Judgement.Of(
                asSeller,
                new JudgedBy(head, seller.Hand, seller, people, []) { Day = today, Policies = policies }
            );
        var headroom = priced.Sold.ToDictionary(
            l => l.Line.Key,
            l => seller is null ? null : Headroom.Line(l, priced, seller.Authority)
        );
        var facts = new CheckFacts(
            DocumentKind.Quote,
            asSeller,
            priced.Buyer,
            head,
            Stated.Nothing,
            [],
            new Dictionary<long, LineStock>(),
            null,
            approval,
            seller?.Hand ?? actor.Hand,
            headroom,
            []
        );
        return SheetView.Of(
            priced,
            CheckList.Run(facts),
            0,
            0,
            false,
            [],
            facts.Stock,
            headroom,
            seller is null ? [] : Headroom.Sheet(priced, seller, people),
            approval,
            actor,
            null
        );
    }

    // What the question types is judged as if the account manager typed it.
    private static PricedSheet Typed(PricedSheet priced, Hand hand) =>
        priced with
        {
            Lines =
            [
                .. priced.Lines.Select(l =>
                    l with
                    {
                        Line = l.Line with { ByHand = l.Line.ByHand with { By = hand } },
                    }
                ),
            ],
        };

    private static async Task<BuyerRow> FindBuyerAsync(SolvendaDb db, string sought, CancellationToken cancel)
    {
        var key = long.TryParse(sought, out var id) ? id : -1;
        return await db
                .Buyers.AsNoTracking()
                .Where(b => b.Code == sought || b.Name == sought || b.Id == key)
                .FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.Bad("buyer_unknown", $"We have no buyer “{sought}”.", "buyer");
    }

    private static SheetLine LineOf(PriceLine line, int at, Core.Reading.ItemFinder finder)
    {
        var field = $"lines[{at}]";
        var item = finder.ByCode(line.Item);
        var hands = new (ByHandKind Kind, decimal? Value)[]
        {
            (ByHandKind.DiscountPercent, line.DiscountPercent),
            (ByHandKind.DiscountAmount, line.DiscountAmount),
            (ByHandKind.NetPrice, line.NetPrice),
            (ByHandKind.Margin, line.MarginPercent),
        }
            .Where(h => h.Value is not null)
            .ToList();
        if (hands.Count > 1)
            throw RefusedException.Bad("number", "A line takes one of discount, amount, net price and margin.", field);
        if (
            line.Quantity is < 0 or > LineFields.MostQuantity
            || line.MarginPercent is > LineFields.MostMargin or < -100
            || line.DiscountPercent is > 100 or < -LineFields.MostSurcharge
            || line.NetPrice is < 0 or > LineFields.MostPrice
            || line.DiscountAmount is < 0 or > LineFields.MostPrice
            || (line.Charges ?? []).Any(c => c is < 0 or > HeadTerms.MostFreight)
        )
            throw RefusedException.Bad("number", "A figure of the line is out of its range.", field);
        var unit = line.Unit is { Length: > 0 } word
            ? UnitTable.FromCode(word)
                ?? UnitTable.FromWord(word)
                ?? throw RefusedException.Bad("unit", $"“{word}” is not a unit that we know.", field)
            : item?.StockUnit ?? Unit.Piece;
        return new SheetLine(
            at + 1,
            LineKind.Item,
            item?.Id,
            item?.Words ?? line.Item,
            line.Quantity,
            unit,
            hands.Count == 0 ? ByHand.None : new ByHand(hands[0].Kind, hands[0].Value!.Value, null),
            [.. line.Charges ?? []],
            line.Optional,
            "",
            AskedFor.Nothing
        );
    }
}
