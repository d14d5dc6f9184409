using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Receiving;

/// <summary>What somebody says that money is for.</summary>
internal static class Takings
{
    /// <summary>Money that came, on the version that was seen.</summary>
    public static async Task<ReceiptRow> SeenAsync(SolvendaDb db, long id, long seen, CancellationToken cancel)
    {
        var receipt =
            await db.Receipts.FirstOrDefaultAsync(r => r.Id == id, cancel)
            ?? throw RefusedException.NotFound("such money");
        return receipt.Version == seen
            ? receipt
            : throw RefusedException.Clash(
                "stale",
                "Somebody said meanwhile what it is for; what is there now is shown. Nothing was changed.",
                receipt.Version
            );
    }

    /// <summary>What is owed by the buyer or by whom they pay for: a parent, or a child.</summary>
    public static async Task<OpenItemRow> ItemAsync(
        SolvendaDb db,
        AskedTaking take,
        long buyer,
        string currency,
        CancellationToken cancel
    )
    {
        var found = await (
            from o in db.OpenItems
            join b in db.Buyers on o.BuyerId equals b.Id
            where
                o.Number == take.Number
                && o.OpenMinor > 0
                && (b.Id == buyer || b.ParentId == buyer || db.Buyers.Any(p => p.Id == buyer && p.ParentId == b.Id))
            orderby o.Due
            select new { Item = o, Currency = o.Currency == "" ? b.Currency : o.Currency }
        ).FirstOrDefaultAsync(cancel);
        if (found is null)
            throw RefusedException.Clash(
                "not_open",
                $"{take.Number} is not open, or another buyer’s; nothing was booked."
            );
        return found.Currency == currency
            ? found.Item
            : throw RefusedException.Clash(
                "other_currency",
                $"{take.Number} is in {found.Currency}, the money in {currency}; nothing was booked."
            );
    }

    /// <summary>So much of it; refused where less is open, or less is left of the money.</summary>
    public static long MinorOf(AskedTaking take, OpenItemRow item, ReceiptRow receipt)
    {
        var currency = Currency.Of(receipt.Currency);
        var amount = Amount.Round(take.Amount, currency);
        if (amount.Value != take.Amount || amount.Minor <= 0 || amount.Minor > item.OpenMinor)
            throw RefusedException.Bad(
                "number",
                FormattableString.Invariant(
                    $"Of {take.Number} {Amount.FromMinor(item.OpenMinor, currency).Value:#,0.00} are open, not {take.Amount:#,0.######}; nothing was booked."
                ),
                "takes"
            );
        if (amount.Minor > receipt.LeftMinor)
            throw RefusedException.Bad(
                "number",
                FormattableString.Invariant(
                    $"{Amount.FromMinor(receipt.LeftMinor, currency).Value:#,0.00} are left of it, not {take.Amount:#,0.######}; nothing was booked."
                ),
                "takes"
            );
        return amount.Minor;
    }
}
