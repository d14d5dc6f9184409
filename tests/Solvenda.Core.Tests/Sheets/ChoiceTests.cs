using CsCheck;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Figures;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Tests.Ordering;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

/// <summary>Options, alternatives, charges, comments, and what else a line says of itself.</summary>
public sealed class ChoiceTests
{
    private static readonly Draft Start = new(
        Head.Empty.With("language", "en", null),
        [World.Line(World.Braid, 180m), World.Line(World.Shackle, 12m), World.Line(World.Splice, 2m)],
        100
    );

    private static Edited Take(Draft draft, params SheetEdit[] edits) => SheetDoor.Take(draft, edits, World.Door());

    private static Edited Set(long line, string field, string value) =>
        Take(Start, new SheetEdit(EditKind.Set, line, field, value));

    private static Draft With(params string[] typed) =>
        Take(Start with { Lines = [] }, [.. typed.Select(t => new SheetEdit(EditKind.Add, Value: t))]).Draft;

    private static PricedSheet Priced(Draft draft) => World.Sheet([.. draft.Lines]);

    private static string Counting(Draft draft) =>
        string.Join(' ', Priced(draft).Sold.Where(l => l.Counts).Select(l => l.Line.Key));

    [Fact]
    public void Of_alternatives_the_first_counts_until_one_is_taken()
    {
        var draft = With("SHK-BOW-10 x 12", "or SVC-EYE x 2", "or BB2-10-NV x 10", "? PS3-12-WH x 5", "PS3-16-BK x 1");
        Assert.Equal(["A", "A", "A", "", ""], draft.Lines.Select(l => l.OneOf));
        Assert.Equal("100 104", Counting(draft));
        var numbers = LineNumbers.Of(draft.Lines);
        Assert.Equal(["1a", "1b", "1c", "2", "3"], draft.Lines.Select(l => numbers[l.Key]));
        var taken = draft with { Lines = Choices.Take(draft.Lines, [101, 103]).Lines };
        Assert.Equal("101 103 104", Counting(taken));
        Assert.True(Choices.Differs(taken.Lines));
        var order = Choices.Settled(taken.Lines);
        Assert.Equal([101, 103, 104], order.Select(l => l.Key));
        Assert.DoesNotContain(order, l => l.Optional || l.OneOf.Length > 0 || l.Taken is not null);
    }

    [Fact]
    public void What_nobody_may_choose_is_refused_and_what_nobody_named_is_as_it_was()
    {
        var draft = With("SHK-BOW-10 x 12", "or SVC-EYE x 2", "BB2-10-NV x 10");
        Assert.Equal("choice", Choices.Take(draft.Lines, [102]).Refused?.Code);
        Assert.Equal("choice", Choices.Take(draft.Lines, [100, 101]).Refused?.Code);
        var asSent = Choices.Take(draft.Lines, []);
        Assert.Equal([true, false, null], asSent.Lines.Select(l => l.Taken));
        Assert.False(Choices.Differs(asSent.Lines));
    }

    [Fact]
    public void An_alternative_is_a_line_of_its_own_again_by_the_same_key_and_what_is_left_alone_is_no_choice()
    {
        var two = Take(Start, new SheetEdit(EditKind.Alternative, 2));
        Assert.Equal(["A", "A", ""], two.Draft.Lines.Select(l => l.OneOf));
        var more = Take(two.Draft, new SheetEdit(EditKind.Alternative, 3));
        Assert.Equal(["A", "A", "A"], more.Draft.Lines.Select(l => l.OneOf));
        var none = Take(two.Draft, new SheetEdit(EditKind.Alternative, 2));
        Assert.Equal(["", "", ""], none.Draft.Lines.Select(l => l.OneOf));
        Assert.Equal(
            two.Draft,
            SheetDoor.TakeBack(none.Draft, none.Changes, World.Door()).Draft with
            {
                Lines = two.Draft.Lines,
            }
        );
        Assert.NotNull(Take(Start, new SheetEdit(EditKind.Alternative, 1)).Refused);
        Assert.NotNull(
            SheetDoor
                .Take(Start, [new SheetEdit(EditKind.Alternative, 2)], World.Door(kind: DocumentKind.Order))
                .Refused
        );
    }

