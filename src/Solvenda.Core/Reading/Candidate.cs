using Solvenda.Core.Catalogue;

namespace Solvenda.Core.Reading;

/// <summary>An item that words may mean, with a score of 0 to 1.</summary>
public sealed record Candidate(Item Item, decimal Score);
