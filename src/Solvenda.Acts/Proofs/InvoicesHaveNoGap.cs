using System.Globalization;
using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Billing;
using Solvenda.Data;

namespace Solvenda.Acts.Proofs;

/// <summary>
/// Numbers of invoices follow each other by year without a gap, and what an order has as invoiced is what its invoices
/// come to.
/// </summary>
public sealed class InvoicesHaveNoGap : IProof
{
    /// <inheritdoc />
    public string Holds => "invoices have no gap";

    /// <inheritdoc />
    public async IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, [EnumeratorCancellation] CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var numbers = await db.Invoices.OrderBy(i => i.Id).Select(i => new { i.Number, i.Day }).ToListAsync(cancel);
        foreach (var (before, after) in numbers.Zip(numbers.Skip(1)))
        {
            // Another pattern or another year begins anew.
            if (
                before.Day.Year == after.Day.Year
                && Count(after.Number) is { } count
                && Count(before.Number) is { } last
            )
                if (before.Number.Length == after.Number.Length && count != last + 1)
                    yield return $"after {before.Number} comes {after.Number}";
        }
        var off = await db
            .Orders.Select(o => new
            {
                o.Number,
                o.InvoicedMinor,
                Sum = db
                    .InvoiceParts.Where(p => p.OrderId == o.Id && p.Invoice.Kind == BillKind.Invoice)
                    .Sum(p => p.TotalWithTaxMinor + p.DeductedMinor),
            })
            .Where(o => o.Sum != o.InvoicedMinor)
            .ToListAsync(cancel);
        foreach (
            var number in await db
                .Invoices.Where(i => i.Parts.Sum(p => p.TotalWithTaxMinor) != i.TotalWithTaxMinor)
                .Select(i => i.Number)
                .ToListAsync(cancel)
        )
            yield return $"the orders on {number} do not come to what it does";
        foreach (var order in off)
            yield return $"{order.Number} has {order.InvoicedMinor} as invoiced, its invoices come to {order.Sum}, in minor units";
    }

    // What stands behind its last letter or dash.
    private static long? Count(string number)
    {
        var digits = new string([.. number.Reverse().TakeWhile(char.IsAsciiDigit).Reverse()]);
        return long.TryParse(digits, CultureInfo.InvariantCulture, out var count) ? count : null;
    }
}
