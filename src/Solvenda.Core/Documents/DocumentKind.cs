namespace Solvenda.Core.Documents;

/// <summary>Which document a sheet belongs to.</summary>
public enum DocumentKind
{
    /// <summary>An offer of ours.</summary>
    Quote,

    /// <summary>What a buyer ordered.</summary>
    Order,
}

/// <summary>A document, by kind and number, to go to.</summary>
/// <param name="Kind">request, quote, order.</param>
/// <param name="Number">As it is printed, without the letter of a revision.</param>
public sealed record DocumentRef(string Kind, string Number);
