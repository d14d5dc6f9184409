using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Ways;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>A document that a request became, as it was judged when all of it was priced.</summary>
public sealed record Turned(DocumentRef Into, OpenSheet Open, Judged Judged);

/// <summary>
/// Makes sheets of what was read: for a request that becomes a document, and to see what it would be worth.
/// </summary>
public sealed class Turning(
    SheetLoader loader,
    Settling settling,
    PriceBooks books,
    HouseClock clock,
    IReadOnlyList<IWayIn> ways
)
{
    private const int MostMatter = 120;

    /// <summary>Turns an open request into a quote or an order, by whoever acts.</summary>
    /// <param name="seller">Who has it where nobody has the buyer and no person acts.</param>
    public async Task<Turned> TurnAsync(
        Work work,
        RequestRow request,
        ReadingView reading,
        bool intoOrder,
        CancellationToken cancel,
        long? seller = null
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(reading);
        MayTurn(reading);
        var buyer = reading.BuyerId is { } id
            ? await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == id, cancel)
            : null;
        if (buyer is null)
            throw RefusedException.Bad("buyer_unknown", "Who is it from? Pick the buyer first.", "buyer");
        // A letter about a matter that is there goes on with it, where it is the same buyer's.
        var dossier =
            await work
                .Db.Dossiers.Include(d => d.Buyer)
                .FirstOrDefaultAsync(d => d.Id == request.DossierId && d.BuyerId == buyer.Id, cancel)
            ?? await Drafting.DossierAsync(work, buyer, MatterOf(request, reading), cancel);
        // What a request for prices calls itself by is the order's number, once it is an order.
        var turned = intoOrder ? reading.As(MessageKind.Order) : reading;
        var sheet = await SheetAsync(work.Db, request, turned, buyer, intoOrder, work.Actor.Hand, cancel);
        var before = request.State;
        RequestSteps.Move(request, RequestDoing.Turn);
        request.DossierId = dossier.Id;
        request.Version++;
        var into = intoOrder
            ? new DocumentRef(
                "order",
                (
                    await Drafting.OrderAsync(
                        work,
                        dossier,
                        sheet,
                        request.Channel,
                        null,
                        request,
                        cancel,
                        seller: seller
                    )
                ).Number
            )
            : new DocumentRef(
                "quote",
                (await Drafting.QuoteAsync(work, dossier, sheet, request, cancel, seller)).Number
            );
        work.Leave(new RequestTurned(into, before, request.State), request.Number, dossier.Id);
        await work.Db.SaveChangesAsync(cancel);
        var open = await loader.BySheetAsync(work.Db, sheet.Id, cancel);
        var settled = await settling.SettleAsync(work, open, cancel);
        return new Turned(into, open, settled.Judged);
    }

    private static void MayTurn(ReadingView reading)
    {
        // A change made into a new order would be the same goods twice.
        if (
            reading.Kind
            is MessageKind.Change
                or MessageKind.Cancellation
                or MessageKind.AnswerToQuote
                or MessageKind.Return
                or MessageKind.Reminder
                or MessageKind.Complaint
                or MessageKind.NotForUs
        )
            throw RefusedException.Bad(
                "not_to_turn",
                "It is neither an order nor asks for a price. If it is, say so first: “it is”, at the top.",
                "kind"
            );
        // What nobody explained would be on no quote and no order.
        if (reading.LeftOvers.Count > 0)
            throw RefusedException.Clash(
                "left_over",
                $"First say what “{reading.LeftOvers[0].Words}” is, or that it means nothing."
            );
    }

    /// <summary>The sheet of what was read; it is not stored.</summary>
    /// <param name="hand">Whose hand the head counts as typed by.</param>
    public async Task<SheetRow> SheetAsync(
        SolvendaDb db,
        RequestRow request,
        ReadingView reading,
        BuyerRow buyer,
        bool intoOrder,
        Hand hand,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(reading);
        ArgumentNullException.ThrowIfNull(buyer);
        var sheet = Drafting.SheetFor(buyer, clock.Today, reading.Currency.Value);
        sheet.Channel = request.Channel;
        var places = await SheetLoader.PlacesAsync(db, buyer, cancel);
        // A sales channel's order goes to the channel's own customer, who is on nobody's record.
        if (
            request.Syntax == nameof(Formats.Syntax.Json)
            && reading is { DeliverTo.Value: { } theirs, DeliverToCountry: { } country }
        )
            places = places.Add(new BuyerPlace("", "deliver-to", theirs, country));
        var facts = new DoorFacts(
            intoOrder ? DocumentKind.Order : DocumentKind.Quote,
            await books.BookAsync(db, cancel),
            buyer.ToBuyer(),
            Currency.Of(sheet.Currency),
            hand,
            clock.Today,
            [],
            [],
            places
        );
        var (draft, left) = Head(sheet.ToDraft(), reading, facts);
        sheet.Take(
            AskedLines.Add(draft, reading.Lines.Where(l => !l.TakenBack).Select(l => LineOf(l, reading)), facts)
        );
        var stated = StatedOf(request, reading, HeadTerms.DeliverTo.In(draft.Head), left);
        sheet.Stated = stated.IsNothing ? "" : JsonSerializer.Serialize(stated);
        return sheet;
    }

    // What says only what they want goes onto the head; what our house may lose by is kept beside it.
    private static (Draft Draft, bool DeliverToLeft) Head(Draft draft, ReadingView reading, DoorFacts facts)
    {
        var note = string.Join(
            "\n",
            new[]
            {
                HeadTerms.Note.In(draft.Head) ?? "",
                reading.Reference.Value is { } reference ? $"Ref. {reference}" : "",
                reading.Note,
            }.Where(n => n.Length > 0)
        );
        foreach (
            var (term, text) in new[]
            {
                (HeadTerms.PoNumber, reading.PoNumber.Value),
                (HeadTerms.Wanted, reading.Wanted.Value),
            }
        )
        {
            if (string.IsNullOrEmpty(text))
                continue;
            var edited = SheetDoor.Take(draft, [new SheetEdit(EditKind.Set, null, term.Name, text)], facts);
            if (edited.Refused is null)
                draft = edited.Draft;
            // Nothing that they wrote is lost: a quote has no PO number yet, and a day may be beyond every calendar.
            else if (term == HeadTerms.PoNumber && text.Length <= MostMatter)
                draft = draft with { Head = draft.Head.With(term.Name, text, facts.Hand) };
            else
                note = string.Join("\n", new[] { note, $"{term.Label}: {text}" }.Where(n => n.Length > 0));
        }
        draft = draft with { Head = draft.Head.With(HeadTerms.Note.Name, Short(note), facts.Hand) };
        if (reading.DeliverTo.Value is not { } to)
            return (draft, false);
        var place = SheetDoor.Take(draft, [new SheetEdit(EditKind.Set, null, HeadTerms.DeliverTo.Name, to)], facts);
        return place.Refused is null ? (place.Draft, false) : (draft, true);
    }

    /// <summary>A line as it was asked for.</summary>
    public static AskedLine LineOf(ReadLineView read, ReadingView reading)
    {
        ArgumentNullException.ThrowIfNull(read);
        ArgumentNullException.ThrowIfNull(reading);
        var theirs = UnitTable.FromCode(read.Unit);
        return new AskedLine(
            new AskedFor(read.Words, read.TheirCode, read.Quantity, theirs, read.Price, read.PriceBase)
            {
                WithTax = read.WithTax,
            },
            read.ItemCode,
            read.Quantity ?? 0m,
            theirs ?? Unit.Piece,
            read.Note,
            read.Wanted.Value is { } wanted && wanted != reading.Wanted.Value
                ? DateOnly.ParseExact(wanted, "yyyy-MM-dd", CultureInfo.InvariantCulture)
                : null
        );
    }

    private Stated StatedOf(RequestRow request, ReadingView reading, string? deliverTo, bool left)
    {
        return new Stated(
            int.TryParse(reading.PaymentDays.Value, NumberStyles.None, CultureInfo.InvariantCulture, out var days)
                ? days
                : null,
            reading.Incoterm.Value,
            reading.IncotermPlace.Value,
            left && reading.DeliverTo.Value != deliverTo ? reading.DeliverTo.Value : null,
            [.. reading.Charges.Select(c => new StatedAmount(c.Kind, c.Amount))],
            decimal.TryParse(reading.Goods.Value, NumberStyles.Number, CultureInfo.InvariantCulture, out var goods)
                ? goods
                : null
        )
        {
            NotBefore = DateOnly.TryParseExact(reading.WantedFrom, "yyyy-MM-dd", out var from) ? from : null,
            Paid = reading.Paid,
            Fee = reading.Fee,
            // What a file calls itself is only what it says: the way must be that channel's own.
            ByChannel = ways.Any(w =>
                w.Sells
                && w.Name == request.Channel
                && w.Name.Equals(request.FromWords, StringComparison.OrdinalIgnoreCase)
            ),
            Remarks = [.. reading.Remarks.Select(r => new StatedRemark(r.Kind, r.Words))],
        };
    }

    /// <summary>What it is about, as the dossier says it.</summary>
    public static string MatterOf(RequestRow request, ReadingView reading)
    {
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(reading);
        if (reading.Language.Length == 0 && reading.PoNumber.Value is { } po)
            return $"PO {po}";
        ImmutableArray<string> marks = ["Re:", "Fw:", "Fwd:"];
        var matter = request.Subject;
        while (marks.FirstOrDefault(m => matter.StartsWith(m, StringComparison.OrdinalIgnoreCase)) is { } mark)
            matter = matter[mark.Length..].Trim();
        return matter.Length > MostMatter ? matter[..MostMatter] : matter;
    }

    private static string Short(string text) =>
        text.Length > SheetDoor.MostLetters ? text[..SheetDoor.MostLetters] : text;
}
