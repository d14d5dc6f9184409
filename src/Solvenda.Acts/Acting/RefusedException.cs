using Solvenda.Core.People;

namespace Solvenda.Acts.Acting;

/// <summary>An act that may not be carried out: rolls its transaction back and is told with a stable code.</summary>
/// <remarks>
/// Core refuses by values; this is the one exception, at the edge, that carries such a "no" out of a transaction.
/// </remarks>
public sealed class RefusedException(
    Refused kind,
    string code,
    string words,
    string? field = null,
    object? facts = null
) : Exception(words)
{
    public Refused Kind { get; } = kind;

    /// <summary>Stable, part of the API; listed in docs/errors.md.</summary>
    public string Code { get; } = code;

    public string? Field { get; } = field;

    /// <summary>What the screen needs to help: for a stale version, what changed.</summary>
    public object? Facts { get; } = facts;

    /// <summary>After which it may be tried again; null where that is no question of time.</summary>
    public TimeSpan? RetryAfter { get; init; }

    public static RefusedException NotFound(string what) => new(Refused.NotFound, "not_found", $"There is no {what}.");

    public static RefusedException Forbidden(string words) => new(Refused.Forbidden, "not_allowed", words);

    public static RefusedException Bad(string code, string words, string? field = null) =>
        new(Refused.Bad, code, words, field);

    public static RefusedException Clash(string code, string words, object? facts = null) =>
        new(Refused.Clash, code, words, null, facts);

    /// <summary>A "no" of Core's.</summary>
    public static RefusedException Of(Refusal refusal)
    {
        ArgumentNullException.ThrowIfNull(refusal);
        return refusal.Code switch
        {
            "not_allowed" => Forbidden(refusal.Words),
            "line_gone" => Clash(refusal.Code, refusal.Words),
            _ => Bad(refusal.Code, refusal.Words, refusal.Field),
        };
    }
}

/// <summary>What kind of "no" it is.</summary>
public enum Refused
{
    /// <summary>Bad input: to be typed otherwise.</summary>
    Bad,

    /// <summary>Not theirs to do.</summary>
    Forbidden,

    NotFound,

    /// <summary>The state of things does not allow it, or somebody else was first.</summary>
    Clash,

    /// <summary>What it was decided on is not named.</summary>
    VersionMissing,

    /// <summary>It was there once.</summary>
    Gone,

    /// <summary>Who they say they are does not hold.</summary>
    NotSignedIn,

    /// <summary>Too often in too short a time.</summary>
    TooMany,
}
