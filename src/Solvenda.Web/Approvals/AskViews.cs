using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Web.Credit;

namespace Solvenda.Web.Approvals;

/// <summary>Puts together what somebody decides an ask on.</summary>
public sealed class AskViews(AskLoader asks, Judge judge, PriceBooks books, HouseClock clock)
{
    private const int MostLines = 8;
    private const int MostItems = 3;

    public async Task<AskView> OfAsync(SolvendaDb db, long id, Actor who, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(who);
        var ask = await SeenAsync(db, id, who, cancel);
        if (ask.Sheet is not { } open)
            return await AskChanges.OfAsync(db, ask, who, books, clock, cancel);
        var (row, me) = (ask.Row, who.Hand.Person);
        var judged = await judge.JudgeAsync(db, open, open.Owner.Hand, cancel);
        var (hand, authority) = HandOf(ask);
        var mine = row.Outcome == AskOutcome.Waiting && ask.WhyNot(me, judged.Approval) is null;
        var (causes, plain) = (Causes(ask, judged, authority), Plain(judged));
        var waiting = await AskRounds.WaitingAsync(db, who.PersonId, cancel);
        var lines = LinesOf(judged, causes);
        return new AskView(
            row.Id,
            row.Subject,
            open.Number,
            ask.Path,
            ask.IsOfCredit ? OfCredit(row.AskedByName, ask, judged) : Sentence(row.HandName, open, causes),
            Yours(ask, hand, mine),
            row.HandName,
            row.HandName.Split(' ')[0],
            row.AskedByName,
            open.Owner.Name,
            ask.Holders,
            row.Outcome,
            UpTo(row),
            row.Why,
            row.Note,
            row.AskedAt,
            row.DueAt,
            row.Urgent,
            row.Question,
            May(ask, me, mine),
            open.Sheet.Currency,
            [.. ask.Fired.Select(f => f.Words)],
            AskRulers.Of(ask, judged, plain, authority, DecidersAuthority(ask, me)),
            [.. lines.Take(MostLines)],
            new AskMore(Math.Max(0, lines.Count - MostLines), lines.Skip(MostLines).Sum(l => l.Earns ?? 0m)),
            await ItemsAsync(db, ask, judged, causes, cancel),
            (plain.Tally.TotalWithoutTax - judged.Priced.Tally.TotalWithoutTax).Value,
            judged.Priced.Tally.Margin.Value,
            judged.Priced.Tally.TotalWithoutTax.Value,
            open.Buyer.Name,
            open.Buyer.Id,
            ask.IsOfCredit ? await CreditViews.OfOrderAsync(db, judged, cancel) : null,
            [],
            await AskStandings.OfBuyerAsync(db, open, clock, cancel),
            await AskStandings.OfHandAsync(db, row.HandId, clock.Today, cancel),
            AskRulers.Instead(causes, judged, authority),
            AskRounds.SinceLast(ask),
            AskRounds.Steps(ask),
            await AskRounds.SaidAsync(db, row, cancel),
            await AskRounds.FilesAsync(db, open, cancel),
            mine ? [.. PassOnAskAct.To(ask, judged.Approval, me, clock.Today).Select(ToOf)] : [],
            waiting,
            PlaceOf(waiting, id)
        );
    }

    private async Task<OpenAsk> SeenAsync(SolvendaDb db, long id, Actor who, CancellationToken cancel)
    {
        var ask = await asks.AskAsync(db, id, cancel);
        return MaySee(ask, who)
            ? ask
            : throw RefusedException.Forbidden("That ask is between those who asked it and those who decide it.");
    }

    private static (Decider? Hand, Authority Authority) HandOf(OpenAsk ask) =>
        ask.Row.HandId is { } id && ask.People.TryGetValue(new PersonId(id), out var person)
            ? (person, person.Authority)
            : (null, Authority.None);

    private static string UpTo(Data.Rows.AskRow row) =>
        row.UpTo is { } most ? FigureList.Of(row.UpToFigure).Show(most) : "";

    internal static AskPlace PlaceOf(List<AskBeside> waiting, long id) =>
        new(
            waiting.FindIndex(w => w.Id == id) + 1,
            waiting.Count,
            waiting
                .SkipWhile(w => w.Id != id)
                .Skip(1)
                .Concat(waiting)
                .Where(w => w.Id != id)
                .Select(w => (long?)w.Id)
                .FirstOrDefault()
        );

    internal static AskMay May(OpenAsk ask, PersonId? me, bool mine)
    {
        var waits = ask.Row.Outcome == AskOutcome.Waiting;
        return new AskMay(
            mine,
            ask.GoesOn,
            waits && me is { } id && ask.Involved.Contains(id),
            waits && (me?.Value == ask.Row.AskedById || me == ask.Owner)
        );
    }

    // Whom it is about and who decides such things; what others sell is not everybody's to read.
    private static bool MaySee(OpenAsk ask, Actor who) =>
        who.Hand.Person is { } me
        && (
            ask.IsHeldBy(me)
            || ask.Row.DecidedById == me.Value
            || ask.Involved.Contains(me)
            || (who.Roles & (Roles.Lead | Roles.Credit)) != Roles.None
        );

    internal static AskTo ToOf(Decider d) => new(d.Id.Value, d.Name);

