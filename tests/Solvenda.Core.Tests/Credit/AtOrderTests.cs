using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Tests.Ordering;
using Xunit;

namespace Solvenda.Core.Tests.Credit;

/// <summary>
/// What an order adds to what its buyer owes: why it is not covered, what would help, and who is asked.
/// </summary>
public sealed class AtOrderTests
{
    private static readonly DateOnly Day = new(2026, 12, 1);

    private static readonly Decider Controller = new(
        new PersonId(31),
        "Ephraim Stroud",
        new PersonId(32),
        Authority.None with
        {
            CreditOver = 500m,
        }
    );

    private static readonly Decider Director = new(
        new PersonId(32),
        "Wilhelmina Oduya",
        null,
        Authority.None with
        {
            CreditOver = Authority.AnyValue,
        }
    );

    private static readonly ImmutableArray<Policy> Asked =
    [
        new("credit", "credit", RouteKind.Named) { Named = [Controller.Id] },
        new("overdue", "overdue", RouteKind.Named) { Named = [Controller.Id] },
    ];

    private static Amount Eur(decimal value) => Amount.Round(value, World.Eur);

    private static CreditStanding Owes(decimal limit, decimal open, int overdue = 0) =>
        new(Eur(limit), Eur(open), Eur(0m), Eur(0m), Eur(0m), Eur(0m), overdue, 7);

    private static Judgement Judge(CreditAtOrder? credit, DateOnly? day = null, params MadeAsk[] asks) =>
        Judgement.Of(
            World.Sheet(World.Line(World.Shackle, 12m)),
            new JudgedBy(
                Head.Empty,
                World.Seller.Hand,
                World.Seller,
                new[] { World.Seller, World.Lead, Controller, Director }.ToDictionary(p => p.Id),
                [.. asks],
                AsAccepted: true
            )
            {
                Day = day ?? Day,
                Policies = Asked,
                Credit = credit,
            }
        );

    private static PolicyNeed Need(CreditAtOrder credit, string figure, DateOnly? day = null, params MadeAsk[] asks) =>
        Assert.Single(Judge(credit, day, asks).Needs.SelectMany(n => n.Policies), p => p.Policy.Figure == figure);

    private static IEnumerable<string?> Route(PolicyNeed need) => need.Route.Select(s => s.Names);

    [Theory]
    [InlineData(1_000, 600, 400, CreditStop.None, 0)]
    [InlineData(1_000, 600, 400.01, CreditStop.Over, 0.01)]
    [InlineData(1_000, 1_200, 0, CreditStop.Over, 200)]
    public void The_last_cent_decides(decimal limit, decimal open, decimal order, CreditStop stop, decimal excess)
    {
        var at = new CreditAtOrder(Owes(limit, open), Eur(order), 1m);
        Assert.Equal(stop, at.Stop);
        Assert.Equal(Eur(excess), at.Excess);
    }

    [Fact]
    public void Without_a_limit_the_money_has_to_be_there()
    {
        CreditAtOrder At(decimal deposits) =>
            new(Owes(0m, 0m) with { HasLimit = false, Deposits = Eur(deposits) }, Eur(300m), 1m);
        Assert.Equal((CreditStop.NoLimit, Eur(300m)), (At(0m).Stop, At(0m).Excess));
        Assert.Equal((CreditStop.NoLimit, Eur(100m)), (At(200m).Stop, At(200m).Excess));
        Assert.Equal(CreditStop.None, At(300m).Stop);
        // Whatever else they owe, this order is what is decided on.
        var more = new CreditAtOrder(Owes(0m, 5_000m) with { HasLimit = false }, Eur(300m), 1m);
        Assert.Equal(Eur(300m), more.Excess);
    }

    [Fact]
    public void A_limit_that_ended_is_none_and_who_is_blocked_is_blocked_with_money_too()
    {
        var ended = new CreditAtOrder(Owes(9_000m, 0m) with { Ended = true }, Eur(10m), 1m);
        Assert.Equal((CreditStop.Ended, Eur(10m)), (ended.Stop, ended.Excess));
        var blocked = ended with
        {
            Standing = ended.Standing with { Blocked = "cheques came back", Deposits = Eur(900m) },
        };
        Assert.Equal((CreditStop.Blocked, Eur(10m)), (blocked.Stop, blocked.Excess));
    }

