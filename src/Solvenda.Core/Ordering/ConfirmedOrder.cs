using System.Collections.Immutable;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering;

/// <summary>A line as it is confirmed, and when it is ready to leave.</summary>
/// <param name="Ready">Null where no date is given: on call.</param>
public sealed record ConfirmedOrderLine(PricedLine Line, DateOnly? Ready);

/// <summary>An order as it is confirmed to the buyer, for whatever form the answer takes.</summary>
public sealed record ConfirmedOrder(
    string Number,
    string PoNumber,
    string Currency,
    ImmutableArray<ConfirmedOrderLine> Lines
);
