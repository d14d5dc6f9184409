using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Figures;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Units;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

/// <summary>What policies look at when a buyer, a price, an agreement or a campaign is kept.</summary>
internal static class KeptFigures
{
    /// <summary>How far a limit is raised, and days to pay.</summary>
    public static Kept OfBuyer(BuyerRow buyer, KeptFacts facts)
    {
        var figures = ImmutableDictionary<string, decimal>.Empty;
        // A limit that begins to hold again, or that is unblocked, is given anew.
        var given =
            facts.Changed("creditLimit") || facts.Changed("creditUntil") || facts.Changed("currency") || New(facts);
        if (given && buyer.CreditLimitMinor is { } limit && Currency.TryOf(buyer.Currency, out var currency))
        {
            var raised =
                Amount.FromMinor(limit, currency).Value
                - (facts.Changed("creditUntil") ? 0m : Number(facts, "creditLimit"));
            var home = Core
                .Money.Rates.On(facts.Day, facts.Book.Home, facts.Book.DatedRates)
                .Convert(raised, currency, facts.Book.Home);
            if (home is null || home > 0)
                figures = figures.Add("limit-raised", home ?? WholeFigure.Unknown);
        }
        if ((facts.Changed("paymentDays") || New(facts)) && buyer.PaymentDays is { } days)
        {
            var more = days - Math.Max(facts.Book.UsualDays, Number(facts, "paymentDays"));
            if (more > 0)
                figures = figures.Add("days-kept", more);
        }
        return new Kept(figures, buyer.Id, buyer.Group);
    }

    /// <summary>How far under the floor a list price sells.</summary>
    public static Kept OfPrice(ListPriceRow price, KeptFacts facts)
    {
        if (
            !price.Active
            || facts.Book.Find(new ItemId(price.ItemId)) is not { } item
            || item.Factor(Unit.Of(price.Unit)) is not { } factor
            || price.PriceBase <= 0
            || !Currency.TryOf(price.Currency, out var currency)
        )
            return Kept.Nothing;
        return Of([item], RuleKind.Fixed, price.Price / price.PriceBase / factor, currency, facts);
    }

    /// <summary>How far under the floor an agreement sells at its best break.</summary>
    public static Kept OfAgreement(AgreementRow a, KeptFacts facts)
    {
        if (!a.Active || a.Breaks.Count == 0)
            return Kept.Nothing;
        var best = a.Kind == RuleKind.Fixed ? a.Breaks.Min(b => b.Value) : a.Breaks.Max(b => b.Value);
        return Of(Items(facts.Book, a.Scope, a.ItemId, a.Family), a.Kind, best, In(a.Currency, facts), facts) with
        {
            Buyer = a.BuyerId ?? 0,
            Group = a.Group,
        };
    }

    /// <summary>How far under the floor a campaign sells.</summary>
    public static Kept OfCampaign(CampaignRow c, KeptFacts facts) =>
        c.Active
            ? Of(Items(facts.Book, c.Scope, c.ItemId, c.Family), c.Kind, c.Value, In(c.Currency, facts), facts) with
            {
                Buyer = c.BuyerId ?? 0,
                Group = c.Group,
            }
            : Kept.Nothing;

    private static Kept Of(IReadOnlyList<Item> items, RuleKind kind, decimal value, Currency currency, KeptFacts facts)
    {
        var under = KeptPrice.UnderFloor(facts.Book, items, kind, value, currency, facts.Day);
        return new Kept(
            under > 0
                ? ImmutableDictionary<string, decimal>.Empty.Add("kept-floor", under)
                : ImmutableDictionary<string, decimal>.Empty,
            Families: [.. items.Select(i => i.Family).Distinct()]
        );
    }

    private static IReadOnlyList<Item> Items(PriceBook book, RuleScope scope, long? item, string? family) =>
        scope switch
        {
            RuleScope.Item => item is { } id && book.Find(new ItemId(id)) is { } one ? [one] : [],
            RuleScope.Family => [.. book.Items.Where(i => i.Family == family)],
            _ => [.. book.Items],
        };

    private static Currency In(string? code, KeptFacts facts) =>
        code is not null && Currency.TryOf(code, out var currency) ? currency : facts.Book.Home;

    private static bool New(KeptFacts facts) => facts.Changes.Count == 0;

    private static decimal Number(KeptFacts facts, string field) =>
        decimal.TryParse(facts.Before(field), NumberStyles.Number, CultureInfo.InvariantCulture, out var value)
            ? value
            : 0m;
}
