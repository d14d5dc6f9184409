using System.Collections.Immutable;
using Solvenda.Acts.Wordings;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>A sheet with the quote or order it is the body of, and everything it is judged against.</summary>
public sealed record OpenSheet
{
    public required SheetRow Sheet { get; init; }
    public QuoteRow? Quote { get; init; }
    public OrderRow? Order { get; init; }
    public required DossierRow Dossier { get; init; }
    public required PriceBook Book { get; init; }

    /// <summary>What the house set.</summary>
    public required HouseBook House { get; init; }
    public IReadOnlyDictionary<PersonId, Decider> People => House.Deciders.People;

    /// <summary>What stands under a letter of its owner: their signature, else their name.</summary>
    public string SignedBy => House.Deciders.Signatures.GetValueOrDefault(Owner.Id, Owner.Name);

    public required List<AskRow> Asks { get; init; }
    public required List<WaiverRow> Waivers { get; init; }

    /// <summary>
    /// For an order: what the buyer accepted, or agreed to in a frame; null where it was made from neither.
    /// </summary>
    public SheetRow? Accepted { get; init; }

    /// <summary>
    /// For an order that was confirmed and is being changed: its sheet as it was confirmed; else null.
    /// </summary>
    public SheetRow? Before { get; init; }

    /// <summary>What of an order went, or is billed, and stands; null where nothing did.</summary>
    public Begun? Begun { get; init; }

    /// <summary>Of a frame, or of what is called off of one: how they stand; null of all others.</summary>
    public CallOff? CallOff { get; init; }

    /// <summary>The form that its request came in; empty where there was none.</summary>
    public string RequestSyntax { get; init; } = "";

    /// <summary>The buyer's places that are in use, the buyer's own first.</summary>
    public required ImmutableArray<BuyerPlace> Places { get; init; }

    /// <summary>The Incoterms that the house sells by.</summary>
    public required ImmutableArray<string> Incoterms { get; init; }

    /// <summary>The fields that the house made on such documents.</summary>
    public IEnumerable<OwnField> Own => House.Own[Order is null ? OwnOn.Quotes : OwnOn.Orders];

    /// <summary>The one of them that the goods go to, if it is one of them.</summary>
    public BuyerPlace? DeliverTo =>
        Places.FirstOrDefault(p => p.Use == "deliver-to" && p.Words == HeadTerms.DeliverTo.In(Sheet.Head));

    public BuyerRow Buyer => Dossier.Buyer;

    /// <summary>What is said on it, in its language.</summary>
    public Wording Wording => Wording.Of(HeadTerms.Language.In(Sheet.Head) ?? Buyer.Language);

    /// <summary>The seller on its head, for following it up.</summary>
    public Decider Owner => People[new PersonId(Quote?.SellerId ?? Order!.SellerId)];

    public DocumentKind Kind => Order is null ? DocumentKind.Quote : DocumentKind.Order;

    /// <summary>As it is printed: Q26-00187·B, S26-00311.</summary>
    public string Number => Quote is { } q ? $"{q.Number}·{Revision.Letter(q.Revision)}" : Order!.Number;

    /// <summary>Number by which events and asks know it.</summary>
    public string Subject => Quote?.Number ?? Order!.Number;

    public DocumentRef Ref => new(Quote is null ? "order" : "quote", Subject);

    /// <summary>The languages that documents are written in.</summary>
    public static readonly ImmutableArray<TermChoice> Languages =
    [
        .. Wording.All.Values.Select(w => new TermChoice(w.Code, w.Name)),
    ];

    public bool IsEditable => Quote is { } q ? QuoteMoves.IsOpen(q.State) : Tracks.IsOpen(Order!.Terms);

    /// <summary>The same document with another sheet, to be looked at.</summary>
    public OpenSheet With(SheetRow sheet) => this with { Sheet = sheet };

    /// <summary>As it is typed, with what is kept on the document and the dossier.</summary>
    public Draft ToDraft() => Sheet.ToDraft() with { Head = WholeHead() };

    /// <summary>Its head, with what is kept on the document and the dossier.</summary>
    public Head WholeHead()
    {
        var head = Sheet.Head.With(HeadTerms.Matter.Name, Dossier.Matter, null);
        return Quote is null
            ? head
            : head.With(
                HeadTerms.ValidUntil.Name,
                Quote.ValidUntil.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture),
                null
            );
    }

    /// <summary>Writes a draft back, each part where it is kept.</summary>
    public void Take(Draft draft)
    {
        ArgumentNullException.ThrowIfNull(draft);
        Dossier.Matter = HeadTerms.Matter.In(draft.Head) ?? "";
        if (Quote is not null && HeadTerms.ValidUntil.Day(draft.Head) is { } until)
            Quote.ValidUntil = until;
        Sheet.Take(
            draft with
            {
                Head = draft.Head.With(HeadTerms.Matter.Name, null, null).With(HeadTerms.ValidUntil.Name, null, null),
            }
        );
    }

    /// <summary>Writes back what came of edits; the rest of a line that was divided keeps its price.</summary>
    public void Take(Edited edited)
    {
        ArgumentNullException.ThrowIfNull(edited);
        Take(edited.Draft);
        Sheet.Kept = KeptLines.Divided(Sheet.Kept, edited.Rests);
    }

    /// <summary>What edits of it are judged against.</summary>
    public DoorFacts FactsFor(Hand hand, DateOnly today) =>
        new(Kind, Book, Buyer.ToBuyer(), Currency.Of(Sheet.Currency), hand, today, Languages, House.Warehouses, Places)
        {
            Incoterms = Incoterms,
            Own = [.. Own.Select(f => f.Term(Kind))],
            Begun = Begun,
        };
}
