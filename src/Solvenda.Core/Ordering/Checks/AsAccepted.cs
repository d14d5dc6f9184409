using System.Security.Cryptography;
using System.Text;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// An order is what the buyer accepted; where it differs, upward in price as well, confirming it needs to be meant.
/// </summary>
public sealed class AsAccepted : ICheck
{
    private const int Told = 3;

    /// <inheritdoc />
    public string Code => "as-accepted";

    /// <inheritdoc />
    public string Does => "an order is what the buyer accepted";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Document != DocumentKind.Order || facts.SinceAccepted.IsEmpty)
            yield break;
        var all = facts.SinceAccepted;
        var words = string.Join("; ", all.Take(Told)) + (all.Length > Told ? $"; and {all.Length - Told} more" : "");
        yield return new Finding(
            Code,
            Outcome.Stop,
            $"It differs from what they accepted: {words}.",
            null,
            "",
            WaiveBy.Writer,
            Fingerprint(all)
        )
        {
            Cures = [new Cure("M", "it is meant so", "waive", "", "It is meant so; the buyer knows.")],
        };
    }

    // A waiver holds for these differences and no others.
    private static string Fingerprint(IEnumerable<string> all) =>
        Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\n', all))))[..16];
}
