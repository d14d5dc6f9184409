using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>Until when limits hold, what is insured of them, and one buyer who is blocked.</summary>
internal static class DemoCredit
{
    private const long Usual = 10_000_00;
    private const long Large = 30_000_00;

    public static void Add(SolvendaDb db, IReadOnlyList<BuyerRow> buyers, DateOnly today)
    {
        // Most of those that have no story of their own owe less than they may; a few are over.
        foreach (var buyer in buyers.Where(b => b.CreditLimitMinor == Usual && b.Id % 9 != 0))
            buyer.CreditLimitMinor = Usual * 3;
        foreach (var buyer in buyers.Where(b => b.CreditLimitMinor is not null))
        {
            buyer.CreditUntil = new DateOnly(today.Year + 1, 6, 30);
            // An insurer looks at the large ones alone, and covers four fifths.
            if (buyer.CreditLimitMinor >= Large)
                buyer.CreditInsuredMinor = buyer.CreditLimitMinor / 5 * 4;
        }
        buyers.First(b => b.Name == "Havnlys Laks").CreditUntil = today.AddDays(9);
        var blocked = buyers.First(b => b.Name == "Wrack Line Salvage");
        blocked.CreditBlocked = "cheques came back in spring; Stroud talks to them";
        db.Buyers.UpdateRange(buyers);
    }
}
