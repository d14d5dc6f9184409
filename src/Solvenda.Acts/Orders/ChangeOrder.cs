using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Opens a confirmed order again to be changed. What was confirmed is kept as a version, its stock stays committed, and
/// it holds until the change is confirmed.
/// </summary>
public sealed record ChangeOrder(string Order) : IAct<DocumentRef>;

[Leaves(typeof(OrderChanging))]
public sealed class ChangeOrderAct(SheetLoader loader, Settling settling) : Act<ChangeOrder, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, ChangeOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        work.Leave(await OrderVersions.OpenAsync(work, open, cancel), open.Subject, open.Dossier.Id);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, input.Order, cancel), cancel);
        return open.Ref;
    }
}
