using System.Globalization;
using Solvenda.Acts.Lists;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

/// <summary>What a buyer may owe: for credit control and the administrator to set.</summary>
internal static class BuyerCredit
{
    private const Roles By = Roles.Admin | Roles.Credit;
    private const decimal Most = 10_000_000_000m;

    public static readonly Field<BuyerRow>[] Fields =
    [
        Money(
            "creditLimit",
            "credit limit",
            nameof(BuyerRow.CreditLimitMinor),
            b => b.CreditLimitMinor,
            (b, m) => b.CreditLimitMinor = m,
            "in their currency; empty: none is kept",
            inList: true
        ),
        Records.Fields.Date<BuyerRow>(b => b.CreditUntil, "limit until", hint: "the last day of the limit").OfMoney(By),
        Money(
            "creditInsured",
            "insured",
            nameof(BuyerRow.CreditInsuredMinor),
            b => b.CreditInsuredMinor,
            (b, m) => b.CreditInsuredMinor = m,
            "what an insurer covers, in their currency"
        ),
        new Field<BuyerRow>(
            "graceDays",
            "days of grace",
            FieldType.Whole,
            (b, _) => b.GraceDays.ToString(CultureInfo.InvariantCulture),
            SetGrace
        )
        {
            OnlyBy = By,
            Money = true,
            Hint = "overdue days before orders stop",
        },
        Records
            .Fields.Text<BuyerRow>(
                b => b.CreditBlocked,
                "blocked",
                hint: "why nothing is sold to them on credit; empty: they are not"
            )
            .OfMoney(By),
    ];

    private static Field<BuyerRow> Money(
        string name,
        string label,
        string property,
        Func<BuyerRow, long?> get,
        Action<BuyerRow, long?> set,
        string hint,
        bool inList = false
    ) =>
        new(
            name,
            label,
            FieldType.Number,
            (b, _) =>
                get(b) is { } m && Currency.TryOf(b.Currency, out var c)
                    ? Amount.FromMinor(m, c).Value.ToString(CultureInfo.InvariantCulture)
                    : "",
            (b, text, _) => Set(b, text, set)
        )
        {
            InList = inList,
            OnlyBy = By,
            Money = true,
            Hint = hint,
            Property = property,
            AddedBy = nameof(BuyerRow.Currency),
        };

    private static string? Set(BuyerRow buyer, string text, Action<BuyerRow, long?> set)
    {
        if (text.Length == 0)
        {
            set(buyer, null);
            return null;
        }
        if (!Currency.TryOf(buyer.Currency, out var currency))
            return "the currency comes first";
        if (Numbers.Read(text) is not { } limit || limit < 0 || limit > Most)
            return $"“{text}” is not an amount";
        set(buyer, Amount.Round(limit, currency).Minor);
        return null;
    }

    private static string? SetGrace(BuyerRow buyer, string text, References references)
    {
        if (
            !int.TryParse(text.Length == 0 ? "0" : text, NumberStyles.None, CultureInfo.InvariantCulture, out var days)
            || days > 365
        )
            return $"“{text}” is not a number of days";
        buyer.GraceDays = days;
        return null;
    }
}
