using System.Globalization;
using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;
using Solvenda.Web.Ledger;
using Solvenda.Web.Security;

namespace Solvenda.Web.Invoices;

/// <summary>What somebody earns of one invoice or gives back of one credit note.</summary>
/// <param name="Percent">Null for who may not see what things cost, where it is on the margin; the basis too.</param>
/// <param name="Amount">By its plan, once all is paid.</param>
/// <param name="Earned">Of it by now.</param>
public sealed record CommissionLine(
    string Name,
    string Document,
    string Order,
    string Buyer,
    DateOnly Day,
    string Plan,
    CommissionOn On,
    decimal? Percent,
    decimal Share,
    string Currency,
    decimal? Basis,
    decimal Amount,
    decimal Earned
);

/// <summary>What somebody earned in one currency.</summary>
public sealed record CommissionSum(string Name, string Currency, decimal Amount, decimal Earned);

/// <summary>Commissions of a time: who earned how much, and of what.</summary>
/// <param name="Lines">The newest; the file has all.</param>
/// <param name="More">How many are not among them.</param>
/// <param name="MayPlan">Whether whoever looks may see the plans.</param>
public sealed record CommissionsView(
    DateOnly From,
    DateOnly To,
    IReadOnlyList<CommissionSum> Sums,
    IReadOnlyList<CommissionLine> Lines,
    int More,
    bool MayPlan
);

/// <summary>What sellers earn, to be looked at, and as a file.</summary>
public static class Commissions
{
    private const Roles SeeAll = Roles.Lead | Roles.Billing | Roles.Admin;
    private const int Shown = 500;

    public static void MapCommissions(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var all = app.MapGroup("/api/commissions").WithTags("Invoices");
        all.MapGet("", Of).Needs(Rights.SeeCommissions);
        all.MapGet("/file", File).Needs(Rights.SeeCommissions).Produces(200, contentType: "text/csv");
    }

    /// <summary>Those that somebody may see: all, or their own.</summary>
    public static IQueryable<CommissionRow> SeenBy(SolvendaDb db, Actor who)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(who);
        var rows = db.Commissions.AsNoTracking();
        if (who.Kind == ActorKinds.Person && (who.Roles & SeeAll) != Roles.None)
            return rows;
        var name = Rights.SeeCommissions.Allows(who) ? who.Name : "";
        return rows.Where(c => c.Name == name);
    }

    /// <summary>Whether somebody may see by how much of what it is: of a margin only who sees what things
    /// cost.</summary>
    public static bool SeesBasis(Actor who, CommissionOn on)
    {
        ArgumentNullException.ThrowIfNull(who);
        return on != CommissionOn.Margin || Sight.SeesCost(who.Roles);
    }

    private static async Task<CommissionsView> Of(
        DateOnly? from,
        DateOnly? to,
        ClaimsPrincipal user,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var all = await AllAsync(from, to, user.ActorOf(), db, clock, cancel);
        return all with { Lines = [.. all.Lines.Take(Shown)], More = Math.Max(0, all.Lines.Count - Shown) };
    }

    private static async Task<CommissionsView> AllAsync(
        DateOnly? from,
        DateOnly? to,
        Actor who,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var (first, last) = LedgerEndpoints.Within(from, to, clock.Today);
        var rows = await SeenBy(db, who)
            .Where(c => c.Day >= first && c.Day <= last)
            .OrderByDescending(c => c.Id)
            .Select(c => new Found(
                c,
                c.Invoice.Number,
                c.Order.Number,
                c.Order.Dossier.Buyer.Name,
                c.Invoice.TotalWithTaxMinor,
                db.OpenItems.Where(o => o.InvoiceId == c.InvoiceId && o.OpenMinor > 0).Sum(o => o.OpenMinor)
            ))
            .ToListAsync(cancel);
        var lines = rows.ConvertAll(r => Line(r, SeesBasis(who, r.Row.On)));
        return new CommissionsView(
            first,
            last,
            [
                .. lines
                    .GroupBy(l => (l.Name, l.Currency))
                    .OrderBy(g => g.Key.Name, StringComparer.Ordinal)
                    .ThenBy(g => g.Key.Currency, StringComparer.Ordinal)
                    .Select(g => new CommissionSum(
                        g.Key.Name,
                        g.Key.Currency,
                        g.Sum(l => l.Amount),
                        g.Sum(l => l.Earned)
                    )),
            ],
            lines,
            0,
            (who.Roles & (Roles.Lead | Roles.Admin)) != Roles.None
        );
    }

    private sealed record Found(CommissionRow Row, string Number, string Order, string Buyer, long Total, long Open);

    private static CommissionLine Line(Found of, bool seesBasis)
    {
        var row = of.Row;
        var amount = Amount.FromMinor(row.Minor, Currency.Of(row.Currency));
        return new CommissionLine(
            row.Name,
            of.Number,
            of.Order,
            of.Buyer,
            row.Day,
            row.Plan,
            row.On,
            seesBasis ? row.Percent : null,
            row.Share,
            row.Currency,
            seesBasis ? Amount.Major(row.BasisMinor, row.Currency) : null,
            amount.Value,
            // What goes back goes back at once.
            row.Minor < 0
                ? amount.Value
                : Commission.Earned(row.On, amount, of.Open, of.Total).Value
        );
    }

    private static async Task<IResult> File(
        DateOnly? from,
        DateOnly? to,
        ClaimsPrincipal user,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var view = await AllAsync(from, to, user.ActorOf(), db, clock, cancel);
        static string Said(decimal? value) => value?.ToString("0.00####", CultureInfo.InvariantCulture) ?? "";
        string[] head =
        [
            "who",
            "document",
            "order",
            "buyer",
            "day",
            "plan",
            "on",
            "percent",
            "share",
            "currency",
            "basis",
            "amount",
            "earned",
        ];
        var rows = view.Lines.Select(l =>
            (IReadOnlyList<string>)
                [
                    l.Name,
                    l.Document,
                    l.Order,
                    l.Buyer,
                    l.Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    l.Plan,
                    l.On.ToString().ToLowerInvariant(),
                    Said(l.Percent),
                    Said(l.Share),
                    l.Currency,
                    Said(l.Basis),
                    Said(l.Amount),
                    Said(l.Earned),
                ]
        );
        return Results.Stream(
            stream => TableWriter.CsvAsync(stream, head, rows.ToAsyncEnumerable(), cancel),
            "text/csv",
            FormattableString.Invariant($"commissions {view.From:yyyy-MM-dd} to {view.To:yyyy-MM-dd}.csv")
        );
    }
}
