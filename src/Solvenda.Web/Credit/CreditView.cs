namespace Solvenda.Web.Credit;

/// <summary>A part of what somebody owes and will owe; what is taken off is negative.</summary>
public sealed record CreditPart(string Label, decimal Amount, string Rest = "");

/// <summary>A way to get an order through, and what the exposure would be by it.</summary>
public sealed record CreditWay(string Code, string Words, decimal Amount, decimal Exposure);

/// <summary>Money that came for an order before it is invoiced.</summary>
public sealed record DepositView(DateOnly ReceivedOn, decimal Amount, string Reference, string By);

/// <summary>What was let pass of credit, and until when.</summary>
public sealed record LetPassView(string By, decimal UpTo, DateOnly? Until, string Why);

/// <summary>What a buyer, or all that share its limit, owe and will owe; and what an order adds to it.</summary>
/// <param name="Currency">That the limit is kept in: the parent's, where it is shared.</param>
/// <param name="Limit">Null: none is kept.</param>
/// <param name="Ended">Whether the limit's last day is over.</param>
/// <param name="SetBy">Who set it, and when; empty where it came with the house's data.</param>
/// <param name="DaysLate">How late they paid in two years on average; null: nothing was paid.</param>
/// <param name="ThisOrder">Null where no order is looked at; nothing once it is confirmed.</param>
/// <param name="Excess">What of the order is not covered.</param>
/// <param name="Stop">Why it is not covered, in words; empty where it is.</param>
public sealed record CreditView(
    string Currency,
    decimal? Limit,
    DateOnly? Until,
    bool Ended,
    string SetBy,
    string? SharedWith,
    decimal? Insured,
    decimal Uninsured,
    string Blocked,
    decimal Exposure,
    IReadOnlyList<CreditPart> Parts,
    IReadOnlyList<CreditPart> Ages,
    int OverdueDays,
    int GraceDays,
    decimal? DaysLate,
    string? MissingRate,
    decimal? ThisOrder,
    decimal Excess,
    string Stop,
    IReadOnlyList<CreditWay> Offers,
    IReadOnlyList<DepositView> Deposits,
    IReadOnlyList<LetPassView> LetPass
);

/// <summary>A buyer on the controller's list; one that shares a limit stands under its parent.</summary>
/// <param name="Over">What they are over by; 0 where they are not.</param>
/// <param name="WithQuotes">Exposure with every quote that is out or being asked about.</param>
/// <param name="Held">Orders that wait because of their credit.</param>
public sealed record CreditRow(
    long BuyerId,
    string Code,
    string Name,
    string Currency,
    decimal? Limit,
    DateOnly? Until,
    decimal Exposure,
    decimal Over,
    decimal WithQuotes,
    bool WillBeOver,
    decimal OverdueAmount,
    int OverdueDays,
    bool BeyondGrace,
    decimal? DaysLate,
    string Blocked,
    string? MissingRate,
    IReadOnlyList<string> Held
);

/// <summary>Everybody who owes something or may owe, with counts of what is worth a look.</summary>
public sealed record CreditList(
    IReadOnlyList<CreditRow> Rows,
    int Over,
    int WillBeOver,
    int Overdue,
    int Held,
    int NoLimit
);
