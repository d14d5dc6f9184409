using Solvenda.Core.Approvals;
using Solvenda.Data;

namespace Solvenda.Web.Approvals;

/// <summary>What a buyer bought, in one currency: sums are never taken over several.</summary>
public sealed record BoughtView(string Currency, decimal Amount);

/// <summary>A figure asked, as a ruler: where it stands, what the hand and the approver may.</summary>
/// <param name="Before">The figure with nothing given by hand; null where it does not apply.</param>
/// <param name="Said">The figure with its unit.</param>
public sealed record AskRuler(
    string Words,
    decimal Figure,
    string Said,
    decimal? HandsLimit,
    decimal? YourLimit,
    decimal? Before,
    decimal From,
    decimal To,
    bool MoreIsWorse
);

/// <summary>A line that causes the ask.</summary>
public sealed record AskLine(
    string Code,
    string Words,
    string Quantity,
    decimal? BasePrice,
    decimal? NetPrice,
    decimal DiscountPercent,
    decimal? MarginPercent,
    decimal? Floor,
    IReadOnlyList<SoldBefore> ToThisBuyer,
    IReadOnlyList<SoldBefore> ToOthers,
    decimal? Stock,
    string UnitWord,
    decimal? MonthsOfStock
);

/// <summary>Everything to decide on in one look.</summary>
public sealed record AskView(
    long Id,
    string Subject,
    bool IsOrder,
    string Sentence,
    string Hand,
    string HandFirst,
    string AskedBy,
    string Owner,
    string Approver,
    AskOutcome Outcome,
    string Why,
    string Note,
    DateTime AskedAt,
    bool Mine,
    string Currency,
    IReadOnlyList<string> Fired,
    IReadOnlyList<AskRuler> Rulers,
    IReadOnlyList<AskLine> Lines,
    decimal Costs,
    decimal Earns,
    decimal Total,
    string Buyer,
    IReadOnlyList<BoughtView> BoughtThisYear,
    string CreditWords,
    int Position,
    int Waiting,
    long? Next
);
