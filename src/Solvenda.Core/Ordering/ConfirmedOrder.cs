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
)
{
    /// <summary>How often it was confirmed before: 0 the first time, more where this confirms a change.</summary>
    public int Version { get; init; }

    /// <summary>Its lines as they were confirmed before; empty the first time.</summary>
    public ImmutableArray<ConfirmedOrderLine> Before { get; init; } = [];

    /// <summary>What became of a line since it was confirmed before.</summary>
    public LineChange SinceBefore(ConfirmedOrderLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return Before.FirstOrDefault(b => b.Line.Line.Key == line.Line.Line.Key) is not { } was ? LineChange.Added
            : was.Line.Line.Quantity == line.Line.Line.Quantity
            && was.Line.Line.Unit == line.Line.Line.Unit
            && was.Line.Item?.Id == line.Line.Item?.Id
            && was.Line.Figures.NetPrice == line.Line.Figures.NetPrice
            && was.Ready == line.Ready
                ? LineChange.Same
            : LineChange.Changed;
    }

    /// <summary>Lines that were confirmed before, and are no more.</summary>
    public IEnumerable<ConfirmedOrderLine> Gone =>
        Before.Where(b => Lines.All(l => l.Line.Line.Key != b.Line.Line.Key));
}
