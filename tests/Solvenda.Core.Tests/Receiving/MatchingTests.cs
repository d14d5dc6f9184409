using CsCheck;
using Solvenda.Core.Receiving;
using Xunit;

namespace Solvenda.Core.Tests.Receiving;

/// <summary>Money that came finds what it is for, and what is in doubt is left.</summary>
public sealed class MatchingTests
{
    private static readonly DateOnly _due = new(2026, 12, 1);

    private static Owed Invoice(long id, string number, long buyer, long open, string currency = "EUR") =>
        new(id, number, $"S26-{id:00000}", buyer, currency, open, _due.AddDays((int)(id % 90)));

    private static readonly Owed[] _owed =
    [
        Invoice(1, "F26-00001", 1, 100_00),
        Invoice(2, "F26-00002", 1, 250_00),
        Invoice(3, "F26-00003", 2, 100_00),
        Invoice(4, "F26-00004", 2, 100_00),
        Invoice(5, "F26-00005", 3, 80_00, "GBP"),
        Invoice(6, "F26-00006", 4, 0),
    ];

    private static Match Of(
        long minor,
        string words,
        string payer = "",
        string account = "",
        string currency = "EUR"
    ) =>
        new Matching(
            _owed,
            new Dictionary<string, long> { ["IE12ABCD"] = 2 },
            [("Tressel & Vane Rigging", 1), ("Kestrel Yard", 3), ("Twin", 7), ("TWIN.", 8)]
        ).Of(new Core.Receiving.Money(minor, currency, payer, account, words, _due));

    private static string Said(Match match) =>
        string.Join(' ', match.Takes.Select(t => $"{t.Owed.Id}:{t.Minor}"))
        + (match.Why.Length > 0 ? " ? " + match.Why : "");

    [Theory]
    // By number, in every way that people write it.
    [InlineData(100_00, "F26-00001", "1:10000")]
    [InlineData(100_00, "inv. f26 00001 thanks", "1:10000")]
    [InlineData(350_00, "F26-00001/F26-00002", "1:10000 2:25000")]
    [InlineData(100_00, "INVOICE26-00001", " ? nobody knows whose it is")]
    [InlineData(100_00, "no 26-00001", "1:10000")]
    [InlineData(90_00, "no 26-00001", " ? nobody knows whose it is")]
    [InlineData(250_00, "your order S26-00002", "2:25000")]
    // In part, and over.
    [InlineData(40_00, "F26-00001 part", "1:4000")]
    [InlineData(120_00, "F26-00001", "1:10000 ? it is more than the invoices that it names")]
    [InlineData(300_00, "F26-00001 F26-00002", " ? it is less than the invoices that it names")]
    // What is in doubt.
    [InlineData(200_00, "F26-00001 F26-00003", " ? it names invoices of several buyers")]
    [InlineData(80_00, "F26-00005", " ? it is in EUR, F26-00005 is not")]
    [InlineData(10_00, "F26-00006", " ? F26-00006 is paid already")]
    [InlineData(100_00, "F26-000011", " ? nobody knows whose it is")]
    public void A_number_says_what_it_is_for(long minor, string words, string said) =>
        Assert.Equal(said, Said(Of(minor, words)));

    [Theory]
    [InlineData(250_00, "TRESSEL AND VANE", "", " ? nobody knows whose it is")]
    [InlineData(250_00, "Tressel & Vane Rigging", "", "2:25000")]
    [InlineData(350_00, "tressel & vane rigging", "", "1:10000 2:25000")]
    [InlineData(99_00, "Tressel & Vane Rigging", "", " ? it fits none of their invoices")]
    [InlineData(100_00, "somebody", "IE12 ABCD", " ? it fits several of their invoices")]
    [InlineData(200_00, "somebody", "IE12 ABCD", "3:10000 4:10000")]
    [InlineData(80_00, "Kestrel Yard", "", " ? they owe nothing")]
    [InlineData(80_00, "Twin", "", " ? nobody knows whose it is")]
    public void Without_one_the_payer_and_the_amount_do(long minor, string payer, string account, string said) =>
        Assert.Equal(said, Said(Of(minor, "", payer, account)));

