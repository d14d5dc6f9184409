using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Owing;

/// <summary>Keeps that a buyer says something against an invoice: nobody is reminded of it until it is
/// settled.</summary>
public sealed record DisputeInvoice(string Number, string Reason) : IAct<string>;

[Leaves(typeof(InvoiceDisputed))]
public sealed class DisputeInvoiceAct : Act<DisputeInvoice, string>
{
    public override Right Needs => Rights.Bill;

    public override async Task<string> RunAsync(Work work, DisputeInvoice input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say what the buyer says against it");
        var items = await OwedBook.ItemsAsync(work, input.Number, cancel);
        foreach (var item in items)
            (item.Disputed, item.DisputedBy, item.DisputedOn) = (reason, work.Actor.Name, work.Today);
        await OwedBook.LeaveAsync(work, items[0], new InvoiceDisputed(input.Number, reason), cancel);
        return input.Number;
    }
}

/// <summary>What was said against an invoice is settled: it is owed as it stands, or was credited.</summary>
public sealed record SettleDispute(string Number, string Words) : IAct<string>;

[Leaves(typeof(DisputeSettled))]
public sealed class SettleDisputeAct : Act<SettleDispute, string>
{
    public override Right Needs => Rights.Bill;

    public override async Task<string> RunAsync(Work work, SettleDispute input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var words = OrderSteps.Reason(input.Words, "Say how it was settled");
        var items = (await OwedBook.ItemsAsync(work, input.Number, cancel)).FindAll(i => i.Disputed.Length > 0);
        if (items.Count == 0)
            throw RefusedException.Clash("not_disputed", $"Nobody says anything against {input.Number}.");
        foreach (var item in items)
            (item.Disputed, item.DisputedBy, item.DisputedOn) = ("", "", null);
        await OwedBook.LeaveAsync(work, items[0], new DisputeSettled(input.Number, words), cancel);
        return input.Number;
    }
}