    [Fact]
    public void Authority_is_measured_in_home_currency_rounded_up()
    {
        var at = new CreditAtOrder(Owes(1_000m, 1_000m), Eur(100m), 0.085m);
        Assert.Equal(9m, at.ExcessHome);
    }

    [Fact]
    public void Each_offer_brings_it_back_under_the_limit_or_leaves_what_they_owe_as_it_is() =>
        Gen.Select(Gen.Long[0, 1_000_000], Gen.Long[0, 1_000_000], Gen.Long[1, 1_000_000])
            .Sample(
                (limit, open, order) =>
                {
                    Amount Minor(long m) => Amount.FromMinor(m, World.Eur);
                    var standing = Owes(0m, 0m) with { Limit = Minor(limit), OpenInvoices = Minor(open) };
                    var at = new CreditAtOrder(standing, Minor(order), 1m);
                    var offers = CreditOffers.Of(at, Day);
                    Assert.Equal(at.Stop == CreditStop.None, offers.IsEmpty);
                    foreach (var offer in offers)
                    {
                        Assert.True(offer.Amount.Minor > 0 && offer.Amount <= at.ThisOrder);
                        Assert.True(offer.Exposure == (offer.Code == "advance" ? standing.Exposure : standing.Limit));
                    }
                }
            );

    [Fact]
    public void Waiting_helps_from_the_day_that_enough_falls_due_and_they_pay_as_they_do()
    {
        var standing = Owes(1_000m, 900m) with
        {
            DaysLate = 4.2m,
            Invoices =
            [
                new OpenInvoice("F-2", "", new DateOnly(2026, 12, 20), Eur(500m)),
                new OpenInvoice("F-1", "", new DateOnly(2026, 12, 10), Eur(400m)),
            ],
        };
        string Wait(decimal order) =>
            CreditOffers
                .Of(new CreditAtOrder(standing, Eur(order), 1m), Day)
                .Where(o => o.Code == "wait")
                .Select(o => o.Words)
                .SingleOrDefault("never");
        Assert.Contains("15 Dec", Wait(500m), StringComparison.Ordinal);
        Assert.Contains("25 Dec", Wait(501m), StringComparison.Ordinal);
        Assert.Equal("never", Wait(1_001m));
    }

    [Fact]
    public void Invoices_fall_into_ages_by_the_day()
    {
        OpenInvoice Due(int daysAgo) => new("F", "", Day.AddDays(-daysAgo), Eur(1m));
        var ages = (
            Owes(0m, 0m) with
            {
                Invoices = [Due(-1), Due(0), Due(1), Due(30), Due(31), Due(60), Due(61)],
            }
        ).Aged(Day);
        Assert.Equal(new OpenAges(Eur(2m), Eur(2m), Eur(2m), Eur(1m)), ages);
    }

    [Fact]
    public void What_an_insurer_does_not_cover_is_the_houses_own_risk()
    {
        Assert.Equal(Eur(700m), Owes(0m, 700m).Uninsured);
        Assert.Equal(Eur(100m), (Owes(0m, 700m) with { Insured = Eur(600m) }).Uninsured);
        Assert.Equal(Eur(0m), (Owes(0m, 700m) with { Insured = Eur(800m) }).Uninsured);
    }

    [Fact]
    public void Credit_control_is_asked_as_far_as_it_may_and_whoever_is_above_beyond()
    {
        Assert.Equal(["Ephraim Stroud"], Route(Need(new(Owes(1_000m, 1_000m), Eur(500m), 1m), "credit")));
        Assert.Equal(["Wilhelmina Oduya"], Route(Need(new(Owes(1_000m, 1_000m), Eur(501m), 1m), "credit")));
        Assert.Equal(["Ephraim Stroud"], Route(Need(new(Owes(9_000m, 0m, overdue: 8), Eur(1m), 1m), "overdue")));
        Assert.Empty(Judge(new(Owes(9_000m, 0m, overdue: 7), Eur(1m), 1m)).Needs);
        Assert.Empty(Judge(null).Needs);
    }

