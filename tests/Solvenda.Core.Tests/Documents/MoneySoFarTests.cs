using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Core.Tests.Documents;

/// <summary>Where the track of money stands.</summary>
public sealed class MoneySoFarTests
{
    [Theory]
    [InlineData(GoodsTrack.Waiting, false, false, 0, 0, MoneyTrack.NotDue)]
    [InlineData(GoodsTrack.PartShipped, true, false, 0, 0, MoneyTrack.ToInvoice)]
    [InlineData(GoodsTrack.PartShipped, false, true, 0, 50, MoneyTrack.PartInvoiced)]
    [InlineData(GoodsTrack.Shipped, true, true, 0, 50, MoneyTrack.PartInvoiced)]
    [InlineData(GoodsTrack.Shipped, false, true, 100, 100, MoneyTrack.Invoiced)]
    [InlineData(GoodsTrack.Shipped, false, true, 40, 100, MoneyTrack.PartPaid)]
    [InlineData(GoodsTrack.Shipped, false, true, 0, 100, MoneyTrack.Paid)]
    [InlineData(GoodsTrack.Shipped, false, true, -5, 100, MoneyTrack.Paid)]
    public void It_follows_goods_invoices_and_payments(
        GoodsTrack goods,
        bool toBill,
        bool invoiced,
        long open,
        long total,
        MoneyTrack track
    ) => Assert.Equal(track, new MoneySoFar(goods, toBill, invoiced, open, total).Track);
}
