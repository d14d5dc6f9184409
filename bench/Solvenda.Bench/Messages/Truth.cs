using System.Collections.Immutable;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;

namespace Solvenda.Bench.Messages;

/// <summary>One line as whoever wrote it meant it.</summary>
/// <param name="Item">Null where it is nothing that we sell.</param>
/// <param name="Said">The words or the code that stand for the thing in the message.</param>
internal sealed record TrueLine(Item? Item, string Said, decimal Quantity, Unit Unit)
{
    /// <summary>What one of the unit is to cost, before its discount.</summary>
    public decimal Gross { get; init; }

    /// <summary>What it is to cost after it; null in forms that say no price.</summary>
    public decimal? Price { get; init; }
}

/// <summary>What a message means, known because it was made so.</summary>
/// <param name="Buyer">Which of the shelf's buyers wrote it.</param>
internal sealed record Truth(
    MessageKind Kind,
    int Buyer,
    string? PoNumber,
    DateOnly? Wanted,
    ImmutableArray<TrueLine> Lines
);

/// <summary>A message as it arrives, and what it means.</summary>
/// <param name="HasSlip">A word was mistyped: it may need somebody.</param>
internal sealed record MadeMessage(string Name, byte[] Bytes, string Form, string Language, bool HasSlip, Truth Truth);
