using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Ways;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>
/// Takes a buyer's change of an order, whole or in part: the order is opened as when it is changed by hand, has what
/// was taken, and is to be confirmed anew. Where they take the whole order back, it is cancelled. By itself only as
/// far as the house said so of the way that it came by, and never the whole.
/// </summary>
/// <param name="Lines">Numbers of the lines of the message that are taken.</param>
/// <param name="Day">Whether the day that they name for the whole is taken.</param>
public sealed record TakeChange(string Request, long Version, string Order, ImmutableArray<int> Lines, bool Day)
    : IAct<DocumentRef>;

[Leaves(typeof(ChangeTaken), typeof(OrderChanging), typeof(OrderCancelled), typeof(RequestTurned))]
public sealed class TakeChangeAct(SheetLoader loader, Settling settling, Cancelling cancelling)
    : Act<TakeChange, DocumentRef>
{
    public override Right Needs => Rights.Pass;

    public override async Task<DocumentRef> RunAsync(Work work, TakeChange input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (request, reading) = await ChangedOrder.OpenAsync(work, input.Request, input.Version, cancel);
        if (reading.LeftOvers.Count > 0)
            throw RefusedException.Clash(
                "left_over",
                $"First say what “{reading.LeftOvers[0].Words}” is, or that it means nothing."
            );
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        ChangedOrder.MustBeTheirs(open, reading);
        var facts = open.FactsFor(work.Actor.Hand, work.Today);
        if (work.Actor.Kind == ActorKinds.House && !await MayAsync(work, request, reading, cancel))
            throw RefusedException.Clash("not_ready", "Nothing of that kind goes on by itself on that way.");
        if (work.Actor.Kind == ActorKinds.House && open.Begun is not null)
            throw RefusedException.Clash(
                "not_ready",
                "Part of the order went or is being picked: somebody looks at it."
            );
        if (ChangedOrder.IsWhole(reading, ChangedOrder.Wishes(reading, open, facts)))
            work.Leave(
                await cancelling.CancelAsync(work, open, cancel),
                open.Subject,
                open.Dossier.Id,
                $"they take it back: {request.Number}"
            );
        else
            await TakeAsync(work, input, open, reading, cancel);
        var before = request.State;
        RequestSteps.Move(request, RequestDoing.Turn);
        (request.DossierId, request.Changes) = (open.Dossier.Id, open.Number);
        request.Version++;
        work.Leave(new RequestTurned(open.Ref, before, request.State), request.Number, open.Dossier.Id);
        return open.Ref;
    }

    private static async Task<bool> MayAsync(
        Work work,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        var rules = WayBook.RulesOf(await WayBook.OfAsync(work.Db, request.Channel, reading.BuyerId, cancel));
        return reading.Kind == MessageKind.Change && rules.Changes;
    }

    private async Task TakeAsync(
        Work work,
        TakeChange input,
        OpenSheet open,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        if (open.Order!.Terms == TermsTrack.Confirmed)
        {
            work.Leave(await OrderVersions.OpenAsync(work, open, cancel), open.Subject, open.Dossier.Id);
            open = await loader.OrderAsync(work.Db, input.Order, cancel);
        }
        if (!open.IsEditable)
            throw RefusedException.Clash("order_state", $"{open.Number} is cancelled; open it again first.");
        var facts = open.FactsFor(work.Actor.Hand, work.Today);
        var wishes = ChangedOrder.Wishes(reading, open, facts);
        var taken = input.Lines.ToHashSet();
        var edited = BuyersChange.Take(
            open.ToDraft(),
            wishes,
            taken,
            input.Day ? ChangedOrder.Day(reading, open) : null,
            facts
        );
        if (edited.Refused is { } no)
            throw RefusedException.Of(no with { Words = no.Words + "; nothing was taken." });
        open.Take(edited);
        open.Sheet.Version++;
        await work.Db.SaveChangesAsync(cancel);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, input.Order, cancel), cancel);
        var said = wishes
            .Where(w => w.Wanted is not null && w.Kind != WishKind.Same)
            .ToLookup(w => taken.Contains(w.Wanted!.No), Said);
        work.Leave(new ChangeTaken(input.Request, [.. said[true]], [.. said[false]]), open.Subject, open.Dossier.Id);
    }

    private static string Said(LineWish wish)
    {
        var words = (wish.Line ?? wish.Then)?.Words ?? "";
        return wish.Kind switch
        {
            WishKind.Gone => $"{words} taken back",
            WishKind.New => $"{words} new",
            _ => words,
        };
    }
}
