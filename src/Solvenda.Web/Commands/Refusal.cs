namespace Solvenda.Web.Commands;

/// <summary>A command that may not be carried out: rolls its transaction back and becomes problem details (RFC 9457) with a stable code.</summary>
/// <remarks>Core refuses by values; this is the one exception, at the edge, that carries such a "no" out of a transaction.</remarks>
public sealed class RefusalException(int status, string code, string words, string? field = null, object? facts = null)
    : Exception(words)
{
    public int Status { get; } = status;

    /// <summary>Stable, part of the API; listed in docs/errors.md.</summary>
    public string Code { get; } = code;

    public string? Field { get; } = field;

    /// <summary>What the screen needs to help: for a stale version, what changed.</summary>
    public object? Facts { get; } = facts;

    public static RefusalException NotFound(string what) => new(404, "not_found", $"There is no {what}.");

    public static RefusalException Forbidden(string words) => new(403, "not_allowed", words);

    public static RefusalException Bad(string code, string words, string? field = null) => new(422, code, words, field);

    public static RefusalException Clash(string code, string words, object? facts = null) =>
        new(409, code, words, null, facts);
}
