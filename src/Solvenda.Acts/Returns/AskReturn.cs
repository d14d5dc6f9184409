using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Returns;

/// <summary>Keeps that a buyer wants to give goods back.</summary>
/// <param name="Lines">What; more than nothing of each, and no more than went and is not to come back already.</param>
public sealed record AskReturn(string Order, ImmutableArray<AskedGoods> Lines, ReturnFor For, string Reason)
    : IAct<string>;

[Leaves(typeof(ReturnAsked))]
public sealed class AskReturnAct(SheetLoader loader) : Act<AskReturn, string>
{
    public override Right Needs => Rights.Orders;

    /// <returns>The number of the return.</returns>
    public override async Task<string> RunAsync(Work work, AskReturn input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say why it comes back");
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var order = open.Order!;
        var left = await ReturnBook.LeftAsync(work.Db, order.Id, cancel);
        var lines = open.Sheet.ToDraft().Lines.ToDictionary(l => l.Key);
        if (input.Lines.IsDefaultOrEmpty || input.Lines.GroupBy(l => l.Key).Any(g => g.Skip(1).Any()))
            throw RefusedException.Bad("lines_missing", "Say what of it comes back, each line once.", "lines");
        foreach (var asked in input.Lines)
        {
            if (!lines.TryGetValue(asked.Key, out var line))
                throw RefusedException.Bad("line_unknown", $"There is no line {asked.Key} on it.", "lines");
            var most = left.GetValueOrDefault(asked.Key);
            if (asked.Quantity <= 0m || asked.Quantity > most || asked.Quantity % OrderGoods.StepOf(line.Unit) != 0m)
                throw RefusedException.Bad(
                    "too_much",
                    FormattableString.Invariant(
                        $"Of {line.Words} {most:0.######} went and can come back, not {asked.Quantity:0.######}; nothing was kept."
                    ),
                    "lines"
                );
        }
        var no = 1 + (await work.Db.Returns.Where(r => r.OrderId == order.Id).MaxAsync(r => (int?)r.No, cancel) ?? 0);
        var row = new ReturnRow
        {
            Number = $"{order.Number}/R{no}",
            No = no,
            OrderId = order.Id,
            For = input.For,
            Reason = reason,
            Day = work.Today,
            ByName = work.Actor.Name,
            Lines = [.. input.Lines.Select(l => new ReturnLineRow { LineKey = l.Key, Quantity = l.Quantity })],
        };
        work.Db.Returns.Add(row);
        var said = ShipmentSteps.Names(open.Sheet, row.Lines.ToDictionary(l => l.LineKey, l => l.Quantity));
        work.Leave(new ReturnAsked(row.Number, said, row.For, reason), open.Subject, open.Dossier.Id);
        return row.Number;
    }
}
