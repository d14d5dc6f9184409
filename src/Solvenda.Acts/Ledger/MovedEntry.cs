namespace Solvenda.Acts.Ledger;

/// <summary>What a document would post on one account goes to another.</summary>
/// <param name="From">Code of the account that the rules say.</param>
/// <param name="To">Code of the one that somebody says instead.</param>
/// <param name="Reason">Why; it is kept with the entry.</param>
public sealed record MovedEntry(string From, string To, string Reason);
