using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Sheets;

/// <summary>A place of a buyer's: where goods go, or who pays.</summary>
/// <param name="Use">deliver-to or bill-to.</param>
/// <param name="Country">ISO 3166-1 alpha-2.</param>
public sealed record BuyerPlace(string Code, string Use, string Words, string Country, string ReceivingDays = "");

/// <summary>What the one door for edits judges against: what exists, whose hand it is, and what day it is.</summary>
/// <param name="Languages">Codes of the languages that documents are written in, each with what its speakers call
/// it.</param>
/// <param name="Warehouses">Names of the house's warehouses.</param>
public sealed record DoorFacts(
    DocumentKind Document,
    PriceBook Book,
    Buyer Buyer,
    Currency Currency,
    Hand Hand,
    DateOnly Today,
    ImmutableArray<TermChoice> Languages,
    ImmutableArray<string> Warehouses,
    ImmutableArray<BuyerPlace> Places
)
{
    /// <summary>The Incoterms that the house sells by.</summary>
    public ImmutableArray<string> Incoterms { get; init; } = [.. Documents.Incoterms.All];

    /// <summary>What of an order went, or is billed, and stands; null where nothing did.</summary>
    public Begun? Begun { get; init; }

    /// <summary>Terms that the house made for itself on such documents.</summary>
    public ImmutableArray<HeadTerm> Own { get; init; } = [];

    /// <summary>Every term that the head of such a document can have, in the order in which they are shown.</summary>
    public IEnumerable<HeadTerm> Terms => HeadTerms.All.Concat(Own).Where(t => t.Only is null || t.Only == Document);

    /// <summary>The term of that name; null where such a document has none.</summary>
    public HeadTerm? Term(string name) => Terms.FirstOrDefault(t => t.Name == name);
}
