using CsCheck;
using Solvenda.Core.Buyers;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Core.Tests.Reading;

/// <summary>Whom a message is from: one clear sign settles it, contradicting signs never do silently.</summary>
public sealed class BuyerFinderTests
{
    private static readonly BuyerId Tressel = new(1);
    private static readonly BuyerId Norholm = new(2);
    private static readonly BuyerId Norholm2 = new(3);

    private static readonly ReadingContext Context = new(
        new ItemFinder([]),
        new Dictionary<BuyerId, string>
        {
            [Tressel] = "Tressel & Vane Rigging Ltd",
            [Norholm] = "Norholm Vaerft A/S",
            [Norholm2] = "Norholm Værft Syd",
        },
        [
            new BuyerSign(Tressel, "mail", "FIONN@TRESSELVANE.EXAMPLE"),
            new BuyerSign(Tressel, "domain", "tresselvane.example"),
            new BuyerSign(Tressel, "tax", "IE1"),
            new BuyerSign(Norholm, "gln", "5790000000012"),
            new BuyerSign(Norholm, "domain", "norholm.example"),
            new BuyerSign(Norholm2, "domain", "norholm.example"),
            new BuyerSign(Norholm2, "mail", "syd@norholm.example"),
        ],
        [],
        _ => []
    );

    private static Clue Clue(string kind, string value) => new(kind, value, [new Evidence(0, 0, value.Length)]);

    private static (Field<BuyerId> Buyer, BuyerId[] Candidates) Find(params Clue[] clues)
    {
        var (buyer, candidates) = BuyerFinder.Find(Context, clues);
        return (buyer, [.. candidates.Select(c => c.Buyer)]);
    }

    [Theory]
    [InlineData("mail", "fionn@tresselvane.example", 1)]
    [InlineData("mail", " Fionn@TresselVane.example ", 1)]
    [InlineData("domain", "tresselvane.example", 1)]
    [InlineData("tax", "ie1", 1)]
    [InlineData("gln", "5790000000012", 2)]
    [InlineData("name", "TRESSEL AND VANE RIGGING LIMITED", 1)]
    [InlineData("text", "Tressel Vane Rigging", 1)]
    [InlineData("preset", "3", 3)]
    public void One_sign_names_one_buyer(string kind, string value, long buyer)
    {
        var found = Find(Clue(kind, value));
        Assert.Equal(new BuyerId(buyer), found.Buyer.Value);
        Assert.True(found.Buyer.Sure >= 0.6m);
        Assert.Equal(value.Length, Assert.Single(found.Buyer.Evidence).Length);
        Assert.Empty(found.Candidates);
    }

    [Theory]
    [InlineData("mail", "somebody@else.example")]
    [InlineData("domain", "mail.example")]
    [InlineData("name", "Norholm")]
    [InlineData("preset", "one")]
    [InlineData("mail", "")]
    public void What_nobody_carries_names_nobody(string kind, string value) =>
        Assert.Equal(0m, Find(Clue(kind, value)).Buyer.Sure);

    [Fact]
    public void A_sign_that_two_carry_is_weak_and_both_are_shown()
    {
        var found = Find(Clue("domain", "norholm.example"));
        Assert.True(found.Buyer.Sure <= 0.4m);
        Assert.Equal([Norholm, Norholm2], found.Candidates);
        // The address settles it.
        var settled = Find(Clue("domain", "norholm.example"), Clue("mail", "syd@norholm.example"));
        Assert.Equal((Norholm2, 0), (settled.Buyer.Value, settled.Candidates.Length));
    }

    [Fact]
    public void Two_strong_signs_for_different_buyers_are_a_question()
    {
        var found = Find(Clue("mail", "fionn@tresselvane.example"), Clue("gln", "5790000000012"));
        Assert.Equal(0.4m, found.Buyer.Sure);
        Assert.Equal([Tressel, Norholm], found.Candidates);
        Assert.Contains("but", found.Buyer.How, StringComparison.Ordinal);
    }

    [Fact]
    public void What_a_person_said_goes_before_every_sign()
    {
        var found = Find(Clue("preset", "2"), Clue("mail", "fionn@tresselvane.example"), Clue("tax", "IE1"));
        Assert.Equal((Norholm, 0), (found.Buyer.Value, found.Candidates.Length));
    }

    [Fact]
    public void Signs_that_agree_make_it_surer_and_their_order_is_no_matter() =>
        Gen.Shuffle(
                new[]
                {
                    Clue("mail", "fionn@tresselvane.example"),
                    Clue("domain", "tresselvane.example"),
                    Clue("name", "Tressel & Vane Rigging"),
                    Clue("domain", "nobody.example"),
                }
            )
            .Sample(clues =>
            {
                var found = Find([.. clues]);
                Assert.Equal((Tressel, 0.99m), (found.Buyer.Value, found.Buyer.Sure));
            });

    [Theory]
    [InlineData("Tressel & Vane Rigging Ltd", "tressel vane rigging")]
    [InlineData("TRESSEL AND VANE RIGGING LIMITED", "tressel vane rigging")]
    [InlineData("Hafen- und Yachtbedarf Möwe GmbH & Co. KG", "hafen und yachtbedarf mowe")]
    [InlineData("The O’Grady Chandlery", "ogrady chandlery")]
    [InlineData("", "")]
    public void A_name_is_compared_without_its_form(string name, string plain) =>
        Assert.Equal(plain, BuyerFinder.Plain(name));
}
