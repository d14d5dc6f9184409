using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;
using Xunit;

namespace Solvenda.Core.Tests.Billing;

/// <summary>What sellers earn on what is invoiced.</summary>
public sealed class CommissionTests
{
    private static readonly PersonId Quill = new(4);
    private static readonly PersonId Paz = new(2);
    private static readonly DateOnly Day = new(2026, 11, 28);

    private static Amount Eur(decimal value) => Amount.Round(value, Currency.Of("EUR"));

    private static CommissionPlan Plan(
        string name,
        PersonId? seller = null,
        PersonId? lead = null,
        DateOnly? until = null,
        string shares = "",
        decimal percent = 3m
    ) => new(name, seller, lead, CommissionOn.Net, percent, CommissionShares.Read(shares), null, until);

    [Fact]
    public void The_plan_that_knows_most_of_the_seller_counts()
    {
        var (all, team, own) = (Plan("all"), Plan("team", lead: Paz), Plan("own", seller: Quill));
        Assert.Equal("own", Commission.PlanFor([all, team, own], Quill, Paz, Day)!.Name);
        Assert.Equal("team", Commission.PlanFor([all, team, own], new PersonId(5), Paz, Day)!.Name);
        Assert.Equal("all", Commission.PlanFor([all, team, own], new PersonId(6), null, Day)!.Name);
        Assert.Equal(
            "team",
            Commission.PlanFor([team, Plan("own", Quill, until: Day.AddDays(-1))], Quill, Paz, Day)!.Name
        );
        Assert.Null(Commission.PlanFor([team], Quill, null, Day));
    }

    [Theory]
    [InlineData("", "Sorcha Quill 3.00")]
    [InlineData("seller 70; Leandro Paz 30", "Sorcha Quill 2.10, Leandro Paz 0.90")]
    [InlineData("A 33.33; B 33.33; C 33.34", "A 1.00, B 1.00, C 1.00")]
    public void Shares_come_to_the_whole(string shares, string earned)
    {
        var parts = Commission.Of(Plan("p", shares: shares), "Sorcha Quill", Eur(100m));
        Assert.Equal(
            earned,
            string.Join(", ", parts.Select(p => FormattableString.Invariant($"{p.Name} {p.Amount.Value:0.00}")))
        );
        foreach (var basis in new[] { 0.01m, 33.37m, -512.77m, 1_000_000.01m })
            Assert.Equal(
                Eur(basis * 0.03m),
                Amount.Sum(
                    Commission.Of(Plan("p", shares: shares), "S", Eur(basis)).Select(p => p.Amount),
                    Currency.Of("EUR")
                )
            );
    }

    [Theory]
    [InlineData("seller 70; Leandro Paz 20")]
    [InlineData("seller 50; seller 50")]
    [InlineData("seller")]
    [InlineData("seller -10; Paz 110")]
    public void Shares_that_are_not_the_whole_are_refused(string shares) =>
        Assert.Throws<FormatException>(() => CommissionShares.Read(shares));

    [Fact]
    public void Of_what_is_paid_it_is_earned_as_far_as_it_is()
    {
        Assert.Equal(Eur(2.5m), Commission.Earned(CommissionOn.Paid, Eur(10m), 75, 100));
        Assert.Equal(Eur(10m), Commission.Earned(CommissionOn.Paid, Eur(10m), 0, 100));
        Assert.Equal(Eur(10m), Commission.Earned(CommissionOn.Paid, Eur(10m), -5, 100));
        Assert.Equal(Eur(10m), Commission.Earned(CommissionOn.Net, Eur(10m), 100, 100));
    }

    [Fact]
    public void Parts_of_an_order_come_to_its_net_and_its_margin()
    {
        var whole = BillableSheet.Of(World.Sheet(World.Line(World.Braid, 100m), World.Line(World.Shackle, 10m)))!;
        var none = Amount.Zero(Currency.Of("EUR"));
        var first = BillRules.Invoice(whole.Billable, [], [30m, 4m], none);
        var last = BillRules.Invoice(whole.Billable, [first], [70m, 6m], none);
        Amount Basis(CommissionOn on) => CommissionBasis.Of(on, whole, first) + CommissionBasis.Of(on, whole, last);
        Assert.Equal(whole.Parts.Sum(p => p.Net.Value), Basis(CommissionOn.Net).Value);
        var margin = whole.Parts.Sum(p => p.Line.Figures.Margin!.Value.Value);
        Assert.InRange(Basis(CommissionOn.Margin).Value, margin - 0.02m, margin + 0.02m);
        // What goes back gives back what it earned.
        var back = BillRules.Credit(first, [], [30m, 4m], charges: false);
        Assert.Equal(
            CommissionBasis.Of(CommissionOn.Net, whole, first),
            CommissionBasis.Of(CommissionOn.Net, whole, back)
        );
    }
}
