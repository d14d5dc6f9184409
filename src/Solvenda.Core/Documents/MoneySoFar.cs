namespace Solvenda.Core.Documents;

/// <summary>How far the money of an order is.</summary>
/// <param name="Goods">How far its goods are.</param>
/// <param name="ToBill">Whether something went that no invoice has.</param>
/// <param name="Invoiced">Whether there is an invoice of it.</param>
/// <param name="Open">What is still to be paid of its invoices, in minor units.</param>
/// <param name="Total">What its invoices come to, in minor units.</param>
public sealed record MoneySoFar(GoodsTrack Goods, bool ToBill, bool Invoiced, long Open, long Total)
{
    /// <summary>Where its track stands.</summary>
    public MoneyTrack Track =>
        (Invoiced, ToBill, Goods) switch
        {
            (false, true, _) => MoneyTrack.ToInvoice,
            (false, false, _) => MoneyTrack.NotDue,
            (true, true, _) or (true, false, not GoodsTrack.Shipped) => MoneyTrack.PartInvoiced,
            _ when Open <= 0 => MoneyTrack.Paid,
            _ when Open < Total => MoneyTrack.PartPaid,
            _ => MoneyTrack.Invoiced,
        };
}
