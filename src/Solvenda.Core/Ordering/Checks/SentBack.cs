namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// A line that whoever decides marked when they sent an ask back, until it is asked again.
/// </summary>
public sealed class SentBack : ICheck
{
    /// <inheritdoc />
    public string Code => "sent-back";

    /// <inheritdoc />
    public string Does => "lines that were marked when an ask came back were seen to";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return facts.SentBack.Select(m => new Finding(
            Code,
            Outcome.Notice,
            $"Sent back by {m.By}: “{m.Note}”",
            m.Line,
            "discount"
        ));
    }
}
