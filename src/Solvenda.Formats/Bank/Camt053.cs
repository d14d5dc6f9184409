using System.Collections.Immutable;
using System.Globalization;
using System.Xml;
using System.Xml.Linq;

namespace Solvenda.Formats.Bank;

/// <summary>A movement on an account of ours.</summary>
/// <param name="Account">Ours.</param>
/// <param name="Reference">The bank's own for it, unique with the account.</param>
/// <param name="Amount">Above nothing where money came.</param>
/// <param name="IsReversal">Whether it takes back what was booked before.</param>
/// <param name="EndToEnd">The payer's own reference; empty for none.</param>
/// <param name="Words">What the payer wrote.</param>
public sealed record BankMovement(
    string Account,
    string Statement,
    string Reference,
    DateOnly Day,
    decimal Amount,
    string Currency,
    bool IsReversal,
    string Payer,
    string PayerAccount,
    string EndToEnd,
    string Words
);

/// <summary>
/// Reads statements of banks: ISO 20022 camt.053, of any version. A batch with several details is as many movements.
/// </summary>
public static class Camt053
{
    private const string NotGiven = "NOTPROVIDED";

    /// <exception cref="FormatException">It is no such file, or says something that cannot be read.</exception>
    public static ImmutableArray<BankMovement> Read(byte[] bytes)
    {
        ArgumentNullException.ThrowIfNull(bytes);
        var settings = new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null };
        var movements = ImmutableArray.CreateBuilder<BankMovement>();
        try
        {
            using var reader = XmlReader.Create(new MemoryStream(bytes), settings);
            var (account, statement, isOne) = ("", "", false);
            reader.MoveToContent();
            while (!reader.EOF)
            {
                if (reader.NodeType != XmlNodeType.Element)
                {
                    reader.Read();
                    continue;
                }
                switch (reader.LocalName)
                {
                    case "Stmt":
                        (account, statement, isOne) = ("", "", true);
                        reader.Read();
                        break;
                    case "Id" when isOne && statement.Length == 0:
                        statement = ((XElement)XNode.ReadFrom(reader)).Value.Trim();
                        break;
                    case "Acct" when isOne && account.Length == 0:
                        account = AccountOf((XElement)XNode.ReadFrom(reader));
                        break;
                    case "Ntry" when isOne:
                        movements.AddRange(Entry((XElement)XNode.ReadFrom(reader), account, statement));
                        break;
                    case "Bal" or "TxsSummry" when isOne:
                        reader.Skip();
                        break;
                    default:
                        reader.Read();
                        break;
                }
            }
            return isOne
                ? movements.ToImmutable()
                : throw new FormatException("There is no statement in it (camt.053).");
        }
        catch (XmlException broken)
        {
            throw new FormatException($"It is no XML that can be read: {broken.Message}", broken);
        }
    }

    private static IEnumerable<BankMovement> Entry(XElement entry, string account, string statement)
    {
        // What is only announced is not there yet.
        if (Find(entry, "Sts") is { } state && Deep(state).Trim() is "PDNG" or "INFO")
            return [];
        var amount = AmountOf(entry, "a movement");
        var reference = Text(entry, "AcctSvcrRef") ?? Text(entry, "NtryRef");
        var day = DayOf(entry);
        var details = entry.Descendants().Where(e => e.Name.LocalName == "TxDtls").ToList();
        if (details.Count <= 1)
            return
            [
                One(
                    details.FirstOrDefault() ?? entry,
                    account,
                    statement,
                    reference ?? (details.Count == 1 ? ReferenceIn(details[0]) : null) ?? throw Nameless(amount),
                    day,
                    amount,
                    Signed(entry),
                    Reverses(entry)
                ),
            ];
        return details.Select(
            (d, i) =>
                One(
                    d,
                    account,
                    statement,
                    ReferenceIn(d) ?? FormattableString.Invariant($"{reference ?? throw Nameless(amount)}/{i + 1}"),
                    day,
                    AmountOf(d, "a part of a batch"),
                    Find(d, "CdtDbtInd") is null ? Signed(entry) : Signed(d),
                    Reverses(entry)
                )
        );
    }

    private static FormatException Nameless((decimal Value, string Currency) amount) =>
        new(
            FormattableString.Invariant(
                $"A movement over {amount.Value:0.00} {amount.Currency} has no reference of the bank's: it could not be told from another."
            )
        );

    private static BankMovement One(
        XElement of,
        string account,
        string statement,
        string reference,
        DateOnly day,
        (decimal Value, string Currency) amount,
        int sign,
        bool reverses
    )
    {
        var payer = sign > 0 != reverses ? "Dbtr" : "Cdtr";
        var end = of.Descendants().FirstOrDefault(e => e.Name.LocalName == "EndToEndId")?.Value.Trim() ?? "";
        var words = of.Descendants()
            .Where(e =>
                e.Name.LocalName is "Ustrd" || (e.Name.LocalName == "Ref" && e.Parent!.Name.LocalName == "CdtrRefInf")
            )
            .Concat(of.Descendants().Where(e => e.Name.LocalName == "Nb" && e.Parent!.Name.LocalName == "RfrdDocInf"))
            .Select(e => e.Value.Trim());
        return new BankMovement(
            account,
            statement,
            reference,
            day,
            sign * amount.Value,
            amount.Currency,
            reverses,
            NameOf(of, payer),
            AccountOf(of.Descendants().FirstOrDefault(e => e.Name.LocalName == payer + "Acct")),
            end == NotGiven ? "" : end,
            string.Join(' ', words.Append(end == NotGiven ? "" : end).Where(w => w.Length > 0).Distinct())
        );
    }

    private static string? ReferenceIn(XElement details) =>
        details.Descendants().FirstOrDefault(e => e.Name.LocalName == "AcctSvcrRef")?.Value.Trim()
            is { Length: > 0 } found
            ? found
            : null;

    // Of a person or a company, in the shapes of all versions.
    private static string NameOf(XElement of, string party) =>
        of.Descendants()
            .FirstOrDefault(e => e.Name.LocalName == party)
            ?.Descendants()
            .FirstOrDefault(e => e.Name.LocalName == "Nm")
            ?.Value.Trim()
        ?? "";

    private static string AccountOf(XElement? account) =>
        account is null
            ? ""
            : (
                account.Descendants().FirstOrDefault(e => e.Name.LocalName == "IBAN")
                ?? account.Descendants().FirstOrDefault(e => e.Name.LocalName == "Id" && !e.HasElements)
            )?.Value.Trim() ?? "";

    private static (decimal Value, string Currency) AmountOf(XElement of, string what)
    {
        var amount =
            Find(of, "Amt")
            ?? of.Descendants().FirstOrDefault(e => e.Name.LocalName == "Amt")
            ?? throw new FormatException($"There is {what} without an amount.");
        var text = amount.Value.Trim();
        return
            decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value)
            && (amount.Attribute("Ccy")?.Value ?? "") is { Length: 3 } currency
            ? (value, currency)
            : throw new FormatException($"“{text}” is no amount of {what}.");
    }

    private static DateOnly DayOf(XElement entry)
    {
        var text = Deep(Find(entry, "BookgDt") ?? Find(entry, "ValDt")).Trim();
        return
            text.Length >= 10
            && DateOnly.TryParseExact(text[..10], "yyyy-MM-dd", CultureInfo.InvariantCulture, default, out var day)
            ? day
            : throw new FormatException($"“{text}” is no day of a movement.");
    }

    private static int Signed(XElement of) => Text(of, "CdtDbtInd") == "DBIT" ? -1 : 1;

    private static bool Reverses(XElement entry) => Text(entry, "RvslInd") == "true";

    private static XElement? Find(XElement of, string name) =>
        of.Elements().FirstOrDefault(e => e.Name.LocalName == name);

    private static string? Text(XElement of, string name) =>
        Find(of, name)?.Value.Trim() is { Length: > 0 } text ? text : null;

    private static string Deep(XElement? of) => of?.Value ?? "";
}
