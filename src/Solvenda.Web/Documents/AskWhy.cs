namespace Solvenda.Web.Documents;

/// <summary>Why somebody should decide on it.</summary>
public sealed record AskWhy(string Why, bool Urgent = false);
