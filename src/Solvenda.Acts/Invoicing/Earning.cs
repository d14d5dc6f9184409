using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Invoicing;

/// <summary>Notes what sellers earn of invoices, and give back of credit notes; Core says how much.</summary>
internal static class Earning
{
    /// <summary>Of an order that is invoiced, by the plan that holds today; nothing where there is none.</summary>
    public static void Note(Work work, InvoiceRow row, BilledOrder order)
    {
        var (open, seller) = (order.Open, order.Open.Owner);
        if (Commission.PlanFor(open.House.Plans, seller.Id, seller.ReportsTo, row.Day) is not { } plan)
            return;
        var basis = CommissionBasis.Of(plan.On, order.Whole!, order.Bill);
        foreach (var part in Commission.Of(plan, seller.Name, basis))
            Add(work, row, order, plan, part);
    }

    /// <summary>Of what is credited by the plan of its invoice: that goes back.</summary>
    public static async Task TakeBackAsync(
        Work work,
        InvoiceRow note,
        InvoiceRow invoice,
        BilledOrder order,
        CancellationToken cancel
    )
    {
        var earned = await work
            .Db.Commissions.AsNoTracking()
            .Where(c => c.InvoiceId == invoice.Id && c.OrderId == order.Open.Order!.Id)
            .OrderBy(c => c.Id)
            .ToListAsync(cancel);
        if (earned.Count == 0)
            return;
        var plan = new CommissionPlan(
            earned[0].Plan,
            null,
            null,
            earned[0].On,
            earned[0].Percent,
            [.. earned.Select(c => new CommissionShare(c.Name, c.Share))],
            null,
            null
        );
        var basis = CommissionBasis.Of(plan.On, order.Whole!, order.Bill);
        // Never more than is left of it: a cost that was put right since does not take from other invoices.
        var name = earned[0].Name;
        var back = await work
            .Db.Commissions.Where(c =>
                c.Invoice.CreditsId == invoice.Id && c.OrderId == order.Open.Order!.Id && c.Name == name
            )
            .SumAsync(c => c.BasisMinor, cancel);
        var left = Amount.FromMinor(Math.Max(0, earned[0].BasisMinor + back), basis.Currency);
        foreach (var part in Commission.Of(plan, "", -(basis > left ? left : basis)))
            Add(work, note, order, plan, part);
    }

    private static void Add(Work work, InvoiceRow row, BilledOrder order, CommissionPlan plan, CommissionPart part) =>
        work.Db.Commissions.Add(
            new CommissionRow
            {
                Invoice = row,
                Order = order.Open.Order!,
                Name = part.Name,
                Plan = plan.Name,
                On = plan.On,
                Percent = plan.Percent,
                Share = part.Share,
                Currency = row.Currency,
                BasisMinor = part.Basis.Minor,
                Minor = part.Amount.Minor,
                Day = row.Day,
            }
        );
}
