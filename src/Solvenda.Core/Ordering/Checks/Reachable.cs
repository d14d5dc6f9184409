using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>Somebody can be told, and somebody can be billed: found out here, and not when it is sent.</summary>
public sealed class Reachable : ICheck
{
    /// <inheritdoc />
    public string Code => "contact";

    /// <inheritdoc />
    public string Does => "there is somebody to tell, and an address to bill";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Document != DocumentKind.Order)
            yield break;
        var buyer = facts.Buyer;
        if (HeadTerms.By.In(facts.Head) == DocumentsBy.Mail && !IsMail(buyer.ContactMail))
            yield return new Finding(
                Code,
                Outcome.Stop,
                string.IsNullOrWhiteSpace(buyer.ContactMail)
                    ? $"Documents go by mail, and {buyer.Name} has no mail address on file."
                    : $"“{buyer.ContactMail}” of {buyer.Name} is not a mail address.",
                null,
                HeadTerms.By.Name
            );
        else if (string.IsNullOrWhiteSpace(buyer.ContactName))
            yield return new Finding(Code, Outcome.Notice, $"Nobody is named as the contact of {buyer.Name}.");
        if (
            (HeadTerms.BillTo.In(facts.Head) ?? buyer.BillTo) is not { Length: > 0 }
            && string.IsNullOrWhiteSpace(buyer.Address)
        )
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"Where does the invoice go? {buyer.Name} has no address on file.",
                null,
                HeadTerms.BillTo.Name,
                WaiveBy.Lead,
                "bill-to"
            );
    }

    // Enough to tell a slip; whoever sends it knows addresses better (RFC 5322).
    private static bool IsMail(string? text) =>
        text is not null
        && text.Trim().Split('@') is [{ Length: > 0 }, { Length: > 2 } house]
        && house.Contains('.', StringComparison.Ordinal)
        && !text.Any(char.IsWhiteSpace);
}
