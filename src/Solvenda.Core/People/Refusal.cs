namespace Solvenda.Core.People;

/// <summary>A "no" of the house's rules to what somebody wants: a value, not a failure.</summary>
/// <param name="Code">Stable, part of the API; listed in docs/errors.md.</param>
/// <param name="Words">What happened, what was kept, and what to do.</param>
/// <param name="Field">Where it belongs; null for the whole.</param>
public sealed record Refusal(string Code, string Words, string? Field = null);
