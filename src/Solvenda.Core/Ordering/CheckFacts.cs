using System.Collections.Immutable;
using Solvenda.Core.Approvals;
using Solvenda.Core.Buyers;
using Solvenda.Core.Credit;
using Solvenda.Core.Money;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering;

/// <summary>Which document a sheet belongs to.</summary>
public enum DocumentKind
{
    Quote,
    Order,
}

/// <summary>Another document that carries the same PO key, or the same lines.</summary>
public sealed record Earlier(string Number, string PoNumber, DateOnly Day, bool SamePo);

/// <summary>The terms on the head of a document; null where nothing was agreed or typed.</summary>
public sealed record HeadTerms(
    string? PoNumber,
    int? PaymentDays,
    string? Incoterm,
    string? IncotermPlace,
    string? DeliverTo,
    string? ShipFrom,
    DateOnly? Wanted
)
{
    /// <summary>One of <see cref="Ordering.DocumentsBy"/>.</summary>
    public string? DocumentsBy { get; init; }

    /// <summary>True where the order can be acknowledged by EDI, since it came by it.</summary>
    public bool AnswersByEdi { get; init; }
}

/// <summary>Everything that checks look at. All of it was loaded before; a check only judges.</summary>
public sealed record CheckFacts(
    DocumentKind Document,
    PricedSheet Sheet,
    Buyer Buyer,
    HeadTerms Terms,
    IReadOnlyList<Earlier> Earlier,
    IReadOnlyDictionary<long, LineStock> Stock,
    CreditStanding? Credit,
    ApprovalNeed Approval,
    ApprovalState ApprovalState,
    SheetFigures Figures,
    Authority SellerAuthority,
    IReadOnlyDictionary<long, decimal?> LineHeadroom,
    Amount TotalInCredit,
    decimal CreditRateHome,
    ImmutableArray<Waiver> Waivers
);

/// <summary>A rule that a sheet must meet. One file each, listed in <see cref="CheckList"/>.</summary>
public interface ICheck
{
    /// <summary>Stable code, part of the API.</summary>
    string Code { get; }

    IEnumerable<Finding> Run(CheckFacts facts);
}
