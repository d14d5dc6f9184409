using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Shipping;

/// <summary>Who carries what.</summary>
public static class Carriers
{
    public static Task<List<CarrierRow>> InUseAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db.Carriers.AsNoTracking().Where(c => c.Active).OrderBy(c => c.Id).ToListAsync(cancel);
    }

    /// <summary>
    /// Who does a service and takes what it weighs; of several whoever takes the least. Empty where nobody does.
    /// </summary>
    /// <param name="service">Empty: whatever they do.</param>
    /// <param name="weight">In kilograms; null where nobody weighed it.</param>
    public static string For(IEnumerable<CarrierRow> carriers, string service, decimal? weight)
    {
        ArgumentNullException.ThrowIfNull(carriers);
        return carriers
                .Where(c => c.MostKg is null || (weight ?? 0m) <= c.MostKg)
                .Where(c => service.Length == 0 || c.Services.Length == 0 || Does(c, service))
                .MinBy(c => c.MostKg ?? decimal.MaxValue)
                ?.Code
            ?? "";
    }

    private static bool Does(CarrierRow carrier, string service) =>
        carrier.Services.Split(',', StringSplitOptions.TrimEntries).Contains(service, StringComparer.OrdinalIgnoreCase);
}
