namespace Solvenda.Web.Planning;

/// <summary>An item in a warehouse, as planners list it; quantities in stock units.</summary>
/// <param name="Days">What is to leave: until today, within a week, within two, later.</param>
/// <param name="ShortFrom">The first day on which it is short; null where it is not.</param>
/// <param name="Late">Orders whose promise cannot be kept.</param>
/// <param name="Asked">Asked for, and not answered yet.</param>
/// <param name="Propose">So much more would do, with what goes in the lead time; 0: nothing is needed.</param>
/// <param name="Slipped">By how many days what comes next slipped, or is overdue; 0: it did not.</param>
public sealed record PlanRow(
    long Item,
    string Code,
    string Words,
    string Unit,
    string Warehouse,
    decimal OnHand,
    IReadOnlyList<decimal> Days,
    decimal Comes,
    DateOnly? Next,
    int Slipped,
    DateOnly? ShortFrom,
    decimal ShortBy,
    int Late,
    decimal Asked,
    decimal Propose,
    DateOnly ProposeFor
);

/// <summary>A commitment that would move if everything were promised anew.</summary>
public sealed record AnewRow(
    string Order,
    string Buyer,
    int Line,
    string Item,
    string Warehouse,
    decimal Quantity,
    string Unit,
    DateOnly? Promised,
    DateOnly Arrives,
    DateOnly? Wanted
);

public sealed record PlanningView(
    IReadOnlyList<PlanRow> Rows,
    int Positions,
    IReadOnlyList<AnewRow> Anew,
    bool MayPlan
);

/// <summary>A step of the stepped line: what moved, and what is there since.</summary>
/// <param name="Kind">counted, arrived, shipped; ahead: comes, promised, held.</param>
/// <param name="Order">Number of the order behind it; null where there is none.</param>
public sealed record OutlookStep(
    DateOnly Day,
    decimal Quantity,
    decimal Level,
    string Kind,
    string Words,
    string? Order
);

/// <summary>What can be taken from a day on.</summary>
public sealed record FreeFrom(DateOnly Day, decimal Free);

/// <summary>What a planner can do for one that waits.</summary>
public sealed record ReliefView(string Sign, string Words, string Effect, bool Hurts);

/// <summary>One that waits for the item.</summary>
/// <param name="Kept">How much of it can be taken on its day.</param>
/// <param name="Later">When the rest can; null: no day can be given.</param>
/// <param name="ToBeHad">How much of it nothing is on its way for.</param>
public sealed record WaitView(
    long Commitment,
    DateOnly Day,
    string Order,
    string Buyer,
    DateOnly? Wanted,
    DateOnly? Promised,
    decimal Quantity,
    decimal Kept,
    DateOnly? Later,
    decimal ToBeHad,
    string Note,
    IReadOnlyList<ReliefView> Reliefs
);

/// <summary>An item's stock over time in one warehouse, with what stands behind each step.</summary>
public sealed record OutlookView(
    long Item,
    string Code,
    string Words,
    string Unit,
    string Warehouse,
    IReadOnlyList<string> Warehouses,
    DateOnly Today,
    PlanRow Row,
    IReadOnlyList<OutlookStep> Past,
    IReadOnlyList<OutlookStep> Ahead,
    IReadOnlyList<FreeFrom> Free,
    IReadOnlyList<WaitView> Waits,
    IReadOnlyList<OutlookStep> Offered,
    int WouldMove,
    bool MayPlan
);

/// <param name="Sign">Which of what was offered.</param>
public sealed record TakeReliefBody(long Commitment, string Sign);

public sealed record ReliefTaken(int Told);

public sealed record AskForBody(string Item, string Warehouse, decimal Quantity, DateOnly Wanted);

public sealed record AskedForStock(string Number);

/// <param name="Seen">What was thought to be there.</param>
public sealed record CountBody(string Item, string Warehouse, decimal Quantity, decimal Seen, string Reason);

public sealed record StockSince(decimal OnHand);
