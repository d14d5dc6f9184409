using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>Turns a structured message into a reading: whose codes are whose, in our units.</summary>
public static class DocumentReader
{
    /// <summary>More lines than a sheet holds are not read.</summary>
    public const int MostLines = 2_000;

    /// <param name="more">Clues that stand outside the document: who sent it.</param>
    public static Reading Read(OrderDocument document, ReadingContext context, ImmutableArray<Clue> more)
    {
        ArgumentNullException.ThrowIfNull(document);
        var (buyer, candidates) = BuyerFinder.Find(context, document.Clues.AddRange(more));
        return Read(document, context, buyer, null) with { BuyerCandidates = candidates };
    }

    /// <param name="buyer">As known from what came with it, or missing.</param>
    /// <param name="language">That its words are in; null where nobody knows.</param>
    public static Reading Read(OrderDocument document, ReadingContext context, Field<BuyerId> buyer, Language? language)
    {
        ArgumentNullException.ThrowIfNull(document);
        ArgumentNullException.ThrowIfNull(context);
        ArgumentNullException.ThrowIfNull(buyer);
        var bought = buyer.Sure > 0 ? context.History(buyer.Value) : [];
        var warnings = document.Warnings.ToBuilder();
        if (document.Lines.Length > MostLines)
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{document.Lines.Length:#,0} lines are stated; the first {MostLines:#,0} were read, the others are kept in the original."
                )
            );
        var currency = document.Currency is { } c && Currency.TryOf(c.Value, out var known) ? known : (Currency?)null;
        if (document.Currency is { } strange && currency is null)
            warnings.Add($"“{strange.Value}” is not a currency that we know.");
        var lines = document
            .Lines.Take(MostLines)
            .Select(l => Line(l, buyer, bought, context, language))
            .ToImmutableArray();
        var overs = document.LeftOvers.ToBuilder();
        lines = Sums.Check(lines, document, currency, warnings, overs);
        return new Reading(
            document.Kind,
            buyer,
            Text(document.Contact),
            Text(document.PoNumber),
            document.Wanted is { } w
                ? new Field<DateOnly?>(w.Value, 0.98m, "stated", [w.Where])
                : Field<DateOnly?>.Missing,
            DeliverTo(document, buyer, context),
            Text(document.Incoterm),
            Text(document.IncotermPlace),
            currency is not null
                ? new Field<Currency?>(currency, 0.99m, "stated", [document.Currency!.Where])
                : Field<Currency?>.Missing,
            document.PaymentDays is { } days
                ? new Field<int?>(days.Value, 0.95m, "stated", [days.Where])
                : Field<int?>.Missing,
            lines,
            document.Charges,
            warnings.ToImmutable()
        )
        {
            LeftOvers = overs.ToImmutable(),
            Unused = document.Unused,
            WantedFrom = document.WantedFrom,
            QuoteNumber = Text(document.QuoteNumber),
            DeliverToCountry = document.DeliverToCountry,
            Paid = document.Paid,
            Fee = document.Fee,
            Goods = document.Goods is { } goods
                ? new Field<decimal?>(goods.Value, 0.98m, "stated", [goods.Where])
                : Field<decimal?>.Missing,
            Note = document.Note?.Value ?? "",
        };
    }

    private static Field<string> Text(Stated<string>? stated) =>
        stated is null ? Field<string>.Missing : new Field<string>(stated.Value, 0.98m, "stated", [stated.Where]);

    // A place that is only a number is one of their addresses, if it carries that number.
    private static Field<string> DeliverTo(OrderDocument document, Field<BuyerId> buyer, ReadingContext context)
    {
        if (document.DeliverTo is not { } stated)
            return Field<string>.Missing;
        var code = stated.Value.StartsWith("GLN ", StringComparison.Ordinal) ? stated.Value[4..] : null;
        var place = code is null
            ? null
            : context.Addresses.FirstOrDefault(a => a.Buyer == buyer.Value && a.Code == code);
        return place is null
            ? Text(stated)
            : new Field<string>(place.Words, 0.95m, $"their address {code}", [stated.Where]);
    }

    private static ReadLine Line(
        StatedLine line,
        Field<BuyerId> buyer,
        IReadOnlyList<Bought> bought,
        ReadingContext context,
        Language? language
    )
    {
        var found = Item(line, buyer, bought, context, language);
        var many = PiecesOf(line.Unit, language);
        var theirUnit = many > 0 ? Unit.Piece : UnitOf(line.Unit, language);
        var quantity =
            many > 0 && line.Quantity is { } counted ? counted with { Value = counted.Value * many } : line.Quantity;
        var code = line.SellersCode?.Value ?? line.BuyersCode?.Value ?? line.Gtin?.Value;
        ImmutableArray<Evidence> ofQuantity = quantity is null ? line.Evidence : [quantity.Where];
        var unit =
            line.Unit.Length == 0 && buyer.Sure > 0 && context.UnitsLeftOut.TryGetValue(buyer.Value, out var leftOut)
                ? new Field<Unit>(leftOut, 0.95m, "not stated; they leave it out, as was said of them", ofQuantity)
                : UnitField(line, found.Item, theirUnit, ofQuantity);
        return new ReadLine(
            new Field<ItemId>(found.Item?.Id ?? default, found.Sure, found.How, found.Where),
            line.Words.Length > 0 ? line.Words : code ?? "",
            code,
            quantity is null ? new Field<decimal?>(null, 0m, "not stated", [])
                : line.Open is not null
                    ? new Field<decimal?>(quantity.Value, 0.4m, "is it a decimal or a thousands sign?", ofQuantity)
                : new Field<decimal?>(quantity.Value, 0.98m, "stated", ofQuantity),
            unit,
            NetPrice(line),
            // A price of what is counted in dozens is for a dozen.
            line.PriceBase * Math.Max(many, 1m),
            line.Note,
            (many > 0 ? line.Open * many : line.Open) is { } or && found.Item is { } open
                ?
                [
                    .. new[] { quantity!.Value, or }.Select(q => new Proposal(
                        open.Id,
                        open.Code,
                        open.Words,
                        q,
                        unit.Value,
                        0.5m,
                        q == or ? "a decimal sign" : "a thousands sign"
                    )),
                ]
                : found.Reading?.Proposals(quantity?.Value ?? 1m, theirUnit ?? Unit.Piece) ?? [],
            line.Evidence
        )
        {
            Wanted = line.Wanted is { } w
                ? new Field<DateOnly?>(w.Value, 0.95m, "stated", [w.Where])
                : Field<DateOnly?>.Missing,
            Amount = line.Amount?.Value,
            WithTax = line.WithTax,
            TakenBack = line.TakenBack,
        };
    }

    // "142.00 less 5 %": what is taken off the line is part of its price.
    private static decimal? NetPrice(StatedLine line) =>
        line is { Price: { } price, Quantity.Value: > 0, Allowances: not 0 }
            ? Math.Round(price.Value + (line.Allowances * line.PriceBase / line.Quantity.Value), 6)
            : line.Price?.Value;

    // "2 dozen" is 24, whatever column the dozen stands in; 0 for what counts no pieces. In Dutch, "dozen" are boxes.
    private static decimal PiecesOf(string unit, Language? language)
    {
        var word = unit.Trim().TrimEnd('.').ToLowerInvariant();
        return language?.Units.ContainsKey(word) == true
            ? 0m
            : Language
                .All.Select(l => l.Groups.GetValueOrDefault(word))
                .Append(UnitCodes.PiecesOf(unit))
                .FirstOrDefault(n => n > 0);
    }

    private static Field<Unit> UnitField(StatedLine line, Item? item, Unit? theirs, ImmutableArray<Evidence> ofQuantity)
    {
        var isSaid = line.Unit.Length > 0;
        var unit =
            theirs is not { } u
                ? new Field<Unit>(
                    item?.StockUnit ?? Unit.Piece,
                    isSaid ? 0.3m : 0.55m,
                    isSaid ? $"the unit {line.Unit} is unknown" : "not stated; the item's own unit",
                    ofQuantity
                )
            : item is not null && item.Factor(u) is null
                ? new Field<Unit>(
                    u,
                    0.4m,
                    $"{item.Code} is not sold by {(UnitCodes.NameOf(u.Code) is { } name ? $"{name} ({u.Code})" : u.Code)}",
                    ofQuantity
                )
            : new Field<Unit>(u, 0.98m, "stated", ofQuantity);
        if (isSaid || item is null)
            return unit;
        if (line.IsListed)
            return unit with { Sure = 0.9m, How = "as it is listed" };
        return item.SalesUnits.IsEmpty || item.StockUnit == Unit.Piece ? unit with { Sure = 0.85m } : unit;
    }

    /// <summary>A unit by its code in any of the lists, else by a word for it; null where neither is known.</summary>
    public static Unit? UnitOf(string text, Language? language)
    {
        ArgumentNullException.ThrowIfNull(text);
        var word = text.Trim().TrimEnd('.').ToLowerInvariant();
        return UnitTable.FromCode(text)
            ?? UnitTable.FromCode(UnitCodes.Bare(text))
            ?? (language is not null && language.Units.TryGetValue(word, out var code) ? Unit.Of(code) : (Unit?)null)
            ?? Language
                .All.Select(l => l.Units.TryGetValue(word, out var known) ? Unit.Of(known) : (Unit?)null)
                .FirstOrDefault(u => u is not null)
            ?? UnitTable.FromWord(text)
            // As written in interchanges; "set" and "day" are words.
            ?? (!text.Any(char.IsLower) && UnitCodes.NameOf(text) is not null ? Unit.Of(UnitCodes.Bare(text)) : null);
    }

    private sealed record Found(
        Item? Item,
        string How,
        decimal Sure,
        ImmutableArray<Evidence> Where,
        ItemReading? Reading = null
    );

    private static Found? ByTheirs(Stated<string> theirs, Field<BuyerId> buyer, ReadingContext context)
    {
        if (
            context.AliasOf(buyer, ItemFinder.Normal(theirs.Value)) is { } alias
            && context.Items.ById(alias.Item) is { } byAlias
        )
            return new Found(byAlias, "their code", 0.98m, [theirs.Where]);
        // Some write our code where theirs belongs.
        return context.Items.ByCode(theirs.Value) is { } written
            ? new Found(written, "our code", 0.95m, [theirs.Where])
            : null;
    }

    private static Found Item(
        StatedLine line,
        Field<BuyerId> buyer,
        IReadOnlyList<Bought> bought,
        ReadingContext context,
        Language? language
    )
    {
        var byOurs = line.SellersCode is { } ours ? context.Items.ByCode(ours.Value) : null;
        var byGtin = line.Gtin is { } gtin ? context.Items.ByCode(gtin.Value) : null;
        // Two codes that name two things contradict each other: a person decides.
        if (byOurs is not null && byGtin is not null && byOurs.Id != byGtin.Id)
            return new Found(
                byOurs,
                $"our code says {byOurs.Code}, the GTIN says {byGtin.Code}",
                0.4m,
                [line.SellersCode!.Where, line.Gtin!.Where],
                new ItemReading(
                    byOurs,
                    0.4m,
                    "",
                    null,
                    true,
                    [new Candidate(byOurs, 0.5m), new Candidate(byGtin, 0.5m)]
                )
            );
        if (byOurs is not null)
            return new Found(byOurs, "our code", 0.99m, [line.SellersCode!.Where]);
        if (byGtin is not null)
            return new Found(byGtin, "GTIN", 0.99m, [line.Gtin!.Where]);
        if (line.BuyersCode is { } theirs && ByTheirs(theirs, buyer, context) is { } known)
            return known;
        var reading = line.Words.Length == 0 ? null : ItemReading.Find(line.Words, buyer, bought, context, language);
        var stated = line.BuyersCode ?? line.SellersCode ?? line.Gtin;
        // A code that nobody knows is stronger than words that fit somehow: with it, words only propose.
        return stated is not null
                ? new Found(
                    null,
                    $"{stated.Value} is unknown",
                    0.1m,
                    line.Evidence,
                    reading is null ? null : reading with { Sure = 0.1m }
                )
            : reading is { Item: { } item }
                ? new Found(
                    reading.Sure >= 0.45m || reading.IsTie ? item : null,
                    reading.How,
                    reading.Sure,
                    line.Evidence,
                    reading
                )
            : new Found(null, reading?.How ?? "no code that we know", 0.1m, line.Evidence, reading);
    }
}
