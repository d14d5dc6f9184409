using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Billing;
using Solvenda.Data;
using Solvenda.Formats.Tables;
using Solvenda.Web.Security;

namespace Solvenda.Web.Ledger;

/// <summary>What was sold to a buyer elsewhere in the Union, in home currency.</summary>
/// <param name="Goods">Category K.</param>
/// <param name="Services">Category AE.</param>
public sealed record UnionSaleRow(string Country, string TaxNumber, string Name, decimal Goods, decimal Services);

/// <summary>Sales of a time within the Union, buyer by buyer.</summary>
public sealed record UnionSalesView(DateOnly From, DateOnly To, string Currency, IReadOnlyList<UnionSaleRow> Sales);

/// <summary>The recapitulative statement: to be looked at, and as a file.</summary>
public static class UnionSalesEndpoints
{
    public static void MapUnionSales(this RouteGroupBuilder ledger)
    {
        ArgumentNullException.ThrowIfNull(ledger);
        ledger.MapGet("/union-sales", Of).Needs(Rights.SeeLedger);
        ledger.MapGet("/union-sales/file", File).Needs(Rights.SeeLedger).Produces(200, contentType: "text/csv");
    }

    private static async Task<UnionSalesView> Of(
        DateOnly? from,
        DateOnly? to,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var (first, last) = LedgerEndpoints.Within(from, to, clock.Today);
        var documents = await db
            .Invoices.AsNoTracking()
            .Where(i => i.Day >= first && i.Day <= last)
            .OrderBy(i => i.Id)
            .Select(i => i.Document)
            .ToListAsync(cancel);
        var issued = documents.Select(d => JsonSerializer.Deserialize<IssuedInvoice>(d)!);
        return new UnionSalesView(
            first,
            last,
            seller.Home.Code,
            [
                .. UnionSales
                    .Of(issued, seller.Home)
                    .Select(s => new UnionSaleRow(s.Country, s.TaxNumber, s.Name, s.Goods.Value, s.Services.Value)),
            ]
        );
    }

    private static async Task<IResult> File(
        DateOnly? from,
        DateOnly? to,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var view = await Of(from, to, db, seller, clock, cancel);
        string Money(decimal value) => value.ToString("F" + seller.Home.Decimals, CultureInfo.InvariantCulture);
        IReadOnlyList<string> head = ["country", "tax number", "buyer", "goods", "services", "currency"];
        var rows = view.Sales.Select(s =>
            (IReadOnlyList<string>)[s.Country, s.TaxNumber, s.Name, Money(s.Goods), Money(s.Services), view.Currency]
        );
        return Results.Stream(
            stream => TableWriter.CsvAsync(stream, head, rows.ToAsyncEnumerable(), cancel),
            "text/csv",
            FormattableString.Invariant($"within the union {view.From:yyyy-MM-dd} to {view.To:yyyy-MM-dd}.csv")
        );
    }
}
