using System.Collections.Immutable;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering;

/// <summary>The outcome of a check.</summary>
public enum Outcome
{
    /// <summary>Nothing to say.</summary>
    Clear,

    /// <summary>Worth knowing.</summary>
    Notice,

    /// <summary>May not go on until cured or waived.</summary>
    Stop,
}

/// <summary>Who may waive a stop.</summary>
public enum WaiveBy
{
    /// <summary>Nobody: it has to be cured.</summary>
    Nobody,

    /// <summary>The order desk lead, sales lead or director.</summary>
    Lead,

    /// <summary>Who has credit authority over the excess.</summary>
    Credit,

    /// <summary>Whoever writes orders: it only has to be meant.</summary>
    Writer,
}

/// <summary>A way out of a finding that one key carries out: the edit it makes, or the place it leads to.</summary>
/// <param name="Key">One letter or digit.</param>
/// <param name="Field">The field to set; empty where <paramref name="Action"/> says what to do.</param>
/// <param name="Action">"set" for an edit of the field, else what the screen opens: "ask", "focus", "credit".</param>
public sealed record Cure(string Key, string Words, string Action, string Field, string Value);

/// <summary>What a check found.</summary>
/// <param name="Line">Key of the line; null for the whole sheet.</param>
/// <param name="Fingerprint">Changes with what was found, so that a waiver of this does not cover something
/// worse.</param>
/// <param name="Excess">For credit: how far over, in home currency; what the waiver's authority is measured
/// against.</param>
public sealed record Finding(
    string Check,
    Outcome Outcome,
    string Words,
    long? Line = null,
    string Field = "",
    WaiveBy Waive = WaiveBy.Nobody,
    string Fingerprint = "",
    decimal Excess = 0m
)
{
    /// <summary>Ways out, each by one key.</summary>
    public ImmutableArray<Cure> Cures { get; init; } = [];

    /// <summary>Documents that it is about.</summary>
    public ImmutableArray<DocumentRef> Documents { get; init; } = [];

    /// <summary>Whether asking for approval is what cures it, so that it does not stop the asking.</summary>
    public bool IsAsked { get; init; }

    /// <summary>Who let it pass and why; null where nobody did.</summary>
    public Waiver? Waived { get; init; }
}

/// <summary>A stop that somebody with the authority let pass.</summary>
/// <param name="Excess">For credit: the excess that was let pass; a smaller one is covered too.</param>
public sealed record Waiver(string Check, long? Line, string Fingerprint, decimal Excess, string Who, string Reason)
{
    /// <summary>Whether it lets this pass: the same finding, or for credit one that is no worse.</summary>
    public bool Covers(Finding finding) =>
        Check == finding.Check
        && Line == finding.Line
        && (
            Fingerprint == finding.Fingerprint
            || (
                Excess > 0
                && finding.Excess > 0
                && finding.Excess <= Excess
                && IsBlock(Fingerprint) == IsBlock(finding.Fingerprint)
            )
            || (
                Until is not null
                && Excess == 0
                && finding.Excess == 0
                && Kind(Fingerprint) == Kind(finding.Fingerprint)
            )
        );

    /// <summary>The last day on which it lets anything pass; null: without end.</summary>
    public DateOnly? Until { get; init; }

    /// <summary>Whether it is about a buyer who was blocked by hand: what was let pass before that is no answer to
    /// it.</summary>
    public static bool IsBlock(string fingerprint) => Kind(fingerprint) == "blocked";

    // What it is, without how much: "overdue/4" is "overdue" tomorrow too.
    private static string Kind(string fingerprint) => fingerprint.Split('/')[0];
}