    [Fact]
    public void A_charge_is_taxed_and_takes_no_discount_no_part_of_the_margin_and_no_item()
    {
        var draft = Take(
            Start with
            {
                Lines = [World.Line(World.Shackle, 12m)],
            },
            new SheetEdit(EditKind.AddCharge, Value: "certificate x 2 @45")
        ).Draft;
        var sheet = World.Sheet(new SheetDiscount(10m, null), [.. draft.Lines]);
        var charge = sheet.Lines[1];
        Assert.Equal(("certificate", 90m), (charge.Line.Words, charge.Figures.Net.Value));
        Assert.True(charge.Figures.SheetDiscountShare.IsZero);
        Assert.Equal(
            (139.8m, 4.98m, 0),
            (sheet.Tally.Goods.Value, sheet.Tally.SheetDiscount.Value, sheet.Tally.LinesWithoutCost)
        );
        Assert.Equal(139.8m - 4.98m, Assert.Single(sheet.Tally.Taxes).Basis.Value);
        Assert.Equal(
            World.Sheet(new SheetDiscount(10m, null), World.Line(World.Shackle, 12m)).Tally.Margin,
            sheet.Tally.Margin
        );
        Assert.Null(new WithoutCost().Of(sheet));
        foreach (var field in new[] { "item", "discount", "margin", "cost" })
            Assert.NotNull(Take(draft, new SheetEdit(EditKind.Set, 100, field, "5")).Refused);
    }

    [Fact]
    public void A_comment_has_words_and_no_figures()
    {
        var draft = Take(
            Start,
            new SheetEdit(EditKind.AddComment, Value: "all of it galvanised"),
            new SheetEdit(EditKind.AddHeading, Value: "Ground tackle")
        ).Draft;
        var sheet = Priced(draft);
        Assert.Equal(3, sheet.Sold.Count());
        Assert.Equal(Priced(Start).Tally.TotalWithTax, sheet.Tally.TotalWithTax);
        Assert.NotNull(Take(draft, new SheetEdit(EditKind.Set, 100, "quantity", "5")).Refused);
        Assert.Equal(
            "hot-dip galvanised",
            Take(draft, new SheetEdit(EditKind.Set, 100, "words", "hot-dip galvanised")).Draft.Lines[3].Words
        );
    }

    [Fact]
    public void Under_a_heading_stands_what_counts_up_to_the_next()
    {
        var draft = Take(
            Start with
            {
                Lines = [],
            },
            new SheetEdit(EditKind.AddHeading, Value: "Rigging"),
            new SheetEdit(EditKind.Add, Value: "SHK-BOW-10 x 12"),
            new SheetEdit(EditKind.Add, Value: "? SVC-EYE x 2"),
            new SheetEdit(EditKind.AddHeading, Value: "Nothing yet")
        ).Draft;
        Assert.Equal([49.8m, 0m], Priced(draft).Subtotals().Values.Select(a => a.Value));
    }

    [Theory]
    [InlineData("inner", "they pay late", "they pay late")]
    [InlineData("job", "the Gannet", "the Gannet")]
    [InlineData("orderedBy", "Isla", "Isla")]
    [InlineData("shipFrom", "antwerp", "Antwerp")]
    [InlineData("deliverTo", "LOFT", "The Loft, Antwerp")]
    [InlineData("cost", "1.50 // bought at the fair", "1.5 // bought at the fair")]
    [InlineData("oneOf", "c", "C")]
    public void What_a_line_says_of_itself_is_kept_taken_back_and_put_in_again(string field, string value, string kept)
    {
        var set = Set(1, field, value);
        Assert.Equal(new FieldChange(1, field, null, kept), Assert.Single(set.Changes));
        var gone = Take(set.Draft, new SheetEdit(EditKind.Remove, 1));
        var again = SheetDoor.TakeBack(gone.Draft, gone.Changes, World.Door());
        Assert.Equal(set.Draft.Lines, again.Draft.Lines);
        Assert.Equal(Start.Lines, SheetDoor.TakeBack(set.Draft, set.Changes, World.Door()).Draft.Lines);
        Assert.Equal(Start.Lines, Take(set.Draft, new SheetEdit(EditKind.Set, 1, field, "")).Draft.Lines);
    }

    [Theory]
    [InlineData("shipFrom", "Oslo", "warehouse")]
    [InlineData("deliverTo", "the moon", "address_unknown")]
    [InlineData("cost", "1.50", "cost_why")]
    [InlineData("cost", "cheap // really", "number")]
    [InlineData("oneOf", "1", "choice")]
    public void What_a_line_cannot_say_is_refused_by_its_field(string field, string value, string code) =>
        Assert.Equal((code, field), (Set(1, field, value).Refused!.Code, Set(1, field, value).Refused!.Field));

    [Fact]
    public void A_line_that_goes_elsewhere_is_taxed_there()
    {
        var there = Priced(Set(1, "deliverTo", "LOFT").Draft);
        Assert.NotEqual(there.Lines[1].Terms.Tax, there.Lines[0].Terms.Tax);
    }

