using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>Whom and where the house may not deliver to, and what needs a licence or a certificate.</summary>
public sealed class RestrictionTests
{
    private static readonly ImmutableArray<Restriction> List =
    [
        new("", "QX", "list 1"),
        new("Kelder Maritime Trading", "NL", "list 2"),
        new("Ostrava Deepsea Holdings", "", "list 3"),
        new("Sundby Works", "DK", "list 4"),
        new("Orm", "NO", "list 5"),
    ];

    // same: it is they; alike: somebody has to look; empty: nobody.
    [Theory]
    [InlineData("Kelder Maritime Trading", "NL", "same")]
    [InlineData("KELDER MARITIME TRADING B.V.", "NL", "same")]
    [InlineData("Trading, Kelder-Maritime", "NL", "same")]
    [InlineData("Kelder Maritime Trading", "BE", "alike")]
    [InlineData("Kelder Maritime", "NL", "alike")]
    [InlineData("Kelder Maritime Trading and Storage", "NL", "alike")]
    [InlineData("Östrava Deepsea Holdings Ltd", "SE", "same")]
    [InlineData("Kelder", "NL", "")]
    [InlineData("Maritime Trading of Skerrow", "IE", "")]
    [InlineData("Orm", "NO", "same")]
    [InlineData("Orm Rigging", "NO", "")]
    [InlineData("GmbH & Co. KG", "DE", "")]
    [InlineData("", "NL", "")]
    public void Names_are_compared_by_their_words(string name, string country, string found)
    {
        var party = Restrictions.Party(name, country, List);
        Assert.Equal(
            found,
            party is null ? ""
                : party.IsSame ? "same"
                : "alike"
        );
    }

    private static Finding? Found(CheckFacts facts, string check) =>
        CheckList.Run(facts).FirstOrDefault(f => f.Check == check);

    [Fact]
    public void Nothing_goes_to_a_restricted_country_and_nobody_lets_it_pass()
    {
        var facts = CheckTests.Facts() with { Restrictions = List };
        Assert.Null(Found(facts, "export"));
        var there = facts with { Buyer = facts.Buyer with { Country = "QX" } };
        Assert.Equal((Outcome.Stop, WaiveBy.Nobody), (Found(there, "export")!.Outcome, Found(there, "export")!.Waive));
    }

    [Theory]
    [InlineData("Kelder Maritime Trading", WaiveBy.Nobody)]
    [InlineData("Kelder Maritime", WaiveBy.Lead)]
    public void Of_a_party_that_is_only_alike_somebody_decides(string name, WaiveBy by)
    {
        var facts = CheckTests.Facts() with { Restrictions = List };
        facts = facts with { Buyer = facts.Buyer with { Name = name, Country = "NL" } };
        Assert.Equal((Outcome.Stop, by), (Found(facts, "export")!.Outcome, Found(facts, "export")!.Waive));
        // The place that it goes to begins with whose it is.
        var place = CheckTests.Facts() with
        {
            Restrictions = List,
        };
        place = place with { Head = place.Head.With(HeadTerms.DeliverTo.Name, $"{name}, Pier 4, Rotterdam", null) };
        Assert.Equal(Outcome.Stop, Found(place, "export")!.Outcome);
    }

    [Theory]
    [InlineData("DE", "", false)]
    [InlineData("NO", "", true)]
    [InlineData("NO", "EX-2026-17", false)]
    public void What_needs_a_licence_leaves_the_Union_with_one(string country, string licence, bool stops)
    {
        var sheet = World.Sheet(World.Line(World.Shackle, 12m));
        var guarded = sheet.Lines[0] with { Item = World.Shackle with { ExportNote = "annex I, 6A" } };
        var facts = CheckTests.Facts(
            sheet with
            {
                Lines = [guarded],
                Sheet = sheet.Sheet with { DeliverToCountry = country },
            }
        );
        facts = facts with { Head = facts.Head.With(HeadTerms.Licence.Name, licence, null) };
        Assert.Equal(stops, Found(facts, "export") is { Outcome: Outcome.Stop });
    }

    [Fact]
    public void Whoever_takes_goods_only_with_a_certificate_gets_one_or_it_stops()
    {
        var sheet = World.Sheet(World.Line(World.Shackle, 12m));
        CheckFacts Of(string certificate, bool wants, bool serials = false)
        {
            var item = World.Shackle with { Certificate = certificate, HasSerials = serials };
            var facts = CheckTests.Facts(sheet with { Lines = [sheet.Lines[0] with { Item = item }] });
            return facts with { Buyer = facts.Buyer with { WantsCertificates = wants } };
        }
        Assert.Null(Found(Of("", wants: false), "papers"));
        Assert.Equal(
            (Outcome.Stop, WaiveBy.Lead),
            (Found(Of("", true), "papers")!.Outcome, Found(Of("", true), "papers")!.Waive)
        );
        Assert.Equal(Outcome.Notice, Found(Of("EN 10204 3.1", true), "papers")!.Outcome);
        Assert.Contains("serial", Found(Of("", false, serials: true), "papers")!.Words, StringComparison.Ordinal);
    }

    [Fact]
    public void A_prospect_is_stopped_by_each_thing_that_is_missing()
    {
        var facts = CheckTests.Facts();
        facts = facts with { Buyer = facts.Buyer with { IsProspect = true, TaxNumber = null, PaymentDays = null } };
        var stops = CheckList.Run(facts).Where(f => f.Check == "customer").ToList();
        Assert.Equal(["", "taxNumber", "paymentDays"], stops.Select(f => f.Field));
        Assert.All(stops, f => Assert.Equal("customer", Assert.Single(f.Cures).Action));
    }
}
