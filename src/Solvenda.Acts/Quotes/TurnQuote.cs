using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Quotes;

/// <summary>
/// Turns an accepted quote into its order: the accepted revision and no other, with everything carried over, hands and
/// grants too.
/// </summary>
/// <param name="With">Other accepted quotes of the same buyer that go into the same order.</param>
/// <param name="OnCall">Whether it becomes a frame, of which parts are called off.</param>
public sealed record TurnQuote(string Quote, ImmutableArray<string> With, bool OnCall) : IAct<DocumentRef>;

[Leaves(typeof(OrderBegun))]
public sealed class TurnQuoteAct(SheetLoader loader, Settling settling) : Act<TurnQuote, DocumentRef>
{
    private const int MostTogether = 20;

    // What an order can have only one of.
    private static readonly HeadTerm[] Same =
    [
        HeadTerms.PaymentDays,
        HeadTerms.Incoterm,
        HeadTerms.IncotermPlace,
        HeadTerms.DeliverTo,
        HeadTerms.ShipFrom,
        HeadTerms.SheetDiscount,
        HeadTerms.Freight,
    ];

    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, TurnQuote input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.QuoteAsync(work.Db, input.Quote, null, cancel);
        var quote = open.Quote!;
        await Drafting.MustNotBeTurnedAsync(work, quote, cancel);
        var others = await OthersAsync(work, open, input.With, cancel);
        var sheet = others.Count == 0 ? Whole(open) : Together(open, others);
        if (input.OnCall)
            sheet.Take(sheet.Head.With(HeadTerms.Kind.Name, OrderKind.CallOff.Words, work.Actor.Hand));
        var order = await Drafting.OrderAsync(
            work,
            open.Dossier,
            sheet,
            "mail",
            quote,
            null,
            cancel,
            new OrderBegun("mail", quote.Number, null) { AlsoOf = [.. others.Select(o => o.Subject)] }
        );
        foreach (var other in others)
            other.Quote!.Order = order;
        await work.Db.SaveChangesAsync(cancel);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, order.Number, cancel), cancel);
        return new DocumentRef("order", order.Number);
    }

    private static SheetRow Whole(OpenSheet open)
    {
        var sheet = Drafting.CopyOf(open.Sheet, null);
        var draft = sheet.ToDraft();
        sheet.Take(draft with { Lines = Choices.Settled(draft.Lines) });
        return sheet;
    }

    private static SheetRow Together(OpenSheet open, List<OpenSheet> others) =>
        Origins.Joined([.. others.Prepend(open).Select(o => (o.Number, o.Sheet))]);

    private async Task<List<OpenSheet>> OthersAsync(
        Work work,
        OpenSheet first,
        ImmutableArray<string> with,
        CancellationToken cancel
    )
    {
        var others = new List<OpenSheet>();
        if (with.IsDefaultOrEmpty)
            return others;
        if (with.Length > MostTogether)
            throw RefusedException.Bad("too_many_lines", $"At most {MostTogether} quotes go into one order.", "with");
        foreach (var number in with.Distinct().Where(n => n != first.Subject))
        {
            var other = await loader.QuoteAsync(work.Db, number, null, cancel);
            await Drafting.MustNotBeTurnedAsync(work, other.Quote!, cancel);
            if (other.Buyer.Id != first.Buyer.Id)
                throw RefusedException.Clash(
                    "not_together",
                    $"{number} is of {other.Buyer.Name}, not of {first.Buyer.Name}."
                );
            if (other.Sheet.Currency != first.Sheet.Currency)
                throw RefusedException.Clash("not_together", $"{number} is in {other.Sheet.Currency}.");
            if (Same.FirstOrDefault(t => t.In(other.Sheet.Head) != t.In(first.Sheet.Head)) is { } apart)
                throw RefusedException.Clash(
                    "not_together",
                    $"{number} has {apart.Label} {apart.In(other.Sheet.Head) ?? "not said"}, {first.Subject} {apart.In(first.Sheet.Head) ?? "not said"}: they need orders of their own."
                );
            // An amount off each of them would be taken once.
            if (HeadTerms.DiscountIn(first.Sheet.Head).Amount is not null)
                throw RefusedException.Clash(
                    "not_together",
                    $"{first.Subject} has an amount off the whole: it needs an order of its own."
                );
            others.Add(other);
        }
        return others;
    }
}
