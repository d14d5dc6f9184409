using Solvenda.Core.Documents;
using Solvenda.Core.Sheets;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>Kinds of order as rows keep them, for lists and sums.</summary>
public static class OrderKinds
{
    /// <summary>What a frame is kept as.</summary>
    public static readonly string Frame = OrderKind.CallOff.Words;

    /// <summary>As it is kept; empty for goods now.</summary>
    public static string KeptOf(Head head) =>
        OrderKind.In(head) is var kind && kind == OrderKind.GoodsNow ? "" : kind.Words;

    /// <summary>Orders that count as sold: confirmed, and no frame, of which what is called off counts.</summary>
    public static IQueryable<OrderRow> Sold(this IQueryable<OrderRow> orders) =>
        orders.Where(o => o.Terms == TermsTrack.Confirmed && o.Kind != Frame);
}
