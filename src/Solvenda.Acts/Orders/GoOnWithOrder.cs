using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Orders;

/// <summary>Goes on with an order that was held by hand.</summary>
public sealed record GoOnWithOrder(string Order) : IAct<DocumentRef>;

[Leaves(typeof(OrderWentOn))]
public sealed class GoOnWithOrderAct(SheetLoader loader) : Act<GoOnWithOrder, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, GoOnWithOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var order = open.Order!;
        if (order.HeldWhy.Length == 0)
            throw RefusedException.Clash("order_state", $"{order.Number} is not held.");
        work.Leave(new OrderWentOn(order.HeldWhy), open.Subject, open.Dossier.Id);
        order.HeldWhy = "";
        open.Sheet.Version++;
        return open.Ref;
    }
}