    private static Authority DecidersAuthority(OpenAsk ask, PersonId? me) =>
        me is { } id && !ask.Involved.Contains(id) && ask.Open.People.TryGetValue(id, out var person)
            ? person.Authority
            : ask
                .Row.Holders.Select(h => ask.Open.People[new PersonId(h.PersonId)].Authority)
                .FirstOrDefault(Authority.None);

    private static string Yours(OpenAsk ask, Decider? hand, bool mine)
    {
        var fired = ask.Fired.FirstOrDefault(f => f.Figure != "floor");
        var ends =
            fired is not null && hand is not null && FigureList.Of(fired.Figure) is var figure
                ? figure.LimitOf(hand.Authority) is { } limit
                    ? $", {hand.Name.Split(' ')[0]} may go to {figure.Show(limit)}"
                    : $", {hand.Name.Split(' ')[0]} may decide none of it alone"
                : "";
        if (mine)
            return $"Yours to decide{ends}.";
        var who = ask.Holders;
        return ask.Row.Outcome == AskOutcome.Waiting ? $"{who} has it{ends}." : $"It was with {who}{ends}.";
    }

    private static List<PricedLine> Causes(OpenAsk ask, Judged judged, Authority hand) =>
        [
            .. judged.Priced.Sold.Where(l =>
                l.HasPrice && Caused(l, ask.Row.HandId) && !Headroom.Allows(hand, LineMoney.Of(l))
            ),
        ];

    private static bool Caused(PricedLine line, long? hand) =>
        line.Line.ByHand.Kind == ByHandKind.None
        || line.Line.ByHand.By?.Person?.Value == hand
        || line.Line.AlsoBy.Any(h => h.Person?.Value == hand);

    // What causes it comes first.
    private static List<AskLine> LinesOf(Judged judged, List<PricedLine> causes) =>
        [
            .. judged
                .Priced.Sold.OrderByDescending(causes.Contains)
                .Select(l => new AskLine(
                    l.Line.Key,
                    l.Item?.Code ?? "",
                    l.Line.Words,
                    Quantity(l),
                    l.HasPrice ? l.Figures.NetPrice : null,
                    l.DiscountPercent,
                    l.Figures.Cost is { } cost ? (l.Figures.Earned - cost).Value : null,
                    LineMoney.Of(l).MarginPercent,
                    causes.Contains(l)
                )),
        ];

    private static string Quantity(PricedLine line) =>
        string.Create(CultureInfo.InvariantCulture, $"{line.Line.Quantity:#,0.##} {UnitTable.OnSheet(line.Line.Unit)}")
            .Trim();

    private async Task<List<AskItem>> ItemsAsync(
        SolvendaDb db,
        OpenAsk ask,
        Judged judged,
        List<PricedLine> causes,
        CancellationToken cancel
    )
    {
        var items = new List<AskItem>();
        if (ask.IsOfCredit)
            return items;
        // Where no line causes it (terms, freight, the value), the dearest lines are what there is to know.
        var about =
            causes.Count > 0
                ? causes
                : [.. judged.Priced.Sold.Where(l => l.HasPrice).OrderByDescending(l => l.Figures.Net.Minor)];
        foreach (var line in about.Take(MostItems))
            items.Add(await AskItems.OfAsync(db, ask.Open, line, clock.UtcNow, cancel));
        return items;
    }

    // The same sheet with nothing given by hand.
    private static PricedSheet Plain(Judged judged) =>
        SheetPricer.Price(
            judged.Open.Book,
            judged.Priced.Rates,
            judged.Priced.Buyer,
            judged.Priced.Sheet with
            {
                Lines = [.. judged.Priced.Sheet.Lines.Select(l => l with { ByHand = ByHand.None })],
                Discount = SheetDiscount.None,
                Charges = [],
            }
        );

    private static string OfCredit(string asker, OpenAsk ask, Judged judged)
    {
        var fired = ask.Fired.Select(f => f.Figure).ToHashSet();
        var at = judged.Facts.Credit!;
        List<string> because = [];
        if (fired.Contains("credit"))
            because.Add(
                at.Stop switch
                {
                    Core.Credit.CreditStop.Blocked => "who is blocked",
                    Core.Credit.CreditStop.NoLimit => "who has no limit",
                    Core.Credit.CreditStop.Ended => "whose limit has ended",
                    _ => string.Create(
                        CultureInfo.InvariantCulture,
                        $"{at.Excess.Value:#,0.00} {at.Excess.Currency.Code} over the limit"
                    ),
                }
            );
        if (fired.Contains("overdue"))
            because.Add(FormattableString.Invariant($"whose oldest invoice is {at.OverdueDays} days overdue"));
        return $"{asker} asks to confirm {ask.Open.Number} for {ask.Open.Buyer.Name}, {string.Join(" and ", because)}.";
    }

    private static string Sentence(string hand, OpenSheet open, List<PricedLine> causes)
    {
        if (causes is not [var l])
            return causes.Count > 1
                ? $"{hand} asks to sell {causes.Count} items to {open.Buyer.Name} at less than may be given alone."
                : $"{hand} asks to sell to {open.Buyer.Name} as it stands.";
        var less =
            l.DiscountPercent > 0
                ? string.Create(CultureInfo.InvariantCulture, $"{l.DiscountPercent:0.##} % less: ")
                : "";
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{hand} asks to sell {l.Line.Words} to {open.Buyer.Name} at {less}{l.Figures.NetPrice:0.0000} {open.Sheet.Currency} {AskItems.Per(l)}."
        );
    }
}