    [Fact]
    public void A_typed_cost_shows_a_margin_and_moves_no_policy_but_its_own()
    {
        var (plain, sheet) = (Priced(Start), Priced(Set(1, "cost", "1.10 // bought at the fair").Draft));
        var (line, was) = (sheet.Lines[0], plain.Lines[0]);
        Assert.True(line.TypedMarginPercent > LineMoney.Of(was).MarginPercent);
        Assert.Equal(
            (was.Figures.Margin, was.Floor, LineMoney.Of(was).MarginPercent),
            (line.Figures.Margin, line.Floor, LineMoney.Of(line).MarginPercent)
        );
        Assert.True(sheet.MarginAsTyped().Margin > plain.MarginAsTyped().Margin);
        // 180 m, 1.6242 by the catalogue and 1.10 as typed.
        Assert.Equal(94.36m, line.CostUnder);
        Assert.Equal(0m, Priced(Set(1, "cost", "1.90 // freight in").Draft).Lines[0].CostUnder);
        Judgement Judged(Authority authority) =>
            Judgement.Of(
                sheet,
                new JudgedBy(
                    Head.Empty,
                    World.Lead.Hand,
                    World.Lead,
                    new Dictionary<Solvenda.Core.People.PersonId, Decider>
                    {
                        [World.Seller.Id] = World.Seller with { Authority = authority },
                        [World.Lead.Id] = World.Lead with
                        {
                            Authority = World.Lead.Authority with { CostUnder = 1_000m },
                        },
                    },
                    []
                )
            );
        Assert.Equal("cost-under", Assert.Single(Assert.Single(Judged(World.Seller.Authority).Needs).Fired).Figure);
        Assert.Empty(Judged(World.Seller.Authority with { CostUnder = 95m }).Needs);
    }

    [Fact]
    public void A_margin_typed_beside_a_typed_cost_is_that_margin()
    {
        var draft = Take(
            Set(1, "cost", "1.10 // bought at the fair").Draft,
            new SheetEdit(EditKind.Set, 1, "margin", "40")
        ).Draft;
        Assert.Equal(40m, Priced(draft).Lines[0].TypedMarginPercent!.Value, 1);
    }

    // Often little or nothing: that is where the corners are.
    private static readonly Gen<EarnedFor> SomeMoney = Gen.OneOf(
        Gen.Select(Gen.Int[0, 50], Gen.Int[0, 60], (e, c) => new EarnedFor(e, c)),
        Gen.Select(Gen.Int[0, 2], Gen.Int[0, 2], (e, c) => new EarnedFor(e, c))
    );

    [Fact]
    public void The_worst_choice_is_the_worst_of_all_that_there_are() =>
        Gen.Select(SomeMoney.Array[0, 2], SomeMoney.Array[1, 3].Array[0, 2], SomeMoney.Array[0, 3])
            .Sample(
                (always, groups, options) =>
                {
                    static decimal Badness(EarnedFor m) =>
                        m.Earned > 0 ? m.Cost / m.Earned
                        : m.Cost > 0 ? decimal.MaxValue
                        : -1m;
                    IEnumerable<EarnedFor> all = [always.Aggregate(default(EarnedFor), (a, b) => a + b)];
                    foreach (var group in groups)
                        all = [.. all.SelectMany(a => group.Select(g => a + g))];
                    foreach (var option in options)
                        all = [.. all.SelectMany(a => new[] { a, a + option })];
                    Assert.Equal(all.Max(Badness), Badness(WorstChoice.Of(always, groups, options)));
                },
                iter: 20_000
            );

    [Theory]
    [InlineData(3, 3)]
    [InlineData(0, 4)]
    public void What_may_be_given_away_for_nothing_hides_no_alternative_to_it(int earned, int cost) =>
        Assert.Equal(
            new EarnedFor(earned, cost),
            WorstChoice.Of(
                [],
                [
                    [new EarnedFor(0, 0), new EarnedFor(earned, cost)],
                ],
                []
            )
        );

    [Fact]
    public void Policies_look_at_the_dearest_of_alternatives()
    {
        var draft = With("SHK-BOW-10 x 12", "or SHK-BOW-10 x 1000", "or SHK-BOW-10 x 2");
        Assert.Equal(4_150m, new SheetValue().Of(Priced(draft)));
        Assert.Equal(49.8m, Priced(draft).Tally.Goods.Value);
    }

    [Fact]
    public void A_charge_without_a_price_stops()
    {
        var draft = Take(Start, new SheetEdit(EditKind.AddCharge, Value: "certificate")).Draft;
        var sheet = Priced(draft);
        Assert.Contains(
            new PriceKnown().Run(CheckTests.Facts(sheet)),
            f => f is { Outcome: Outcome.Stop, Line: 100, Field: "net" }
        );
    }
}
