using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Orders;

/// <summary>How much of a line is called off.</summary>
/// <param name="Line">Its key on the frame.</param>
/// <param name="Quantity">In the unit of the line.</param>
public sealed record CalledLine(long Line, decimal Quantity);

/// <summary>
/// Calls a part of a confirmed frame off: an order of its own, at the prices of the frame, under the buyer's release
/// number.
/// </summary>
/// <param name="Release">The buyer's number for it; empty where they have none.</param>
/// <param name="Wanted">Null: as soon as it can be.</param>
/// <param name="Lines">None: all that is left.</param>
public sealed record CallOffPart(string Frame, string Release, DateOnly? Wanted, ImmutableArray<CalledLine> Lines)
    : IAct<DocumentRef>;

[Leaves(typeof(OrderBegun))]
public sealed class CallOffPartAct(SheetLoader loader, Settling settling) : Act<CallOffPart, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, CallOffPart input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Frame, cancel);
        var frame = open.Order!;
        if (open.CallOff is not { } left || frame.FrameId is not null)
            throw RefusedException.Clash("order_state", $"{frame.Number} is no call-off order.");
        if (frame.Terms != TermsTrack.Confirmed || frame.HeldWhy.Length > 0)
            throw RefusedException.Clash("order_state", $"{frame.Number} is not confirmed yet; confirm it first.");
        var wanted = Wanted(open, input, left);
        var sheet = Drafting.CopyOf(open.Sheet, null);
        var draft = sheet.ToDraft();
        draft = Typed(
            open.FactsFor(work.Actor.Hand, work.Today),
            input,
            draft with
            {
                Head = Origins.OfRelease(Share(open, draft.Head)),
            }
        );
        sheet.Take(
            draft with
            {
                Lines =
                [
                    .. draft
                        .Lines.Where(l => wanted.ContainsKey(l.Key))
                        .Select(l =>
                            l with
                            {
                                Quantity = wanted[l.Key],
                                Wanted = null,
                                From = new LineOrigin(open.Sheet.Id, l.Key),
                            }
                        ),
                ],
            }
        );
        sheet.Kept = Origins.Kept(sheet.ToDraft().Lines, [open.Sheet], forAny: true);
        var order = await Drafting.OrderAsync(
            work,
            open.Dossier,
            sheet,
            frame.Channel,
            null,
            null,
            cancel,
            new OrderBegun(frame.Channel, null, null) { CalledOffOf = frame.Number }
        );
        (order.FrameId, order.SellerId) = (frame.Id, frame.SellerId);
        await work.Db.SaveChangesAsync(cancel);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, order.Number, cancel), cancel);
        return new DocumentRef("order", order.Number);
    }

    private static Dictionary<long, decimal> Wanted(OpenSheet open, CallOffPart input, CallOff left)
    {
        var rest = left
            .Ordered.Keys.Where(k => open.Sheet.Lines.Any(l => l.Key == k))
            .ToDictionary(k => k, left.RestOf)
            .Where(r => r.Value > 0)
            .ToDictionary();
        if (input.Lines.IsDefaultOrEmpty)
            return rest.Count > 0
                ? rest
                : throw RefusedException.Clash("call_off_empty", $"All of {open.Subject} was called off already.");
        var wanted = new Dictionary<long, decimal>();
        foreach (var line in input.Lines.Where(l => l.Quantity != 0))
        {
            if (!rest.TryGetValue(line.Line, out var most) || line.Quantity < 0 || line.Quantity > most)
                throw RefusedException.Bad(
                    "call_off_rest",
                    $"Of that line {most.ToString("0.######", CultureInfo.InvariantCulture)} are left; nothing was called off.",
                    "lines"
                );
            wanted[line.Line] = line.Quantity;
        }
        return wanted.Count > 0
            ? wanted
            : throw RefusedException.Bad("call_off_empty", "Say how much of which line is called off.", "lines");
    }

    // As if it had been typed on its head, within the same bounds.
    private static Draft Typed(DoorFacts facts, CallOffPart input, Draft draft)
    {
        var edited = SheetDoor.Take(
            draft,
            [
                new SheetEdit(EditKind.Set, null, HeadTerms.Release.Name, input.Release),
                new SheetEdit(
                    EditKind.Set,
                    null,
                    HeadTerms.Wanted.Name,
                    input.Wanted?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
                ),
            ],
            facts
        );
        return edited.Refused is { } refused ? throw RefusedException.Of(refused) : edited.Draft;
    }

    // An amount off the whole is a share of it: a part takes its part.
    private static Head Share(OpenSheet open, Head head)
    {
        if (HeadTerms.DiscountIn(head) is not { Amount: not null })
            return head;
        var tally = open.Sheet.Priced(open.Buyer, open.Book).Tally;
        var percent =
            tally.Goods.Value == 0 ? 0m : decimal.Round(tally.SheetDiscount.Value * 100m / tally.Goods.Value, 4);
        return head.With(
            HeadTerms.SheetDiscount.Name,
            percent == 0 ? null : Math.Abs(percent).ToString("0.####", CultureInfo.InvariantCulture),
            head[HeadTerms.SheetDiscount.Name]!.By
        );
    }
}