    [Fact]
    public void What_is_paid_is_not_open_for_the_next()
    {
        var matching = new Matching(_owed, new Dictionary<string, long>(), []);
        var money = new Core.Receiving.Money(100_00, "EUR", "", "", "F26-00001", _due);
        Assert.Equal("1:10000", Said(matching.Of(money)));
        Assert.Equal(" ? F26-00001 is paid already", Said(matching.Of(money)));
    }

    [Fact]
    public void Nothing_is_taken_beyond_what_came_or_what_is_open_and_never_of_two_buyers() =>
        Gen.Select(
                Gen.Select(Gen.Long[1, 4], Gen.Long[0, 900]).Array[1, 12],
                Gen.Select(Gen.Long[1, 2_000], Gen.Int[0, 13].Array[0, 3], Gen.Long[0, 4]).Array[1, 12]
            )
            .Sample(
                (items, came) =>
                {
                    var owed = items.Select((o, i) => Invoice(i + 1, $"F26-{i + 1:00000}", o.Item1, o.Item2)).ToList();
                    var left = owed.ToDictionary(o => o.Id, o => o.Open);
                    var matching = new Matching(
                        owed,
                        new Dictionary<string, long>(),
                        [("B1", 1), ("B2", 2), ("B3", 3), ("B4", 4)]
                    );
                    foreach (var (minor, numbers, payer) in came)
                    {
                        var words = string.Join(" and ", numbers.Select(n => $"F26-{n:00000}"));
                        var match = matching.Of(new Core.Receiving.Money(minor, "EUR", $"B{payer}", "", words, _due));
                        Assert.InRange(match.Taken, 0, minor);
                        Assert.True(match.Takes.Select(t => t.Owed.Buyer).Distinct().Count() <= 1);
                        // Whoever names numbers pays nothing else.
                        if (numbers.Any(n => n >= 1 && n <= owed.Count))
                            Assert.All(
                                match.Takes,
                                t => Assert.Contains(t.Owed.Number, words, StringComparison.Ordinal)
                            );
                        Assert.Equal(match.Taken < minor, match.Why.Length > 0);
                        foreach (var take in match.Takes)
                            Assert.True((left[take.Owed.Id] -= take.Minor) >= 0);
                    }
                }
            );

    private static Match OfParts(long minor, string words, DateOnly day) =>
        new Matching(
            [
                Invoice(1, "F26-00001/1", 1, 30_00),
                Invoice(2, "F26-00001/2", 1, 70_00),
                Invoice(3, "F26-00002", 1, 200_00) with
                {
                    EarlyOff = 4_00,
                    EarlyUntil = _due,
                },
                Invoice(4, "F26-00003", 1, 100_00) with
                {
                    EarlyOff = 2_00,
                    EarlyUntil = _due,
                },
            ],
            new Dictionary<string, long>(),
            [("B1", 1)]
        ).Of(new Core.Receiving.Money(minor, "EUR", "B1", "", words, day));

    [Theory]
    // An invoice in parts is paid along them, by its number or by that of a part.
    [InlineData(30_00, "F26-00001", 0, "1:3000")]
    [InlineData(100_00, "F26-00001", 0, "1:3000 2:7000")]
    [InlineData(50_00, "F26-00001", 0, "1:3000 2:2000")]
    [InlineData(70_00, "F26-00001/2", 0, "2:7000")]
    // Less what may be taken off for paying early: by number, by amount, and of several together.
    [InlineData(196_00, "F26-00002", 0, "3:19600")]
    [InlineData(196_00, "thanks", 0, "3:19600")]
    [InlineData(196_00, "thanks", 1, " ? it fits none of their invoices")]
    [InlineData(294_00, "F26-00002 F26-00003", 0, "3:19600 4:9800")]
    [InlineData(294_00, "F26-00002 F26-00003", 1, " ? it is less than the invoices that it names")]
    public void Parts_and_early_payment_are_known(long minor, string words, int late, string said) =>
        Assert.Equal(said, Said(OfParts(minor, words, _due.AddDays(late))));
}
