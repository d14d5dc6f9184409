using Solvenda.Core.Money;

namespace Solvenda.Core.Credit;

/// <summary>Why an order is not covered by its buyer's credit.</summary>
public enum CreditStop
{
    /// <summary>It is.</summary>
    None,

    /// <summary>A rate is missing, so that nobody can say.</summary>
    NoRate,

    /// <summary>Somebody blocked the buyer by hand.</summary>
    Blocked,

    /// <summary>No limit is kept, and the money is not there.</summary>
    NoLimit,

    /// <summary>The limit's last day is over, and the money is not there.</summary>
    Ended,

    /// <summary>It goes over the limit.</summary>
    Over,
}

/// <summary>A buyer's credit, and what one order adds to it.</summary>
/// <param name="ThisOrder">With tax, in the credit's currency; nothing once it is confirmed, since the exposure has it
/// then.</param>
/// <param name="RateHome">Home currency per unit of the credit's currency.</param>
public sealed record CreditAtOrder(CreditStanding Standing, Amount ThisOrder, decimal RateHome)
{
    /// <summary>Why it is not covered.</summary>
    public CreditStop Stop =>
        Standing switch
        {
            { MissingRate: not null } => CreditStop.NoRate,
            { Blocked.Length: > 0 } => CreditStop.Blocked,
            { HasLimit: false } => NotThere ? CreditStop.NoLimit : CreditStop.None,
            { Ended: true } => NotThere ? CreditStop.Ended : CreditStop.None,
            _ => Standing.Headroom(ThisOrder).Minor < 0 ? CreditStop.Over : CreditStop.None,
        };

    /// <summary>
    /// What is not covered, in the credit's currency: over the limit; of a buyer who is blocked the order; where no
    /// limit holds what the money that is there does not cover.
    /// </summary>
    public Amount Excess =>
        Stop switch
        {
            CreditStop.Over => -Standing.Headroom(ThisOrder),
            CreditStop.Blocked => ThisOrder,
            CreditStop.NoLimit or CreditStop.Ended => Uncovered < ThisOrder ? Uncovered : ThisOrder,
            _ => Amount.Zero(ThisOrder.Currency),
        };

    /// <summary>The same in home currency, as authority is measured: in whole units, rounded up.</summary>
    public decimal ExcessHome => Math.Ceiling(Excess.Value * RateHome);

    /// <summary>Days that the oldest open invoice is overdue beyond the days of grace; 0 where none is.</summary>
    public int OverdueDays => Standing.OverdueBeyondGrace ? Standing.OldestOverdueDays : 0;

    private Amount Uncovered => Standing.Exposure + ThisOrder;

    private bool NotThere => ThisOrder.Minor > 0 && Uncovered.Minor > 0;
}
