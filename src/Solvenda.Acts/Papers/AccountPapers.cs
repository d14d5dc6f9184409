using System.Collections.Immutable;
using Solvenda.Acts.Wordings;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Receiving;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Papers;

/// <summary>What is open of a buyer in one currency, as statements and reminders say it.</summary>
/// <param name="PoNumbers">Theirs, by the numbers of what is open; missing where there is none.</param>
/// <param name="Texts">What the house says on papers.</param>
public sealed record OpenAccount(
    BuyerRow Buyer,
    string Currency,
    ImmutableArray<OpenItemRow> Items,
    IReadOnlyDictionary<string, string> PoNumbers,
    ImmutableArray<PaperText> Texts
);

/// <summary>Statements of what is open, and reminders of what is late: their papers, and the letters they go
/// with.</summary>
public static class AccountPapers
{
    /// <param name="step">Which reminder; 0: a statement.</param>
    public static PrintedDocument Print(OpenAccount account, Seller seller, DateOnly today, int step)
    {
        ArgumentNullException.ThrowIfNull(account);
        ArgumentNullException.ThrowIfNull(seller);
        var buyer = account.Buyer;
        var wording = WordingOf(buyer);
        var paper = step == 0 ? PaperKind.Statement : PaperKind.Reminder;
        var decimals = Currency.Of(account.Currency).Decimals;
        string Money(long minor) => wording.Fixed(Amount.Major(minor, account.Currency), decimals);
        var late = account.Items.Where(i => i.OpenMinor > 0 && i.Due < today).Sum(i => i.OpenMinor);
        ImmutableArray<(string, string, bool)> totals =
        [
            .. late > 0 && step == 0
                ? [(wording.With("lateInAll", account.Currency), Money(late), false)]
                : Array.Empty<(string, string, bool)>(),
            (wording.With("openInAll", account.Currency), Money(account.Items.Sum(i => i.OpenMinor)), true),
        ];
        return new PrintedDocument(
            seller.Name,
            seller.Address,
            wording.TitleOf(paper),
            wording.Day(today),
            [buyer.Name, .. (buyer.BillTo ?? buyer.Address).Split(", ", StringSplitOptions.RemoveEmptyEntries)],
            string.IsNullOrEmpty(buyer.TaxNumber) ? [] : [(wording["yourTaxNumber"], buyer.TaxNumber)],
            "",
            account.Currency,
            [.. account.Items.Select((item, i) => Line(account, item, i + 1, wording, today, Money))],
            totals,
            [],
            step == 0 ? [] : [wording[$"letter.reminder{step}"]],
            string.Join(" · ", new[] { seller.Name, seller.Address[0], seller.Bank }.Where(t => t.Length > 0)),
            new PrintedLabels(wording["document"], wording["due"], "", "", "", "", wording["page"]),
            null
        )
            .On(seller)
            .Saying(account.Texts, paper, wording, buyer);
    }

    private static PrintedLine Line(
        OpenAccount account,
        OpenItemRow item,
        int no,
        Wording wording,
        DateOnly today,
        Func<long, string> money
    )
    {
        var late = Ageing.Late(item.Due, today);
        var said =
            item.Disputed.Length > 0 ? wording["underDiscussion"]
            : late > 0 && item.OpenMinor > 0 ? wording.With("daysLate", late)
            : "";
        return new PrintedLine(
            false,
            wording.Number(no),
            "",
            item.Number,
            account.PoNumbers.GetValueOrDefault(item.Number) is { } po ? $"{wording["yourPo"]} {po}" : "",
            wording.Day(item.Due),
            said,
            "",
            money(item.OpenMinor),
            false,
            ""
        );
    }

    /// <summary>The letter that it goes with.</summary>
    /// <param name="signedBy">Who writes it.</param>
    public static BuyerLetter Letter(BuyerRow buyer, Seller seller, DateOnly today, int step, string signedBy)
    {
        ArgumentNullException.ThrowIfNull(buyer);
        ArgumentNullException.ThrowIfNull(seller);
        var wording = WordingOf(buyer);
        var subject = step == 0 ? "letter.statementSubject" : $"letter.reminderSubject{step}";
        var words =
            step == 0 ? wording.With("letter.statement", wording.Day(today)) : wording[$"letter.reminder{step}"];
        var dear = wording.With("letter.dear", buyer.ContactName?.Split(' ')[0] ?? wording["letter.all"]);
        return new BuyerLetter(
            wording.With(subject, wording.Day(today)),
            $"{dear}\n\n{words}\n\n{wording["letter.regards"]}\n{signedBy}\n{seller.Name}"
        );
    }

    private static Wording WordingOf(BuyerRow buyer) => Wording.Of(buyer.Language);
}
