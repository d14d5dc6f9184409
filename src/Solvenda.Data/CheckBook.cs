using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>What the house set for its checks, as Core runs them with.</summary>
public static class CheckBook
{
    public static async Task<ImmutableArray<CheckSetting>> HoldingAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await db.Checks.AsNoTracking().Where(c => c.Active).OrderBy(c => c.Id).ToListAsync(cancel);
        return [.. rows.Select(Of)];
    }

    /// <summary>A row as a value.</summary>
    public static CheckSetting Of(CheckRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new CheckSetting(
            row.Check,
            Enum.TryParse<DocumentKind>(row.Document, ignoreCase: true, out var kind) ? kind : null,
            row.Channel.Length > 0 ? row.Channel : null,
            row.Level,
            Enum.TryParse<WaiveBy>(row.WaivedBy, ignoreCase: true, out var by) ? by : null,
            CheckSetting.Read(row.Numbers)
        );
    }
}