    [Fact]
    public void What_they_owe_can_be_a_condition_of_what_somebody_typed()
    {
        var sheet = World.Sheet(
            World.Line(World.Shackle, 12m, new ByHand(ByHandKind.DiscountPercent, 60m, World.Seller.Hand))
        );
        IEnumerable<string> Firing(CreditAtOrder? credit) =>
            Judgement
                .Of(
                    sheet,
                    new JudgedBy(
                        Head.Empty,
                        World.Seller.Hand,
                        World.Seller,
                        new[] { World.Seller, World.Lead, Controller, Director }.ToDictionary(p => p.Id),
                        []
                    )
                    {
                        Day = Day,
                        Policies =
                        [
                            new Policy("given-and-owed", "discount", RouteKind.FirstAble)
                            {
                                When = [new PolicyCondition("credit", true, 100m)],
                            },
                        ],
                        Credit = credit,
                    }
                )
                .Needs.SelectMany(n => n.Policies)
                .Select(p => p.Policy.Code);
        Assert.Single(Firing(new(Owes(1_000m, 1_000m), Eur(101m), 1m)));
        Assert.Empty(Firing(new(Owes(1_000m, 1_000m), Eur(100m), 1m)));
        Assert.Empty(Firing(null));
    }

    [Fact]
    public void A_grant_of_credit_covers_no_more_and_no_longer()
    {
        CreditAtOrder Over(decimal by) => new(Owes(1_000m, 1_000m), Eur(by), 1m);
        var asked = Judge(Over(300m)).Needs.Single();
        var granted = new MadeAsk(AskOutcome.Granted, asked.Shown, ["credit"], [Controller.Id]) { Until = Day };
        Assert.Equal(ApprovalState.Granted, Need(Over(300m), "credit", Day, granted).State);
        Assert.Equal(ApprovalState.Granted, Need(Over(299m), "credit", Day, granted).State);
        Assert.Equal(ApprovalState.Needed, Need(Over(301m), "credit", Day, granted).State);
        Assert.Equal(ApprovalState.Needed, Need(Over(300m), "credit", Day.AddDays(1), granted).State);
        var less = granted with { Shown = asked.Shown.UpTo("credit", 200m) };
        Assert.Equal(ApprovalState.Granted, Need(Over(200m), "credit", Day, less).State);
        Assert.Equal(ApprovalState.Needed, Need(Over(201m), "credit", Day, less).State);
        // A grant of something else is none of credit.
        Assert.Equal(
            ApprovalState.Needed,
            Need(Over(300m), "credit", Day, granted with { Policies = ["discount"] }).State
        );
    }

    [Fact]
    public void A_block_is_for_who_set_it_and_nothing_let_pass_before_answers_it()
    {
        var over = new CreditAtOrder(Owes(1_000m, 1_000m), Eur(300m), 1m);
        var blocked = over with { Standing = over.Standing with { Blocked = "cheques came back" } };
        Assert.Empty(Judge(blocked).Needs);
        var facts = CheckTests.Facts() with { Credit = over };
        Finding Of(CreditAtOrder at, params Waiver[] waivers) =>
            CheckList.Run(facts with { Credit = at, Waivers = [.. waivers] }).Single(f => f.Check == "credit");
        Waiver Let(Finding f) => new("credit", null, f.Fingerprint, 9_999m, "Ephraim", "once") { Until = Day };
        Assert.Equal(Outcome.Notice, Of(over, Let(Of(over))).Outcome);
        Assert.Equal(Outcome.Stop, Of(blocked, Let(Of(over))).Outcome);
        Assert.Equal(Outcome.Notice, Of(blocked, Let(Of(blocked))).Outcome);
        Assert.Equal(Outcome.Stop, Of(over, Let(Of(blocked))).Outcome);
    }

    [Fact]
    public void A_price_typed_over_an_agreement_is_measured_against_what_is_agreed()
    {
        var line = World.Line(World.Braid, 180m, new ByHand(ByHandKind.NetPrice, 99m, World.Seller.Hand));
        var priced = World.Sheet(line).Sold.Single();
        var money = LineMoney.Of(priced);
        var agreed = priced.Build.Steps.Any(s => s.Kind == StepKind.Agreement);
        Assert.True(agreed, "the world's braid is under an agreement");
        var expected = decimal.Round((99m - priced.Build.Base!.Value.Value) * 100m / priced.Build.Base.Value.Value, 2);
        Assert.Equal(expected, money.OverAgreedPercent);
        Assert.Equal(0m, LineMoney.Of(World.Sheet(World.Line(World.Braid, 180m)).Sold.Single()).OverAgreedPercent);
    }
}
