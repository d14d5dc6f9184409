using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering;

/// <summary>A number that a house may set for a check.</summary>
/// <param name="Name">Stable, as it is kept.</param>
/// <param name="Words">What it is, with its unit.</param>
/// <param name="Usual">Where nobody says otherwise.</param>
public sealed record CheckNumber(string Name, string Words, decimal Usual, decimal Least, decimal Most);

/// <summary>What a house makes of what a check finds.</summary>
public enum CheckLevel
{
    /// <summary>As the check itself says.</summary>
    AsItIs,

    /// <summary>Nothing is said.</summary>
    Off,

    /// <summary>Worth knowing, and stops nothing.</summary>
    Notice,

    /// <summary>Stops until it is cured or let pass.</summary>
    Stop,
}

/// <summary>How a house wants one check: for a kind of document, for a channel, or for all.</summary>
/// <param name="Check">Its code.</param>
/// <param name="Document">Null: quotes and orders.</param>
/// <param name="Channel">Null: by whatever channel.</param>
/// <param name="Waive">Who lets a stop pass; null: as the check says.</param>
public sealed record CheckSetting(
    string Check,
    DocumentKind? Document,
    string? Channel,
    CheckLevel Level,
    WaiveBy? Waive,
    ImmutableSortedDictionary<string, decimal> Numbers
)
{
    /// <summary>The narrowest that is for a check on such a document by such a channel; null where none is.</summary>
    public static CheckSetting? For(
        ImmutableArray<CheckSetting> settings,
        ICheck check,
        DocumentKind document,
        string? channel
    )
    {
        ArgumentNullException.ThrowIfNull(check);
        CheckSetting? best = null;
        foreach (var s in settings)
        {
            if (
                s.Check == check.Code
                && (s.Document is null || s.Document == document)
                && (s.Channel is null || s.Channel == channel)
                && (best is null || s.Narrowness > best.Narrowness)
            )
                best = s;
        }
        return best;
    }

    private int Narrowness => (Channel is null ? 0 : 2) + (Document is null ? 0 : 1);

    /// <summary>
    /// What becomes of a finding; null where nothing is said. A fixed check says what it says, and what nobody may let
    /// pass has to be cured, whatever a house would like.
    /// </summary>
    public Finding? Apply(Finding finding, ICheck check)
    {
        ArgumentNullException.ThrowIfNull(finding);
        ArgumentNullException.ThrowIfNull(check);
        if (check.IsFixed || finding is { Outcome: Outcome.Stop, Waive: WaiveBy.Nobody })
            return finding;
        return Level switch
        {
            CheckLevel.Off => null,
            CheckLevel.Notice => finding with { Outcome = Outcome.Notice },
            CheckLevel.Stop when finding.Outcome == Outcome.Notice => finding with
            {
                Outcome = Outcome.Stop,
                Waive = Waive ?? WaiveBy.Writer,
                Fingerprint = finding.Fingerprint.Length > 0 ? finding.Fingerprint : finding.Words,
            },
            _ when Waive is { } by && finding.Outcome == Outcome.Stop => finding with { Waive = by },
            _ => finding,
        };
    }

    /// <summary>Numbers as they are written: "days 10; percent 0.5".</summary>
    /// <exception cref="FormatException">It is none.</exception>
    public static ImmutableSortedDictionary<string, decimal> Read(string text) =>
        (text ?? "")
            .Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(p => p.Split(' ', StringSplitOptions.RemoveEmptyEntries))
            .ToImmutableSortedDictionary(
                p => p[0],
                p =>
                    p.Length == 2
                        ? decimal.Parse(p[1], NumberStyles.Number, CultureInfo.InvariantCulture)
                        : throw new FormatException($"“{string.Join(' ', p)}” is no number of a check."),
                StringComparer.Ordinal
            );
}
